"""Schools of infusion: plain, steeped, sweated in the roux, herb wine at the end."""

from saucier import constants as K
from saucier.kitchen import Kitchen
from saucier.larder import spoken_role
from saucier.schools.school import School, grams_amount, index_of, with_steps
from saucier.sheet import Sheet
from saucier.steps import (
    Add,
    AnyStep,
    Infuse,
    InnerSauce,
    Melt,
    Reduce,
    Roux,
    Season,
    ShareOfIt,
    Simmer,
    Strain,
    Sweat,
    Use,
)
from saucier.steps.reduce import Stop
from saucier.words import say


def _steeped(step: AnyStep) -> bool:
    """Whether ``step`` stirs in a liquid with nothing done to it but aromatics steeped in it."""
    if not isinstance(step, Use) or not isinstance(step.sauce.steps[0], Add):
        return False
    inner = step.sauce.steps
    return any(isinstance(s, Infuse) for s in inner) and all(
        isinstance(s, Add | Infuse | Strain) for s in inner
    )


def _herb_wine(step: AnyStep) -> bool:
    """Whether ``step`` stirs in a liquid boiled down with its aromatics and strained."""
    if not isinstance(step, Use):
        return False
    inner = step.sauce.steps
    return isinstance(inner[-1], Strain) and all(
        isinstance(s, Add | Reduce | Strain) for s in inner
    )


def _main_liquid(sheet: Sheet, kitchen: Kitchen) -> int | None:
    """The liquid a roux sauce is made with: its largest plain addition."""
    if index_of(sheet, Roux) is None:
        return None
    liquids = [
        (step.amount.base, n)
        for n, step in enumerate(sheet.steps)
        if isinstance(step, Add)
        and not isinstance(step, Melt)
        and kitchen.larder[step.ingredient].role in ("milk", "stock")
    ]
    return max(liquids)[1] if liquids else None


def _infusion_followed(sheet: Sheet, kitchen: Kitchen) -> str | None:
    for step in sheet.steps:
        if _steeped(step):
            return "steeped"
        if _herb_wine(step):
            return "herb-wine"
    at = index_of(sheet, Roux)
    after = sheet.steps[at + 1] if at is not None and at + 1 < len(sheet.steps) else None
    if isinstance(after, Sweat):
        return "sweated"
    return "plain" if _main_liquid(sheet, kitchen) is not None else None


def _plain(sheet: Sheet, kitchen: Kitchen) -> Sheet:
    """``sheet`` without any of the infusions below."""
    steps: list[AnyStep] = []
    sweated = _infusion_followed(sheet, kitchen) == "sweated"
    for number, step in enumerate(sheet.steps):
        if _steeped(step):
            assert isinstance(step, Use)
            liquid = step.sauce.steps[0]
            assert isinstance(liquid, Add)
            share = step.amount.share if isinstance(step.amount, ShareOfIt) else 0.0
            steps.append(
                liquid.model_copy(
                    update={
                        "amount": liquid.amount.times(share) if share else step.amount,
                        "temperature_c": K.LIQUID_IN_C[sheet.method.liquid_in],
                    }
                )
            )
        elif _herb_wine(step) or (
            sweated and (isinstance(step, Strain) or (isinstance(step, Sweat) and number))
        ):
            continue
        else:
            steps.append(step)
    return with_steps(sheet, steps)


def _infusion_rewrite(sheet: Sheet, choice: str, kitchen: Kitchen) -> Sheet:
    sheet = _plain(sheet, kitchen)
    if choice == "plain":
        return sheet
    at = _main_liquid(sheet, kitchen)
    assert at is not None
    liquid = sheet.steps[at]
    assert isinstance(liquid, Add)
    steps = list(sheet.steps)
    litres = liquid.amount.base / 1000.0
    if choice == "steeped":
        inner = InnerSauce(
            name=str(say("steeped-liquid", of=spoken_role(kitchen.larder[liquid.ingredient].role))),
            steps=(
                liquid.model_copy(
                    update={"amount": liquid.amount.times(1.06), "temperature_c": 5.0}
                ),
                Infuse(ingredient="onion", amount=grams_amount(60 * litres), minutes=15),
                Infuse(ingredient="bay-leaf", amount=grams_amount(0.4 * litres), minutes=0),
                Strain(),
            ),
        )
        steps[at] = Use(sauce=inner, amount=liquid.amount, temperature_c=60.0)
    elif choice == "sweated":
        roux = index_of(sheet, Roux)
        assert roux is not None
        steps.insert(
            roux + 1, Sweat(ingredient="onion", amount=grams_amount(60 * litres), minutes=6)
        )
        simmered = next(
            (n for n, s in enumerate(steps) if n > roux and isinstance(s, Simmer)), len(steps) - 1
        )
        steps.insert(simmered + 1, Strain())
    else:
        inner = InnerSauce(
            name=str(say("herb-wine")),
            steps=(
                Add(ingredient="wine-white-dry", amount=grams_amount(150 * litres)),
                Add(ingredient="shallot", amount=grams_amount(25 * litres)),
                Reduce(to=Stop(share=0.35), heat="rolling"),
                Strain(),
            ),
        )
        salted = index_of(with_steps(sheet, steps), Season)
        where = len(steps) if salted is None else salted
        steps.insert(where, Use(sauce=inner, amount=grams_amount(35 * litres)))
    return with_steps(sheet, steps)


INFUSION = School(
    "infusion",
    ("plain", "steeped", "sweated", "herb-wine"),
    _infusion_followed,
    _infusion_rewrite,
)
