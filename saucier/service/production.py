"""The production sheet: what to buy and weigh, in which order, for whom, at what cost."""

import math
from dataclasses import dataclass

from saucier import constants as K
from saucier.cards import cards
from saucier.check import CheckedSheet, check
from saucier.kitchen import Kitchen
from saucier.larder import ALLERGENS, Ingredient
from saucier.service.costing import toppings_g, usable_g
from saucier.service.on_hand import ROUX_OF
from saucier.service.planned import BranchPlan, FirstPot, LinePlan, Plan, PotPlan
from saucier.steps import Weighed
from saucier.units import Amount, kitchen_round
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Buy:
    """One ingredient of the whole service: ``used_g`` as it goes in, ``bought_g`` with trim and
    drain, less ``on_hand_g``; ``volume_ml`` of what pours (None for the rest), which is bought by volume too: ``bought_ml``, in packs of ``pack_ml``; ``packs`` of ``pack_g`` (0: sold loose) and what it ``cost``s."""

    ingredient: str
    name: str
    role: str
    used_g: float
    bought_g: float
    on_hand_g: float
    packs: int
    pack_g: float
    cost: float
    spoons: Amount | None
    volume_ml: float | None
    bought_ml: float | None
    pack_ml: float | None


@dataclass(frozen=True, slots=True)
class WeighOut:
    """What to weigh out for one pot or branch (one of ``batches``), and its steps in short: how
    thick it is then (``grade``), which dishes it ``feeds``."""

    key: str
    name: Sentence | str
    of: str
    grade: str | None
    feeds: tuple[str, ...]
    batches: int
    weighed: tuple[Weighed, ...]
    steps: tuple[Sentence, ...]
    makes_ml: float
    makes_g: float
    minutes: float
    cost: float


@dataclass(frozen=True, slots=True)
class ServeOut:
    """How a sauce is given out for a line: mL and g for each portion or vessel, the same in the
    kitchen's ladles, and what is kept back."""

    line: int
    dish: Sentence
    sauce: str
    each: Sentence | str
    each_ml: float
    each_g: float
    ladles: Sentence | None
    kept_back_ml: float


@dataclass(frozen=True, slots=True)
class Stretch:
    """What carrying a costly solid with a cheaper one does: a tenth of the solids' weight moved
    from ``costly`` to ``cheaper`` changes a portion's cost by ``saves``."""

    dish: str
    costly: str
    cheaper: str
    saves: float


@dataclass(frozen=True, slots=True)
class MatrixRow:
    """A dish, and for each allergen of the sheet whether it brings it."""

    dish: Sentence
    marks: tuple[bool, ...]


@dataclass(frozen=True, slots=True)
class Production:
    """Everything the kitchen needs on paper. ``matrix`` is dish by allergen."""

    buy: tuple[Buy, ...]
    weigh: tuple[WeighOut, ...]
    serve: tuple[ServeOut, ...]
    prepare: tuple[Sentence, ...]
    allergens: tuple[str, ...]
    matrix: tuple[MatrixRow, ...]
    stretch: tuple[Stretch, ...]
    cost: float


def production_of(plan: Plan, kitchen: Kitchen) -> Production:
    """The production sheet of ``plan``."""
    weigh = _weigh(plan, kitchen)
    buy = _buy(plan, weigh, kitchen)
    shown = tuple(a for a in ALLERGENS if any(a in line.allergens for line in plan.lines))
    return Production(
        buy=buy,
        weigh=weigh,
        serve=tuple(
            one for n, line in enumerate(plan.lines) for one in _serve(n, line, plan, kitchen)
        ),
        prepare=_prepare(plan, buy, kitchen),
        allergens=shown,
        matrix=tuple(
            MatrixRow(line.called, tuple(a in line.allergens for a in shown)) for line in plan.lines
        ),
        stretch=tuple(
            dict.fromkeys(one for line in plan.lines if (one := _stretch(line, kitchen)))
        ),
        cost=sum(line.cost for line in plan.lines),
    )


def _weigh(plan: Plan, kitchen: Kitchen) -> tuple[WeighOut, ...]:
    by_pot = {branch.pot: branch for branch in plan.branches}
    names = _names(plan)
    weighed_out = [
        _weigh_out(one.key, one.name, "", one.batches, one.made.checked, (str(names[one.of]),))
        for one in plan.first
    ]
    for pot in plan.pots:  # a mother feeds her branches, which say themselves what they feed
        feeds = () if pot.mother else _feeds(by_pot[pot.key])
        weighed_out.append(_weigh_out(pot.key, pot.name, "", pot.batches, pot.checked, feeds))
    mothers = {pot.key for pot in plan.pots if pot.mother}
    for branch in plan.branches:
        if branch.pot in mothers:
            checked = check(branch.sheet, kitchen)
            feeds = _feeds(branch)
            weighed_out.append(_weigh_out(branch.key, branch.name, branch.pot, 1, checked, feeds))
    return tuple(weighed_out)


def _names(plan: Plan) -> dict[str, Sentence | str]:
    """What each pot and branch is called, by its key."""
    named: list[PotPlan | BranchPlan | FirstPot] = [*plan.pots, *plan.branches, *plan.first]
    return {one.key: one.name for one in named}


def _feeds(branch: BranchPlan) -> tuple[str, ...]:
    return tuple(dict.fromkeys(asked.dish for asked in branch.asked))


def _weigh_out(
    key: str,
    name: Sentence | str,
    of: str,
    batches: int,
    checked: CheckedSheet,
    feeds: tuple[str, ...],
) -> WeighOut:
    told = cards(checked)
    final = checked.final.pot
    return WeighOut(
        key=key,
        name=name,
        of=of,
        grade=checked.final.thickness.grade,
        feeds=feeds,
        batches=batches,
        weighed=tuple(weighed for card in told for weighed in card.weighed),
        steps=tuple(say("title-and-do", title=card.title, do=card.do) for card in told),
        makes_ml=final.yield_ml * batches,
        makes_g=final.total_g * batches,
        minutes=final.minutes,
        cost=final.cost * batches,
    )


def _buy(plan: Plan, weigh: tuple[WeighOut, ...], kitchen: Kitchen) -> tuple[Buy, ...]:
    larder = kitchen.larder
    used: dict[str, float] = {}
    bought: dict[str, float] = {}

    def count(key: str, grams: float, raw: float) -> None:
        used[key] = used.get(key, 0.0) + grams
        bought[key] = bought.get(key, 0.0) + raw

    for one in weigh:
        for weighed in one.weighed:
            if weighed.ingredient:
                row = larder[weighed.ingredient]
                grams = weighed.grams * one.batches
                count(row.key, grams, row.bought_g(grams))
    for line in plan.lines:
        for solid in line.dish.solids:
            row = larder[solid.ingredient]
            grams = solid.grams * line.line.portions
            count(row.key, grams, row.bought_g(usable_g(grams, solid.state, row)))
        for key, grams in toppings_g(line).items():
            count(key, grams, larder[key].bought_g(grams))
    there = _on_hand(plan)
    rows = [_bought(larder[key], used[key], bought[key], there.get(key, 0.0)) for key in used]
    return tuple(sorted(rows, key=lambda row: (row.role, row.name)))


def _on_hand(plan: Plan) -> dict[str, float]:
    """Grams not to buy: what is there, and what ready roux stands for."""
    there = dict(plan.there)
    for one in plan.roux:
        for key in ROUX_OF:
            there[key] = there.get(key, 0.0) + 0.5 * one.grams
    return there


_POURS = ("milk", "cream", "stock", "water", "wine", "spirit", "juice")


def _bought(row: Ingredient, used_g: float, raw_g: float, there_g: float) -> Buy:
    there = min(there_g, raw_g)
    to_buy = raw_g - there
    packs = math.ceil(to_buy / row.pack_g - 1e-6) if row.pack_g and to_buy > 0.0 else 0
    rounded = kitchen_round(Amount(to_buy, "g")).value if to_buy >= 0.5 else 0.0
    pours = row.wet and row.role in _POURS
    ml = kitchen_round(Amount(to_buy / row.density, "mL")).value if rounded else 0.0
    return Buy(
        ingredient=row.key,
        name=row.name,
        role=row.role,
        used_g=used_g,
        bought_g=rounded,
        on_hand_g=there,
        packs=packs,
        pack_g=row.pack_g,
        cost=raw_g / 1000.0 * row.price_per_kg,
        spoons=row.in_spoons(used_g),
        volume_ml=used_g / row.density if pours else None,
        bought_ml=ml if pours else None,
        pack_ml=row.pack_g / row.density if pours and row.pack_g else None,
    )


def _serve(number: int, line: LinePlan, plan: Plan, kitchen: Kitchen) -> list[ServeOut]:
    by_key = {branch.key: branch for branch in plan.branches}
    margin = 1.0 + line.dish.margin_pct / 100.0
    given_out = []
    for need, key in zip(line.needs, line.branches, strict=True):
        branch = by_key[key]
        vessels = line.layout.vessels if line.layout else 0
        by_vessel = need.use.basis == "vessel-cm2" and vessels
        count = vessels if by_vessel else line.line.portions
        each_ml = need.volume_ml / margin / count
        pot = branch.final.pot
        each = line.layout.name if by_vessel and line.layout else say("each-portion")
        given_out.append(
            ServeOut(
                line=number,
                dish=line.called,
                sauce=branch.name,
                each=each,
                each_ml=each_ml,
                each_g=each_ml * pot.total_g / pot.total_ml,
                ladles=in_ladles(each_ml, kitchen),
                kept_back_ml=need.kept_back_ml,
            )
        )
    return given_out


def in_ladles(ml: float, kitchen: Kitchen) -> Sentence | None:
    """``ml`` in the kitchen's ladle that suits it, by quarters; None where there is none.

    >>> str(in_ladles(180, Kitchen()))
    '3 small ladles'
    """
    best: Sentence | None = None
    error = math.inf
    for measure in kitchen.measures.ladles():
        quarters = max(1, round(4.0 * ml / measure.size))
        if quarters > 40 or (quarters < 2 and best):
            continue
        off = abs(quarters * measure.size / 4.0 - ml) / ml
        # Whole ladles rather than parts, few rather than many.
        off += 0.02 * (quarters % 4 != 0) + 0.00125 * quarters
        if off < error - 1e-9:
            whole, rest = divmod(quarters, 4)
            fraction = ("", "¼", "½", "¾")[rest]
            count = " ".join(part for part in (str(whole) if whole else "", fraction) if part)
            many = "ladles" if quarters > 4 else "one-ladle"
            best = say(many, count=count, name=measure.name)
            error = off
    return best


_FIRST = {
    "solid": None,
    "vegetable": "trim",
    "aromatic": "peel-and-chop",
    "meat": None,
    "fish": None,
    "seafood": "clean",
    "cheese": "grate",
    "herb": "pick-and-chop",
    "egg": "separate",
    "flour": "weigh",
    "fat": "weigh-and-soften",
    "stock": "bring-to-the-simmer",
    "milk": "warm-or-keep-cold",
    "wine": "measure-into-a-cup",
    "cream": "measure",
}
"""What is done with each kind before the pots go on, the longest first; None goes by the row."""


def _made_ready(row: Ingredient) -> str:
    """What a solid wants, by what trimming and draining leave of it."""
    trim, drain = row.usable_share < 1.0, row.drained_share != 1.0
    if trim:
        return "trim-cook-and-drain" if drain else "trim"
    return "cook-and-drain" if drain else "have-ready"


def _prepare(plan: Plan, buy: tuple[Buy, ...], kitchen: Kitchen) -> tuple[Sentence, ...]:
    told = [
        say("ready.sauce-on-hand", ml=used.taken_ml, name=used.name, let_down=used.let_down)
        for used in plan.used
    ]
    names = {pot.key: pot.name for pot in plan.pots}
    told += [
        say(f"ready.{roux.colour}-roux-on-hand", weight=_weight(roux.grams), pot=names[roux.pot])
        for roux in plan.roux
    ]
    for role, what in _FIRST.items():
        by_task: dict[str, list[Sentence]] = {}
        for row in buy:
            if row.role == role:
                task = what or _made_ready(kitchen.larder[row.ingredient])
                by_task.setdefault(task, []).append(
                    say("so-much-of", much=_counted(row), name=row.name)
                )
        told += [say(f"ready.{task}", rows=tuple(rows)) for task, rows in by_task.items()]
    for line in plan.lines:
        dish = line.dish.name
        if layout := line.layout:
            weight = _weight(layout.each_g)
            told.append(
                say(
                    "ready.vessels",
                    count=layout.vessels,
                    vessel=layout.name,
                    dish=dish,
                    weight=weight,
                )
            )
        if line.dish.plate_c > K.PLATES_WARMED_FROM_C and not line.layout:
            plates = math.ceil(line.line.portions)
            told.append(say("ready.plates", count=plates, dish=dish, to_c=line.dish.plate_c))
    told += [
        say(
            "ready.first-pot-on",
            name=one.name,
            into=_names(plan)[one.of],
            pan=one.pan.name,
            batches=one.batches,
            minutes=one.minutes,
        )
        for one in plan.first
    ]
    told += [
        say("ready.pot-on", name=p.name, batches=p.batches, pan=p.pan.name, minutes=p.minutes)
        for p in plan.pots
    ]
    return tuple(told)


def _counted(row: Buy) -> Sentence:
    """How much of it, counted where it comes whole (yolks), weighed otherwise."""
    if row.spoons and row.role == "egg":
        return say("so-many", count=row.spoons.value)
    return _weight(row.used_g)


def _weight(grams: float) -> Sentence:
    if grams >= 1000.0:
        return say("kilograms", kg=grams / 1000.0)
    return say("grams", grams=grams)


def _stretch(line: LinePlan, kitchen: Kitchen) -> Stretch | None:
    """A tenth of the solids moved from the costliest to the cheapest, by what they cost as bought."""
    rows = {
        solid.ingredient: row.cost(usable_g(1000.0, solid.state, row))
        for solid in line.dish.solids
        if (row := kitchen.larder[solid.ingredient])
    }
    if len(rows) < 2:
        return None
    dear, cheap = max(rows, key=rows.__getitem__), min(rows, key=rows.__getitem__)
    moved = 0.1 * line.dish.solids_g / 1000.0
    larder = kitchen.larder
    return Stretch(
        line.dish.name,
        larder[dear].spoken_name,
        larder[cheap].spoken_name,
        moved * (rows[dear] - rows[cheap]),
    )
