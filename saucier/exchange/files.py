"""A sheet as a file in one of the forms it can leave in."""

import json
from dataclasses import dataclass

from saucier.errors import BadInput
from saucier.exchange.json_ld import to_json_ld
from saucier.exchange.link import to_link
from saucier.exchange.markdown import to_markdown
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet, write_sheet


@dataclass(frozen=True, slots=True)
class File:
    """``text``, the ``ending`` of its name, its media type ``kind``."""

    text: str
    ending: str
    kind: str


def written(sheet: Sheet, kitchen: Kitchen, form: str) -> File:
    """``sheet`` in ``form``: ``sheet``, ``json-ld``, ``markdown`` or ``link`` (the part of an address that holds it). Raises :class:`BadInput`
    (field ``form``)."""
    if form == "sheet":
        return File(_json(write_sheet(sheet)), "json", "application/json")
    if form == "json-ld":
        return File(_json(to_json_ld(sheet, kitchen)), "jsonld", "application/ld+json")
    if form == "markdown":
        return File(to_markdown(sheet, kitchen), "md", "text/markdown")
    if form == "link":
        return File(to_link(sheet), "txt", "text/plain")
    raise BadInput.at("form", "is-no-file-form", form=form[:40])


def _json(document: object) -> str:
    return json.dumps(document, indent=1, ensure_ascii=False)
