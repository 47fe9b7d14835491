"""Too salty: what brings a sauce back to its target, told and as remedies."""

from dataclasses import replace
from functools import partial

from saucier import constants as K
from saucier.check import CheckedSheet, State, check, larder_of
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.rescue.case import Case
from saucier.rescue.in_grade import dosed
from saucier.rescue.remedy import Remedy, refused, remedy_of
from saucier.seasoning import salt_gap, salt_pct
from saucier.steps import Add, InnerSauce, Season, Use
from saucier.units import Amount, kitchen_round
from saucier.words import Sentence, say

_CREAM = "cream-35"


def salt_remedies(checked: CheckedSheet, kitchen: Kitchen) -> tuple[Sentence, ...]:
    """Three ways to bring a sauce that is over its salt target back to it; none where it is not.

    Amounts by mass balance: x of salt share q brings mass m with salt s to p where
    x = (s − p·m)/(p − q).
    """
    target = checked.sheet.target.salt_pct
    if target is None:
        return ()
    gap = salt_gap(checked.final.pot.balance, target)
    over, share = gap.over_g, target / 100.0
    if over <= 0.05 or share <= 0.0:
        return ()
    told = [say("salt-let-down", grams=gap.liquid_g)]
    cream = kitchen.larder[_CREAM].per_gram.salt
    if cream < share:
        told.append(say("salt-cream", grams=over / (share - cream)))
    salty = _saltiest(checked, kitchen)
    if salty is not None:
        name, grams, content = salty
        less = min(grams, over / (content - share)) if content > share else grams
        told.append(say("salt-less-of-it", grams=less, name=name))
    return tuple(told)


def _saltiest(checked: CheckedSheet, kitchen: Kitchen) -> tuple[str, float, float] | None:
    """Name, grams and salt share of the part that brings the most salt, salt itself apart."""
    brought = {
        key: grams
        for key, grams in larder_of(checked.sheet, kitchen).items()
        if kitchen.larder[key].role != "salt"
    }
    best = max(
        brought, key=lambda key: brought[key] * kitchen.larder[key].per_gram.salt, default=""
    )
    if not best or kitchen.larder[best].per_gram.salt <= 0.0:
        return None
    row = kitchen.larder[best]
    return row.spoken_name, brought[best], row.per_gram.salt


def too_salty(case: Case) -> list[Remedy]:
    """Unsalted liquid, cream, or more of the sauce itself made without salt; each keeps an eye on
    the thickness."""
    target = case.salt_target_pct
    share = (target if target is not None else 0.8) / 100.0
    balance = case.pot.balance
    over = balance.salt - share * balance.mass_g
    beside: tuple[Sentence, ...] = ()
    if over <= _NOT_OVER_G:
        # The tongue wins over the sum: a little less than there is.
        there = salt_pct(balance)
        beside = (say("salt-as-you-say", there_pct=there, target_pct=100.0 * share),)
        share = (there - K.SALTY_AS_SAID_PCT) / 100.0
        over = balance.salt - share * balance.mass_g
        if share <= 0.0:
            return [refused("salt", say("less-salt"), say("hardly-any-salt", there_pct=there))]
    ways = []
    for row in (case.liquid, case.kitchen.larder[_CREAM]):
        if row.per_gram.salt >= share:
            continue
        grams = over / (share - row.per_gram.salt)
        ways.append(dosed(case, partial(_let_in, case, row), _salt_share_of, share, grams))
    ways.append(_more_unsalted(case, over, share))
    return [replace(way, notes=(*beside, *way.notes)) if way.after else way for way in ways]


_NOT_OVER_G = 0.05


def _let_in(case: Case, row: Ingredient, grams: float) -> Remedy:
    """About so much of ``row``, hot, against the salt."""
    amount = kitchen_round(Amount(grams, "g"))
    step = Add(ingredient=row.key, amount=amount, temperature_c=K.MENDING_HOT_C)
    do = (say("unsalted.do", grams=amount.value, name=row.spoken_name),)
    title = say("unsalted.title", grams=amount.value, name=row.spoken_name)
    return remedy_of(case, f"salt-{row.key}", title, do, (step,))


def _salt_share_of(state: State) -> float:
    return salt_pct(state.pot.balance) / 100.0


def _more_unsalted(case: Case, over_g: float, share: float) -> Remedy:
    """The same sauce again without its salt: dilutes the salt and nothing else."""
    salts = [
        isinstance(step, Season) and case.kitchen.larder[step.ingredient].role == "salt"
        for step in case.sheet.steps
    ]
    plain = tuple(
        step for step, is_salt in zip(case.sheet.steps, salts, strict=True) if not is_salt
    )
    title = say("more-unsalted.name")
    if not plain or len(plain) > 60:
        return refused("salt-more", title, say("more-unsalted.unknown"))
    unsalted = check(case.sheet.model_copy(update={"steps": plain}), case.kitchen).final.pot.balance
    own = unsalted.salt / unsalted.mass_g if unsalted.mass_g else 1.0
    if own >= 0.9 * share:
        return refused("salt-more", title, say("more-unsalted.salty-anyway"))
    grams = kitchen_round(Amount(over_g / (share - own), "g")).value
    inner = InnerSauce(name=str(say("unsalted-sauce", name=case.sheet.name[:100])), steps=plain)
    do = (say("more-unsalted.do", grams=grams),)
    step = Use(sauce=inner, amount=Amount(grams, "g"))
    return remedy_of(case, "salt-more", say("more-unsalted.title", grams=grams), do, (step,))
