"""What is not a sauce: cut and grated by weight, then boiled, poached, seared, fried, in rounds where it
must not crowd."""

import math
from collections.abc import Sequence

from saucier import constants as K
from saucier.dish import Rounds, Solid, in_rounds
from saucier.heat import boil_up_minutes
from saucier.larder import Ingredient
from saucier.run_up.jobs import Doing, Job, Keeps, Touch
from saucier.run_up.kitchen import At
from saucier.run_up.library import Way, prepare_for
from saucier.run_up.means import Ring
from saucier.service import LinePlan
from saucier.service.costing import usable_g
from saucier.steps import Hands
from saucier.timing import Baking, Use
from saucier.words import Sentence, said, say, weight


def lay_sides(at: At, line: LinePlan, day: int) -> tuple[str, ...]:
    """The jobs that cook the solids of ``line``; those who take them follow."""
    by_way: dict[str, list[tuple[Solid, Ingredient, float]]] = {}
    larder = at.kitchen.larder
    for number, solid in enumerate(line.dish.solids):
        row = larder[solid.ingredient]
        grams = usable_g(solid.grams, solid.state, row) * line.line.portions
        way = _way(at, line, number, row)
        by_way.setdefault(way.key, []).append((solid, row, grams))
    done: list[str] = []
    for key, several in by_way.items():
        way = at.library.way(key)
        if way.minutes <= 0.0:
            done += _as_it_is(at, line, several, day)
        else:
            done.append(_cooked(at, line, way, several, day))
    return tuple(done)


def _way(at: At, line: LinePlan, number: int, row: Ingredient) -> Way:
    chosen = at.doc.ways.get(f"{line.id}.{number}")
    if chosen is None and line.dish.solids[number].way:
        chosen = line.dish.solids[number].way
    way = at.library.way(chosen) if chosen else at.library.usual(row)
    for rounds in line.dish.rounds:
        if chosen is None and rounds.way and rounds.ingredient == row.key:
            way = at.library.way(rounds.way)
    # A steamer does what is boiled in little water, and needs no ring.
    steamed = way.key in ("boil-roots", "boil-tender") and at.means.that_can("steam")
    return at.library.way("steam") if steamed and not chosen else way


def _as_it_is(
    at: At, line: LinePlan, several: Sequence[tuple[Solid, Ingredient, float]], day: int
) -> list[str]:
    """What only has to be there: its work by hand, if any, is wanted by whoever takes it."""
    key = f"ready:{line.id}"
    wanted = [(row, grams) for _, row, grams in several if prepare_for(row)]
    if not wanted:
        return []
    at.board.add(
        Job(
            key,
            "prepare",
            say("job.set-out", dish=line.called),
            (Doing(K.HANDLING_MIN, "all", say("job.set-out-do")),),
            "prepare",
            (line.id,),
            amount=_names(several),
            keeps=Keeps(None, 0),
            day=-1 if day else 0,
        )
    )
    for row, grams in wanted:
        at.want(row.key, day, grams, key)
    return [key]


def _cooked(
    at: At,
    line: LinePlan,
    way: Way,
    several: Sequence[tuple[Solid, Ingredient, float]],
    day: int,
) -> str:
    grams = sum(each for _, _, each in several)
    loads, each_min, pieces, between = _loads(at, line, way, several, grams)
    water = _water(way, grams / loads)
    vessels = _vessels(at, way, grams / loads + 1000.0 * water)
    across = at.across(vessels)
    minutes, rings = way.heat_up if way.on != "fryer" else 0.0, at.any_ring(across)
    heating = say("job.heat")
    if water:
        heating = say("job.heat-water", litres=water)
        minutes, rings = at.rings_for("", lambda ring: _boils_after(water, ring), across)
    clean = bool(line.line.without) and way.on != "oven"
    parts, touches = in_rounds_of(at, way, loads, each_min, between, (minutes, heating), clean)
    off = sum(part.minutes for part in parts)
    if way.sink:
        parts.append(Doing(way.sink, "all", say("job.drain")))
    uses = _uses(at, way, vessels, rings, off)
    baking = None
    if way.on == "oven" and at.means.that_can("roast"):
        baking = Baking(way.oven_c, K.OVEN_GIVE_C, 1)
    names = tuple(row.name for _, row, _ in several)
    key = at.board.add(
        Job(
            f"side:{line.id}:{way.key}",
            "side",
            say("job.side", way=way.name, names=names, dish=line.called),
            tuple(parts),
            "stove",
            (line.id,),
            amount=pieces or _names(several),
            touches=tuple(touches),
            uses=uses,
            baking=baking,
            keeps=Keeps(way.keeps, way.suffers, way.look),
            day=-1 if day else 0,
            note=at.clean_for(line, fat=way.on == "fryer")
            or (say("job.rest", minutes=way.rest) if way.rest else ""),
        )
    )
    for _, row, each in several:
        at.want(row.key, day, each, key)
    return key


def in_rounds_of(
    at: At,
    way: Way,
    loads: int,
    each_min: float,
    between: float,
    heat: tuple[float, Sentence],
    clean: bool,
) -> tuple[list[Doing], list[Touch]]:
    """``loads`` of something cooked one after the other: what is done, and when it is turned. ``heat`` is
    how long water, pan or fat takes to be hot, and its words; ``clean``: what it is cooked in is washed
    first, whatever was in it before."""
    parts: list[Doing] = []
    touches: list[Touch] = []

    def do(minutes: float, hands: Hands, words: Sentence, cue: Sentence | str = "") -> float:
        """When it begins."""
        begins = sum(part.minutes for part in parts)
        if minutes > 0.0:
            parts.append(Doing(minutes, hands, words, cue))
        return begins

    do(K.WASH_MIN if clean else 0.0, "all", say("job.wash-first"))
    do(0.0 if at.hot else heat[0], "none", heat[1])
    for load in range(1, loads + 1):
        name = say("job.round", number=load, rounds=loads) if loads > 1 else say("job.in")
        do(way.put_in, "all", name)
        begins = do(each_min, way.hands, say("job.cooking", way=said(way.name)), way.look)
        touches += [Touch(begins + share * each_min, say("job.turn")) for share in way.turns]
        do(way.take_out, "all", say("job.out"))
        if load < loads:
            short = way.hands == "all" and between < 1.0  # nobody walks away for half a minute
            do(between, "all" if short else "none", say("job.recover"))
    return parts, touches


def rest_of(at: At, key: str) -> float:
    """How long what ``key`` cooked has to lie before it is used, minutes."""
    way = at.library.ways.get(key.rpartition(":")[2])
    return way.rest if way else 0.0


def _loads(
    at: At,
    line: LinePlan,
    way: Way,
    several: Sequence[tuple[Solid, Ingredient, float]],
    grams: float,
) -> tuple[int, float, Sentence | None, float]:
    """In how many rounds, minutes of each, their pieces where they are counted, and between them."""
    for rounds in line.dish.rounds:
        if _is_for(rounds, way, several):
            found = in_rounds(rounds, line.line.portions)
            return (
                found.rounds,
                rounds.minutes,
                say("job.pieces", count=found.pieces, what=rounds.what, a_round=found.a_round),
                rounds.between_minutes,
            )
    load = way.load_g
    if way.vessel == "pot":
        gear = at.means.that_can(way.gear) if way.gear else ()
        litres = max((one.litres for one in gear), default=0.0) or at.largest_pan_ml() / 1000.0
        load = 1000.0 * litres / (1.0 + way.water_l_per_kg)
    loads = max(1, math.ceil(grams / load - 1e-9)) if load else 1
    return loads, way.minutes, None, way.between


def _is_for(rounds: Rounds, way: Way, several: Sequence[tuple[Solid, Ingredient, float]]) -> bool:
    if rounds.way:
        return rounds.way == way.key
    if rounds.ingredient:
        return any(row.key == rounds.ingredient for _, row, _ in several)
    return way.key in ("poach", "sear", "fry", "toss", "pancakes")


def _water(way: Way, grams: float) -> float:
    """Litres of water it is cooked in, at least one; 0 where it needs none."""
    wet = way.on == "ring" and way.water_l_per_kg > 0.0
    return max(1.0, way.water_l_per_kg * grams / 1000.0) if wet else 0.0


def _boils_after(litres: float, ring: Ring) -> float:
    heat = K.HEAT_CAPACITY["water"] * 1000.0 * litres
    return boil_up_minutes(heat, K.TAP_C, ring.stove, 1000.0 * litres)


def _vessels(at: At, way: Way, ml: float) -> frozenset[str]:
    """What it is cooked in on a ring: a thing made for it, else a pan with room for ``ml``."""
    if way.on != "ring":
        return frozenset()
    vessels = at.gear_units(at.means.that_can(way.gear)) if way.gear else frozenset()
    if vessels or way.vessel == "none":
        return vessels
    return at.pans_holding(ml if way.vessel == "pot" else 500.0)


def _uses(
    at: At, way: Way, vessels: frozenset[str], rings: frozenset[str], off: float
) -> tuple[Use, ...]:
    uses: list[Use] = []
    if way.on == "ring":
        uses.append(Use(rings, 0.0, off))
        if vessels:
            uses.append(Use(vessels, 0.0, None))
    elif way.on in ("grill", "fryer", "steamer", "griddle", "microwave"):
        gear = at.means.that_can(
            way.gear or {"grill": "toast", "steamer": "steam"}.get(way.on, way.on)
        )
        if gear:
            uses.append(Use(at.gear_units(gear), 0.0, off))
        else:
            at.board.remarks.append(say("nothing-that-can", way=way.name, on=way.on))
    if way.sink and at.sink():
        uses.append(Use(at.sink(), off, None))
    return tuple(uses)


def _names(several: Sequence[tuple[Solid, Ingredient, float]]) -> Sentence:
    return say(
        "job.amounts",
        rows=tuple(
            say(_as_it_goes_in(solid, row), much=weight(g), name=row.name)
            for solid, row, g in several
        ),
    )


def _as_it_goes_in(solid: Solid, row: Ingredient) -> str:
    """What the weight of a side is of, where it could be taken for the cooked one."""
    if solid.state == "dry" or row.drained_share > 1.0:
        return "board.dry"
    return "board.raw" if row.drained_share < 1.0 else "so-much-of"


def lay_preparing(at: At) -> None:
    """Work by hand, for each ingredient all at once, cut into pieces that two can share."""
    larder = at.kitchen.larder
    for (ingredient, day), wanted in sorted(at.wants.items()):
        row = larder[ingredient]
        prepare = prepare_for(row)
        if prepare is None or wanted.grams < 1.0:
            continue
        raw = row.bought_g(wanted.grams)
        minutes = at.library.minutes(prepare, raw)
        parts = max(1, math.ceil(minutes / K.PREPARE_AT_A_TIME_MIN - 1e-9))
        lines = tuple(sorted({n for job in wanted.jobs for n in at.board.jobs[job].lines}))
        for number in range(1, parts + 1):
            name = say(f"job.{prepare.key}", name=said(row.name))
            if parts > 1:
                name = say("job.part-of", name=name, number=number, parts=parts)
            key = f"prep:{ingredient}:{-day}" + (f"#{number}" if number > 1 else "")
            at.board.add(
                Job(
                    key,
                    "prepare",
                    name,
                    (Doing(minutes / parts, "all", name),),
                    "prepare",
                    lines,
                    amount=weight(raw / parts)
                    if raw < 1.01 * wanted.grams
                    else say(
                        "job.whole-and-trimmed",
                        whole=weight(raw / parts),
                        trimmed=weight(wanted.grams / parts),
                    ),
                    keeps=Keeps(60.0, 1, say("keeps.green")) if prepare.green else Keeps(),
                    day=-1 if day else 0,
                )
            )
            for job in dict.fromkeys(wanted.jobs):
                at.board.follow(key, job)


def lay_thawing(at: At) -> None:
    """What is on hand in the freezer comes out the day before."""
    of_the_kind: dict[str, int] = {}
    for one in at.plan.service.on_hand:
        if one.place != "freezer":
            continue
        name: Sentence | str = one.roux or ""
        if one.ingredient:
            name = at.kitchen.larder[one.ingredient].spoken_name
        elif one.sauce:
            name = next((used.name for used in at.plan.used if used.sauce == one.sauce), "")
            if not name:  # no dish takes it today
                continue
        kind = f"thaw:{one.sauce or one.roux or one.ingredient}:{one.age_days:g}d"
        of_the_kind[kind] = of_the_kind.get(kind, 0) + 1
        at.board.add(
            Job(
                f"{kind}#{of_the_kind[kind]}",
                "prepare",
                say("job.thaw", name=name),
                (Doing(1.0, "all", say("job.thaw-do")),),
                "prepare",
                amount=one.amount.said(),
                day=-1,
            )
        )
