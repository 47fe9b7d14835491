"""A dish as it is seen: its cross-section or its plate to scale, and what a portion comes to."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from saucier import constants as K
from saucier.check import CheckedSheet, check
from saucier.demand import use_named
from saucier.dish.document import Dish, kind_of
from saucier.dish.finish import through_minutes
from saucier.dish.layout import Layout, layout_of
from saucier.dish.mouthful import Mouthful, SaucePart, cooked_g, mouthful
from saucier.dish.needs import SauceNeed, needs_of
from saucier.dish.plate import AtTable, at_the_table
from saucier.dish.pool import Pool, keeps_pattern, pool_power, pool_radius_mm, told_pattern
from saucier.dish.tint import colour_of, colour_of_sauce
from saucier.errors import BadInput
from saucier.heat import SideView, pot_heat_j_per_k
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.sheet import Sheet
from saucier.thickness import grade_named, grade_of, spoken_grade, thickness_of
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Band:
    """A layer of a filled dish from the bottom up: what it is (``sauce``, ``solids``, ``mixed``,
    ``topping``), the ``part`` of the document it comes from, between which heights, mm."""

    part: str
    kind: str
    name: str
    low_mm: float
    high_mm: float
    colour: str


@dataclass(frozen=True, slots=True)
class Food:
    """Something that lies on the plate, or stands in the dish: ``pieces`` of it a portion, ``grams`` in
    all, each about ``across_mm`` by ``deep_mm`` seen from above and ``high_mm`` high."""

    part: str
    name: str
    pieces: int
    counted: str
    grams: float
    across_mm: float
    deep_mm: float
    high_mm: float
    colour: str
    coated: bool


@dataclass(frozen=True, slots=True)
class Slice:
    """Slices with a cap, ``pieces`` a portion: how high the cap lies on each, and the bread, mm."""

    pieces: int
    cap_mm: float
    bread_mm: float


@dataclass(frozen=True, slots=True)
class Croquette:
    """Croquettes, ``count`` a portion of ``each_g``, ``across_mm`` wide without their coating."""

    count: int
    each_g: float
    across_mm: float


@dataclass(frozen=True, slots=True)
class SauceSeen:
    """A sauce of the dish: mL a portion and where that comes from, its ``grade`` in the dish and
    ``on_plate`` where the guest meets it, its colour."""

    part: str
    name: str
    use: str
    portion_ml: float
    portion_g: float
    lines: tuple[Sentence, ...]
    grade: str | None
    on_plate: Sentence
    colour: str


@dataclass(frozen=True, slots=True)
class DishSeen:
    """Everything a cook asks of a dish. ``picture`` is ``section`` (a vessel cut through), ``plate``
    (from above), ``slices`` (a toast from the side) or ``rounds`` (croquettes cut through). Money,
    energy and weight are of a portion; ``hot_minutes`` and ``cold_minutes`` finish it from the pot
    and from the fridge (None: it is not finished in an oven)."""

    kind: str
    picture: str
    portions: float
    vessel: SideView | None
    fill_mm: float | None
    fill_share: float | None
    vessel_g: float | None
    bands: tuple[Band, ...]
    pools: tuple[Pool, ...]
    food: tuple[Food, ...]
    plate_mm: float
    well_mm: float
    slice: Slice | None
    croquette: Croquette | None
    coating: tuple[str, ...]
    sauces: tuple[SauceSeen, ...]
    mouthful: Mouthful
    portion_g: float
    kcal: float
    cost: float
    allergens: tuple[str, ...]
    plate_c: float
    hot_minutes: float | None
    cold_minutes: float | None
    gives_g: float
    drinks_g: float
    remarks: tuple[Sentence, ...]


def seen(dish: Dish, sheets: Mapping[str, Sheet], kitchen: Kitchen) -> DishSeen:
    """``dish`` with its sauces' ``sheets`` by key, one vessel or one portion of it. Raises
    :class:`BadInput` by field for a sauce that is not there or cannot be made, an ingredient nobody
    knows."""
    portions = dish.vessel.portions if dish.vessel else 1.0
    needs = needs_of(dish, portions, kitchen)
    played = [_played(number, need, sheets, kitchen) for number, need in enumerate(needs)]
    layout = layout_of(dish, portions, needs, kitchen.larder)
    toppings = _toppings(dish, layout, portions)
    pots = [checked.final.pot for checked in played]
    margin = 1.0 + dish.margin_pct / 100.0
    mls = [need.volume_ml / margin / portions for need in needs]
    masses = [
        ml * pot.yield_g / pot.yield_ml if pot.yield_ml else 0.0
        for ml, pot in zip(mls, pots, strict=True)
    ]
    poured = [
        (mass / pot.yield_g * pot_heat_j_per_k(pot), checked.sheet.target.serving_c)
        for mass, pot, checked in zip(masses, pots, played, strict=True)
        if pot.yield_g
    ]
    table = at_the_table(dish, [need.use.key for need in needs], poured, kitchen)
    sauces = tuple(
        _sauce(
            n,
            dish,
            need,
            played[n],
            mls[n],
            masses[n],
            table.as_eaten(pots[n], sum(masses)),
            table,
            kitchen,
        )
        for n, need in enumerate(needs)
    )
    whole = mouthful(
        dish,
        [
            SaucePart(one.name, one.portion_g, _salt_of(dish, n, pots[n]))
            for n, one in enumerate(sauces)
        ],
        toppings,
        kitchen,
    )
    food = _food(dish, kitchen)
    pools = _pools(dish, sauces, needs, played, table.at_c)
    kind = kind_of(dish)
    cost, kcal, allergens = _brings(dish, toppings, pots, masses, kitchen)
    bands = _bands(dish, needs, sauces, portions, kitchen) if layout else ()
    return DishSeen(
        kind=kind,
        picture=_picture(kind, layout),
        portions=portions,
        vessel=SideView.of(dish.vessel.as_pan()) if dish.vessel else None,
        fill_mm=layout.fill_mm if layout else None,
        fill_share=layout.fill_share if layout else None,
        vessel_g=layout.each_g if layout else None,
        bands=bands,
        pools=pools,
        food=food,
        plate_mm=10.0 * dish.plate_cm,
        well_mm=10.0 * dish.plate_cm * K.PLATE_WELL_SHARE,
        slice=_slice(sauces, food) if kind == "toast" else None,
        croquette=_croquette(sauces, food) if kind == "croquettes" else None,
        coating=tuple(
            kitchen.larder[t.ingredient].spoken_name for t in dish.toppings if t.place == "coating"
        ),
        sauces=sauces,
        mouthful=whole,
        portion_g=whole.mass_g,
        kcal=kcal,
        cost=cost,
        allergens=allergens,
        plate_c=table.at_c,
        hot_minutes=_hot_minutes(dish),
        cold_minutes=through_minutes(layout.fill_mm, dish.oven_c, dish.oven)
        if layout and layout.fill_mm >= K.THROUGH_FROM_MM
        else None,
        gives_g=table.gives_g,
        drinks_g=table.drinks_g,
        remarks=_remarks(dish, needs, layout, pools, played, table, whole),
    )


def _picture(kind: str, layout: Layout | None) -> str:
    if kind == "toast":
        return "slices"
    if kind == "croquettes":
        return "rounds"
    return "section" if layout else "plate"


def _slice(sauces: tuple[SauceSeen, ...], food: tuple[Food, ...]) -> Slice:
    pieces = food[0].pieces if food else 1
    ml = sauces[0].portion_ml if sauces else 0.0
    return Slice(pieces, 10.0 * ml / pieces / K.SLICE_CM2, K.SLICE_HIGH_MM)


def _croquette(sauces: tuple[SauceSeen, ...], food: tuple[Food, ...]) -> Croquette:
    """Panade and filling shared out by what one usually weighs."""
    grams = sum(one.portion_g for one in sauces[:1]) + sum(one.grams for one in food)
    count = max(1, round(grams / K.CROQUETTE_G))
    ml = grams / count / K.CROQUETTE_G_PER_ML
    return Croquette(count, grams / count, 20.0 * math.cbrt(0.75 * ml / math.pi))


def _played(
    number: int, need: SauceNeed, sheets: Mapping[str, Sheet], kitchen: Kitchen
) -> CheckedSheet:
    if need.sauce not in sheets:
        raise BadInput.at(f"sauces[{number}].sauce", "is-no-sauce-here", key=need.sauce)
    try:
        return check(sheets[need.sauce], kitchen)
    except BadInput as bad:
        sheet = sheets[need.sauce]
        raise BadInput.at(
            f"sauces[{number}].sauce",
            "sauce-cannot-be-played",
            name=sheet.name,
            why=bad.problems[0].message,
        ) from None


def _toppings(dish: Dish, layout: Layout | None, portions: float) -> dict[str, float]:
    """Grams of each topping a portion."""
    found: dict[str, float] = {}
    if layout:
        return {key: grams / portions for key, grams in layout.toppings.items()}
    for topping in dish.toppings:
        grams = topping.grams or 0.0
        found[topping.ingredient] = found.get(topping.ingredient, 0.0) + grams
    return found


def _sauce(
    number: int,
    dish: Dish,
    need: SauceNeed,
    checked: CheckedSheet,
    ml: float,
    mass_g: float,
    eaten: Pot,
    table: AtTable,
    kitchen: Kitchen,
) -> SauceSeen:
    final, used, sheet = checked.final, dish.sauces[number], checked.sheet
    grade = used.grade or sheet.target.grade or final.thickness.grade
    return SauceSeen(
        part=f"sauces[{number}]",
        name=sheet.name,
        use=used.use,
        portion_ml=ml,
        portion_g=mass_g,
        lines=need.lines,
        grade=grade,
        on_plate=_on_plate(checked, grade, table, eaten),
        colour=colour_of_sauce(sheet, kitchen),
    )


def _on_plate(checked: CheckedSheet, grade: str | None, table: AtTable, eaten: Pot) -> Sentence:
    """How thick the guest meets it: at the plate's temperature, with what food gave or drank of it."""
    at = thickness_of(eaten, table.at_c)
    eta = _as_made(checked, grade, at.viscosity_pa_s)
    told = spoken_grade(grade_of(eta)) if eta else at.reason
    return say("seen-on-plate", grade=told, at_c=table.at_c)


def _as_made(checked: CheckedSheet, grade: str | None, eta: float | None) -> float | None:
    """``eta``, Pa·s, of the sauce as written, for one that is made to its ``grade``: cooling, drinking
    and giving do to it what they do to the one written."""
    there = thickness_of(checked.final.pot, checked.sheet.target.serving_c).viscosity_pa_s
    if grade is None or there is None or eta is None:
        return eta
    return grade_named(grade).target * eta / there


def _pools(
    dish: Dish,
    sauces: tuple[SauceSeen, ...],
    needs: list[SauceNeed],
    played: list[CheckedSheet],
    plate_c: float,
) -> tuple[Pool, ...]:
    if dish.vessel is not None:
        return ()
    rim = 5.0 * dish.plate_cm * K.PLATE_WELL_SHARE
    pools = []
    for sauce, need, checked in zip(sauces, needs, played, strict=True):
        there = thickness_of(checked.final.pot, max(plate_c, K.SETS_BELOW_C)).viscosity_pa_s
        eta = _as_made(checked, sauce.grade, there)
        if need.use.key not in ("pool", "cordon", "nap", "over", "toss", "pasta-hob") or not eta:
            continue
        radius = pool_radius_mm(sauce.portion_ml, eta)
        at = min(radius, rim)
        pools.append(
            Pool(
                sauce.part,
                sauce.name,
                need.use.key,
                sauce.portion_ml,
                at,
                1000.0 * sauce.portion_ml / (math.pi * at * at),
                radius > rim,
                pool_power(sauce.portion_ml, eta),
                sauce.colour,
            )
        )
    return tuple(pools)


def _food(dish: Dish, kitchen: Kitchen) -> tuple[Food, ...]:
    cooked = cooked_g(dish, kitchen)
    coated = any(one.place == "coating" for one in dish.toppings)
    found = []
    for number, solid in enumerate(dish.solids):
        row = kitchen.larder[solid.ingredient]
        piece_g = solid.piece_g or row.piece_g
        pieces = round(solid.pieces) if solid.pieces else 0
        if not pieces and piece_g and 0.5 <= solid.grams / piece_g <= 12.0:
            pieces = max(1, round(solid.grams / piece_g))
        each = cooked[number] / max(1, pieces)
        high = K.FOOD_HIGH_MM if each > 30.0 else 0.6 * K.FOOD_HIGH_MM
        area = 1000.0 * each / max(row.density, 0.5) / high
        deep = (area / 1.7) ** 0.5
        found.append(
            Food(
                part=f"solids[{number}]",
                name=row.spoken_name,
                pieces=max(1, pieces),
                counted=solid.counted or "",
                grams=cooked[number],
                across_mm=1.7 * deep,
                deep_mm=deep,
                high_mm=high,
                colour=colour_of(row),
                coated=coated and number == 0,
            )
        )
    return tuple(found)


_UNDER = ("film",)
_MIXED = ("enrobe", "pasta-hob", "pasta-baked", "toss", "filling", "croquettes", "over", "inside")
_BETWEEN = ("layers",)


def _bands(
    dish: Dish,
    needs: list[SauceNeed],
    sauces: tuple[SauceSeen, ...],
    portions: float,
    kitchen: Kitchen,
) -> tuple[Band, ...]:
    """What lies over what in the vessel, from its floor up: film, solids (with what binds them, or in
    layers), caps, then what is strewn over."""
    assert dish.vessel is not None
    pan = dish.vessel.as_pan()
    solids_g = sum(cooked_g(dish, kitchen).values())
    solids_ml = portions * sum(
        grams / max(kitchen.larder[dish.solids[n].ingredient].density, 0.5)
        for n, grams in cooked_g(dish, kitchen).items()
    )
    names = ", ".join(kitchen.larder[s.ingredient].spoken_name for s in dish.solids)
    colour = colour_of(kitchen.larder[dish.solids[0].ingredient]) if dish.solids else "#e2d0a8"
    ml = {n: one.portion_ml * portions for n, one in enumerate(sauces)}
    built: list[tuple[str, str, str, float, str]] = []

    def put(uses: tuple[str, ...], share: float = 1.0) -> None:
        for n, need in enumerate(needs):
            if need.use.key in uses:
                built.append(
                    ("sauce", f"sauces[{n}]", sauces[n].name, share * ml[n], sauces[n].colour)
                )

    put(_UNDER)
    mixed = [n for n, need in enumerate(needs) if need.use.key in _MIXED]
    between = [n for n, need in enumerate(needs) if need.use.key in _BETWEEN]
    if between and solids_g:
        layers = max(dish.sauces[n].layers for n in between)
        for _ in range(layers):
            built.append(("solids", "solids", names, solids_ml / layers, colour))
            put(_BETWEEN, 1.0 / layers)
    elif mixed and solids_g:
        bound = solids_ml + sum(ml[n] for n in mixed)
        built.append(("mixed", f"sauces[{mixed[0]}]", names, bound, colour))
    else:
        if solids_g:
            built.append(("solids", "solids", names, solids_ml, colour))
        put((*_BETWEEN, *_MIXED))
    put(tuple(n.use.key for n in needs if n.use.key not in (*_UNDER, *_MIXED, *_BETWEEN)))
    bands, whole, low = [], 0.0, 0.0
    for kind, part, name, volume, tint in built:
        whole += volume
        high = pan.level_mm(whole)
        bands.append(Band(part, kind, name, low, high, tint))
        low = high
    for number, topping in enumerate(dish.toppings):
        if topping.place != "top":
            continue
        row = kitchen.larder[topping.ingredient]
        area = dish.vessel.area_cm2
        each = topping.grams or 0.0
        per_cm2 = each * portions / area if topping.g_per_cm2 is None else topping.g_per_cm2
        high = low + 10.0 * per_cm2 / max(row.cup_density, 0.2)
        part = f"toppings[{number}]"
        bands.append(Band(part, "topping", row.spoken_name, low, high, colour_of(row)))
        low = high
    return tuple(bands)


def _brings(
    dish: Dish,
    toppings: Mapping[str, float],
    pots: list[Pot],
    masses: list[float],
    kitchen: Kitchen,
) -> tuple[float, float, tuple[str, ...]]:
    """Cost, kcal and allergens of a portion."""
    larder, cost, kcal, allergens = kitchen.larder, 0.0, 0.0, frozenset[str]()
    for solid in dish.solids:
        row = larder[solid.ingredient]
        raw = solid.grams if solid.state == "dry" else solid.grams / row.drained_share
        cost += row.cost(raw)
        kcal += raw * row.per_gram.kcal
        allergens |= row.allergens
    for key, grams in toppings.items():
        cost += larder[key].cost(grams)
        kcal += grams * larder[key].per_gram.kcal
        allergens |= larder[key].allergens
    for pot, mass in zip(pots, masses, strict=True):
        share = mass / pot.yield_g if pot.yield_g else 0.0
        cost += share * pot.cost
        kcal += share * (pot.balance.kcal + sum(p.content.kcal for p in pot.pieces))
        allergens |= pot.allergens
    return cost, kcal, tuple(sorted(allergens))


def _hot_minutes(dish: Dish) -> float | None:
    """Minutes that finish it filled hot from the pot."""
    if dish.finish in ("none", "lid"):
        return None
    return dish.finish_minutes or K.HOT_FINISH_MIN[dish.finish]


def _salt_of(dish: Dish, number: int, pot: Pot) -> float:
    """g of salt in 100 g of a sauce: as this dish wants it, else as its sheet makes it."""
    own = dish.sauces[number].salt_pct
    if own is not None:
        return own
    mass = pot.balance.mass_g
    return 100.0 * pot.balance.salt / mass if mass else 0.0


def _other_grades(
    dish: Dish, needs: list[SauceNeed], played: list[CheckedSheet]
) -> Iterator[Sentence]:
    """Sauces planned in another grade than usual, each once: by the use that takes the most of it."""
    told: set[tuple[str, str]] = set()
    for n in sorted(range(len(needs)), key=lambda n: -needs[n].volume_ml):
        use, sheet = use_named(needs[n].use.key), played[n].sheet
        grade = dish.sauces[n].grade or sheet.target.grade
        if not grade or grade == use.grade or (sheet.name, grade) in told:
            continue
        told.add((sheet.name, grade))
        yield say(
            "planned-in-another-grade",
            name=sheet.name,
            grade=spoken_grade(grade),
            use=use.name.lower(),
            usual=spoken_grade(use.grade),
        )


def _remarks(
    dish: Dish,
    needs: list[SauceNeed],
    layout: Layout | None,
    pools: tuple[Pool, ...],
    played: list[CheckedSheet],
    table: AtTable,
    whole: Mouthful,
) -> tuple[Sentence, ...]:
    told: list[Sentence] = []
    if layout and layout.warning:
        told.append(layout.warning)
    # What is poured over food or tossed with it does not run as a pool does.
    told += [
        say("pool-at-the-rim", name=pool.name)
        for pool in pools
        if pool.at_rim and pool.use in ("pool", "cordon", "nap")
    ]
    lying = [pool for pool in pools if pool.use in ("pool", "cordon")]
    if len(lying) == 2:
        etas = [
            thickness_of(played[int(p.part[7:-1])].final.pot, K.REFERENCE_C).viscosity_pa_s
            for p in lying
        ]
        if etas[0] and etas[1]:
            told.append(told_pattern(lying[0], lying[1], keeps_pattern(etas[0], etas[1])))
    if table.drinks_g >= 1.0:
        told.append(say("solids-drink", grams=table.drinks_g))
    if table.gives_g >= 1.0:
        told.append(say("solids-give", grams=table.gives_g))
    told += _other_grades(dish, needs, played)
    if whole.over_g > 0.05:
        told.append(say("salty-without-sauce", grams=whole.over_g, target_pct=whole.target_pct))
    return tuple(told)
