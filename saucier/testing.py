"""Sheets and strategies that the core's tests share, and how large their trials are."""

import copy
import os
import random
from collections.abc import Iterable, Iterator
from typing import Any, TypeVar

from hypothesis import settings
from hypothesis import strategies as st

from saucier.sheet import Sheet, read_sheet

settings.register_profile("kestrel", max_examples=60, deadline=None, derandomize=True)
settings.load_profile("kestrel")

T = TypeVar("T")


def trial_count(full: int, sample: int) -> int:
    """How many random cases a trial takes: ``full`` by ``make trials``, the first ``sample`` of the same draws in every
    other run of the tests: about two seconds of them."""
    return full if os.environ.get("KESTREL_TRIALS") == "full" else sample


def trial_of(cases: Iterable[T], many: int) -> list[T]:
    """The ``cases`` a trial takes: all of them by ``make trials``, ``many`` spread evenly over them in every other run.

    >>> trial_of(range(10), 3)
    [0, 3, 6]
    """
    every = list(cases)
    count = trial_count(len(every), min(many, len(every)))
    return [every[n * len(every) // count] for n in range(count)]


def roux(fat_g: float, flour_g: float, colour: str = "white") -> dict[str, Any]:
    return {
        "op": "roux",
        "fat": {"ingredient": "butter-unsalted", "amount": grams(fat_g)},
        "flour": {"ingredient": "wheat-flour", "amount": grams(flour_g)},
        "colour": colour,
    }


def add(ingredient: str, amount: float, unit: str = "g") -> dict[str, Any]:
    return {"op": "add", "ingredient": ingredient, "amount": {"value": amount, "unit": unit}}


def melt(ingredient: str, amount_g: float) -> dict[str, Any]:
    return {"op": "melt", "ingredient": ingredient, "amount": grams(amount_g)}


def use(
    steps: list[dict[str, Any]], amount: Any, name: str = "inside", **rest: Any
) -> dict[str, Any]:
    """``amount`` (or a share) of another sauce of ``steps``."""
    return {"op": "use", "sauce": {"name": name, "steps": steps}, "amount": amount, **rest}


def reduce_to(**stop: Any) -> dict[str, Any]:
    return {"op": "reduce", "to": stop}


def simmer(minutes: float, heat: str = "simmer") -> dict[str, Any]:
    return {"op": "simmer", "minutes": minutes, "heat": heat}


def grams(value: float) -> dict[str, Any]:
    return {"value": value, "unit": "g"}


def sheet(*steps: dict[str, Any], **rest: Any) -> Sheet:
    return read_sheet({"name": "test", "steps": list(steps), **rest})


def white_sauce(flour_g: float, **rest: Any) -> Sheet:
    """A litre of milk, butter and flour in equal weights, 5 % of the mass boiled off."""
    return sheet(roux(flour_g, flour_g), add("milk-whole", 1, "L"), reduce_to(share=0.95), **rest)


CHEESE_SAUCE: dict[str, Any] = {
    "name": "cheese sauce",
    "family": "cheese-sauce",
    "method": {"fat_to_flour": 1.0},
    "target": {"grade": "binding", "volume": {"value": 2, "unit": "L"}, "salt_pct": 0.9},
    "steps": [
        roux(80, 80),
        add("milk-whole", 1, "L"),
        simmer(5),
        melt("cheese-hard-alpine", 120),
        {"op": "season", "ingredient": "salt", "amount": {"to_salt_pct": 0.9}},
    ],
}

CREAM_REDUCTION: dict[str, Any] = {
    "name": "cream reduction",
    "family": "cream-reduction",
    "target": {"grade": "light-coat", "volume": {"value": 500, "unit": "mL"}},
    "steps": [
        add("wine-white-dry", 120),
        reduce_to(mass=grams(60)),
        add("cream-35", 237),
        reduce_to(share=0.5),
    ],
}

flour_grams = st.floats(10, 150)
milk_litres = st.floats(0.2, 20)
GRADED = ("pouring", "light-coat", "nappe", "binding", "spreading")


@st.composite
def roux_sheets(draw: st.DrawFn) -> Sheet:
    """A sauce with a roux, its liquid, maybe cheese, a simmer that does not scale."""
    litres = draw(milk_litres)
    liquid = draw(st.sampled_from(["milk-whole", "stock-light", "stock-fish"]))
    steps = [
        roux(
            draw(st.floats(30, 90)) * litres, 60 * litres, draw(st.sampled_from(["white", "blond"]))
        ),
        add(liquid, litres, "L"),
        # A little sauce in the widest pan boils dry within minutes, and is rightly refused.
        simmer(
            draw(st.floats(3, min(15.0, 25.0 * litres))),
            draw(st.sampled_from(["bare-simmer", "simmer", "lively"])),
        ),
    ]
    if draw(st.booleans()):
        steps.append(melt("cheese-hard-alpine", draw(st.floats(10, 120)) * litres))
    if draw(st.booleans()):
        steps.append(add("cream-35", draw(st.floats(20, 150)) * litres))
    pan = draw(st.sampled_from([None, {"diameter_cm": 20}, {"diameter_cm": 32, "shape": "sloped"}]))
    return sheet(*steps, **({"pan": pan} if pan else {}))


NONSENSE: tuple[Any, ...] = (
    *("", None, "abc", "-3", 0, -1, 1e9, 1e308, "1e9", "٣", "NaN", True, [], {}, "1.5.2"),
    *("½", [1], {"value": 1, "unit": "g"}, "x" * 500),
)
"""What somebody may type or send where a figure or a word is meant."""


def with_nonsense(document: dict[str, Any], dice: random.Random) -> dict[str, Any]:
    """``document`` with nonsense in one field of it, however deep."""
    changed = copy.deepcopy(document)
    *above, last = dice.choice(list(_paths(changed)))
    holder: Any = changed
    for step in above:
        holder = holder[step]
    holder[last] = dice.choice(NONSENSE)
    return changed


def _paths(part: Any, above: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    rows = part.items() if isinstance(part, dict) else enumerate(part)
    for name, value in rows:
        yield (*above, name)
        if isinstance(value, dict | list):
            yield from _paths(value, (*above, name))
