"""What a guest goes without, as a cook means it: every gram, the stock and the fat included."""

from collections.abc import Iterable
from dataclasses import dataclass

from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import ALLERGENS, ANIMALS, ROLES, UNSAID, Ingredient, Larder, singular
from saucier.pot import Pot
from saucier.words import Sentence, say

_FLESH = frozenset(
    ["pork", "beef", "lamb", "poultry", "rabbit", "game", "meat", "fish", "crustaceans", "molluscs"]
)
_MEAT = _FLESH - {"fish", "crustaceans", "molluscs"}
_ANIMALS_ALONE = frozenset(ANIMALS) - set(ALLERGENS) - {"pork", "meat"}
"""Animals that are words of their own for a guest: beef, lamb, poultry, rabbit, game, honey."""
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
    "corn": "maize",
    "soy": "soya",
    "soybean": "soya",
    "soja": "soya",
    "mollusc": "molluscs",
    "crustacean": "crustaceans",
    "sulphite": "sulphites",
    "lupins": "lupin",
    "peanuts": "peanut",
    "prawns": "prawn",
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
    """What a guest goes without: an allergen, an animal, a role, a food, or one of :data:`DIETS`. ``keys``: rows of the
    larder that are that food, are made of it or hold it."""

    word: str
    keys: frozenset[str] = frozenset()

    @property
    def of_food(self) -> bool:
        """Whether it is of a food, which only what a row says of itself tells."""
        return self.word not in DIETS and self.word not in ALLERGENS

    def hits(self, row: Ingredient) -> bool:
        """Whether ``row`` holds it. Where the row does not say which animals it is of, it does."""
        word = self.word
        if row.key in self.keys:
            return True
        if word in _ANIMALS_ALONE:
            unsaid = {"meat"} if word in _MEAT else set()
            return bool(row.animals & {word, UNSAID, *unsaid})
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
    >>> onion, = exclusions(["onions"], shipped_larder())
    >>> "onion-puree" in onion.keys, "stock-vegetable" in onion.keys, "fennel" in onion.keys
    (True, True, False)
    """
    return tuple(_exclusion(word, larder, f"without[{n}]") for n, word in enumerate(words))


def _exclusion(word: str, larder: Larder, field: str) -> Exclusion:
    plain = "-".join(word.lower().replace("_", " ").replace("-", " ").split())
    spoken = [plain]
    for before in ("no-", "without-", "without-any-", "no-raw-", "not-any-"):
        spoken.append(plain.removeprefix(before))
    spoken += [plain.removesuffix("-free"), plain.removesuffix("-allergy")]
    for said in dict.fromkeys(spoken):
        for named in (said, singular(said).replace(" ", "-")):
            named = _SAID.get(named, named)
            if named in DIETS or named in ALLERGENS or named in _ANIMALS_ALONE:
                return Exclusion(named, _undeclared(named, larder))
            if named in ROLES:
                return Exclusion(named, _of_role(named, larder))
            if foods := larder.foods_named(named.replace("-", " ")):
                own = larder.called(named.replace("-", " "))
                word = named if named in larder or len(own) != 1 else own[0]
                return Exclusion(word, _of_food(foods, own, larder))
    raise BadInput.at(
        field,
        "is-no-allergen-kind-or-ingredient",
        word=word[:40],
        allergens=tuple(ALLERGENS),
        diets=tuple(DIETS),
    )


def _of_food(foods: frozenset[str], own: Iterable[str], larder: Larder) -> frozenset[str]:
    """Rows that are, are made of or hold any of ``foods``. What holds a food of a kind nobody says ("mushrooms") may
    hold the kind that is meant: those called just so (``own``) bring what they are a kind of."""
    kinds = {food for key in own for food in larder[key].of if food not in larder}
    return frozenset(
        key for key in larder if larder.foods_in(key) & foods or larder.kinds_unsaid_in(key) & kinds
    )


def _of_role(role: str, larder: Larder) -> frozenset[str]:
    """Rows that are of a ``role``'s food, are made of it or hold it: vinegar of wine, for who goes without wine."""
    rows = {key for key in larder if larder[key].role == role}
    return frozenset(
        key for key in larder if role in larder.foods_in(key) or larder.held_in(key) & rows
    )


def _undeclared(word: str, larder: Larder) -> frozenset[str]:
    """Rows that name no allergen themselves, and hold something that has the one ``word`` means."""
    if word not in ALLERGENS:
        return frozenset()
    return frozenset(
        key
        for key in larder
        if not larder[key].allergens
        and any(food in larder and word in larder[food].allergens for food in larder.held_in(key))
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
