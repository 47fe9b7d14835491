"""Too thick, too thin: every way, each with its price in minutes and money."""

from collections.abc import Sequence

from saucier.larder import Ingredient
from saucier.rescue.case import Case, lands
from saucier.rescue.dose import Steps, after, dose_for, kitchen_dose
from saucier.rescue.remedy import Remedy, refused, remedy_of
from saucier.steps import Add, AnyStep, Liaison, Melt, Reduce, Reheat, Roux, Simmer, Use
from saucier.steps.base import Measured
from saucier.steps.reduce import Stop
from saucier.steps.share import InnerSauce
from saucier.units import Amount
from saucier.units.rounding import kitchen_step

_HOT_C = 80.0
_WARM_C = 75.0
_COLD = 10.0
"""A pot this far under its serving temperature is warmed before anything else."""
_BOILS_MIN = 3.0
_SHORT = "even a great deal of it does not get it there"


def _grams(value: float) -> Amount:
    return Amount(value, "g")


def _pour(row: Ingredient, grams: float) -> Amount:
    return Amount(grams / row.density, "mL")


def warming(case: Case) -> tuple[AnyStep, ...]:
    """Warming first, where the pot stands well under its serving temperature."""
    if case.pot.temperature_c >= case.serving_c - _COLD:
        return ()
    return (Reheat(to_c=max(case.serving_c, _WARM_C)),)


def warm_it(case: Case) -> Remedy | None:
    """Nothing but warmth, where that is all it needs."""
    steps = warming(case)
    if not steps or not lands(case, after(case, steps)):
        return None
    do = ("Warm it gently, whisking; it was only cold.",)
    return remedy_of(case, "warm", f"Warm it to {_to_c(steps):.0f} °C", do, steps)


def _to_c(steps: Sequence[AnyStep]) -> float:
    return next(step.to_c for step in steps if isinstance(step, Reheat))


def let_down(case: Case, row: Ingredient) -> Remedy:
    """Let down with ``row``, hot."""
    way, title = f"let-down-{row.key}", f"Let down with {row.spoken_name}"
    first = warming(case)

    def steps(dose: float) -> list[AnyStep]:
        amount = _pour(row, dose)
        return [*first, Add(ingredient=row.key, amount=amount, temperature_c=_HOT_C)]

    mass = case.pot.total_g
    dose = dose_for(case, steps, 1e-4 * mass, 12.0 * mass)
    if dose is None:
        return refused(way, title, _thin_already(case, first))
    ml = kitchen_dose(case, lambda d: steps(d * row.density), *_ml_step(dose / row.density))
    told = spoken_ml(ml)
    do = [f"Whisk in {told} of it hot, a little at a time.", "Look at the spoon again."]
    if first:
        do.insert(0, f"Warm it to {_to_c(first):.0f} °C first.")
    if row.role in ("cream", "soft-cream", "milk") and case.pot.balance.acid > 0.004 * mass:
        do.append("It is sharp: warm the liquid, and never boil it after.")
    title = f"Let down with {told} {row.spoken_name}"
    return remedy_of(case, way, title, do, steps(ml * row.density))


def spoken_ml(ml: float) -> str:
    """Millilitres as a cook says them: litres from one litre on."""
    return f"{ml / 1000.0:.3g} L" if ml >= 1000.0 else f"{ml:.3g} mL"


def _ml_step(ml: float) -> tuple[float, float]:
    return ml, kitchen_step(Amount(ml, "mL"))


def _thin_already(case: Case, first: Sequence[AnyStep]) -> str:
    if lands(case, after(case, first)):
        return "it is thick enough already, and not too thick"
    return "it is thinner than wanted already"


def boil_down(case: Case) -> Remedy:
    """Boil down, with weight, depth and minutes."""
    way, title = "boil-down", "Boil it down"
    if stop := _must_not_boil(case):
        return refused(way, title, stop)
    mass, water = case.pot.total_g, case.pot.balance.water + case.pot.balance.alcohol

    def steps(dose: float) -> list[AnyStep]:
        return [Reduce(to=Stop(mass=_grams(mass - dose)))]

    lost = dose_for(case, steps, 1e-4 * mass, 0.97 * water)
    if lost is None:
        return refused(way, title, "boiling alone does not get it there before it is dry")
    lost = kitchen_dose(case, steps, lost, kitchen_step(_grams(mass)))
    left = mass - lost
    found = remedy_of(case, way, f"Boil down to {left:.0f} g", (), steps(lost))
    if found.after is None:
        return found
    if found.after.emulsion in ("oily", "split"):
        return refused(way, title, "it turns oily before it is thick enough")
    tare = case.now.pan.tare_g
    scale = f", {tare + left:.0f} g with the pan" if tare else ""
    depth = found.after.pan.level_mm(found.after.pot.total_ml)
    do = (
        f"Boil it down by {lost:.0f} g: {left:.0f} g left{scale}, {depth:.0f} mm deep in this pan.",
        f"About {found.minutes:.0f} min at a lively boil; stir over the bottom.",
    )
    return remedy_of(case, way, found.title, do, steps(lost))


def thicken(case: Case, way: str) -> Remedy:
    """Beurre manié, ready roux or a slurry, and its boil."""
    title, least = _THICKENERS[way]
    if stop := _must_not_boil(case):
        return refused(way, title, stop)
    fat = case.most_of("fat")
    fat_key = fat.key if fat else "butter-unsalted"

    def steps(flour: float) -> list[AnyStep]:
        boil = Simmer(minutes=_BOILS_MIN, heat="bare-simmer")
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
    if way == "slurry":
        told = f"Slurry of {dose:.3g} g corn starch"
        do = (f"Stir {dose:.3g} g corn starch into {2 * dose:.3g} g cold water, whisk it in.",)
    elif way == "beurre-manie":
        told = f"Beurre manié: {dose:.3g} g flour in {dose:.3g} g {name}"
        do = (f"Knead {dose:.3g} g flour into {dose:.3g} g soft {name}; whisk in by knobs.",)
    else:
        told = f"Roux of {dose:.3g} g flour and {dose:.3g} g {name}"
        do = (
            f"Cook {dose:.3g} g flour in {dose:.3g} g {name} without colour; whisk in, little by little.",
        )
    boil = f"Back to the boil, {_BOILS_MIN:.0f} min."
    return remedy_of(case, way, told, (*do, boil), steps(dose))


_THICKENERS = {
    "beurre-manie": ("Beurre manié", 1e-5),
    "slurry": ("Starch slurry", 1e-5),
    "roux": ("Roux made apart", 1e-5),
}


def _thick_already(case: Case, steps: Steps, least: float) -> str:
    """Why no thickener helps: the sauce is there already, or boils there by itself."""
    pot = case.pot
    if lands(case, pot):
        return "it has the grade already"
    return _SHORT if not lands(case, after(case, steps(least))) else "its boil alone gets it there"


def thick_sauce_in(case: Case) -> Remedy:
    """A very thick sauce of the same liquid, made apart and stirred in: the way for what must
    not boil any more."""
    way, title = "thick-sauce", "A thick sauce made apart, stirred in"
    liquid = case.liquid
    inner = InnerSauce(
        name=f"Thick {liquid.spoken_name} sauce",
        steps=(
            Roux(
                fat=Measured(ingredient="butter-unsalted", amount=_grams(150)),
                flour=Measured(ingredient="wheat-flour", amount=_grams(150)),
            ),
            Add(ingredient=liquid.key, amount=_grams(1000)),
            Simmer(minutes=_BOILS_MIN, heat="bare-simmer", lid=True),
        ),
    )

    def steps(dose: float) -> list[AnyStep]:
        return [Use(sauce=inner, amount=_grams(dose), temperature_c=_WARM_C)]

    mass = case.pot.total_g
    dose = dose_for(case, steps, 1e-3 * mass, 3.0 * mass)
    if dose is None:
        return refused(way, title, _SHORT)
    dose = kitchen_dose(case, steps, dose, kitchen_step(_grams(dose)))
    share = dose / (1300.0 - 20.0)
    do = (
        f"Make a thick one apart: {150 * share:.3g} g flour and butter, {1000 * share:.4g} g "
        f"{liquid.spoken_name}, {_BOILS_MIN:.0f} min at the boil.",
        f"Stir in {dose:.4g} g of it warm, off the heat.",
    )
    return remedy_of(
        case, way, f"{dose:.4g} g thick {liquid.spoken_name} sauce in", do, steps(dose)
    )


def more_cheese(case: Case) -> Remedy | None:
    """More of the cheese that is in it; None where there is none."""
    cheese = case.most_of("cheese")
    if cheese is None:
        return None
    way, title = "cheese", f"More {cheese.spoken_name}"
    mass = case.pot.total_g

    def steps(dose: float) -> list[AnyStep]:
        return [Melt(ingredient=cheese.key, amount=_grams(dose))]

    dose = dose_for(case, steps, 1e-3 * mass, 0.35 * mass)
    if dose is None:
        return refused(way, title, "cheese alone does not get it there")
    dose = kitchen_dose(case, steps, dose, kitchen_step(_grams(dose)))
    do = (f"Off the heat, stir in {dose:.3g} g of it, finely shredded, by handfuls.",)
    return remedy_of(case, way, f"{dose:.3g} g more {cheese.spoken_name}", do, steps(dose))


def yolks(case: Case) -> Remedy:
    """A liaison: whole yolks in twice their weight of cream."""
    way, title = "yolks", "Yolks in cream"
    yolk_g = case.kitchen.larder["egg-yolk"].piece_g
    mass = case.pot.total_g

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
        return refused(way, title, "yolk thickens little: it does not get there")
    count = max(1, round(dose / yolk_g))
    if not lands(case, after(case, steps(count * yolk_g))):
        return refused(way, title, "whole yolks miss the grade: too few or one too many")
    yolks_told = f"{count} yolk{'s' if count > 1 else ''}"
    do = (
        f"Whisk {yolks_told} with {count * yolk_g:.0f} g cream, temper with ladles of the sauce, "
        "stir back and warm to 80 °C.",
    )
    return remedy_of(case, way, f"{yolks_told} in cream", do, steps(count * yolk_g))


def _must_not_boil(case: Case) -> str | None:
    # Cheese bears a bare simmer where starch holds it; the remark stands beside the remedy.
    delicate = case.pot.delicate - {"cheese"}
    if not delicate:
        return None
    what = {
        "soft-cream": "soft cream",
        "mounted": "butter whisked in",
        "liaison": "yolk without starch",
    }
    named = " and ".join(what[code] for code in sorted(delicate))
    return f"it must not boil any more ({named}): thicken with a sauce made apart"


def _right_already(case: Case) -> list[Remedy]:
    """One refusal where the numbers find nothing to mend; none otherwise."""
    if case.wanted_pa_s is None:
        why = "nothing can be said of its thickness yet: it is no sauce at this point"
    elif lands(case, case.pot) and not warming(case):
        why = "it has its grade by the numbers. If it looks otherwise, pick the spoon it looks like"
    else:
        return []
    return [refused("none", "Nothing to mend", why)]


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
