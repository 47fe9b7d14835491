"""What a guest goes without, as a cook means it: every gram, the stock and the fat included."""

from collections.abc import Iterable
from dataclasses import dataclass

from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import ALLERGENS, ROLES, UNSAID, Ingredient, Larder
from saucier.pot import Pot
from saucier.words import Sentence, say

_FLESH = frozenset(
    ["pork", "beef", "lamb", "poultry", "rabbit", "game", "meat", "fish", "crustaceans", "molluscs"]
)
_MEAT = _FLESH - {"fish", "crustaceans", "molluscs"}
_ALL = _FLESH | {"milk", "egg", "honey"}
RAW_YOLK = "raw-yolk"
DIETS: dict[str, frozenset[str]] = {
    "vegetarian": _FLESH,
    "vegan": _ALL,
    "meat": _MEAT,
    # Meat of a kind nobody said may be pork.
    "pork": frozenset(["pork", "meat"]),
    "alcohol": frozenset(),
    RAW_YOLK: frozenset(),
}
"""What is excluded by something else than an allergen, a role or an ingredient: the animals of it.
Alcohol goes by composition, raw yolk by how hot the pot has been."""

ROLES_GONE_WITHOUT = ("cheese", "cream", "seafood", "wine", "spirit", "aromatic")
"""Roles a guest is most often offered to go without, beside the allergens; any other can be named too."""
_SAID = {
    "dairy": "milk",
    "lactose": "milk",
    "wheat": "gluten",
    "eggs": "egg",
    "nut": "nuts",
    "shellfish": "seafood",
    "no-meat": "meat",
    "raw-egg": RAW_YOLK,
    "raw-yolks": RAW_YOLK,
    "raw-eggs": RAW_YOLK,
    "spirits": "spirit",
    "veggie": "vegetarian",
}
"""Other ways in which it is said."""


@dataclass(frozen=True, slots=True)
class Exclusion:
    """What a guest goes without: an allergen, a role, an ingredient, or one of :data:`DIETS`."""

    word: str

    def hits(self, row: Ingredient) -> bool:
        """Whether ``row`` holds it. Where the row does not say what it is of, it does."""
        word = self.word
        if word in DIETS:
            if word == "alcohol":
                return row.per_gram.alcohol > 0.0 or row.role in ("wine", "spirit")
            return bool(row.animals & {*DIETS[word], UNSAID} if DIETS[word] else ())
        if word == "seafood":
            return bool(row.allergens & {"crustaceans", "molluscs"}) or row.role == word
        if word in ALLERGENS:
            # What comes of the animal brings its allergen, whatever the row's own list says.
            return word in row.allergens or word in row.animals
        return word in (row.role, row.key)

    @property
    def of_raw_yolk(self) -> bool:
        return self.word == RAW_YOLK


def exclusions(words: Iterable[str], larder: Larder) -> tuple[Exclusion, ...]:
    """What ``words`` exclude. Raises :class:`BadInput` (field ``without[i]``) for one nobody knows.

    >>> from saucier.larder import shipped_larder
    >>> [one.word for one in exclusions(["Milk", "no pork", "Smooth mustard"], shipped_larder())]
    ['milk', 'pork', 'mustard-smooth']
    """
    return tuple(_exclusion(word, larder, f"without[{n}]") for n, word in enumerate(words))


def _exclusion(word: str, larder: Larder, field: str) -> Exclusion:
    plain = "-".join(word.lower().replace("_", " ").replace("-", " ").split())
    for said in (plain, plain.removeprefix("no-"), plain.removesuffix("-free")):
        said = _SAID.get(said, said)
        if said in DIETS or said in ALLERGENS or said in ROLES or said in larder:
            return Exclusion(said)
    called = larder.called(word)
    if len(called) == 1:
        return Exclusion(called[0])
    raise BadInput.at(
        field,
        "is-no-allergen-kind-or-ingredient",
        word=word[:40],
        allergens=tuple(ALLERGENS),
        diets=tuple(DIETS),
    )


def spoken_exclusion(word: str, larder: Larder) -> Sentence | str:
    """What ``word`` is called after "without"."""
    if word in DIETS:
        return say(f"diet.{word}")
    if word in ALLERGENS or word in ROLES or word not in larder:
        return word
    return larder[word].spoken_name


def brings(key: str, excluded: Iterable[Exclusion], kitchen: Kitchen) -> bool:
    """Whether the ingredient ``key`` holds anything that is ``excluded``."""
    row = kitchen.larder[key]
    return any(one.hits(row) for one in excluded)


_YOLKY = ("egg-yolk", "egg-whole")


def soft_yolk(row: Ingredient) -> bool:
    """Whether an ingredient by itself is, or may be served with, yolk that is not cooked through."""
    return row.key in _YOLKY or (row.role == "egg" and row.per_gram.yolk_protein > 0.0)


def raw_yolk_in(pot: Pot) -> bool:
    """Whether yolk in ``pot`` is not cooked through."""
    return pot.balance.yolk_protein > 0.0 and not pot.yolk_set
