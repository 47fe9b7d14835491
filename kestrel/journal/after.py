"""What became of a batch once it was done: portions, what was thrown away, what clung to the pot."""

import math
from collections.abc import Iterator
from typing import Any

from django.db import transaction

from kestrel.accounts.models import User
from kestrel.journal.models import Entry, Served
from kestrel.larder.actions import core_kitchen
from kestrel.same_thing import refuse_other_thing
from kestrel.service.actions import row_number
from kestrel.service.models import Dish
from kestrel.stove.models import Batch
from kestrel.stove.typed import count_typed, grams_typed, without_pan
from saucier import constants as K
from saucier.demand import need_for
from saucier.dish import needs_of, read_dish
from saucier.errors import BadInput, Problem, problem
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.sheet import read_sheet

MOST_PORTIONS = 20_000.0
_FILM_OFF, _SERVED_OFF = 0.35, 0.15
"""By how much what clings to one pot, or goes on one evening's plates, differs from the next."""
_FACTORS = (0.2, 5.0)
"""What is so far off was counted wrong, and teaches nothing."""


@transaction.atomic
def say_served(
    batch: Batch,
    user: User,
    *,
    key: str,
    portions: str,
    thrown: str,
    reason: str,
    emptied: str,
) -> Served:
    """What became of ``batch``, as it was typed; with a ``key`` that is there already, what was said then.
    ``emptied``: the emptied pot on the scale. Raises :class:`BadInput` by field."""
    there = Served.objects.filter(kitchen=batch.kitchen, key=key).first()
    if there is not None:
        refuse_other_thing(there.batch_id, batch.pk)
        return there
    problems: list[Problem] = []
    made, kept = made_g(batch), kept_g(batch)
    count = count_typed(portions, "portions", MOST_PORTIONS, problems)
    thrown_g = grams_typed(thrown, "thrown", problems, nothing=True)
    left = max(0.0, made - kept)
    if thrown_g is not None and thrown_g > left + 0.5:
        problems.append(problem("thrown", "so-much-was-not-there", left_g=left))
    if thrown_g and not reason.strip():
        problems.append(problem("reason", "thrown-away-why"))
    film_g = grams_typed(emptied, "emptied", problems)
    if film_g is not None:
        film_g = without_pan(film_g, batch.plan["pan"], "emptied", problems)
        if not problems and film_g > made:
            tare_g = float(batch.plan["pan"]["tare_g"])
            problems.append(problem("emptied", "is-no-emptied-pot", tare_g=tare_g))
    if not (problems or portions.strip() or thrown.strip() or emptied.strip()):
        problems.append(problem("portions", "nothing-was-said"))
    if problems:
        raise BadInput(*problems)
    row = Served(
        kitchen=batch.kitchen,
        batch=batch,
        key=key,
        portions=count,
        thrown_g=thrown_g,
        reason=reason.strip()[:120],
        film_g=film_g,
        by=user,
    )
    row.told = list(_told(row, made, kept))
    row.save()
    return row


def made_g(batch: Batch) -> float:
    """What there was of it: as it was weighed, else as it was planned."""
    weighed = _weighed_g(batch)
    if weighed is not None:
        return weighed
    final = batch.plan["final"]
    return float(final.get("total_g") or final["mass_g"])


def _weighed_g(batch: Batch) -> float | None:
    entry = Entry.objects.filter(batch=batch).prefetch_related("corrections").first()
    return None if entry is None else entry.stands.weighed_g


def kept_g(batch: Batch) -> float:
    """What was put away of it."""
    return float(sum(batch.kept.values_list("grams", flat=True)))


def _told(row: Served, made: float, kept: float) -> Iterator[dict[str, Any]]:
    """What it teaches: what clings to the pot, what each portion really took."""
    final = row.batch.plan["final"]
    density = max(0.5, float(final["mass_g"]) / max(1.0, float(final["volume_ml"])))
    if row.film_g:
        yield from _line("film", "", row.film_g / density / K.FILM_ML, _FILM_OFF)
    if not row.portions or row.thrown_g is None or _weighed_g(row.batch) is None:
        return  # how much went on the plates is not known
    used_ml = (made - kept - row.thrown_g - (row.film_g or K.FILM_ML * density)) / density
    asked = _asked(row.batch)
    if asked is not None and used_ml > 0.0:
        use, each_ml = asked
        yield from _line("served", use, used_ml / row.portions / each_ml, _SERVED_OFF)


def _line(kind: str, of: str, factor: float, spread: float) -> Iterator[dict[str, Any]]:
    if _FACTORS[0] <= factor <= _FACTORS[1]:
        yield {"kind": kind, "of": of, "at": "", "log": math.log(factor), "spread": spread}


def _asked(batch: Batch) -> tuple[str, float] | None:
    """The one use a batch was for, and the mL each portion usually takes; None where it was for several,
    or for one whose amount its dish fixes."""
    if batch.version is None:
        return None
    if batch.service is None:
        serves = read_sheet(batch.sheet).target.serves
        if serves is None or serves.per_ml:
            return None
        asked = need_for(serves)
        return serves.use, asked.use.per_ml * asked.each
    sauce = str(batch.version.sauce_id)
    found: dict[str, float] = {}
    portions = 0.0
    lines = batch.service.document.get("lines", [])
    keys = [row_number(line.get("dish")) for line in lines]
    dishes = Dish.objects.filter(kitchen=batch.kitchen).in_bulk([key for key in keys if key])
    usual = CoreKitchen(core_kitchen(batch.kitchen, usual=True).larder)
    for key, line in zip(keys, lines, strict=True):
        row = dishes.get(key) if key else None
        if row is None:
            continue
        dish = read_dish({**row.document, "margin_pct": 0})
        needs = needs_of(dish, float(line["portions"]), usual)
        uses = zip(dish.sauces, needs, strict=True)
        mine = [(used, need) for used, need in uses if used.sauce == sauce]
        if any(used.per_ml is not None for used, _ in mine):
            return None
        for _, need in mine:
            found[need.use.key] = found.get(need.use.key, 0.0) + need.volume_ml
        portions += float(line["portions"]) if mine else 0.0
    if len(found) != 1 or not portions:
        return None
    use, ml = next(iter(found.items()))
    return use, ml / portions
