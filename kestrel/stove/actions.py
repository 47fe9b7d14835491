"""Writes at the stove, one transaction each."""

from dataclasses import dataclass
from typing import Any

from django.db import transaction
from django.utils import timezone

from kestrel.accounts.models import Kitchen, User
from kestrel.larder.actions import core_kitchen
from kestrel.problems import Conflict
from kestrel.sauces.models import SauceVersion
from kestrel.service.models import Service
from kestrel.service.work import gathered, typed_service
from kestrel.stove.models import Batch
from saucier.along import Along, along
from saucier.cards import Card, cards
from saucier.check import Figures, FinalFigures, check, pots_inside
from saucier.errors import BadInput
from saucier.heat import SideView
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.rescue import sign_named
from saucier.service import first_key
from saucier.sheet import Sheet, read_sheet, write_sheet
from saucier.words import plain, say

MAX_TIMER_S = 24 * 60 * 60
MAX_MENDS = 20


@dataclass(frozen=True, slots=True)
class BatchPlan:
    """What was predicted when a batch was started: at its end, after every step, in what pan, with
    the cards to cook it by. Batches of before have no ``along``."""

    name: str
    target_grade: str | None
    final: FinalFigures
    states: tuple[Figures, ...]
    cards: tuple[Card, ...]
    pan: SideView
    along: tuple[Along, ...] = ()


@transaction.atomic
def start(kitchen: Kitchen, user: User, version: SauceVersion) -> Batch:
    """Put ``version`` on the stove, with what is predicted for it kept beside; the sauces made for
    it as pots of their own, which come first.

    Raises :class:`BadInput` when there is nothing to cook.
    """
    sheet = read_sheet(version.sheet)
    if not sheet.steps:
        raise BadInput.at("steps", "there-are-no-steps-to-cook")
    core = core_kitchen(kitchen)
    batch = Batch.objects.create(
        kitchen=kitchen,
        version=version,
        sheet=version.sheet,
        started_by=user,
        plan=plan_of(sheet, core),
    )
    _start_first(batch, sheet, core)
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
        by_key[made.key] = Batch.objects.create(
            kitchen=batch.kitchen,
            version=batch.version,
            service=batch.service,
            pot=key,
            sheet=write_sheet(made.sheet),
            started_by=batch.started_by,
            plan=plan_of(made.sheet, core),
        )
    for made in made_first:
        if made.key in by_key:
            first = by_key[made.key]
            first.made_for = by_key.get(made.of, batch)
            first.save(update_fields=["made_for"])


@transaction.atomic
def start_pot(kitchen: Kitchen, user: User, service: Service, pot: str) -> Batch:
    """Put one batch of a ``pot`` of ``service`` on the stove: a mother, a sauce in its own pot, or
    what is poured from a mother.

    Raises :class:`BadInput` (``pot``) for one it does not have, and as planning does.
    """
    all_of_it = gathered(kitchen, service.document, service.pinned)
    plan = all_of_it.plan(typed_service(service.document, all_of_it.kitchen))
    pot, sauce, sheet = plan.to_cook(pot)
    version = None
    if sauce:
        version = SauceVersion.objects.get(
            sauce__kitchen=kitchen, sauce_id=int(sauce), number=all_of_it.versions[sauce]
        )
    batch = Batch.objects.create(
        kitchen=kitchen,
        version=version,
        service=service,
        pot=pot,
        sheet=write_sheet(sheet),
        started_by=user,
        plan=plan_of(sheet, all_of_it.kitchen),
    )
    _start_first(batch, sheet, all_of_it.kitchen)
    return batch


def plan_of(sheet: Sheet, core: CoreKitchen) -> dict[str, Any]:
    """What is predicted for a sheet: the final state, each step's state and card, what its
    reductions pass on the way down, the pan."""
    checked = check(sheet, core)
    plan = BatchPlan(
        name=checked.sheet.name,
        target_grade=checked.sheet.target.grade,
        final=checked.figures,
        states=tuple(state.figures for state in checked.steps),
        cards=tuple(cards(checked)),
        pan=SideView.of(checked.pan),
        along=along(checked),
    )
    told: dict[str, Any] = plain(plan)
    return told


@transaction.atomic
def go_to(batch: Batch, step: int, revision: int) -> Batch:
    """Go to ``step`` (0 is the first; one past the last is the weighing). The timer stops.

    Raises :class:`BadInput` for a step that is not there, :class:`Conflict` when the batch has
    moved since ``revision``.
    """
    batch = _current(batch, revision)
    last = len(batch.plan["cards"])
    if not 0 <= step <= last:
        raise BadInput.at("step", "is-not-a-step-of-it", step=step, last=last)
    batch.step, batch.timer_started_at, batch.timer_s = step, None, 0
    return _moved(batch)


@transaction.atomic
def run_timer(batch: Batch, seconds: int | None, revision: int) -> Batch:
    """Start the step's timer over ``seconds``, or stop it with None. Raises as :func:`go_to`."""
    batch = _current(batch, revision)
    if seconds is not None and not 1 <= seconds <= MAX_TIMER_S:
        raise BadInput.at("seconds", "is-no-time-to-wait", seconds=seconds)
    batch.timer_started_at = None if seconds is None else timezone.now()
    batch.timer_s = seconds or 0
    return _moved(batch)


@transaction.atomic
def mend(batch: Batch, sign: str, title: str, do: list[str], revision: int) -> Batch:
    """Write down a remedy taken at the step the batch is at. Raises as :func:`go_to`, and
    :class:`BadInput` for a sign nobody knows."""
    known = sign_named(sign)
    batch = _current(batch, revision)
    if not 1 <= len(title.strip()) <= 120 or len(batch.mends) >= MAX_MENDS:
        raise BadInput.at("title", "mend-is-empty-or-long")
    words = [line[:300] for line in do[:8]]
    batch.mends = [
        *batch.mends,
        {"step": batch.step, "sign": str(known.name), "title": title.strip(), "do": words},
    ]
    return _moved(batch)


@transaction.atomic
def end(batch: Batch, status: Batch.Status) -> Batch:
    """Take ``batch`` off the stove: done, or left unfinished."""
    batch = Batch.objects.select_for_update().get(pk=batch.pk)
    batch.status, batch.ended_at, batch.timer_started_at = status, timezone.now(), None
    return _moved(batch)


@transaction.atomic
def put_back(batch: Batch) -> Batch:
    """Put a batch that was left back on the stove, where it was."""
    batch = Batch.objects.select_for_update().get(pk=batch.pk)
    if batch.status == Batch.Status.LEFT:
        batch.status, batch.ended_at = Batch.Status.ON, None
        _moved(batch)
    return batch


def _current(batch: Batch, revision: int) -> Batch:
    batch = Batch.objects.select_for_update().get(pk=batch.pk)
    if batch.revision != revision or batch.status != Batch.Status.ON:
        raise Conflict(say("moved-on-elsewhere"))
    return batch


def _moved(batch: Batch) -> Batch:
    batch.revision += 1
    batch.save()
    return batch
