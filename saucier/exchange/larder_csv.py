"""The larder as CSV: out, and in again with a report on every row."""

import csv
import io
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from saucier.cells import unguarded, written
from saucier.errors import BadInput, Problem, problem
from saucier.larder import Ingredient, Larder, ingredient_from_row, row_of
from saucier.larder.row import COLUMNS

MOST_ROWS = 2000


@dataclass(frozen=True, slots=True)
class RowRead:
    """One row of a file: its ``line`` there, its ``key``, what became of it, and the
    ``problems`` for which it was refused. ``changed`` names columns that differ."""

    line: int
    key: str
    status: Literal["new", "changed", "same", "refused"]
    changed: tuple[str, ...] = ()
    problems: tuple[Problem, ...] = ()
    ingredient: Ingredient | None = None


def write_larder_csv(rows: Iterable[Ingredient]) -> str:
    """``rows`` as CSV with a header, parts per 100 g."""
    return written(COLUMNS, ([row_of(row)[name] for name in COLUMNS] for row in rows))


def read_larder_csv(text: str, larder: Larder) -> list[RowRead]:
    """Every row of ``text`` against ``larder``. Columns that are left out keep what the larder
    has; good rows are read though others are refused.

    Raises :class:`BadInput` (field ``csv``) where it is no such table at all.
    """
    sample = text.lstrip("\ufeff")
    head = sample.partition("\n")[0]
    reader = csv.DictReader(
        io.StringIO(sample, newline=""), delimiter=";" if head.count(";") > head.count(",") else ","
    )
    columns = [name.strip() for name in reader.fieldnames or []]
    reader.fieldnames = columns
    if "key" not in columns:
        raise BadInput.at("csv", "csv-has-no-key-column", columns=tuple(COLUMNS))
    if odd := [name for name in columns if name not in COLUMNS]:
        raise BadInput.at(
            "csv", "csv-has-an-odd-column", column=odd[0][:40], columns=tuple(COLUMNS)
        )
    reports: list[RowRead] = []
    seen: set[str] = set()
    try:
        for given in reader:
            if len(reports) >= MOST_ROWS:
                raise BadInput.at("csv", "csv-is-too-long", most=MOST_ROWS)
            reports.append(_read(reader.line_num, given, larder, seen))
    except csv.Error as bad:
        raise BadInput.at("csv", "csv-cannot-be-read", why=bad) from None
    if not reports:
        raise BadInput.at("csv", "csv-has-no-rows")
    return reports


def _read(line: int, given: dict[str, str], larder: Larder, seen: set[str]) -> RowRead:
    key = unguarded((given.get("key") or "").strip())
    if None in given:
        too_wide = problem("row", "row-is-too-wide")
        return RowRead(line, key, "refused", (), (too_wide,))
    if key in seen:
        too_wide = problem("key", "key-comes-twice", key=key)
        return RowRead(line, key, "refused", (), (too_wide,))
    seen.add(key)
    before = row_of(larder[key]) if key in larder else {}
    wanted = {
        **before,
        **{
            name: unguarded((value or "").strip())
            for name, value in given.items()
            if value is not None
        },
    }
    if before and "insoluble" not in given and _moves_parts(before, wanted):
        wanted["insoluble"] = _rest(wanted, before)
    try:
        row = ingredient_from_row(wanted)
    except BadInput as bad:
        return RowRead(line, key, "refused", (), bad.problems)
    after = row_of(row)
    changed = tuple(name for name in COLUMNS if before.get(name, "") != after[name])
    status: Literal["new", "changed", "same"] = (
        "new" if not before else "changed" if changed else "same"
    )
    return RowRead(
        line=line,
        key=key,
        status=status,
        changed=changed if before else (),
        problems=(),
        ingredient=row,
    )


_GIVES_WAY = ("water", "fat", "salt", "solids", "alcohol", "thickening_protein", "yolk_protein")


def _moves_parts(before: dict[str, str], wanted: dict[str, str]) -> bool:
    return any(before.get(name, "") != wanted.get(name, "") for name in _GIVES_WAY)


def _rest(wanted: dict[str, str], before: dict[str, str]) -> str:
    """Insoluble matter gives way for a part that changed, so that a row with only its salt or
    fat corrected still closes; never below nothing."""

    def number(row: dict[str, str], name: str) -> float:
        try:
            return float((row.get(name) or "0").replace(",", "."))
        except ValueError:
            return 0.0

    moved = sum(number(wanted, name) - number(before, name) for name in _GIVES_WAY)
    return f"{max(0.0, number(before, 'insoluble') - moved):g}"
