"""Putting pots on the stove, one transaction each. What is done at them then: ``doing``."""

from datetime import date, datetime
from typing import Any

from django.db import transaction

from kestrel.accounts.models import Kitchen, User
from kestrel.larder.actions import core_kitchen
from kestrel.live import tell
from kestrel.problems import Conflict
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.service.models import Service
from kestrel.service.work import gathered, typed_service
from kestrel.stove.doing import free_number, milestone
from kestrel.stove.models import Batch, Milestone
from kestrel.stove.pans import in_a_free_pan, pan_named, pots_in, with_free_pans
from kestrel.stove.plans import plan_of
from kestrel.stove.signals import pot_of_service_begun
from saucier.check import check, pots_inside
from saucier.errors import BadInput
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.run_up import Aside
from saucier.service import first_key
from saucier.sheet import Sheet, SheetPan, read_sheet, write_sheet
from saucier.watch import middle_c
from saucier.words import plain, say


@transaction.atomic
def start(
    kitchen: Kitchen, user: User, version: SauceVersion, began_at: datetime | None = None
) -> Batch:
    """Put ``version`` on the stove, with what is predicted for it kept beside; the sauces made for
    it as pots of their own, which come first. ``began_at``: when it began, where that is told later.

    Raises :class:`BadInput` when there is nothing to cook.
    """
    sheet = read_sheet(version.sheet)
    if not sheet.steps:
        raise BadInput.at("steps", "there-are-no-steps-to-cook")
    core = core_kitchen(kitchen)
    sheet, pan_told = in_a_free_pan(kitchen, sheet, core)
    batch = Batch.objects.create(
        kitchen=kitchen,
        version=version,
        sheet=write_sheet(sheet) if pan_told else version.sheet,
        started_by=user,
        plan=plan_of(sheet, core, pan_told),
    )
    if began_at is not None:
        Batch.objects.filter(pk=batch.pk).update(started_at=began_at)
        batch.refresh_from_db()
    _start_first(batch, sheet, core)
    return _begun(batch)


def _begun(batch: Batch) -> Batch:
    """Its first step begins with it, its sauce was cooked last then, and every screen hears of it."""
    if batch.version is not None and not batch.drawn_key:
        Sauce.objects.filter(pk=batch.version.sauce_id).update(cooked_at=batch.started_at)
    milestone(batch, Milestone.Kind.BEGAN, batch.started_at, batch.started_by)
    batch.began = {"0": batch.started_at.isoformat()}
    batch.save(update_fields=["began"])
    transaction.on_commit(lambda: tell(batch.kitchen_id, "batch", {"id": batch.pk}))
    return batch


def _start_first(batch: Batch, sheet: Sheet, core: CoreKitchen) -> None:
    """Put the sauces made for ``batch`` on beside it, but for those of its service that are on or
    done already."""
    there = set[str]()
    if batch.service_id is not None:
        rows = Batch.objects.filter(service=batch.service_id).exclude(status=Batch.Status.LEFT)
        there = set(rows.values_list("pot", flat=True))
    by_key: dict[str, Batch] = {"": batch}
    made_first = pots_inside(check(sheet, core), core)
    # The pots a sauce is for are known once all are there: those it is made for come after it.
    for made in made_first:
        key = first_key(batch.pot, made.key)
        if key in there:
            continue
        made_in, pan_told = in_a_free_pan(batch.kitchen, made.sheet, core)
        by_key[made.key] = _begun(
            Batch.objects.create(
                kitchen=batch.kitchen,
                version=batch.version,
                service=batch.service,
                pot=key,
                sheet=write_sheet(made_in),
                started_by=batch.started_by,
                plan=plan_of(made_in, core, pan_told),
            )
        )
    for made in made_first:
        if made.key in by_key:
            first = by_key[made.key]
            first.made_for = by_key.get(made.of, batch)
            first.save(update_fields=["made_for"])


@transaction.atomic
def start_pot(
    kitchen: Kitchen,
    user: User,
    service: Service,
    pot: str,
    *,
    one_more: bool = False,
    use_unshown: bool | None = None,
) -> Batch:
    """Put one batch of a ``pot`` of ``service`` on the stove: a mother, a sauce in its own pot, or
    what is poured from a mother. As often as it is planned, or ``one_more``; what was taken off does not
    count.

    Raises :class:`BadInput` (``pot``) for one it does not have, and as planning does;
    :class:`Conflict` with the newest ``batch`` where as many as planned were begun, and with what it ``asks`` where
    it would draw on what nothing shows to have cooled in time (``use_unshown``: the answer, None: not asked yet).
    """
    all_of_it = gathered(kitchen, service.document, service.pinned)
    plan = all_of_it.plan(typed_service(service.document, all_of_it.kitchen))
    pot, sauce, sheet = plan.to_cook(pot)
    begun = Batch.objects.filter(service=service, pot=pot).exclude(status=Batch.Status.LEFT)
    planned = plan.batches_of(pot)
    newest = begun.order_by("status", "pk").last()
    if newest is not None and begun.count() >= planned and not one_more:
        on = newest.status == Batch.Status.ON
        code = "pot-is-on" if on else "pot-is-cooked"
        told = say(code, name=newest.plan["name"], planned=planned)
        raise Conflict(told, batch=newest.pk, on=on)
    version = None
    if sauce:
        version = SauceVersion.objects.get(
            sauce__kitchen=kitchen, sauce_id=int(sauce), number=all_of_it.versions[sauce]
        )
    mothers = {branch.key: branch.pot for branch in plan.branches if branch.key != branch.pot}
    hers = Batch.objects.filter(service=service, pot=mothers.get(pot, "")).values_list(
        "pk", flat=True
    )
    sheet, pan_told = in_a_free_pan(kitchen, sheet, all_of_it.kitchen, list(hers))
    batch = Batch.objects.create(
        kitchen=kitchen,
        version=version,
        service=service,
        pot=pot,
        number=free_number(service.pk, pot),
        sheet=write_sheet(sheet),
        started_by=user,
        plan=plan_of(sheet, all_of_it.kitchen, pan_told),
    )
    _start_first(batch, sheet, all_of_it.kitchen)
    pot_of_service_begun.send(Batch, batch=batch, user=user, plan=plan, use_unshown=use_unshown)
    return _begun(batch)


def start_kept(
    kitchen: Kitchen,
    user: User,
    sheet: Sheet,
    drawn_key: str,
    version: SauceVersion | None,
    *,
    keeps_until: date,
    service: Service | None = None,
    pot: str = "",
) -> Batch:
    """What was kept until a day, warmed by ``sheet``: a pot of its own. ``drawn_key``: the line of the record that it was
    taken out by; ``version`` of the sauce it is (None: of none)."""
    core = core_kitchen(kitchen)
    sheet, pan_told = in_a_free_pan(kitchen, sheet, core)
    batch = Batch.objects.create(
        kitchen=kitchen,
        version=version,
        service=service,
        pot=pot,
        number=free_number(service.pk, pot) if service else 1,
        sheet=write_sheet(sheet),
        started_by=user,
        plan={**plan_of(sheet, core, pan_told), "keeps_until": keeps_until.isoformat()},
        drawn_key=drawn_key,
    )
    return _begun(batch)


@transaction.atomic
def start_free(kitchen: Kitchen, user: User, name: str, pan: str) -> Batch:
    """A pot of nothing yet, called ``name``, in ``pan`` of this kitchen's (empty: the one that fits).
    Raises :class:`BadInput` by field."""
    name = name.strip()
    if not 1 <= len(name) <= 120:
        raise BadInput.at("name", "free-has-no-name")
    core = core_kitchen(kitchen)
    document: dict[str, Any] = {"name": name, "steps": []}
    if pan:
        found = pan_named(pan, core)
        there = pots_in(kitchen).get(pan, [])
        if len(there) >= found.count:
            raise BadInput.at("pan", "pan-is-under-another", pan=pan, other=there[-1])
        document["pan"] = SheetPan.of(found).model_dump(mode="json", exclude_none=True)
    batch = Batch.objects.create(
        kitchen=kitchen,
        kind=Batch.Kind.FREE,
        sheet=document,
        started_by=user,
        plan=plan_of(read_sheet(document), with_free_pans(kitchen, core)),
    )
    return _begun(batch)


@transaction.atomic
def start_aside(
    kitchen: Kitchen, user: User, aside: Aside, ingredient: str, task: str = ""
) -> Batch:
    """Something that is no sauce; ``ingredient`` where it is fish or meat, for its middle; ``task`` of a run-up that it
    is. One that is on already is that. Raises
    :class:`BadInput` (``ingredient``)."""
    on = Batch.objects.filter(kitchen=kitchen, kind=Batch.Kind.ASIDE, pot=task, status="on")
    if task and (there := on.first()) is not None:
        return there
    core = core_kitchen(kitchen)
    if ingredient and ingredient not in core.larder:
        raise BadInput.at("ingredient", "is-no-ingredient", key=ingredient[:60])
    row = core.larder[ingredient] if ingredient else None
    nothing = read_sheet({"name": aside.name, "steps": []})
    plan = plan_of(nothing, core) | {
        "cards": plain(aside.cards),
        "middle_c": middle_c(row) if row and row.role in ("fish", "meat", "seafood") else None,
    }
    batch = Batch.objects.create(
        kitchen=kitchen,
        kind=Batch.Kind.ASIDE,
        pot=task,
        sheet=write_sheet(nothing),
        started_by=user,
        plan=plan,
    )
    return _begun(batch)
