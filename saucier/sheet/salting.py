"""A salt target put on a sheet."""

import math

from saucier.errors import BadInput
from saucier.sheet.document import Sheet
from saucier.steps import Season
from saucier.steps.season import ToSalt


def with_salt_target(sheet: Sheet, target_pct: float | str, *, put_step: bool = True) -> Sheet:
    """``sheet`` salted to ``target_pct`` g per 100 g: its last salt-to-target step moved, or one
    put at the end unless ``put_step`` is false. Raises :class:`BadInput` (field ``salt``) outside 0 to 20 %."""
    try:
        value = float(target_pct)
    except ValueError:
        value = math.nan
    if not 0.0 <= value <= 20.0:
        raise BadInput.at("salt", "is-no-salt-target", target_pct=target_pct)
    steps = list(sheet.steps)
    for number in range(len(steps) - 1, -1, -1):
        step = steps[number]
        if isinstance(step, Season) and isinstance(step.amount, ToSalt):
            steps[number] = step.model_copy(update={"amount": ToSalt(to_salt_pct=value)})
            break
    else:
        if put_step:
            steps.append(Season(amount=ToSalt(to_salt_pct=value)))
    target = sheet.target.model_copy(update={"salt_pct": value})
    return sheet.model_copy(update={"steps": tuple(steps), "target": target})
