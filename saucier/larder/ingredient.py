"""An ingredient of the larder, per gram, with what it is bought and used by."""

from dataclasses import dataclass, replace

from saucier import constants as K
from saucier.errors import BadInput
from saucier.pot import Balance
from saucier.units import SPOONS, Amount, Dimension, MeasuredBy
from saucier.units.spoons import SPOONED_WITHIN, spooned
from saucier.words import Sentence, gone_by, say

ALLERGENS = (
    "gluten",
    "crustaceans",
    "molluscs",
    "fish",
    "egg",
    "milk",
    "celery",
    "mustard",
    "sulphites",
    "soya",
    "nuts",
    "peanut",
    "sesame",
    "lupin",
)

ANIMALS = (
    "milk",
    "egg",
    "honey",
    "fish",
    "crustaceans",
    "molluscs",
    "pork",
    "beef",
    "lamb",
    "poultry",
    "rabbit",
    "game",
    "meat",
)
"""What of animals is in an ingredient; ``meat`` is meat of a kind the row does not say."""
PLANT, UNSAID = "plant", "unsaid"
"""Nothing of animals in it; and a row that does not say, which a guest is never given on trust."""

ROLES = (
    "milk",
    "cream",
    "soft-cream",
    "fat",
    "flour",
    "stock",
    "water",
    "wine",
    "spirit",
    "cheese",
    "egg",
    "acid",
    "seasoning",
    "salt",
    "spice",
    "herb",
    "juice",
    "puree",
    "aromatic",
    "vegetable",
    "seafood",
    "fish",
    "meat",
    "nut",
    "solid",
)
"""What an ingredient does in a sauce: what may stand in for it, and what a step offers first."""
ORIGINS = ("general", "label", "balance")
"""Where a row's figures come from: general knowledge of food composition, the label such a product
usually carries, or a mass balance of what goes into it."""
BODY_ORIGINS = ("", "general", "fitted", "spoon")
"""Where the figure for a row's body comes from; empty: it has none."""


def spoken_role(key: str) -> Sentence:
    return say(f"role.{key}")


def spoken_origin(key: str) -> Sentence:
    return say(f"origin.{key}")


def spoken_body_origin(key: str) -> Sentence:
    return say(f"body-origin.{key or 'none'}")


_BY_PINCHES = ("spice", "salt", "seasoning", "herb")
"""Roles so little of which is taken between two fingers."""
_NO_LIQUID = ("seasoning", "egg", "salt", "spice")
"""Roles that season or bind: wet as some are, a roux does not meet its liquid in them."""


@dataclass(frozen=True, slots=True)
class Ingredient:
    """One row of the larder.

    ``per_gram`` is the balance of one gram. ``density`` (g/mL) serves weights and jugs,
    ``cup_density`` (g/mL) spoons and cups, where packing matters. ``piece_g`` is the weight
    of one piece, 0 where it is not counted. ``power`` is the thickening of a gram of it as
    flour against wheat. ``spread_pct`` says how far such products differ from the row.
    ``animals`` are what of animals is in it (:data:`ANIMALS`, or :data:`UNSAID`).
    ``piece``: it stays a piece in the sauce, apart from it, and gives back ``leak_share`` of its
    weight as juice over a few minutes' heat; ``falls_share`` of it falls apart into the sauce as it
    cooks. ``body_origin`` tells where its body (flour it thickens like) comes from. ``heat_j_per_gk`` is its heat capacity, J/(g·K).
    ``usable_share`` is what trimming leaves of the bought weight, ``drained_share`` what
    cooking and draining leave of the usable one (above 1 where it drinks); ``pack_g`` the
    usual pack, 0 where it is sold loose; ``keeps_days`` how long it is used from the fridge once it
    was made, 0 where its own label tells. ``renders_share`` of a piece's weight runs out as fat in a
    hot pan. ``kin`` are the families within which a cook takes one for another, and ``strength`` how
    much of the flavour a gram has beside others of them. ``aliases`` are other names recipes give it.
    ``of`` are the foods it is a kind of or made of, ``holds`` those in it (None: the row does not say): keys of the
    larder, or plain names of foods, such as ham (:meth:`~saucier.larder.Larder.foods_in`). ``thins_share`` of its
    thickening is lost in ten minutes at the boil. A fat smokes from ``smokes_c`` on; 0: nobody says.
    A cheese melts at ``melts_c`` (0: never, it stays grains) and strings above ``strings_c`` (100: it bears the boil).
    A piece gives its salt to the sauce with a time constant of ``salt_min`` minutes (0: with its juice alone).
    """

    key: str
    name: str
    role: str
    per_gram: Balance
    density: float
    cup_density: float
    piece_g: float
    power: float
    allergens: frozenset[str]
    price_per_kg: float
    origin: str
    spread_pct: float
    animals: frozenset[str] = frozenset()
    piece: bool = False
    leak_share: float = 0.0
    falls_share: float = 0.0
    body_origin: str = ""
    heat_j_per_gk: float = 0.0
    usable_share: float = 1.0
    drained_share: float = 1.0
    pack_g: float = 0.0
    keeps_days: float = 0.0
    renders_share: float = 0.0
    kin: tuple[str, ...] = ()
    strength: float = 1.0
    aliases: tuple[str, ...] = ()
    of: tuple[str, ...] = ()
    holds: tuple[str, ...] | None = ()
    thins_share: float = 0.0
    smokes_c: float = 0.0
    melts_c: float = 60.0
    strings_c: float = 85.0
    salt_min: float = 0.0

    def thickening_by(self, factor: float) -> "Ingredient":
        """This row with ``factor`` times the starch's strength in it."""
        thickener = self.per_gram.thickener * factor
        return replace(
            self, power=self.power * factor, per_gram=self.per_gram._replace(thickener=thickener)
        )

    def binding_by(self, factor: float) -> "Ingredient":
        """This row with all that binds in it ``factor`` times as strong: its starch, its body and what gels."""
        stronger = self.thickening_by(factor)
        balance = stronger.per_gram
        bound = balance._replace(body=balance.body * factor, gel=balance.gel * factor)
        return replace(stronger, per_gram=bound)

    @property
    def short_name(self) -> str:
        """The name without what is specified: "Butter" for "Butter, unsalted"."""
        return self.name.partition(",")[0]

    @property
    def spoken_name(self) -> str:
        """The name as it runs in a sentence: "butter" for "Butter, unsalted"."""
        short = self.short_name
        return short[:1].lower() + short[1:]

    @property
    def wet(self) -> bool:
        """Whether it makes a pot a liquid: mustard in a roux is a seasoning, not the liquid."""
        return self.per_gram.water >= K.WET_INGREDIENT and self.role not in _NO_LIQUID

    def bought_g(self, used_g: float) -> float:
        """Grams to buy for ``used_g`` as they go in: what trimming takes is bought as well.

        >>> from saucier.larder import shipped_larder
        >>> round(shipped_larder()["onion"].bought_g(88))
        100
        """
        return used_g / self.usable_share

    def cost(self, used_g: float) -> float:
        """What ``used_g`` as they go in cost, in the kitchen's currency."""
        return self.bought_g(used_g) / 1000.0 * self.price_per_kg

    def grams(self, amount: Amount) -> float:
        """Grams in ``amount``. Raises :class:`BadInput` (field ``unit``) for pieces of what is
        not counted.

        >>> from saucier.larder import shipped_larder
        >>> shipped_larder()["milk-whole"].grams(Amount(1, "L"))
        1030.0
        """
        if amount.dimension is Dimension.WEIGHT:
            return amount.base
        if amount.dimension is Dimension.VOLUME:
            spooned = amount.unit in SPOONS
            return amount.base * (self.cup_density if spooned else self.density)
        if not self.piece_g:
            raise BadInput.at("unit", "is-not-counted-in-pieces", name=self.name)
        return amount.base * self.piece_g

    def amount_of(self, grams: float, like: Amount) -> Amount:
        """``grams`` of this in the unit of ``like``."""
        return like.times(grams / self.grams(like))

    def in_spoons(self, grams: float) -> Amount | None:
        """``grams`` in the spoon or cup that suits it, or in two, within 5 %; None where none is useful."""
        ml = grams / self.cup_density
        most_ml = K.CUPS_OF_LIQUID_ML if self.wet else K.CUPS_OF_DRY_ML
        if self.piece_g and 0.75 <= grams / self.piece_g <= K.COUNTED_MOST:
            least = 1.0 if self.role == "egg" else K.PIECES_IN
            return Amount(round(grams / self.piece_g / least) * least, "piece")
        if self.role == "egg":
            return None  # a yolk is counted or weighed, nobody spoons it
        if ml < 1.0 and self.role in _BY_PINCHES and grams >= 0.5 * K.PINCH_OF_QUARTERS_G:
            quarters = max(1, round(grams / K.PINCH_OF_QUARTERS_G))
            return Amount(grams, "g", MeasuredBy("pinch", quarters / 4.0, K.PINCH_SPREAD))
        if ml < 1.0 or ml > most_ml:
            return None
        spoon_ml = gone_by().tablespoon_ml
        if 15.0 <= ml < 60.0 and spoon_ml != 15.0:
            count = max(1, round(4.0 * ml / spoon_ml)) / 4.0
            if abs(count * spoon_ml / ml - 1.0) > SPOONED_WITHIN:
                return None
            return Amount(
                count * spoon_ml, "mL", MeasuredBy("tbsp", count, K.BY_THE_SPOON["flour"])
            )
        return spooned(ml)
