"""How sides and companions are cooked, and what is done with things by hand beforehand: the shipped
library, with a kitchen's own figures in its place."""

import itertools
import re
import tomllib
from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass, field
from functools import cache
from pathlib import Path
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from saucier.document import Celsius, Minutes, Part
from saucier.errors import BadInput
from saucier.larder import Ingredient
from saucier.sheet.reading import problems_of
from saucier.steps import Hands
from saucier.words import degrees_in

_HERE = Path(__file__).parent
On = Literal["ring", "oven", "grill", "fryer", "steamer", "griddle", "microwave", "table"]
Key = Annotated[str, Field(min_length=1, max_length=60)]


class Way(Part):
    """One way to cook something that is not a sauce; ``ways.toml`` says what each figure is."""

    key: Key
    name: Annotated[str, Field(min_length=1, max_length=60)]
    on: On = "ring"
    vessel: Literal["pot", "pan", "none"] = "none"
    gear: Annotated[str, Field(max_length=30)] = ""
    water_l_per_kg: Annotated[float, Field(ge=0, le=20)] = 0.0
    minutes: Minutes = 0.0
    hands: Hands = "now-and-then"
    put_in: Minutes = 0.0
    take_out: Minutes = 0.0
    turns: Annotated[tuple[Annotated[float, Field(ge=0, le=1)], ...], Field(max_length=8)] = ()
    load_g: Annotated[float, Field(ge=0, le=50_000)] = 0.0
    between: Minutes = 0.0
    heat_up: Minutes = 0.0
    sink: Minutes = 0.0
    rest: Minutes = 0.0
    keeps: Minutes = 240.0
    suffers: Annotated[int, Field(ge=0, le=9)] = 0
    oven_c: Celsius = 180.0
    bought: bool = False
    does: Annotated[tuple[Key, ...], Field(max_length=80)] = ()
    cue: Annotated[str, Field(max_length=200)] = ""

    @property
    def look(self) -> str:
        """Its cue, with degrees as the kitchen writes them."""
        return degrees_in(self.cue)


@dataclass(frozen=True, slots=True)
class Prepare:
    """Work by hand: minutes for each kilo as it is bought, and the least."""

    key: str
    per_kg: float
    least: float
    does: frozenset[str]
    roles: frozenset[str]
    green: bool = False

    def minutes(self, grams: float) -> float:
        """
        >>> shipped_prepares()["grate"].minutes(500)
        4.5
        """
        return max(self.least, self.per_kg * grams / 1000.0)


def read_way(data: Mapping[str, Any]) -> Way:
    """A way as a kitchen has it. Raises :class:`BadInput` by field."""
    try:
        return Way.model_validate(data)
    except ValidationError as invalid:
        raise problems_of(invalid) from None


def new_way(name: str, does: Iterable[str], there: Collection[str]) -> Way:
    """A way that nobody ships, with figures to begin from and a key that none of ``there`` is. Raises
    :class:`BadInput` by field.

    >>> new_way("Smoked over hay", (), ()).key, new_way("???", (), ("own-way",)).key
    ('own-smoked-over-hay', 'own-way-2')
    """
    slug = "-".join(re.findall(r"[a-z0-9]+", name.lower()))[:50].strip("-")
    first = f"own-{slug or 'way'}"
    keys = (first if n == 1 else f"{first}-{n}" for n in itertools.count(1))
    key = next(key for key in keys if key not in there)
    return read_way({**_TO_BEGIN_FROM, "key": key, "name": name.strip(), "does": list(does)})


_TO_BEGIN_FROM: Mapping[str, Any] = {
    "on": "ring",
    "vessel": "pan",
    "minutes": 10.0,
    "put_in": 1.0,
    "take_out": 1.0,
    "keeps": 10.0,
}
"""Of a new way: a pan on a ring for ten minutes, as fish and meat mostly are."""


@cache
def shipped_ways() -> dict[str, Way]:
    """The library as it ships, by key."""
    table = tomllib.loads((_HERE / "ways.toml").read_text(encoding="utf-8"))
    return {key: Way.model_validate({**row, "key": key}) for key, row in table.items()}


@cache
def shipped_prepares() -> dict[str, Prepare]:
    """What is done by hand, by key."""
    table = tomllib.loads((_HERE / "prepares.toml").read_text(encoding="utf-8"))
    return {
        key: Prepare(
            key,
            row["per_kg"],
            row["least"],
            frozenset(row.get("does", ())),
            frozenset(row.get("roles", ())),
            row.get("green", False),
        )
        for key, row in table.items()
    }


@dataclass(frozen=True)
class Library:
    """The ways a kitchen cooks by: the shipped ones, its own in their place; ``hands`` is how many times the
    usual minutes its cooks take for work at the board, by its key."""

    ways: Mapping[str, Way]
    hands: Mapping[str, float] = field(default_factory=dict)

    @classmethod
    def of(cls, own: Iterable[Way] = (), hands: Mapping[str, float] | None = None) -> "Library":
        return cls({**shipped_ways(), **{way.key: way for way in own}}, hands or {})

    def minutes(self, prepare: Prepare, grams: float) -> float:
        """
        >>> grate = shipped_prepares()["grate"]
        >>> Library.of(hands={"grate": 2.0}).minutes(grate, 500)
        9.0
        """
        return prepare.minutes(grams) * self.hands.get(prepare.key, 1.0)

    def way(self, key: str) -> Way:
        """Raises :class:`BadInput` (field ``way``) for one nobody knows."""
        if key not in self.ways:
            raise BadInput.at("way", "is-no-way-to-cook", key=key[:60])
        return self.ways[key]

    def usual(self, row: Ingredient) -> Way:
        """How ``row`` is usually cooked; had ready where nothing is said of it.

        >>> from saucier.larder import shipped_larder
        >>> Library.of().usual(shipped_larder()["pasta-dry"]).key
        'boil-pasta'
        """
        for way in reversed(list(self.ways.values())):  # a kitchen's own come last
            if row.key in way.does:
                return self.ways["as-it-is"] if way.bought else way
        if row.role in ("fish", "seafood"):
            return self.ways["poach"]
        return self.ways["as-it-is"]


def prepare_for(row: Ingredient) -> Prepare | None:
    """What is done with ``row`` by hand; None: nothing worth a line."""
    every = shipped_prepares().values()
    named = next((one for one in every if row.key in one.does), None)
    ready = row.key.endswith(("-ground", "-grated", "-dried")) or row.drained_share > 1.0
    if named or ready:
        return named
    return next((one for one in every if row.role in one.roles), None)
