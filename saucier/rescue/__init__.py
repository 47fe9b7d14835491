"""Fix it: what mends a sauce that is not as it should be, with amounts, minutes and money."""

from saucier.rescue.back import BroughtBack, as_thick_as, brought_back, warmed_again
from saucier.rescue.case import Case, case_at, case_of, seen_pot
from saucier.rescue.remedy import Remedy, applied
from saucier.rescue.salt import salt_remedies
from saucier.rescue.seen import KINDS, Kind, Seen
from saucier.rescue.signs import SIGNS, Sign, likely, remedies, sign_named

__all__ = [
    "KINDS",
    "SIGNS",
    "BroughtBack",
    "Case",
    "Kind",
    "Remedy",
    "Seen",
    "Sign",
    "applied",
    "as_thick_as",
    "brought_back",
    "case_at",
    "case_of",
    "likely",
    "remedies",
    "salt_remedies",
    "seen_pot",
    "sign_named",
    "warmed_again",
]
