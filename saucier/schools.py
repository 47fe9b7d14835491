"""Schools: where good cooks disagree, and what switching from one to another changes.

A switch rewrites the steps, then solves for the same target again, so that what it costs shows
in amounts, minutes and risks (domain.md).
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from saucier.check import FLOURED, check
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.solve import goal_of, rounded_for_kitchen, solve
from saucier.steps import (
    Add,
    AnyStep,
    Infuse,
    Melt,
    Reduce,
    Roux,
    Season,
    Simmer,
    Strain,
    Sweat,
    Use,
)
from saucier.steps.base import Measured
from saucier.steps.reduce import Stop
from saucier.steps.share import InnerSauce
from saucier.units import Amount, Dimension


@dataclass(frozen=True, slots=True)
class Choice:
    key: str
    name: str
    why: str


@dataclass(frozen=True, slots=True)
class School:
    """A question cooks answer differently, with ``choices``; ``followed`` says which one a sheet
    follows (None where the question does not arise), ``rewrite`` makes it follow another."""

    key: str
    question: str
    choices: tuple[Choice, ...]
    followed: Callable[[Sheet], str | None]
    rewrite: Callable[[Sheet, str], Sheet]


@dataclass(frozen=True, slots=True)
class Switched:
    """The sheet after a switch, and ``changes`` in words."""

    sheet: Sheet
    changes: tuple[str, ...]


def _with_steps(sheet: Sheet, steps: list[AnyStep]) -> Sheet:
    return sheet.model_copy(update={"steps": tuple(steps)})


def _with_method(sheet: Sheet, **changes: object) -> Sheet:
    return sheet.model_copy(update={"method": sheet.method.model_copy(update=changes)})


def _index(sheet: Sheet, kind: type | tuple[type, ...]) -> int | None:
    return next((n for n, step in enumerate(sheet.steps) if isinstance(step, kind)), None)


# --- fat to flour ----------------------------------------------------------------------
_RATIOS = {"drier": 0.8, "equal": 1.0, "more-fat": 1.25, "spoonfuls": 1.75}


def _fat_followed(sheet: Sheet) -> str | None:
    at = _index(sheet, Roux)
    if at is None:
        return None
    roux = sheet.steps[at]
    assert isinstance(roux, Roux)
    ratio = sheet.method.fat_to_flour
    if ratio is None:
        ratio = roux.fat.amount.base / roux.flour.amount.base
    return min(_RATIOS, key=lambda key: abs(_RATIOS[key] - ratio))


def _fat_rewrite(sheet: Sheet, choice: str) -> Sheet:
    return _with_method(sheet, fat_to_flour=_RATIOS[choice])


# --- liquid into roux ------------------------------------------------------------------
_LIQUID_C = {
    "cold-gradual": 5.0,
    "warm-stream": 60.0,
    "hot-at-once": 90.0,
    "cold-roux-into-boiling": 20.0,
}


def _liquids_after_roux(sheet: Sheet) -> tuple[int, int, int] | None:
    """Index of the roux, and the stretch of liquids it meets, before or after it."""
    at = _index(sheet, Roux)
    if at is None:
        return None
    end = at + 1
    while end < len(sheet.steps) and isinstance(sheet.steps[end], Add | Use):
        end += 1
    if end > at + 1:
        return at, at + 1, end
    first = at
    while first > 0 and isinstance(sheet.steps[first - 1], Add | Use | Simmer | Reduce):
        first -= 1
    return (at, first, at) if first < at else None


def _liquid_followed(sheet: Sheet) -> str | None:
    return sheet.method.liquid_in if _liquids_after_roux(sheet) else None


def _liquid_rewrite(sheet: Sheet, choice: str) -> Sheet:
    found = _liquids_after_roux(sheet)
    assert found is not None
    at, first, end = found
    steps = list(sheet.steps)
    roux = steps[at]
    liquids = [
        step.model_copy(update={"temperature_c": _LIQUID_C[choice]})
        if isinstance(step, Add | Use) and not isinstance(step, Melt)
        else step
        for step in steps[first:end]
    ]
    last = choice == "cold-roux-into-boiling"
    both = [*liquids, roux] if last else [roux, *liquids]
    rest_from, rest_to = min(at, first), max(at + 1, end)
    steps[rest_from:rest_to] = both
    return _with_method(_with_steps(sheet, steps), liquid_in=choice)


# --- how long to simmer ----------------------------------------------------------------
_SIMMERS = {"short": (2.0, "simmer"), "medium": (8.0, "simmer"), "long": (30.0, "bare-simmer")}


def _floured_simmer(sheet: Sheet) -> int | None:
    floured = _index(sheet, FLOURED)
    if floured is None:
        return None
    return next(
        (n for n, s in enumerate(sheet.steps) if n > floured and isinstance(s, Simmer)), None
    )


def _simmer_followed(sheet: Sheet) -> str | None:
    at = _floured_simmer(sheet)
    if at is None:
        return None
    step = sheet.steps[at]
    assert isinstance(step, Simmer)
    return min(_SIMMERS, key=lambda key: abs(_SIMMERS[key][0] - step.minutes))


def _simmer_rewrite(sheet: Sheet, choice: str) -> Sheet:
    at = _floured_simmer(sheet)
    assert at is not None
    minutes, heat = _SIMMERS[choice]
    steps = list(sheet.steps)
    steps[at] = steps[at].model_copy(update={"minutes": minutes, "heat": heat})
    return _with_method(_with_steps(sheet, steps), simmer_minutes=minutes)


# --- infusion --------------------------------------------------------------------------
_STEEPED, _HERB_WINE = "Steeped ", "Herb wine, boiled down"


def _main_liquid(sheet: Sheet) -> int | None:
    """The liquid a roux sauce is made with: its largest plain addition."""
    if _index(sheet, Roux) is None:
        return None
    found = [
        (step.amount.base, n)
        for n, step in enumerate(sheet.steps)
        if isinstance(step, Add)
        and not isinstance(step, Melt)
        and (step.ingredient.startswith(("milk", "stock")))
    ]
    return max(found)[1] if found else None


def _infusion_followed(sheet: Sheet) -> str | None:
    for step in sheet.steps:
        if isinstance(step, Use) and step.sauce.name.startswith(_STEEPED):
            return "steeped"
        if isinstance(step, Use) and step.sauce.name == _HERB_WINE:
            return "herb-wine"
    at = _index(sheet, Roux)
    after = sheet.steps[at + 1] if at is not None and at + 1 < len(sheet.steps) else None
    if isinstance(after, Sweat):
        return "sweated"
    return "plain" if _main_liquid(sheet) is not None else None


def _plain(sheet: Sheet) -> Sheet:
    """``sheet`` without any of the infusions below."""
    steps: list[AnyStep] = []
    sweated = _infusion_followed(sheet) == "sweated"
    for number, step in enumerate(sheet.steps):
        if isinstance(step, Use) and step.sauce.name.startswith(_STEEPED):
            liquid = step.sauce.steps[0]
            assert isinstance(liquid, Add)
            steps.append(
                liquid.model_copy(
                    update={
                        "amount": step.amount,
                        "temperature_c": _LIQUID_C[sheet.method.liquid_in],
                    }
                )
            )
        elif (isinstance(step, Use) and step.sauce.name == _HERB_WINE) or (
            sweated and (isinstance(step, Strain) or (isinstance(step, Sweat) and number))
        ):
            continue
        else:
            steps.append(step)
    return _with_steps(sheet, steps)


def _grams(value: float) -> Amount:
    return Amount(round(value, 1), "g")


def _infusion_rewrite(sheet: Sheet, choice: str) -> Sheet:
    sheet = _plain(sheet)
    if choice == "plain":
        return sheet
    at = _main_liquid(sheet)
    assert at is not None
    liquid = sheet.steps[at]
    assert isinstance(liquid, Add)
    steps = list(sheet.steps)
    litres = liquid.amount.base / 1000.0
    if choice == "steeped":
        inner = InnerSauce(
            name=_STEEPED + liquid.ingredient.partition("-")[0],
            steps=(
                liquid.model_copy(
                    update={"amount": liquid.amount.times(1.06), "temperature_c": 5.0}
                ),
                Infuse(ingredient="onion", amount=_grams(60 * litres), minutes=15),
                Infuse(ingredient="bay-leaf", amount=_grams(0.4 * litres), minutes=0),
                Strain(),
            ),
        )
        steps[at] = Use(sauce=inner, amount=liquid.amount, temperature_c=60.0)
    elif choice == "sweated":
        roux = _index(sheet, Roux)
        assert roux is not None
        steps.insert(roux + 1, Sweat(ingredient="onion", amount=_grams(60 * litres), minutes=6))
        simmered = next(
            (n for n, s in enumerate(steps) if n > roux and isinstance(s, Simmer)), len(steps) - 1
        )
        steps.insert(simmered + 1, Strain())
    else:
        inner = InnerSauce(
            name=_HERB_WINE,
            steps=(
                Add(ingredient="wine-white-dry", amount=_grams(150 * litres)),
                Add(ingredient="shallot", amount=_grams(25 * litres)),
                Reduce(to=Stop(share=0.35), heat="rolling"),
                Strain(),
            ),
        )
        salted = _index(_with_steps(sheet, steps), Season)
        where = len(steps) if salted is None else salted
        steps.insert(where, Use(sauce=inner, amount=_grams(35 * litres)))
    return _with_steps(sheet, steps)


# --- cheese ----------------------------------------------------------------------------
def _cheese_heat_followed(sheet: Sheet) -> str | None:
    at = _index(sheet, Melt)
    return None if at is None else getattr(sheet.steps[at], "heat", "off")


def _cheese_heat_rewrite(sheet: Sheet, choice: str) -> Sheet:
    return _with_steps(
        sheet,
        [
            step.model_copy(update={"heat": choice}) if isinstance(step, Melt) else step
            for step in sheet.steps
        ],
    )


_TASTE_CHEESE = "parmesan-style-hard"


def _cheeses_followed(sheet: Sheet) -> str | None:
    count = sum(isinstance(step, Melt) for step in sheet.steps)
    return None if not count else "one" if count == 1 else "two"


def _cheeses_rewrite(sheet: Sheet, choice: str) -> Sheet:
    melts = [step for step in sheet.steps if isinstance(step, Melt)]
    if (choice == "one") == (len(melts) == 1):
        return sheet
    first = melts[0]
    at = _index(sheet, Melt)
    assert at is not None
    others = [step for step in sheet.steps if not isinstance(step, Melt)]
    if choice == "one":
        amount = _grams(sum(step.amount.base for step in melts))
        new = [first.model_copy(update={"amount": amount})]
    else:
        # One to melt, one for taste: a third of the weight in a drier, saltier cheese.
        taste = _TASTE_CHEESE if first.ingredient != _TASTE_CHEESE else "cheese-semi-hard"
        new = [
            first.model_copy(update={"amount": first.amount.times(2 / 3)}),
            first.model_copy(update={"ingredient": taste, "amount": first.amount.times(1 / 3)}),
        ]
    return _with_steps(sheet, [*others[:at], *new, *others[at:]])


# --- thickener for cream ---------------------------------------------------------------
def _cream_at(sheet: Sheet) -> int | None:
    return next(
        (
            n
            for n, s in enumerate(sheet.steps)
            if isinstance(s, Add) and s.ingredient.startswith("cream")
        ),
        None,
    )


def _thickener_followed(sheet: Sheet) -> str | None:
    cream = _cream_at(sheet)
    if cream is None or sheet.family not in ("cream-reduction", "cream-with-roux"):
        return None
    at = _index(sheet, Roux)
    if at is None:
        late = any(n > cream and isinstance(s, Reduce) for n, s in enumerate(sheet.steps))
        return "reduction" if late else None
    roux = sheet.steps[at]
    assert isinstance(roux, Roux)
    return "beurre-manie" if roux.colour == "raw" else "roux"


def _thickener_rewrite(sheet: Sheet, choice: str) -> Sheet:
    cream = _cream_at(sheet)
    assert cream is not None
    steps = list(sheet.steps)
    kind = (
        {"colour": "raw", "minutes": 0.0}
        if choice == "beurre-manie"
        else {"colour": "white", "minutes": 2.0}
    )
    at = _index(sheet, Roux)
    if choice != "reduction" and at is not None:
        steps[at] = steps[at].model_copy(update=kind)
    elif choice != "reduction":
        last = max(n for n, s in enumerate(steps) if n > cream and isinstance(s, Reduce))
        cream_step = steps[cream]
        assert isinstance(cream_step, Add)
        spoon = _grams(max(5.0, 0.03 * cream_step.amount.base))
        roux = Roux(
            fat=Measured(ingredient="butter-unsalted", amount=spoon),
            flour=Measured(ingredient="wheat-flour", amount=spoon),
            **kind,
        )
        steps[last : last + 1] = [Simmer(minutes=2), roux, Simmer(minutes=3, heat="bare-simmer")]
    else:
        assert at is not None
        before, after = steps[:at], steps[at + 1 :]
        # The minutes around the roux were its boil; the reduction has its own.
        if before and isinstance(before[-1], Simmer):
            before.pop()
        if after and isinstance(after[0], Simmer):
            after.pop(0)
        steps = [*before, Reduce(to=Stop(share=0.7)), *after]
    return _with_steps(sheet, steps)


# --- measuring -------------------------------------------------------------------------
def _measured_parts(step: AnyStep) -> list[str]:
    if isinstance(step, Roux):
        return ["fat", "flour"]
    return [""] if isinstance(step, (*FLOURED, Add)) else []


def _measuring_followed(sheet: Sheet) -> str | None:
    at = _index(sheet, FLOURED)
    if at is None:
        return None
    step = sheet.steps[at]
    amount = step.flour.amount if isinstance(step, Roux) else getattr(step, "amount", None)
    assert isinstance(amount, Amount)
    return "spoon" if amount.dimension is Dimension.VOLUME else "weight"


def _measuring_rewrite(sheet: Sheet, choice: str) -> Sheet:
    larder = Kitchen().larder
    steps: list[AnyStep] = []
    for step in sheet.steps:
        for part in _measured_parts(step):
            holder: Any = getattr(step, part) if part else step
            row = larder[holder.ingredient]
            grams = row.grams(holder.amount)
            if choice == "weight":
                amount = Amount(grams, "g")
            else:
                ml = grams / row.cup_density
                unit, size = (
                    ("tsp", 5.0) if ml < 15 else ("tbsp", 15.0) if ml < 120 else ("cup", 240.0)
                )
                amount = Amount(ml / size, unit)
            step = step.with_amount(f"{part}.amount" if part else "amount", amount)
        steps.append(step)
    return _with_steps(sheet, steps)


SCHOOLS: tuple[School, ...] = (
    School(
        "fat-to-flour",
        "Fat to flour",
        (
            Choice("drier", "drier roux, 0.8 : 1", "leaner; needs more stirring to work smooth"),
            Choice("equal", "equal weights", "the plain rule: works smooth, carries no loose fat"),
            Choice("more-fat", "more fat, 1.25 : 1", "works smooth easily; richer"),
            Choice(
                "spoonfuls",
                "equal spoonfuls, about 1.75 : 1",
                "easy by spoon; a film of fat may show",
            ),
        ),
        _fat_followed,
        _fat_rewrite,
    ),
    School(
        "liquid-in",
        "Liquid into roux",
        (
            Choice(
                "cold-gradual",
                "cold, in splashes",
                "safest against lumps; longest to come to the boil",
            ),
            Choice(
                "warm-stream", "warm, in a thin stream, off the heat", "few lumps, fewer minutes"
            ),
            Choice(
                "hot-at-once",
                "hot, all at once",
                "quickest; lumps if it is not whisked hard at once",
            ),
            Choice(
                "cold-roux-into-boiling",
                "cold roux into boiling liquid",
                "roux made ahead; whisk knob by knob",
            ),
        ),
        _liquid_followed,
        _liquid_rewrite,
    ),
    School(
        "simmer",
        "How long to simmer",
        (
            Choice("short", "a minute or two", "quick; a taste of raw flour may stay"),
            Choice("medium", "5–10 minutes", "the flour is cooked out"),
            Choice("long", "20–40 minutes, skimmed", "glossy and clear of fat; boils off more"),
        ),
        _simmer_followed,
        _simmer_rewrite,
    ),
    School(
        "infusion",
        "Infusion",
        (
            Choice("plain", "none", "as the liquid comes"),
            Choice(
                "steeped",
                "aromatics steeped in the liquid",
                "round; a quarter of an hour and a sieve",
            ),
            Choice(
                "sweated", "aromatics sweated in the roux", "sweeter; strained after the simmer"
            ),
            Choice(
                "herb-wine",
                "boiled-down herb wine at the end",
                "brings acid, and a little alcohol stays",
            ),
        ),
        _infusion_followed,
        _infusion_rewrite,
    ),
    School(
        "cheese-heat",
        "Cheese goes in",
        (
            Choice("off", "off the heat", "under 85 °C nothing strings"),
            Choice("low", "over low heat", "stays hotter; strings if it boils"),
        ),
        _cheese_heat_followed,
        _cheese_heat_rewrite,
    ),
    School(
        "cheeses",
        "How many cheeses",
        (
            Choice("one", "one", "one taste, one price"),
            Choice("two", "two: one melts, one tastes", "more taste for its salt and its price"),
        ),
        _cheeses_followed,
        _cheeses_rewrite,
    ),
    School(
        "thickener",
        "What thickens the cream",
        (
            Choice("reduction", "boiling down only", "cream alone: rich, and long on the ring"),
            Choice("roux", "a spoon of ready roux", "leaner and quick; holds cheese"),
            Choice("beurre-manie", "beurre manié", "as roux, kneaded cold at the last minute"),
        ),
        _thickener_followed,
        _thickener_rewrite,
    ),
    School(
        "measuring",
        "Measured",
        (
            Choice("weight", "by weight", "the same every time"),
            Choice("spoon", "by spoon and cup", "no scale needed; the ribbon's edge widens"),
        ),
        _measuring_followed,
        _measuring_rewrite,
    ),
)


def school_named(key: str) -> School:
    """The school called ``key``. Raises :class:`BadInput` (field ``school``)."""
    for school in SCHOOLS:
        if school.key == key:
            return school
    known = ", ".join(school.key for school in SCHOOLS)
    raise BadInput.at(
        "school", f"“{key[:40]}” is not a question cooks differ on", f"Use one of {known}"
    )


def switch(sheet: Sheet, school_key: str, choice: str, kitchen: Kitchen) -> Switched:
    """``sheet`` following ``choice``, solved for the same target again and rounded.

    Raises :class:`BadInput`: field ``school`` or ``choice`` where there is nothing to switch.
    """
    school = school_named(school_key)
    if choice not in {option.key for option in school.choices}:
        raise BadInput.at(
            "choice",
            f"“{choice[:40]}” is not one of them",
            f"Use one of {', '.join(option.key for option in school.choices)}",
        )
    if school.followed(sheet) is None:
        raise BadInput.at(
            "school",
            f"“{school.question}” does not arise in this sauce",
            "Add the step it is about first",
        )
    before = check(sheet, kitchen)
    goal = goal_of(sheet)
    if goal.volume is None:
        # No yield asked for: the batch stays as large as it is.
        goal = goal_of(sheet, volume=Amount(before.final.pot.total_ml, "mL"))
    followed = school.followed(sheet) == choice
    rewritten = sheet if followed else school.rewrite(sheet, choice)
    turned = solve(rewritten, goal, kitchen).sheet
    turned = rounded_for_kitchen(turned, goal, kitchen).sheet
    why = next(option for option in school.choices if option.key == choice)
    return Switched(turned, (f"{why.name}: {why.why}", *consequences(sheet, turned, kitchen)))


def consequences(was: Sheet, now: Sheet, kitchen: Kitchen) -> tuple[str, ...]:
    """What differs between two ways of making a sauce, in words with numbers."""
    before, after = check(was, kitchen), check(now, kitchen)
    a, b = before.as_dict(), after.as_dict()
    told = []
    flour = before.final.pot.balance.flour, after.final.pot.balance.flour
    if abs(flour[1] - flour[0]) > 0.02 * max(flour) and max(flour) > 1:
        told.append(f"flour {flour[0]:.0f} → {flour[1]:.0f} g")
    for key, name, unit, least, digits in (
        ("minutes", "time", "min", 0.1, 1),
        ("fat_pct", "fat", "%", 0.1, 1),
        ("salt_pct", "salt", "%", 0.02, 2),
        ("alcohol_pct", "alcohol left", "%", 0.02, 2),
        ("acid_pct", "acid", "%", 0.01, 2),
        ("temperature_c", "leaves the ring at", "°C", 2, 0),
        ("cost", "cost", "", 0.02, 2),
    ):
        if abs(b[key] - a[key]) >= least:
            told.append(f"{name} {a[key]:.{digits}f} → {b[key]:.{digits}f} {unit}".rstrip())
    if a["viscosity_pa_s"] and b["viscosity_pa_s"]:
        edges = [s["viscosity_high_pa_s"] / s["viscosity_low_pa_s"] for s in (a, b)]
        if abs(edges[1] / edges[0] - 1.0) > 0.05:
            told.append(f"how sure: a factor {edges[0]:.1f} → {edges[1]:.1f} from edge to edge")
    if len(was.steps) != len(now.steps):
        told.append(f"steps {len(was.steps)} → {len(now.steps)}")
    told += [f"new: {text}" for text in b["warnings"] if text not in a["warnings"]]
    told += [f"no longer: {text}" for text in a["warnings"] if text not in b["warnings"]]
    return tuple(told)
