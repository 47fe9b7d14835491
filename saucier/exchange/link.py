"""A sauce as a link: the whole sheet packed into the address, for another kitchen to open."""

import base64
import binascii
import json
import re
import zlib

from saucier.errors import BadInput
from saucier.sheet import MAX_BYTES, Sheet, write_sheet

_MARK = re.compile(r"#sheet=([A-Za-z0-9_-]+)")
_PREFIX = "#sheet="


def to_link(sheet: Sheet) -> str:
    """The part of an address that holds ``sheet``: everything, and nothing a server needs to keep.

    >>> from saucier.starts import STARTS
    >>> sheet_in(f"https://kitchen.invalid/sauces/read{to_link(STARTS[0])}").startswith('{"format"')
    True
    """
    data = json.dumps(write_sheet(sheet), ensure_ascii=False, separators=(",", ":")).encode()
    packed = base64.urlsafe_b64encode(zlib.compress(data, 9)).decode()
    return _PREFIX + packed.rstrip("=")


def sheet_in(text: str) -> str | None:
    """The sheet's text in a link; None where ``text`` holds none. Raises :class:`BadInput` (field
    ``text``) for a link that is cut short or no sheet."""
    found = _MARK.search(text)
    if found is None:
        return None
    packed = found[1] + "=" * (-len(found[1]) % 4)
    try:
        unpacking = zlib.decompressobj()
        data = unpacking.decompress(base64.urlsafe_b64decode(packed), MAX_BYTES + 1)
        if len(data) > MAX_BYTES or not unpacking.eof:
            raise BadInput.at("text", "link-is-cut-short")
        return data.decode("utf-8")
    except (binascii.Error, zlib.error, UnicodeDecodeError):
        raise BadInput.at("text", "link-is-cut-short") from None
