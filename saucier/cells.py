"""Cells of CSV: none of ours is taken for a formula by a spreadsheet, and what was put in front is taken off
again."""

import csv
import io
import re
from collections.abc import Iterable, Sequence

_RECKONED = re.compile(r"'*[=+\-@\t\r\n＝＋－＠]")
_NUMBER = re.compile(r"-?\d+(?:\.\d+)?(?:e[+-]?\d+)?")
GUARD = "'"


def guarded(cell: object) -> str:
    """``cell`` as text that stays text; a plain number stays one.

    >>> guarded("=1+1"), guarded("-5.2"), guarded("- a pinch"), guarded("butter")
    ("'=1+1", '-5.2', "'- a pinch", 'butter')
    """
    text = "" if cell is None else str(cell)
    if _RECKONED.match(text) and not _NUMBER.fullmatch(text):
        return GUARD + text
    return text


def unguarded(cell: str) -> str:
    """What :func:`guarded` was given.

    >>> [unguarded(guarded(text)) for text in ("=1+1", "'=1", "'tis", "@", "-5")]
    ['=1+1', "'=1", "'tis", '@', '-5']
    """
    if cell.startswith(GUARD) and _RECKONED.match(cell):
        return cell[len(GUARD) :]
    return cell


def written(header: Sequence[str], rows: Iterable[Iterable[object]]) -> str:
    """A table as CSV.

    >>> written(["what", "grams"], [["-bay", 2.5]])
    "what,grams\\n'-bay,2.5\\n"
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(header)
    writer.writerows([guarded(cell) for cell in row] for row in rows)
    return out.getvalue()
