"""A pot seen for the first time: how much, how thick by picture, how hot, what is in it."""

from dataclasses import dataclass, replace

from saucier import constants as K
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet, read_sheet
from saucier.solve import Goal, solve
from saucier.thickness import grade_of, spoken_grade
from saucier.units import Amount, Dimension
from saucier.words import Inside, Sentence, say


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of sauce to take an unknown pot for: steps in usual proportions, per litre or so."""

    key: str
    name: Sentence
    steps: Inside[tuple[dict[str, object], ...]]


def _kind(key: str, steps: tuple[dict[str, object], ...]) -> Kind:
    return Kind(key, say(f"kind.{key}"), steps)


@dataclass(frozen=True, slots=True)
class Seen:
    """What a cook can say of a pot: a ``kind``, how much of it, how thick it looks
    (``viscosity_pa_s`` as it is, at ``temperature_c``), and what it should be: ``wanted``, a
    grade at ``serving_c``. ``salt_pct`` None: not tasted."""

    kind: str
    amount: Amount
    viscosity_pa_s: float
    temperature_c: float
    wanted: str
    serving_c: float = 65.0
    salt_pct: float | None = None


def _part(ingredient: str, grams: float) -> dict[str, object]:
    return {"ingredient": ingredient, "amount": {"value": grams, "unit": "g"}}


def _roux(grams: float) -> dict[str, object]:
    return {
        "op": "roux",
        "fat": _part("butter-unsalted", grams),
        "flour": _part("wheat-flour", grams),
    }


def _add(ingredient: str, grams: float) -> dict[str, object]:
    return {"op": "add", **_part(ingredient, grams)}


_SIMMER: dict[str, object] = {"op": "simmer", "minutes": 5}
_KINDS = (
    _kind("white-sauce", (_roux(60), _add("milk-whole", 1030), _SIMMER)),
    _kind("veloute", (_roux(65), _add("stock-light", 1000), _SIMMER)),
    _kind(
        "cheese-sauce",
        (
            _roux(60),
            _add("milk-whole", 1030),
            _SIMMER,
            {"op": "melt", **_part("cheese-hard-alpine", 120)},
        ),
    ),
    _kind(
        "cream-veloute",
        (_roux(55), _add("stock-light", 700), _add("cream-35", 300), _SIMMER),
    ),
    _kind(
        "liaison-sauce",
        (
            _roux(50),
            _add("stock-light", 1000),
            _SIMMER,
            {"op": "liaison", "yolk": _part("egg-yolk", 54), "cream": _part("cream-35", 100)},
        ),
    ),
    _kind(
        "cream-with-roux",
        (_roux(25), _add("milk-whole", 350), _add("cream-35", 650), _SIMMER),
    ),
    _kind(
        "cream-reduction",
        (
            _add("stock-light", 250),
            _add("cream-35", 750),
            {"op": "reduce", "to": {"share": 0.6}},
        ),
    ),
)
KINDS = {kind.key: kind for kind in _KINDS}


def sheet_of_seen(seen: Seen, kitchen: Kitchen) -> Sheet:
    """A sheet that makes such a pot: usual proportions of its kind, solved for what was seen.

    Raises :class:`BadInput` naming the entry that cannot be.
    """
    if seen.kind not in KINDS:
        raise BadInput.at("kind", "is-no-kind", kind=seen.kind[:40], kinds=tuple(KINDS))
    if seen.amount.dimension is Dimension.COUNT:
        raise BadInput.at("amount.unit", "a-sauce-is-not-counted")
    if not 10.0 <= seen.amount.base <= 200_000.0:
        raise BadInput.at("amount", "is-no-pot-of-sauce")
    if not K.SETS_BELOW_C <= seen.temperature_c <= 100.0:
        raise BadInput.at(
            "temperature_c",
            "at-c-nobody-can-tell-how",
            temperature_c=seen.temperature_c,
            sets_below_c=K.SETS_BELOW_C,
        )
    if not 1e-3 <= seen.viscosity_pa_s <= 200.0:
        raise BadInput.at("viscosity_pa_s", "is-no-sauce")
    steps = list(KINDS[seen.kind].steps)
    if seen.salt_pct is not None:
        if not 0.0 <= seen.salt_pct <= 5.0:
            raise BadInput.at("salt_pct", "is-out-of-reach-give-0")
        steps.append({"op": "season", "amount": {"to_salt_pct": seen.salt_pct}})
    sheet = read_sheet(
        {
            "name": str(KINDS[seen.kind].name),
            "method": {"fat_to_flour": None},
            "target": {"serving_c": seen.temperature_c},
            "steps": steps,
        }
    )
    try:
        return solve(sheet, Goal(seen.viscosity_pa_s, seen.amount), kitchen, as_found=True).sheet
    except BadInput as bad:
        problem = bad.problems[0]
        if problem.field == "volume":
            raise BadInput(replace(problem, field="amount")) from None
        raise BadInput.at(
            "viscosity_pa_s",
            "kind-is-hardly-ever",
            kind=KINDS[seen.kind].name,
            grade=spoken_grade(grade_of(seen.viscosity_pa_s)),
        ) from None
