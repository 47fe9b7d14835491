"""From the fridge to the stove: so much is drawn from its tray, and is a pot that is warmed and let down."""

from datetime import datetime
from typing import Any

from django.db import transaction
from django.dispatch import receiver

from kestrel.accounts.models import Kitchen, User
from kestrel.keeping.actions import frozen, told_of, written_down
from kestrel.keeping.drawing import draw, mark_of
from kestrel.keeping.events import Drawn
from kestrel.keeping.models import Event, Kept
from kestrel.keeping.trays import trays_of
from kestrel.larder.actions import core_kitchen, rules_of
from kestrel.same_thing import refuse_other_thing
from kestrel.service.models import Service
from kestrel.service.work import gathered, typed_service
from kestrel.stove.actions import start_kept
from kestrel.stove.models import Batch
from kestrel.stove.signals import middle_read
from saucier.errors import BadInput
from saucier.rescue import as_thick_as, warmed_again
from saucier.service import Plan
from saucier.sheet import read_sheet
from saucier.thickness import grade_named
from saucier.words import say

WARM = "warm:"
"""What the key of a task of a run-up begins with that warms what is kept: its sauce and its age follow."""


@transaction.atomic
def warm_up(kitchen: Kitchen, user: User, kept: Kept, drawn: Drawn) -> Batch:
    """``drawn`` of ``kept`` on the stove, as a pot of its own; with a key that is there already, the pot that was begun
    then. Raises :class:`BadInput` by field, as drawing does."""
    there = Event.objects.filter(kitchen=kitchen, key=drawn.key).first()
    if there is not None:
        refuse_other_thing((there.kept_id, there.kind), (kept.pk, drawn.kind))
        return Batch.objects.get(kitchen=kitchen, drawn_key=drawn.key)
    kept = Kept.objects.select_for_update().get(pk=kept.pk)
    if frozen(kept):
        raise BadInput.at("kept", "is-frozen-still")
    purpose = drawn.purpose or str(say("kept.warmed-up"))
    event = written_down(kitchen, user, kept, drawn.model_copy(update={"purpose": purpose}))
    told_of(kept)
    return _start(kitchen, user, event)


@transaction.atomic
def warm_for_service(
    kitchen: Kitchen, user: User, service: Service, task: str, use_unshown: bool | None = None
) -> Batch:
    """What ``service`` takes of a sauce that is kept, on the stove: its ``task`` of the run-up names the sauce
    (``warm:SAUCE:AGEd``). Of several lots the next that is not on yet. Raises :class:`BadInput` (``pot``) where nothing
    is kept of it, or all of it is on; :class:`Conflict` as drawing does."""
    sauce = task.removeprefix(WARM).split(":")[0]
    whole = gathered(kitchen, service.document, service.pinned)
    plan = whole.plan(typed_service(service.document, whole.kitchen))
    draw(service, user, plan, use_unshown)
    on = set(
        Batch.objects.filter(service=service)
        .exclude(status=Batch.Status.LEFT)
        .values_list("drawn_key", flat=True)
    )
    drawn = Event.objects.filter(kitchen=kitchen, kind="drawn", key__startswith=mark_of(service))
    for event in drawn.select_related("kept__batch__version", "kept__kitchen").order_by("pk"):
        version = event.kept.batch.version
        if event.key in on or version is None or str(version.sauce_id) != sauce:
            continue
        return _start(kitchen, user, event, service, task.partition("#")[0], _wanted(plan, sauce))
    raise BadInput.at("pot", "nothing-kept-to-warm")


def _wanted(plan: Plan, sauce: str) -> str | None:
    """The grade in which ``plan`` takes what is kept of ``sauce``; of several the thickest, which can be let down."""
    takers = (one for one in plan.branches if one.sauce == sauce and one.from_stock_ml > 0.0)
    grades = [grade_named(one.grade) for one in takers if one.grade]
    return max(grades, key=lambda grade: grade.low).key if grades else None


def _start(
    kitchen: Kitchen,
    user: User,
    drawn: Event,
    service: Service | None = None,
    pot: str = "",
    grade: str | None = None,
) -> Batch:
    """What was ``drawn``, on the stove, let down to ``grade`` (None: its own)."""
    kept, core = drawn.kept, core_kitchen(kitchen)
    made = as_thick_as(read_sheet(kept.sheet), kept.viscosity_pa_s, core)
    grams, reheat_c = float(drawn.data["grams"]), rules_of(kitchen).reheat_c
    sheet = warmed_again(made, grams, grade or kept.grade or None, reheat_c, core)
    return start_kept(
        kitchen,
        user,
        sheet.model_copy(update={"name": kept.name[:120]}),
        drawn.key,
        kept.batch.version,
        keeps_until=min(tray.use_by for tray in trays_of(kept, ahead=False)),
        service=service,
        pot=pot,
    )


@receiver(middle_read, dispatch_uid="keeping.warmed")
def write_warmed(
    sender: object,
    batch: Batch,
    user: User,
    key: str,
    at: datetime,
    asked_c: float,
    read_c: float | None,
    **more: Any,
) -> None:
    """How warm its middle was when it was said to be warm goes into the record of what is kept: what the probe read,
    or that nobody read it."""
    if not batch.drawn_key:
        return
    drawn = Event.objects.filter(kitchen=batch.kitchen, key=batch.drawn_key).first()
    if drawn is None:
        return
    data: dict[str, Any] = {"asked_c": asked_c, "met": read_c is not None and read_c >= asked_c}
    if read_c is not None:
        data["celsius"] = round(read_c, 1)
    Event.objects.create(
        kitchen=batch.kitchen,
        kept=drawn.kept,
        key=f"warm-{key}"[:40],
        kind="warmed",
        data=data,
        at=at,
        by=user,
    )
    told_of(drawn.kept)
