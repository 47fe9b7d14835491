"""A guest's variant of a dish: without cheese, without shellfish, from the same documents."""

from collections.abc import Callable
from dataclasses import dataclass

from saucier.dish.document import Dish
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import ALLERGENS, ROLES, Ingredient, Larder
from saucier.sheet import Sheet
from saucier.steps import AnyStep, Liaison, Roux, Use
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Exclusion:
    """What a guest goes without: an allergen, a kind of ingredient, or one ingredient."""

    word: str

    def hits(self, row: Ingredient) -> bool:
        return self.word in row.allergens or self.word in (row.role, row.key)


def exclusion(word: str, larder: Larder, field: str) -> Exclusion:
    """The exclusion ``word`` names. Raises :class:`BadInput` at ``field``.

    >>> from saucier.larder.larder import shipped_larder
    >>> exclusion('Milk', shipped_larder(), 'without').word
    'milk'
    """
    plain = word.strip().lower()
    if plain not in ALLERGENS and plain not in ROLES and plain not in larder:
        raise BadInput.at(
            field,
            "is-no-allergen-kind-or-ingredient",
            word=word[:40],
            allergens=tuple(ALLERGENS),
        )
    return Exclusion(plain)


def without(
    dish: Dish, sheets: dict[str, Sheet], words: tuple[str, ...], kitchen: Kitchen
) -> tuple[Dish, dict[str, Sheet], tuple[Sentence, ...]]:
    """``dish`` and its ``sheets`` without what ``words`` name, and what was left out.

    Steps that only add it go; a roux or a liaison that needs it cannot, and says so. Raises
    :class:`BadInput` (field ``without``) for a word nobody knows or a sauce that stands on it.
    """
    larder = kitchen.larder
    excluded = [exclusion(word, larder, f"without[{n}]") for n, word in enumerate(words)]
    if not excluded:
        return dish, sheets, ()

    def hit(key: str) -> bool:
        return bool(key) and any(one.hits(larder[key]) for one in excluded)

    told: list[Sentence] = []
    changes: dict[str, object] = {}
    for name in ("solids", "toppings"):
        parts = getattr(dish, name)
        kept = tuple(part for part in parts if not hit(part.ingredient))
        told += [
            say("left-out", name=larder[part.ingredient].spoken_name)
            for part in parts
            if hit(part.ingredient)
        ]
        changes[name] = kept
    plain: dict[str, Sheet] = {}
    for key in {used.sauce for used in dish.sauces}:
        name = sheets[key].name
        steps = _plain(sheets[key].steps, hit, larder, name, told)
        if not steps:
            raise BadInput.at("without", "nothing-of-it-is-left", sauce=name)
        plain[key] = sheets[key].model_copy(update={"steps": steps})
    return dish.model_copy(update=changes), plain, tuple(dict.fromkeys(told))


Hit = Callable[[str], bool]


def _plain(
    steps: tuple[AnyStep, ...], hit: Hit, larder: Larder, name: str, told: list[Sentence]
) -> tuple[AnyStep, ...]:
    """``steps`` of the sauce ``name`` without what is ``hit``, in the sauces made for it too; what was
    left out joins what is ``told``. Raises :class:`BadInput` (field ``without``)."""
    kept: list[AnyStep] = []
    for step in steps:
        if not any(hit(key) for key in step.names()):
            kept.append(step)
        elif isinstance(step, Use) and step.inside:
            inside = _plain(step.sauce.steps, hit, larder, step.sauce.name, told)
            if not inside:
                raise BadInput.at("without", "nothing-of-it-is-left", sauce=step.sauce.name)
            sauce = step.sauce.model_copy(update={"steps": inside})
            kept.append(step.model_copy(update={"sauce": sauce}))
        elif isinstance(step, Roux | Use | Liaison):
            raise BadInput.at("without", "sauce-stands-on-it", sauce=name, op=step.op)
        else:
            told.append(say("sauce-without", sauce=name, names=_names(step, hit, larder)))
    return tuple(kept)


def _names(step: AnyStep, hit: Hit, larder: Larder) -> tuple[str, ...]:
    return tuple(larder[key].spoken_name for key in sorted(step.names()) if hit(key))
