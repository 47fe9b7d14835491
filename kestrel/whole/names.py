"""Numbers of sauces and dishes inside documents, put in place of others: a number here is none elsewhere."""

import re
from collections.abc import Callable, Mapping
from typing import Any

from saucier.errors import BadInput

Renumber = Callable[[str], str]
_IN_A_KEY = re.compile(r"(^|(?<=own-)|(?<=pot:))(\d+)(?=~)")
"""The sauce in the key of a branch or a pot, as in ``own-12~nappe`` or ``pot:12~nappe#1``."""


NONE = "0"
"""The number of nothing."""


def renumber(numbers: Mapping[str, str], field: str = "") -> Renumber:
    """A number by ``numbers``; one that is not there is 0, which is none: left as it is, it could come to
    mean another sauce elsewhere. With a ``field`` it raises :class:`BadInput` instead."""

    def turned(number: str) -> str:
        if field and number != NONE and number not in numbers:
            raise BadInput.at(field, "points-at-nothing", number=number[:20])
        return numbers.get(number, NONE)

    return turned


def key_with(key: str, sauce: Renumber) -> str:
    """
    >>> key_with("pot:own-12~nappe~salt 0.9#1", renumber({"12": "3"}))
    'pot:own-3~nappe~salt 0.9#1'
    """
    return _IN_A_KEY.sub(lambda found: sauce(found[2]), key)


def in_column(table: str, column: str, value: Any, sauce: Renumber, dish: Renumber) -> Any:
    """A document of a table with the numbers in it put in place of others."""
    if value is None:
        return None
    if table == "batches":
        return key_with(value, sauce)
    if table == "dishes":
        return {**value, "sauces": [_with(one, sauce=sauce) for one in value.get("sauces", [])]}
    if column == "pinned":
        return {sauce(number): version for number, version in value.items()}
    if table == "services" or column == "meal":
        return _service(value, sauce, dish)
    keyed = ("rings", "minutes", "pins", "marks", "ways")
    return {
        **value,
        **{
            part: {key_with(key, sauce): one for key, one in value[part].items()}
            for part in keyed
            if part in value
        },
    }


def _service(document: Mapping[str, Any], sauce: Renumber, dish: Renumber) -> dict[str, Any]:
    found = dict(document)
    if "lines" in found:
        found["lines"] = [_with(one, dish=dish) for one in found["lines"]]
    if "on_hand" in found:
        found["on_hand"] = [_with(one, sauce=sauce) for one in found["on_hand"]]
    if "force" in found:
        found["force"] = {sauce(key): way for key, way in found["force"].items()}
    if "pans" in found:
        found["pans"] = {key_with(key, sauce): pan for key, pan in found["pans"].items()}
    return found


def _with(part: Mapping[str, Any], **numbers: Renumber) -> dict[str, Any]:
    return {
        **part,
        **{
            name: turned(str(part[name]))
            for name, turned in numbers.items()
            if part.get(name) is not None
        },
    }
