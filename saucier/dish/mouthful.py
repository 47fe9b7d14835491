"""The salt of the whole mouthful: sauce, food, what pasta drank, flakes at the end."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from saucier import constants as K
from saucier.demand import USES
from saucier.dish.document import Dish
from saucier.kitchen import Kitchen


@dataclass(frozen=True, slots=True)
class Brings:
    """So many grams of salt a portion from one thing."""

    name: str
    salt_g: float


@dataclass(frozen=True, slots=True)
class Mouthful:
    """A portion as it is eaten: its mass, its salt in g and g per 100 g, who brings it (most first). At
    ``suited_pct`` in its sauces the whole would come to ``target_pct`` (None: they are right, or
    there is no sauce); ``over_g`` where the rest alone is over that already."""

    mass_g: float
    salt_g: float
    salt_pct: float
    brings: tuple[Brings, ...]
    target_pct: float
    sauce_pct: float | None
    suited_pct: float | None
    over_g: float


@dataclass(frozen=True, slots=True)
class SaucePart:
    """A portion's share of one sauce: its ``name``, ``mass_g`` and salt in g per 100 g."""

    name: str
    mass_g: float
    salt_pct: float


def cooked_g(dish: Dish, kitchen: Kitchen) -> Mapping[int, float]:
    """Grams of each solid of a portion as it is eaten, by its number."""
    larder = kitchen.larder
    return {
        number: solid.grams
        * (larder[solid.ingredient].drained_share if solid.state == "dry" else 1.0)
        for number, solid in enumerate(dish.solids)
    }


def mouthful(
    dish: Dish, sauces: Sequence[SaucePart], toppings_g: Mapping[str, float], kitchen: Kitchen
) -> Mouthful:
    """The salt of a portion of ``dish`` with its ``sauces`` and ``toppings_g`` (g a portion by key).

    What is cooked in salted water (pasta, grain) takes of its salt with the water it drinks.
    """
    larder, brings, mass = kitchen.larder, dict[str, float](), 0.0
    cooked = cooked_g(dish, kitchen)
    for number, solid in enumerate(dish.solids):
        row = larder[solid.ingredient]
        mass += cooked[number]
        dry = solid.grams if solid.state == "dry" else solid.grams / row.drained_share
        salt = dry * row.per_gram.salt
        if row.drained_share > 1.0:  # it drank
            water = cooked[number] - dry
            salt += water * dish.pasta_water_salt_pct / 100.0
        else:
            salt = solid.grams * row.per_gram.salt
        brings[row.spoken_name] = brings.get(row.spoken_name, 0.0) + salt
    for key, grams in toppings_g.items():
        row = larder[key]
        mass += grams
        brings[row.spoken_name] = brings.get(row.spoken_name, 0.0) + grams * row.per_gram.salt
    rest_g, sauce_g = sum(brings.values()), 0.0
    for part in sauces:
        mass += part.mass_g
        sauce_g += part.mass_g
        brings[part.name] = brings.get(part.name, 0.0) + part.mass_g * part.salt_pct / 100.0
    whole = sum(brings.values())
    told = sorted(
        (Brings(name, round(salt, 3)) for name, salt in brings.items() if salt >= 0.005),
        key=lambda one: -one.salt_g,
    )
    uses = [USES[used.use].salt_pct for used in dish.sauces]
    target = max(uses) if uses else K.MOUTHFUL_SALT_PCT
    suited: float | None = None
    now = 100.0 * (whole - rest_g) / sauce_g if sauce_g else None
    over = max(0.0, rest_g - target * mass / 100.0)
    if sauce_g:
        wanted = max(0.0, (target * mass / 100.0 - rest_g) / sauce_g * 100.0)
        # Bland food is no reason for a salty sauce: it is lowered, never raised.
        lower = round(min(wanted, target), 2)
        salty = 100.0 * whole / mass > target + 0.5 * K.MOUTHFUL_CLOSE_PCT
        if salty and now is not None and lower < now - K.MOUTHFUL_CLOSE_PCT:
            suited = lower
    return Mouthful(
        mass_g=mass,
        salt_g=whole,
        salt_pct=100.0 * whole / mass if mass else 0.0,
        brings=tuple(told),
        target_pct=target,
        sauce_pct=now,
        suited_pct=suited,
        over_g=over,
    )
