"""The production sheet: what to buy and weigh, in which order, for whom, at what cost."""

import math
from dataclasses import dataclass

from saucier import constants as K
from saucier.cards import cards
from saucier.check import CheckedSheet, check
from saucier.demand import PASTA_BASIS
from saucier.dish import is_pasta
from saucier.keeping import keeps
from saucier.kitchen import Kitchen
from saucier.larder import ALLERGENS, Ingredient
from saucier.larder.ladled import in_ladles
from saucier.pot import Pot
from saucier.service.cautions import cautions_of, sitting_ml
from saucier.service.costing import toppings_g, usable_g
from saucier.service.on_hand import ROUX_OF
from saucier.service.planned import BranchPlan, FirstPot, LinePlan, Plan, PotPlan
from saucier.service.trimmings import Trimmings, trimmings_of
from saucier.steps import Add, Weighed
from saucier.units import Amount, kitchen_round
from saucier.words import Sentence, say, weight


@dataclass(frozen=True, slots=True)
class Buy:
    """One ingredient of the whole service: ``used_g`` as it is served, cooked where it is; ``board_g`` of it trimmed
    and raw, as it goes on the board and into the pot, ``whole_g`` before it is trimmed; ``bought_g`` is that less
    ``on_hand_g``; ``volume_ml`` of what pours (None for the rest), which is bought by volume too: ``bought_ml``, in packs of ``pack_ml``; ``packs`` of ``pack_g`` (0: sold loose) and what it ``cost``s."""

    ingredient: str
    name: str
    role: str
    used_g: float
    board_g: float
    whole_g: float
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
    """What to weigh out for one pot or branch (one of ``batches``; ``in_all`` is the same for all of
    them), and its steps in short: how thick it is then (``grade``), in which pan, which dishes it
    ``feeds``, its ``let_down`` and whether it is hot or cold, which ``guests`` get of it first, how much each of two sittings takes (mL), what to
    mind (``notes``)."""

    key: str
    name: Sentence | str
    of: str
    grade: str | None
    feeds: tuple[str, ...]
    batches: int
    weighed: tuple[Weighed, ...]
    in_all: tuple[Amount, ...]
    pan: Sentence | str
    guests: tuple[Sentence, ...]
    sittings_ml: tuple[float, ...]
    let_down: Sentence | None
    notes: tuple[Sentence, ...]
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
    """Everything the kitchen needs on paper. ``matrix`` is dish by allergen; ``left`` is what to do with
    what is over."""

    buy: tuple[Buy, ...]
    weigh: tuple[WeighOut, ...]
    serve: tuple[ServeOut, ...]
    prepare: tuple[Sentence, ...]
    allergens: tuple[str, ...]
    matrix: tuple[MatrixRow, ...]
    stretch: tuple[Stretch, ...]
    cautions: tuple[Sentence, ...]
    trimmings: tuple[Trimmings, ...]
    left: tuple[Sentence, ...]
    cost: float


def production_of(plan: Plan, kitchen: Kitchen) -> Production:
    """The production sheet of ``plan``."""
    weigh = weighed_out(plan, kitchen)
    counted = _counted_up(plan, weigh, kitchen)
    buy = counted.buy(plan, kitchen)
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
            MatrixRow(line.called, tuple(a in line.allergens for a in shown))
            for line in plan.lines
            if not line.refused
        ),
        stretch=tuple(
            dict.fromkeys(one for line in plan.lines if (one := _stretch(line, kitchen)))
        ),
        cautions=cautions_of(plan, kitchen),
        trimmings=trimmings_of(counted.trimmed.items(), counted.used, kitchen),
        left=_left(plan),
        cost=sum(line.cost for line in plan.lines),
    )


def _left(plan: Plan) -> tuple[Sentence, ...]:
    """What is over of each sauce and each mother, and whether it keeps."""
    told = []
    for branch in plan.branches:
        over = branch.made_ml + branch.from_stock_ml - branch.need_ml - branch.film_ml
        if over >= K.LEFT_TOLD_ML and branch.pot:
            told.append(_left_over(branch.name, over, branch.final.pot, plan))
    for pot in plan.pots:
        over = pot.left_g * pot.made_ml / pot.made_g if pot.mother else 0.0
        if over >= K.LEFT_TOLD_ML:
            told.append(_left_over(pot.name, over, pot.checked.final.pot, plan))
    return tuple(told)


def _left_over(name: Sentence | str, over_ml: float, pot: Pot, plan: Plan) -> Sentence:
    days = keeps(pot, int(plan.service.keep_days)).days
    return say("left.keeps" if days else "left.does-not-keep", name=name, ml=over_ml, days=days)


def weighed_out(plan: Plan, kitchen: Kitchen) -> tuple[WeighOut, ...]:
    """Everything that is weighed for ``plan``, in the order of work: what guests eat of first, the
    sauces made for others before them."""
    by_pot = {branch.pot: branch for branch in plan.branches}
    mothers = {pot.key: pot for pot in plan.pots if pot.mother}
    names = _names(plan)
    guests = {branch.key: branch.guests for branch in plan.branches}
    guests |= {pot.key: pot.guests for pot in plan.pots}
    out = [
        _weigh_out(
            _Head(
                one.key,
                one.name,
                "",
                one.batches,
                one.in_pan,
                (str(names[one.of]),),
                guests.get(one.of, ()),
            ),
            one.made.checked,
            kitchen,
        )
        for one in plan.first
    ]
    for pot in plan.pots:  # a mother feeds her branches, which say themselves what they feed
        branch = None if pot.mother else by_pot[pot.key]
        feeds = _feeds(branch) if branch else ()
        sittings = _sittings(plan, branch) if branch else ()
        head = _Head(
            pot.key, pot.name, "", pot.batches, pot.in_pan, feeds, pot.guests, sittings, pot.notes
        )
        out.append(_weigh_out(head, pot.checked, kitchen))
    for branch in plan.branches:
        if branch.pot in mothers:
            head = _Head(
                branch.key,
                branch.name,
                branch.pot,
                branch.batches,
                branch.in_pan,
                _feeds(branch),
                branch.guests,
                _sittings(plan, branch),
                branch.notes,
                branch.let_down_g,
            )
            out.append(_weigh_out(head, check(branch.sheet, kitchen), kitchen))
    return tuple(sorted(out, key=lambda one: not one.guests))


def _sittings(plan: Plan, branch: BranchPlan) -> tuple[float, ...]:
    """mL each sitting takes; nothing where there is one."""
    each = tuple(sitting_ml(plan, branch, number) for number in (1, 2))
    return each if all(each) else ()


def _names(plan: Plan) -> dict[str, Sentence | str]:
    """What each pot and branch is called, by its key."""
    named: list[PotPlan | BranchPlan | FirstPot] = [*plan.pots, *plan.branches, *plan.first]
    return {one.key: one.name for one in named}


def _feeds(branch: BranchPlan) -> tuple[str, ...]:
    return tuple(dict.fromkeys(asked.dish for asked in branch.asked))


@dataclass(frozen=True, slots=True)
class _Head:
    """What is said of a pot or a branch above its weights."""

    key: str
    name: Sentence | str
    of: str
    batches: int
    pan: Sentence | str
    feeds: tuple[str, ...]
    guests: tuple[Sentence, ...]
    sittings_ml: tuple[float, ...] = ()
    notes: tuple[Sentence, ...] = ()
    let_down_g: float = 0.0


def _weigh_out(head: _Head, checked: CheckedSheet, kitchen: Kitchen) -> WeighOut:
    told = cards(checked)
    final, batches = checked.final.pot, head.batches
    weighed = tuple(weighed for card in told for weighed in card.weighed)
    return WeighOut(
        key=head.key,
        name=head.name,
        of=head.of,
        grade=checked.final.thickness.grade,
        feeds=head.feeds,
        batches=batches,
        weighed=weighed,
        in_all=tuple(one.amount.times(batches) for one in weighed) if batches > 1 else (),
        pan=head.pan or checked.pan.name,
        guests=head.guests,
        sittings_ml=head.sittings_ml,
        let_down=_let_down(checked, head.let_down_g / batches, kitchen),
        notes=head.notes,
        steps=tuple(say("title-and-do", title=card.title, do=card.do) for card in told),
        makes_ml=final.yield_ml * batches,
        makes_g=final.total_g * batches,
        minutes=final.minutes,
        cost=final.cost * batches,
    )


def _let_down(checked: CheckedSheet, grams: float, kitchen: Kitchen) -> Sentence | None:
    """What a branch is let down with: the liquid put in right after the mother, hot or cold."""
    poured = next((step for step in checked.sheet.steps[1:2] if isinstance(step, Add)), None)
    if grams <= 0.0 or poured is None:
        return None
    hot = (poured.temperature_c or 20.0) >= K.LET_DOWN_C
    name = kitchen.larder[poured.ingredient].spoken_name
    return say("let-down-hot" if hot else "let-down-cold", weight=weight(grams), name=name)


@dataclass(frozen=True, slots=True)
class _CountedUp:
    """Grams of each ingredient of a service: as ``used``, as it lies on the ``board`` (trimmed and raw), as ``bought``,
    and ``trimmed`` off, raw."""

    used: dict[str, float]
    board: dict[str, float]
    bought: dict[str, float]
    trimmed: dict[str, float]

    def buy(self, plan: Plan, kitchen: Kitchen) -> tuple[Buy, ...]:
        larder, there = kitchen.larder, _on_hand(plan)
        rows = [
            _bought(
                larder[key], self.used[key], self.board[key], self.bought[key], there.get(key, 0.0)
            )
            for key in self.used
        ]
        return tuple(sorted(rows, key=lambda row: (row.role, row.name)))


def _counted_up(plan: Plan, weigh: tuple[WeighOut, ...], kitchen: Kitchen) -> _CountedUp:
    larder = kitchen.larder
    counted = _CountedUp({}, {}, {}, {})

    def count(key: str, grams: float, usable: float) -> None:
        raw = larder[key].bought_g(usable)
        for table, more in (
            (counted.used, grams),
            (counted.board, usable),
            (counted.bought, raw),
            (counted.trimmed, raw - usable),
        ):
            table[key] = table.get(key, 0.0) + more

    for one in weigh:
        for weighed in one.weighed:
            if weighed.ingredient:
                grams = weighed.grams * one.batches
                count(weighed.ingredient, grams, grams)
    for used in plan.used:
        if used.liquid:
            count(used.liquid, used.liquid_g, used.liquid_g)
    for line in plan.lines:
        if line.refused:
            continue
        for solid in line.dish.solids:
            grams = solid.grams * line.line.portions
            count(solid.ingredient, grams, usable_g(grams, solid.state, larder[solid.ingredient]))
        for key, grams in toppings_g(line).items():
            count(key, grams, grams)
        if (salt := pasta_water(line, kitchen)[2]) > 0.0 and "salt" in larder:
            count("salt", salt, salt)
    return counted


def _on_hand(plan: Plan) -> dict[str, float]:
    """Grams not to buy: what is there, and what ready roux stands for."""
    there = dict(plan.there)
    for one in plan.roux:
        for key in ROUX_OF:
            there[key] = there.get(key, 0.0) + 0.5 * one.grams
    return there


_POURS = ("milk", "cream", "stock", "water", "wine", "spirit", "juice")


def _bought(row: Ingredient, used_g: float, board_g: float, raw_g: float, there_g: float) -> Buy:
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
        board_g=board_g,
        whole_g=raw_g,
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
    if line.refused:
        return []
    for need, key in zip(line.needs, line.branches, strict=True):
        branch = by_key[key]
        vessels = line.layout.vessels if line.layout else 0
        by_vessel = need.use.basis == "vessel-cm2" and vessels
        count = vessels if by_vessel else line.line.portions
        # What is kept back for the top or the pass is given out there, and not twice.
        each_ml = (need.volume_ml - need.kept_back_ml) / margin / count
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
                ladles=in_ladles(each_ml, kitchen.measures),
                kept_back_ml=need.kept_back_ml,
            )
        )
    return given_out


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
        say("ready.guest-pot", name=pot.name, pan=pot.in_pan, guests=pot.guests)
        for pot in plan.pots
        if pot.guests
    ]
    told += [
        say("ready.sauce-on-hand", ml=used.taken_ml, name=used.name, let_down=used.let_down)
        for used in plan.used
    ]
    names = {pot.key: pot.name for pot in plan.pots}
    told += [
        say(f"ready.{roux.colour}-roux-on-hand", weight=weight(roux.grams), pot=names[roux.pot])
        for roux in plan.roux
    ]
    for role, what in _FIRST.items():
        by_task: dict[str, list[Sentence]] = {}
        for row in buy:
            if row.role == role:
                task = what or _made_ready(kitchen.larder[row.ingredient])
                by_task.setdefault(task, []).append(on_the_board(row))
        told += [say(f"ready.{task}", rows=tuple(rows)) for task, rows in by_task.items()]
    for line in sorted(plan.lines, key=lambda line: not line.line.without):
        if line.refused:
            continue
        dish = line.called
        if pasta := _pasta(line, kitchen):
            told.append(pasta)
        if layout := line.layout:
            heavy = weight(layout.each_g)
            told.append(
                say(
                    "ready.vessels",
                    count=layout.vessels,
                    vessel=layout.name,
                    dish=dish,
                    weight=heavy,
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
            pan=one.in_pan,
            batches=one.batches,
            minutes=one.minutes,
        )
        for one in plan.first
    ]
    told += [
        say("ready.pot-on", name=p.name, batches=p.batches, pan=p.in_pan, minutes=p.minutes)
        for p in plan.pots
    ]
    return tuple(told)


def pasta_water(line: LinePlan, kitchen: Kitchen) -> tuple[float, float, float]:
    """Grams of dry pasta of a line, mL of water to boil it in and grams of salt for that."""
    dry = sum(
        usable_g(solid.grams, solid.state, row) * line.line.portions
        for solid in line.dish.solids
        if is_pasta(row := kitchen.larder[solid.ingredient])
    )
    water = K.PASTA_WATER_ML_PER_G * dry
    return dry, water, water * line.dish.pasta_water_salt_pct / 100.0


def _pasta(line: LinePlan, kitchen: Kitchen) -> Sentence | None:
    """Its water, its salt, when it is drained and how long it waits; None where there is no pasta."""
    dry, water, salt = pasta_water(line, kitchen)
    if dry <= 0.0:
        return None
    goes_on = any(need.use.basis == PASTA_BASIS for need in line.needs) or line.layout
    return say(
        "ready.pasta-goes-on" if goes_on else "ready.pasta",
        weight=weight(dry),
        dish=line.called,
        litres=water / 1000.0,
        salt_g=salt,
        waits_min=K.PASTA_WAITS_MIN,
        hours=K.PASTA_AHEAD_HOURS,
    )


def on_the_board(row: Buy) -> Sentence:
    """How much of it the hands get: counted where it comes whole (yolks), else raw, never as it is cooked; with what
    is left of it trimmed, where that is less."""
    if row.spoons and row.spoons.unit == "piece" and row.role == "egg":
        return say("so-much-of", much=say("so-many", count=row.spoons.value), name=row.name)
    facts = {"much": weight(row.whole_g), "board": weight(row.board_g), "name": row.name}
    trimmed = row.whole_g > 1.01 * row.board_g
    if row.board_g > 1.01 * row.used_g:
        return say("board.trimmed-raw" if trimmed else "board.raw", **facts)
    if row.board_g < 0.99 * row.used_g:
        return say("board.dry", **facts)
    return say("board.trimmed" if trimmed else "so-much-of", **facts)


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
