"""Writes on the larder, and the core's view of a kitchen."""

import json
import math
from collections.abc import Iterable, Mapping
from dataclasses import asdict, replace
from functools import lru_cache
from typing import Any

from django.db import transaction
from django.db.models import F, TextField
from django.db.models.functions import Cast

from kestrel.accounts.models import Kitchen
from kestrel.larder.learnt import Thing, in_force, knowing
from kestrel.larder.models import Habits, Learnt, OwnIngredient, OwnMeasure, Pan
from kestrel.problems import Conflict
from kestrel.room import room_for_another
from saucier import constants as K
from saucier.demand import use_named
from saucier.errors import BadInput
from saucier.exchange import RowRead
from saucier.heat import POT_SHAPES
from saucier.keeping import USUAL, Rules, read_rules, shipped_rules
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.larder import (
    Ingredient,
    Measure,
    ingredient_from_row,
    measure_from_row,
    row_of,
    shipped_larder,
    shipped_measures,
)
from saucier.larder.measures import measure_fits
from saucier.sheet import SheetPan, read_part
from saucier.words import say


def core_kitchen(kitchen: Kitchen, *, usual: bool = False) -> CoreKitchen:
    """What the core needs to know of ``kitchen``: the shipped larder and measures with the
    kitchen's own rows in their place, the pots it has, and what it has learned and goes by (not where
    the ``usual`` is asked for)."""
    learned = {} if usual else in_force(kitchen)
    return knowing(_core_kitchen(kitchen, learned), learned)


def _core_kitchen(kitchen: Kitchen, learned: Mapping[Thing, Learnt]) -> CoreKitchen:
    rows, own = _texts(OwnIngredient, kitchen), _texts(OwnMeasure, kitchen)
    larder, measures = shipped_larder(), shipped_measures()
    if rows:
        larder = larder.with_rows(map(_read_row, rows))
    if own:
        measures = measures.with_rows(map(_read_measure, own))
    if kitchen.tablespoon_ml != 15:
        measures = measures.with_rows(_spoons_of(kitchen.tablespoon_ml))
    pots = tuple(pan.core() for pan in Pan.objects.filter(kitchen=kitchen, shape__in=POT_SHAPES))
    habits = Habits.objects.filter(kitchen=kitchen).first()
    own_film = habits.film_ml if habits else None
    film = learned.get((Learnt.Kind.FILM, "", ""))
    film_ml = K.FILM_ML * math.exp(film.log) if film and own_film is None else own_film
    own_per_ml = habits.per_ml if habits else {}
    served = {
        of: use_named(of).per_ml * math.exp(row.log)
        for (kind, of, _), row in learned.items()
        if kind == Learnt.Kind.SERVED
    }
    whisk_ml = habits.whisk_ml if habits else None
    return CoreKitchen(
        larder,
        measures=measures,
        pans=pots,
        per_ml={**served, **own_per_ml},
        film_ml=K.FILM_ML if film_ml is None else film_ml,
        whisk_ml=K.WHISK_ML if whisk_ml is None else whisk_ml,
        hot_c=_rules(habits).hot_c,
    )


@lru_cache(maxsize=4)
def _spoons_of(ml: int) -> tuple[Measure, ...]:
    """A kitchen's tablespoon, where it is not the usual 15 mL, under the names it is typed by."""
    row = {
        "of": "",
        "size": str(ml),
        "unit": "mL",
        "packing": "1",
        "spread_pct": "6",
        "kind": "spoon",
    }
    names = ("tbsp", "tablespoon")
    return tuple(measure_from_row({**row, "name": name, "words": "level"}) for name in names)


def _texts(of: type[OwnIngredient] | type[OwnMeasure], kitchen: Kitchen) -> list[str]:
    """A kitchen's own rows as they are kept: every request reads them, and most have been read before."""
    kept = of.objects.filter(kitchen=kitchen).annotate(text=Cast("row", TextField()))
    return list(kept.values_list("text", flat=True))


@lru_cache(maxsize=8192)
def _read_row(text: str) -> Ingredient:
    """A kitchen's own row, read: the same text is the same ingredient."""
    return ingredient_from_row(whole_row(json.loads(text)))


@lru_cache(maxsize=4096)
def _read_measure(text: str) -> Measure:
    return measure_from_row(json.loads(text))


def whole_row(row: Mapping[str, str]) -> dict[str, str]:
    """A kitchen's own ``row``; what columns have come since it was kept are as in the shipped one."""
    shipped = shipped_larder()
    usual = row_of(shipped[row["key"]]) if row.get("key") in shipped else {}
    return {**usual, **row}


def proposed(kitchen: Kitchen, rows: Iterable[Mapping[str, str]]) -> CoreKitchen:
    """:func:`core_kitchen` as it would be with ``rows`` in it; nothing is stored.
    Raises :class:`BadInput` by column."""
    core = core_kitchen(kitchen)
    larder = core.larder.with_rows(ingredient_from_row(row) for row in rows)
    return replace(core, larder=larder)


@transaction.atomic
def save_ingredient(kitchen: Kitchen, row: Mapping[str, str], revision: int) -> OwnIngredient:
    """Keep ``row`` as this kitchen's own. ``revision`` is the one it was made from, 0 for a row
    the kitchen has not touched yet.

    Raises :class:`BadInput` by column, :class:`Conflict` when it was changed meanwhile.
    """
    read = ingredient_from_row(row)
    there = OwnIngredient.objects.select_for_update().filter(kitchen=kitchen, key=read.key).first()
    if there is not None and not there.retired and there.row == row_of(read):
        return there  # sent again: the answer was lost
    if (there.revision if there else 0) != revision:
        raise Conflict(
            say("changed-elsewhere", name=read.name),
            row=there.row if there else row_of(shipped_larder()[read.key]),
            revision=there.revision if there else 0,
        )
    if there is None:
        room_for_another(OwnIngredient, kitchen, "key")
    own = there or OwnIngredient(kitchen=kitchen, key=read.key, revision=0)
    own.row, own.retired, own.revision = row_of(read), False, own.revision + 1
    own.save()
    return own


@transaction.atomic
def back_to_shipped(kitchen: Kitchen, key: str) -> None:
    """Take this kitchen's own row of ``key`` away: a shipped one is as it came, one of the
    kitchen's own is no longer offered while sauces with it stay as they are."""
    rows = OwnIngredient.objects.filter(kitchen=kitchen, key=key)
    if key in shipped_larder():
        rows.delete()
    else:
        rows.update(retired=True, revision=F("revision") + 1)


@transaction.atomic
def take_in(kitchen: Kitchen, rows: Iterable[RowRead]) -> int:
    """Keep the rows of a file that are new or changed; how many that were."""
    kept = 0
    for one in rows:
        if one.ingredient is None or one.status == "same":
            continue
        room_for_another(OwnIngredient, kitchen, "csv", key=one.key)
        own, _ = OwnIngredient.objects.get_or_create(
            kitchen=kitchen, key=one.key, defaults={"row": {}, "revision": 0}
        )
        own.row, own.retired, own.revision = row_of(one.ingredient), False, own.revision + 1
        own.save()
        kept += 1
    return kept


@transaction.atomic
def save_measure(kitchen: Kitchen, row: Mapping[str, str]) -> OwnMeasure:
    """Keep ``row`` as this kitchen's own measure, in place of the one of its name for the same
    thing. Raises :class:`BadInput` by column."""
    read = measure_from_row(dict(row))
    measure_fits(read, core_kitchen(kitchen).larder)
    room_for_another(OwnMeasure, kitchen, "name", name=read.name, of=read.of)
    own, _ = OwnMeasure.objects.update_or_create(
        kitchen=kitchen, name=read.name, of=read.of, defaults={"row": {**row, "name": read.name}}
    )
    return own


def rules_of(kitchen: Kitchen) -> Rules:
    """The rule set this kitchen goes by."""
    return _rules(Habits.objects.filter(kitchen=kitchen).first())


def _rules(habits: Habits | None) -> Rules:
    if habits is None or habits.rules is None:
        return shipped_rules()[USUAL]
    return read_rules(habits.rules)


def set_rules(kitchen: Kitchen, given: Mapping[str, Any]) -> Rules:
    """Go by a shipped rule set, named by its ``key`` alone, or by one of its own. Raises :class:`BadInput`
    by field."""
    key = given.get("key")
    if set(given) == {"key"}:
        if not isinstance(key, str) or key not in shipped_rules():
            raise BadInput.at("key", "is-no-rule-set", key=str(key)[:40])
        rules = shipped_rules()[key]
    else:
        rules = read_rules({**given, "key": "own"})
    habits, _ = Habits.objects.get_or_create(kitchen=kitchen)
    habits.rules = rules.model_dump(mode="json")
    habits.save(update_fields=["rules"])
    return rules


_POT_HABITS = {"film": (0.0, 500.0), "whisk": (1000.0, 200_000.0)}
"""Habits of every pot, with the least and the most mL they may be."""


@transaction.atomic
def set_habit(kitchen: Kitchen, what: str, value: float | None) -> Habits:
    """How much this kitchen gives for a use, what clings to a pot (``film``) or the most that is
    whisked in one (``whisk``); None: the usual again. Raises :class:`BadInput` (field ``what`` or
    ``value``)."""
    low, most = _POT_HABITS.get(what, (0.0, 5000.0))
    if what not in _POT_HABITS:
        try:
            use_named(what)
        except BadInput as bad:
            raise BadInput(replace(bad.problems[0], field="what")) from None
    if value is not None and not low <= value <= most:
        raise BadInput.at("value", "habit-is-out-of-reach", value=value, low=low, most=most)
    habits, _ = Habits.objects.get_or_create(kitchen=kitchen)
    if what in _POT_HABITS:
        setattr(habits, f"{what}_ml", value)
    elif value is None or value == 0.0:
        habits.per_ml = {key: ml for key, ml in habits.per_ml.items() if key != what}
    else:
        habits.per_ml = {**habits.per_ml, what: value}
    habits.save()
    return habits


MOST_PANS = 50


@transaction.atomic
def add_pan(kitchen: Kitchen, count: object = 1, **measures: object) -> Pan:
    """A pan for ``kitchen``, ``count`` of it. Raises :class:`BadInput` by field."""
    text = str(count).strip() or "1"
    if not text.isascii() or not text.isdecimal() or not 1 <= int(text[:6]) <= MOST_PANS:
        raise BadInput.at("count", "is-no-number-of-pans", shown=text[:20], most=MOST_PANS)
    pan = read_part(SheetPan, measures, "")
    if not pan.name.strip():
        raise BadInput.at("name", "pan-has-no-name")
    room_for_another(Pan, kitchen, "name")
    core = replace(pan.as_pan(), count=int(text))
    return Pan.objects.create(kitchen=kitchen, **{**asdict(core), "name": core.name.strip()})
