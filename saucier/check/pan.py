"""The pan a sheet is made in: its own, or the one a cook would reach for."""

from saucier import constants as K
from saucier.errors import BadInput
from saucier.heat import BARE_PANS, Load, Pan, pan_reached_for
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.steps import Lift, Reduce, Reserve, Return, Sear, Strain
from saucier.steps.step import amounts_in


def load_of(sheet: Sheet, kitchen: Kitchen) -> Load:
    """What ``sheet`` asks of its pan, from its amounts alone: nothing is played, so that the pan
    depends on what goes in and not on itself. Amounts that cannot be read count nothing here."""
    sauce = pieces = lifted = sears = fullest = 0.0
    most = Load(0.0)
    for step in sheet.steps:
        for _, key, amount in amounts_in(step):
            try:
                row = kitchen.larder[key] if key else None
                ml = row.grams(amount) / row.density if row else amount.base
            except BadInput:
                continue
            if row is None or not row.piece:
                sauce += ml
            elif isinstance(step, Sear):  # out again before the sauce begins
                lifted += ml
                sears = max(sears, ml * row.density)
            else:
                pieces += ml
        if isinstance(step, Return) and step.amount is None:
            pieces, lifted = pieces + lifted, 0.0
        if sauce + pieces > fullest:
            fullest = sauce + pieces
        if step.op in _ONLY_ADDS:
            continue
        if isinstance(step, Reduce):
            left = _left_of(step, sauce, pieces)
            if sauce + pieces > most.goes_in:
                most = Load(0.0, sauce + pieces, left + pieces)
            sauce = left
        elif isinstance(step, Strain | Lift):
            pieces, lifted = 0.0, lifted + pieces
        elif isinstance(step, Reserve):
            sauce, pieces = sauce * (1.0 - step.share), pieces * (1.0 - step.share)
    return Load(fullest, most.goes_in, most.left, sears)


_ONLY_ADDS = frozenset(["add", "roux", "melt", "simmer", "season", "sweat", "deglaze", "dust"])
"""Steps that take nothing out: most of them."""


def _left_of(step: Reduce, sauce_ml: float, pieces_ml: float) -> float:
    """About what a reduction leaves of ``sauce_ml``, mL."""
    stop = step.stop
    if stop is None:
        return sauce_ml * K.NEARLY_DRY_SHARE
    amount = stop.mass or stop.volume
    if amount is not None:
        return min(sauce_ml, max(0.0, amount.base - pieces_ml))
    return sauce_ml * (stop.share or stop.taste or K.REDUCED_TO_ABOUT)


def pan_of(sheet: Sheet, kitchen: Kitchen, times: float = 1.0) -> Pan:
    """The pan ``times`` the batch of ``sheet`` is made in: its own, or the one a cook would reach
    for among the kitchen's."""
    if sheet.pan:
        return sheet.pan.as_pan()
    if kitchen.stove.pan:
        return kitchen.stove.pan
    return pan_reached_for(load_of(sheet, kitchen).times(times), kitchen.pans or BARE_PANS)
