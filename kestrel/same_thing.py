"""An act that is sent twice happens once; one that bears the key of another thing is refused, never swallowed."""

from saucier.errors import BadInput


def refuse_other_thing(there: object, sent: object) -> None:
    """Raises :class:`BadInput` (``key``) where what is ``there`` under a key is not what was ``sent`` under it."""
    if there != sent:
        raise BadInput.at("key", "key-is-of-another-thing")
