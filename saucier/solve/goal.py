"""What a solve is asked for."""

from dataclasses import dataclass

from saucier.errors import BadInput
from saucier.sheet import Sheet
from saucier.thickness import grade_named
from saucier.units import Amount, Dimension


@dataclass(frozen=True, slots=True)
class Have:
    """The one ingredient there is only so much of: ``amount`` of it in the whole sheet."""

    ingredient: str
    amount: Amount


@dataclass(frozen=True, slots=True)
class Goal:
    """Target viscosity (Pa·s at serving temperature) and size; None leaves it as it comes.

    ``volume`` is the yield, as a volume or a weight. ``have`` takes its place.
    """

    viscosity_pa_s: float | None = None
    volume: Amount | None = None
    have: Have | None = None


def goal_of(
    sheet: Sheet,
    grade: str | None = None,
    volume: Amount | None = None,
    have: Have | None = None,
) -> Goal:
    """The goal a sheet's own target sets, with what is given in place of its parts.

    Raises :class:`BadInput` for an unknown grade or a yield in pieces.
    """
    wanted = grade or sheet.target.grade
    viscosity = grade_named(wanted).target if wanted else None
    if volume is not None and volume.dimension is Dimension.COUNT:
        raise BadInput.at("volume", "pieces-are-no-yield")
    return Goal(viscosity, None if have else volume or sheet.target.volume, have)
