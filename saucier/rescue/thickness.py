"""Too thick, too thin: every way, each with its price in minutes and money."""

from collections.abc import Sequence

from saucier import constants as K
from saucier.larder import Ingredient
from saucier.rescue.case import Case, lands
from saucier.rescue.dose import Steps, after, dose_for, kitchen_dose
from saucier.rescue.remedy import Remedy, refused, remedy_of
from saucier.steps import Add, AnyStep, InnerSauce, Liaison, Melt, Reduce, Reheat, Roux, Simmer, Use
from saucier.steps.reduce import Stop
from saucier.steps.step import Measured
from saucier.units import Amount
from saucier.units.rounding import kitchen_step
from saucier.words import Sentence, all_of, say

_SHORT = say("not-by-any-amount")


def _grams(value: float) -> Amount:
    return Amount(value, "g")


def _pour(row: Ingredient, grams: float) -> Amount:
    return Amount(grams / row.density, "mL")


def warming(case: Case) -> tuple[AnyStep, ...]:
    """Warming first, where the pot stands well under its serving temperature."""
    if case.pot.temperature_c >= case.serving_c - K.COLD_BY_C:
        return ()
    return (Reheat(to_c=max(case.serving_c, K.MENDING_WARM_C)),)


def warm_it(case: Case) -> Remedy | None:
    """Nothing but warmth, where that is all it needs."""
    steps = warming(case)
    if not steps or not lands(case, after(case, steps)):
        return None
    do = (say("warm.do"),)
    return remedy_of(case, "warm", say("warm.title", to_c=_to_c(steps)), do, steps)


def _to_c(steps: Sequence[AnyStep]) -> float:
    return next(step.to_c for step in steps if isinstance(step, Reheat))


def let_down(case: Case, row: Ingredient) -> Remedy:
    """Let down with ``row``, hot."""
    way, title = f"let-down-{row.key}", say("let-down.name", name=row.spoken_name)
    first = warming(case)

    def steps(dose: float) -> list[AnyStep]:
        amount = _pour(row, dose)
        return [*first, Add(ingredient=row.key, amount=amount, temperature_c=K.MENDING_HOT_C)]

    mass = case.pot.total_g
    dose = dose_for(case, steps, 1e-4 * mass, 12.0 * mass)
    if dose is None:
        return refused(way, title, _thin_already(case, first))
    ml = kitchen_dose(case, lambda d: steps(d * row.density), *_ml_step(dose / row.density))
    told = spoken_ml(ml)
    do = [say("let-down.do", amount=told), say("let-down.look")]
    if first:
        do.insert(0, say("let-down.warm-first", to_c=_to_c(first)))
    if row.role in ("cream", "soft-cream", "milk") and case.pot.balance.acid > 0.004 * mass:
        do.append(say("let-down.sharp"))
    title = say("let-down.title", amount=told, name=row.spoken_name)
    return remedy_of(case, way, title, do, steps(ml * row.density))


def spoken_ml(ml: float) -> Sentence:
    """Millilitres as a cook says them: litres from one litre on."""
    return say("litres", litres=ml / 1000.0) if ml >= 1000.0 else say("millilitres", ml=ml)


def _ml_step(ml: float) -> tuple[float, float]:
    return ml, kitchen_step(Amount(ml, "mL"))


def _thin_already(case: Case, first: Sequence[AnyStep]) -> Sentence:
    if lands(case, after(case, first)):
        return say("neither-too-thick")
    return say("thin-already")


def boil_down(case: Case) -> Remedy:
    """Boil down, with weight, depth and minutes."""
    way, title = "boil-down", say("boil-down.name")
    if stop := _must_not_boil(case):
        return refused(way, title, stop)
    mass, water = case.pot.total_g, case.pot.balance.water + case.pot.balance.alcohol

    def steps(dose: float) -> list[AnyStep]:
        return [Reduce(to=Stop(mass=_grams(mass - dose)))]

    lost = dose_for(case, steps, 1e-4 * mass, 0.97 * water)
    if lost is None:
        return refused(way, title, say("boil-down.dry"))
    lost = kitchen_dose(case, steps, lost, kitchen_step(_grams(mass)))
    left = mass - lost
    boiled = remedy_of(case, way, say("boil-down.title", left_g=left), (), steps(lost))
    if boiled.after is None:
        return boiled
    if boiled.after.emulsion in ("oily", "split"):
        return refused(way, title, say("boil-down.oily"))
    tare = case.now.pan.tare_g
    do = (
        say(
            "boil-down.do-with-pan" if tare else "boil-down.do",
            lost_g=lost,
            left_g=left,
            scale_g=tare + left,
            level_mm=boiled.after.pan.level_mm(boiled.after.pot.total_ml),
        ),
        say("boil-down.minutes", minutes=boiled.minutes),
    )
    return remedy_of(case, way, boiled.title, do, steps(lost))


def thicken(case: Case, way: str) -> Remedy:
    """Beurre manié, ready roux or a slurry, and its boil."""
    title, least = say(f"thicken-{way}.name"), _LEAST_SHARE
    if stop := _must_not_boil(case):
        return refused(way, title, stop)
    fat = case.most_of("fat")
    fat_key = fat.key if fat else "butter-unsalted"

    def steps(flour: float) -> list[AnyStep]:
        boil = Simmer(minutes=K.MENDING_BOIL_MIN, heat="bare-simmer")
        if way == "slurry":
            return [
                Add(ingredient="corn-starch", amount=_grams(flour)),
                Add(ingredient="water", amount=_grams(2.0 * flour)),
                boil,
            ]
        return [
            Roux(
                fat=Measured(ingredient=fat_key, amount=_grams(flour)),
                flour=Measured(ingredient="wheat-flour", amount=_grams(flour)),
                colour="raw" if way == "beurre-manie" else "white",
                minutes=0 if way == "beurre-manie" else 2,
            ),
            boil,
        ]

    mass = case.pot.total_g
    dose = dose_for(case, steps, least * mass, 0.4 * mass)
    if dose is None:
        return refused(way, title, _thick_already(case, steps, least * mass))
    dose = kitchen_dose(case, steps, dose, 1.0 if dose < 100 else 5.0)
    name = case.kitchen.larder[fat_key].spoken_name
    facts = {"grams": dose, "water_g": 2 * dose, "name": name}
    told, do = say(f"thicken-{way}.title", **facts), say(f"thicken-{way}.do", **facts)
    boil = say("boil-again", minutes=K.MENDING_BOIL_MIN)
    return remedy_of(case, way, told, (do, boil), steps(dose))


_LEAST_SHARE = 1e-5
"""The least dose tried, as a share of the pot."""


def _thick_already(case: Case, steps: Steps, least: float) -> Sentence:
    """Why no thickener helps: the sauce is there already, or boils there by itself."""
    pot = case.pot
    if lands(case, pot):
        return say("grade-already")
    return _SHORT if not lands(case, after(case, steps(least))) else say("its-boil-is-enough")


def thick_sauce_in(case: Case) -> Remedy:
    """A very thick sauce of the same liquid, made apart and stirred in: the way for what must
    not boil any more."""
    way, title = "thick-sauce", say("thick-sauce.name")
    liquid = case.liquid
    inner = InnerSauce(
        name=str(say("thick-sauce.called", name=liquid.spoken_name)),
        steps=(
            Roux(
                fat=Measured(ingredient="butter-unsalted", amount=_grams(150)),
                flour=Measured(ingredient="wheat-flour", amount=_grams(150)),
            ),
            Add(ingredient=liquid.key, amount=_grams(1000)),
            Simmer(minutes=K.MENDING_BOIL_MIN, heat="bare-simmer", lid=True),
        ),
    )

    def steps(dose: float) -> list[AnyStep]:
        return [Use(sauce=inner, amount=_grams(dose), temperature_c=K.MENDING_WARM_C)]

    mass = case.pot.total_g
    dose = dose_for(case, steps, 1e-3 * mass, 3.0 * mass)
    if dose is None:
        return refused(way, title, _SHORT)
    dose = kitchen_dose(case, steps, dose, kitchen_step(_grams(dose)))
    share = dose / (1300.0 - 20.0)
    do = (
        say(
            "thick-sauce.make",
            flour_g=150 * share,
            liquid_g=1000 * share,
            name=liquid.spoken_name,
            minutes=K.MENDING_BOIL_MIN,
        ),
        say("thick-sauce.do", grams=dose),
    )
    return remedy_of(
        case, way, say("thick-sauce.title", grams=dose, name=liquid.spoken_name), do, steps(dose)
    )


def more_cheese(case: Case) -> Remedy | None:
    """More of the cheese that is in it; None where there is none."""
    cheese = case.most_of("cheese")
    if cheese is None:
        return None
    way, title = "cheese", say("more-cheese.name", name=cheese.spoken_name)
    mass = max(case.pot.balance.mass_g, 1.0)

    def steps(dose: float) -> list[AnyStep]:
        return [Melt(ingredient=cheese.key, amount=_grams(dose))]

    dose = dose_for(case, steps, 1e-3 * mass, 0.35 * mass)
    if dose is None:
        return refused(way, title, say("more-cheese.not-enough"))
    dose = kitchen_dose(case, steps, dose, kitchen_step(_grams(dose)))
    do = (say("more-cheese.do", grams=dose),)
    return remedy_of(
        case, way, say("more-cheese.title", grams=dose, name=cheese.spoken_name), do, steps(dose)
    )


def yolks(case: Case) -> Remedy:
    """A liaison: whole yolks in twice their weight of cream."""
    way, title = "yolks", say("yolks.name")
    yolk_g = case.kitchen.larder["egg-yolk"].piece_g
    mass = max(case.pot.balance.mass_g, 1.0)

    def steps(dose: float) -> list[AnyStep]:
        return [
            Liaison(
                yolk=Measured(ingredient="egg-yolk", amount=Amount(dose / yolk_g, "piece")),
                cream=Measured(ingredient="cream-35", amount=_grams(dose)),
                heat_to_c=80.0,
            )
        ]

    dose = dose_for(case, steps, 1e-3 * mass, 0.25 * mass)
    if dose is None:
        return refused(way, title, say("yolks.not-enough"))
    count = max(1, round(dose / yolk_g))
    if not lands(case, after(case, steps(count * yolk_g))):
        return refused(way, title, say("yolks.miss"))
    told = yolks_of(count)
    do = (say("yolks.do", yolks=told, cream_g=count * yolk_g),)
    return remedy_of(case, way, say("yolks.title", yolks=told), do, steps(count * yolk_g))


def yolks_of(count: int) -> Sentence:
    """So many yolks, as they are told."""
    return say("one-yolk" if count == 1 else "so-many-yolks", count=count)


def _must_not_boil(case: Case) -> Sentence | None:
    # Cheese bears a bare simmer where starch holds it; the remark stands beside the remedy.
    delicate = case.pot.delicate - {"cheese"}
    if not delicate:
        return None
    named = [say(f"delicate.{code}") for code in sorted(delicate)]
    return say("must-not-boil-any-more", why=all_of(named))


def _right_already(case: Case) -> list[Remedy]:
    """One refusal where the numbers find nothing to mend; none otherwise."""
    if case.wanted_pa_s is None:
        why = say("no-thickness-yet")
    elif lands(case, case.pot) and not warming(case):
        why = say("right-by-the-numbers")
    else:
        return []
    return [refused("none", say("nothing-to-mend"), why)]


def too_thick(case: Case) -> list[Remedy]:
    """Every way to thin it, its own liquid first."""
    if right := _right_already(case):
        return right
    larder = case.kitchen.larder
    keys = [case.liquid.key, "milk-whole", "stock-light", "cream-35", "water"]
    ways = [let_down(case, larder[key]) for key in dict.fromkeys(keys) if key in larder]
    warmed = warm_it(case)
    return [warmed] if warmed else ways


def too_thin(case: Case) -> list[Remedy]:
    """Every way to thicken it."""
    if right := _right_already(case):
        return right
    ways: list[Remedy | None] = [
        boil_down(case),
        thicken(case, "beurre-manie"),
        thicken(case, "slurry"),
        thicken(case, "roux"),
        thick_sauce_in(case),
        more_cheese(case),
        yolks(case),
    ]
    return [way for way in ways if way is not None]
