"""What makes a dish of sauces and sides: filled, chilled, coloured, plated, carried out."""

import math
from dataclasses import replace

from saucier import constants as K
from saucier.dish.finish import through_minutes
from saucier.run_up.fried import fried
from saucier.run_up.jobs import Doing, Job, Keeps, Touch
from saucier.run_up.kitchen import At
from saucier.run_up.sides import lay_sides, rest_of
from saucier.service import LinePlan
from saucier.timing import Baking, Serving, Use
from saucier.words import Sentence, say

FILLING = ("filling", "inside", "toast", "croquettes")
"""Uses of a sauce that are worked into the dish by hand before it is finished."""


def lay_mise_en_place(at: At, line: LinePlan, served: float) -> None:
    """What stands ready for plates that are finished when called, from the minute ``served`` on: its
    sauces, and the sides that bear waiting."""
    board = at.board
    standing = [
        key
        for key in lay_sides(at, line, 0)
        if board.jobs[key].keeps.suffers < K.A_LA_MINUTE_SUFFERS
    ]
    for key in [key for key in board.jobs if key.startswith(f"side:{line.id}:")]:
        if key not in standing:  # cooked when called; what is cut for it is wanted all the same
            del board.jobs[key]
    key = board.add(
        Job(
            f"mise:{line.id}",
            "prepare",
            say("job.mise", dish=line.called),
            (Doing(2.0, "all", say("job.mise-do")),),
            "plate",
            (line.id,),
            amount=say("job.portions", count=line.line.portions),
        )
    )
    for wanted in at.wants.values():
        wanted.jobs = [job if job in board.jobs else key for job in wanted.jobs]
    filled = _filled(at, line, tuple(standing), 0)
    if filled:  # spread, rolled: ready to be coloured
        board.follow(filled, key)
    else:
        _takes(at, line, key, tuple(standing), True)
    board.servings.append(Serving(key, served, f"{line.line.sitting}", None, 1))


def finish_to_order(at: At, line: LinePlan, sides: tuple[str, ...]) -> None:
    """What is done with ``line`` once it is called: its sauce warmed, coloured, plated."""
    board = at.board
    worked = line.layout is not None or any(need.use.key in FILLING for need in line.needs)
    sauce = (
        None
        if worked
        else board.add(
            Job(
                f"sauce:{line.id}",
                "pot",
                say("call.finish-sauce"),
                (Doing(K.CALL_SAUCE_MIN, "all", say("call.finish-sauce")),),
                "stove",
                (line.id,),
                uses=(Use(at.any_ring()),),
                keeps=Keeps(4.0, 3, say("keeps.plated")),
            )
        )
    )
    hot = _finished(at, line, None)
    _served(at, line, hot, sides if not hot else (), 0.0)
    plate = f"plate:{line.id}"
    for side in sides:
        for one in hot:
            board.follow(side, one, at_least=rest_of(at, side))
    if sauce:
        board.follow(sauce, plate)
    board.servings = [replace(one, longest=3.0, suffers=9) for one in board.servings]


def lay_dish(at: At, line: LinePlan, served: float, ahead: bool) -> None:
    """Every job of ``line`` from its solids to the pass, served at the minute ``served``."""
    day = -1 if ahead else 0
    board = at.board
    sides = lay_sides(at, line, day)
    last = _filled(at, line, sides, day)
    if ahead and last:
        chill = board.add(
            Job(
                f"chill:{line.id}",
                "chill",
                say("job.chill", dish=line.called),
                (Doing(K.CHILL_FILLED_MIN, "none", say("job.chill-do")),),
                "prepare",
                (line.id,),
                day=-1,
                note=say("job.chill-note"),
            )
        )
        board.follow(last, chill)
        last = None  # the rest is another day's
    elif ahead:
        last = None
    hot = _finished(at, line, last)
    before = hot or ((last,) if last else ())
    _served(at, line, before, () if last or ahead else sides, served)


def _filled(at: At, line: LinePlan, sides: tuple[str, ...], day: int) -> str | None:
    """Filled vessels, rolled pancakes, spread toasts; None for what is put together on the plate."""
    worked = any(need.use.key in FILLING for need in line.needs)
    if line.layout is None and not worked:
        return None
    portions = line.line.portions
    if line.layout:
        minutes = K.FILL_MIN * min(line.layout.vessels, 4) + K.FILL_EACH_MIN * portions
        amount = say(
            "job.vessels", count=line.layout.vessels, vessel=line.layout.name, g=line.layout.each_g
        )
    else:
        minutes = K.FILL_MIN + K.ROLL_EACH_MIN * portions
        amount = say("job.portions", count=portions)
    coats = any(topping.place == "coating" for topping in line.dish.toppings)
    parts = [Doing(minutes, "all", say("job.fill-do"))]
    if coats:
        parts.append(Doing(0.3 * portions, "all", say("job.coat-do")))
    key = at.board.add(
        Job(
            f"fill:{line.id}",
            "fill",
            say("job.fill", dish=line.called),
            tuple(parts),
            "plate",
            (line.id,),
            amount=amount,
            keeps=Keeps(K.FILLED_WAITS_MIN, 1, say("keeps.filled")),
            note=at.clean_for(line),
            day=-1 if day else 0,
        )
    )
    _takes(at, line, key, sides, worked or line.layout is not None)
    for topping in line.dish.toppings:
        grams = (
            line.layout.toppings.get(topping.ingredient, 0.0) * line.layout.vessels
            if line.layout
            else (topping.grams or 0.0) * portions
        )
        at.want(topping.ingredient, day, grams, key)
    return key


def _takes(at: At, line: LinePlan, key: str, sides: tuple[str, ...], sauces: bool) -> None:
    board = at.board
    for side in sides:
        board.follow(side, key, at_least=rest_of(at, side))
    if sauces:
        for branch in dict.fromkeys(line.branches):
            at.eats.setdefault(branch, []).append(key)
            for made in at.made.get(branch, ()):
                if board.jobs[made].day == board.jobs[key].day:
                    board.follow(made, key)


def _finished(at: At, line: LinePlan, filled: str | None) -> tuple[str, ...]:
    """Oven, grill, fryer or torch, in loads; the jobs that end it."""
    dish = line.dish
    fry = next((r for r in dish.rounds if r.way == "fry" and not r.ingredient), None)
    cold = dish.filled == "cold" and line.layout is not None
    ends: list[str] = []
    if cold and line.layout:
        minutes = through_minutes(line.layout.fill_mm, dish.oven_c, dish.oven)
        if dish.finish == "oven":
            minutes = max(minutes, dish.finish_minutes)
        ends = _baked(at, line, minutes, dish.oven_c or K.MODERATE_OVEN_C, "job.bake-through")
    elif dish.finish == "oven" and dish.finish_minutes > 0.0:
        ends = _baked(at, line, dish.finish_minutes, dish.oven_c or K.MODERATE_OVEN_C, "job.bake")
    if dish.finish == "grill":
        before, ends = ends, _grilled(at, line)
        for one in before:
            for two in ends:
                at.board.follow(one, two)
        first = before or ends
    else:
        first = list(ends)
    if dish.finish == "torch":
        ends = first = [_torched(at, line)]
    if fry:
        ends = first = [fried(at, line, fry)]
    if filled:
        for one in first:
            at.board.follow(filled, one)
    return tuple(ends)


def _loads(area_cm2: float, room_cm2: float) -> int:
    return max(1, math.ceil(area_cm2 / max(room_cm2, 1.0) - 1e-9))


def _area(line: LinePlan) -> float:
    if line.layout and line.dish.vessel:
        return line.layout.vessels * line.dish.vessel.area_cm2
    return K.PIECE_CM2 * line.line.portions


def _baked(at: At, line: LinePlan, minutes: float, to_c: float, word: str) -> list[str]:
    ovens = at.means.that_can("bake")
    oven = max(ovens, key=lambda one: one.shelves, default=None)
    shelf = oven.area_cm2 if oven and oven.area_cm2 else 1700.0
    each = line.dish.vessel.area_cm2 if line.dish.vessel else shelf
    a_shelf = max(1, int(shelf // each)) if each <= shelf else 1
    vessels = line.layout.vessels if line.layout else _loads(_area(line), shelf)
    shelves = math.ceil(vessels / a_shelf) if line.layout else vessels
    most = oven.shelves if oven else 3
    loads = math.ceil(shelves / most)
    keys = []
    for number in range(1, loads + 1):
        here = min(most, shelves - (number - 1) * most)
        parts = [
            Doing(K.HANDLING_MIN, "all", say("job.into-oven")),
            Doing(
                max(0.5, minutes - K.HANDLING_MIN),
                "none",
                say(word, to_c=to_c),
                say("job.check-middle"),
            ),
            Doing(K.HANDLING_MIN, "all", say("job.out")),
        ]
        name = say("job.oven", dish=line.called, to_c=to_c)
        if loads > 1:
            name = say("job.load", name=name, number=number, loads=loads)
        keys.append(
            at.board.add(
                Job(
                    f"oven:{line.id}" + (f"#{number}" if number > 1 else ""),
                    "finish",
                    name,
                    tuple(parts),
                    "oven",
                    (line.id,),
                    amount=say("job.shelves", shelves=here),
                    baking=Baking(to_c, K.OVEN_GIVE_C, here) if oven else None,
                    keeps=Keeps(K.COLOURED_WAITS_MIN, 9, say("keeps.coloured")),
                )
            )
        )
    return keys


def _grilled(at: At, line: LinePlan) -> list[str]:
    dish, board = line.dish, at.board
    grills = at.means.that_can("gratinate")
    flat = [one for one in grills if one.kind != "torch" and one.kind != "oven"]
    if not flat:
        return _baked(
            at, line, max(4.0, 2 * dish.finish_minutes), K.HOT_OVEN_AS_GRILL_C, "job.bake-hot"
        )
    grill = max(flat, key=lambda one: one.area_cm2)
    told = next((r for r in dish.rounds if r.way == "toast" and not r.ingredient), None)
    room = told.room_cm2 * told.fill_pct / 100.0 if told else grill.area_cm2 or 1300.0
    area = told.piece_cm2 * told.each * line.line.portions if told else _area(line)
    loads = _loads(area, room)
    warm = _warmed(at, grill.name, grill.heat_up, say("job.heat-grill"))
    keys = []
    minutes = max(1.0, dish.finish_minutes)
    for number in range(1, loads + 1):
        name: Sentence = say("job.grill", dish=line.called)
        if loads > 1:
            name = say("job.load", name=name, number=number, loads=loads)
        key = board.add(
            Job(
                f"grill:{line.id}" + (f"#{number}" if number > 1 else ""),
                "finish",
                name,
                (
                    Doing(K.HANDLING_MIN, "all", say("job.under-grill")),
                    Doing(minutes, "now-and-then", say("job.colour"), say("job.colour-cue")),
                    Doing(K.HANDLING_MIN, "all", say("job.out")),
                ),
                "oven",
                (line.id,),
                touches=(Touch(K.HANDLING_MIN + 0.6 * minutes, say("job.turn-tray")),),
                uses=(Use(at.gear_units(flat)),),
                keeps=Keeps(K.COLOURED_WAITS_MIN, 9, say("keeps.coloured")),
            )
        )
        if warm:
            board.heat(warm, key)
        keys.append(key)
    return keys


def _torched(at: At, line: LinePlan) -> str:
    torches = [one for one in at.means.that_can("gratinate") if one.kind == "torch"]
    if not torches:
        at.board.remarks.append(say("no-torch", dish=line.called))
    return at.board.add(
        Job(
            f"torch:{line.id}",
            "finish",
            say("job.torch", dish=line.called),
            (Doing(max(1.0, K.TORCH_EACH_MIN * line.line.portions), "all", say("job.torch-do")),),
            "plate",
            (line.id,),
            uses=(Use(at.gear_units(torches)),) if torches else (),
            keeps=Keeps(K.COLOURED_WAITS_MIN, 9, say("keeps.coloured")),
        )
    )


def _warmed(at: At, name: str, minutes: float, what: Sentence) -> str | None:
    """A grill, a fryer, an oven brought to heat, once."""
    if minutes <= 0.0:
        return None
    key = f"heat:{name}"
    if key not in at.board.jobs:
        at.board.add(
            Job(
                key,
                "warm-up",
                what,
                (Doing(minutes, "none", what),),
                "oven",
                touches=(Touch(0.0, say("job.switch-on")),),
            )
        )
    return key


def _served(
    at: At, line: LinePlan, before: tuple[str, ...], sides: tuple[str, ...], served: float
) -> None:
    """Plated or carried out, and at the pass by then."""
    board, portions = at.board, line.line.portions
    whole = line.layout is not None
    minutes = (
        K.CARRY_MIN * min(4, line.layout.vessels) + K.CARRY_EACH_MIN * portions
        if line.layout
        else K.PLATE_MIN + K.PLATE_EACH_MIN * portions
    )
    key = board.add(
        Job(
            f"plate:{line.id}",
            "carry" if whole else "plate",
            say("job.carry" if whole else "job.plate", dish=line.called),
            (Doing(minutes, "all", say("job.carry-do" if whole else "job.plate-do")),),
            "plate",
            (line.id,),
            amount=say("job.portions", count=portions),
            note=at.clean_for(line),
            keeps=Keeps(K.PLATED_WAITS_MIN, 9, say("keeps.plated")),
        )
    )
    for one in before:
        board.follow(one, key)
    _takes(at, line, key, sides, _on_plate(line, whole or bool(before)))
    if line.dish.plate_c > K.PLATES_WARMED_FROM_C and not whole:
        board.follow(_plates(at, line), key)
    board.servings.append(
        Serving(
            key,
            served + at.doc.served_over,
            f"{line.line.sitting}",
            K.PLATED_WAITS_MIN + at.doc.served_over,
            2,
        )
    )


def _on_plate(line: LinePlan, worked: bool) -> bool:
    """Whether a sauce goes on as it is plated."""
    return any(need.use.key not in FILLING for need in line.needs) and not (
        worked and line.layout is not None
    )


def _plates(at: At, line: LinePlan) -> str:
    cupboards = at.means.that_can("warm-plates")
    return at.board.add(
        Job(
            f"plates:{line.id}",
            "warm-up",
            say("job.warm-plates", count=math.ceil(line.line.portions), dish=line.called),
            (
                Doing(K.HANDLING_MIN, "all", say("job.plates-in")),
                Doing(K.WARM_PLATES_MIN, "none", say("job.plates-warm", to_c=line.dish.plate_c)),
            ),
            "plate",
            (line.id,),
            keeps=Keeps(90.0 if cupboards else 15.0, 0, say("keeps.plates")),
        )
    )


def heat_ovens(at: At) -> None:
    """The oven is hot before anything goes in, at each of its temperatures."""
    ovens = at.means.that_can("bake")
    for job in list(at.board.jobs.values()):
        if not job.baking or not ovens:
            continue
        to_c = round(job.baking.at_c / 5.0) * 5.0
        heats = max(one.heat_up for one in ovens)
        warm = _warmed(at, f"oven:{to_c:.0f}", heats, say("job.heat-oven", to_c=to_c))
        if warm:
            at.board.heat(warm, job.key)
