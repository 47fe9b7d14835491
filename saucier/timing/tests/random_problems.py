"""Problems as services make them, with nothing of a sauce in them."""

import random

from saucier.timing import Away, Baking, Hold, Link, Oven, Problem, Serving, Stretch, Task, Use

RINGS = ("ring 1", "ring 2", "ring 3", "ring 4")
LARGE = frozenset(RINGS[:2])
PANS = ("pan 1", "pan 2", "pan 3", "pan 4", "pan 5", "pan 6")


def problem(seed: int, dishes: int, cooks: int = 2, skilled: bool = False) -> Problem:
    """A service of so many ``dishes`` (some ten tasks each) at noon."""
    chance = random.Random(seed)
    names = tuple(f"cook {n + 1}" for n in range(cooks))
    everyone = frozenset(names)
    stove = frozenset(names[: max(1, cooks - 1)]) if skilled else everyone
    tasks: list[Task] = []
    links: list[Link] = []
    servings: list[Serving] = []
    holds: list[Hold] = []
    washes: list[Task] = []

    def add(key: str, *stretches: Stretch, **more: object) -> str:
        tasks.append(Task(key, stretches, **{"cooks": everyone, **more}))
        return key

    def hands(minutes: float) -> Stretch:
        return Stretch(minutes, "all")

    def watch(minutes: float) -> Stretch:
        return Stretch(minutes, "now-and-then")

    for dish in range(dishes):
        at = 12 * 60.0 if chance.random() < 0.7 else 13 * 60.0 + 15
        prep = [
            add(f"{dish} prep {n}", hands(chance.choice([3, 5, 8, 12])))
            for n in range(chance.randint(2, 4))
        ]
        stretch = [hands(chance.choice([4, 7])), watch(chance.choice([5, 10, 20])), hands(3)]
        ring = Use(frozenset(RINGS) if chance.random() < 0.5 else LARGE)
        pot = add(f"{dish} pot", *stretch, cooks=stove, uses=(ring,))
        side = add(
            f"{dish} side",
            hands(1),
            watch(chance.choice([10, 18])),
            hands(1.5),
            cooks=stove,
            uses=(Use(frozenset(RINGS)),),
            touches=(6.0,),
        )
        plate = add(f"{dish} plate", hands(chance.choice([2, 4])))
        links += [Link(one, pot) for one in prep[:1]] + [Link(one, side) for one in prep[1:]]
        if chance.random() < 0.5:
            fill = add(f"{dish} fill", hands(4))
            bake = add(
                f"{dish} bake",
                Stretch(chance.choice([12, 25, 40]), "none"),
                baking=Baking(chance.choice([160, 180, 220])),
            )
            links += [
                Link(pot, fill, longest=30, suffers=1),
                Link(side, fill, longest=45, suffers=1),
                Link(fill, bake, longest=60),
                Link(bake, plate, longest=4, suffers=9),
            ]
            emptied = fill
        else:
            links += [
                Link(pot, plate, longest=20, suffers=3),
                Link(side, plate, longest=10, suffers=3),
            ]
            sear = add(
                f"{dish} sear",
                hands(1),
                watch(chance.choice([4, 8])),
                cooks=stove,
                uses=(Use(LARGE),),
                touches=(2.0,),
            )
            links += [Link(prep[0], sear), Link(sear, plate, at_least=2, longest=8, suffers=9)]
            emptied = plate
        wash = Task(f"{dish} wash", (hands(2),), everyone, (Use(frozenset({"sink"})),))
        washes.append(wash)
        holds.append(Hold(frozenset(PANS), pot, (pot, emptied), wash.key))
        servings.append(Serving(plate, at, f"{at:g}", longest=6, suffers=9))
    away = (Away(names[-1], 11 * 60.0, 11 * 60.0 + 15),) if cooks > 1 else ()
    return Problem(
        tuple(tasks),
        tuple(links),
        tuple(servings),
        names,
        ovens=(Oven("oven", 3),),
        holds=tuple(holds),
        washes=tuple(washes),
        away=away,
        begin=6 * 60.0,
        end=17 * 60.0,
    )
