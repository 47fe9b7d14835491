"""Salt in the pot, and how much is left to add."""

from saucier.seasoning.salt import SaltGap, salt_gap, salt_needed_g, salt_pct

__all__ = ["SaltGap", "salt_gap", "salt_needed_g", "salt_pct"]
