"""Salt in the pot, and how much is left to add."""

from saucier.seasoning.salt import DEFAULT_SALT_PCT, SaltGap, salt_gap, salt_needed_g, salt_pct

__all__ = ["DEFAULT_SALT_PCT", "SaltGap", "salt_gap", "salt_needed_g", "salt_pct"]
