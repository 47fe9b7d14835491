"""Mother pots: one base for several sauces, and each branch's let-down and additions (docs/model.md 7)."""

from saucier.mother.base import Base, base_of, same_base
from saucier.mother.branch import Branch, BranchGoal, Poured
from saucier.mother.pot import CannotPour, Mother, Offer, mother_for, too_far, too_far_of

__all__ = [
    "Base",
    "Branch",
    "BranchGoal",
    "CannotPour",
    "Mother",
    "Offer",
    "Poured",
    "base_of",
    "mother_for",
    "same_base",
    "too_far",
    "too_far_of",
]
