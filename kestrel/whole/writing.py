"""A whole kitchen as one zip of open formats. The same kitchen always makes the same file."""

import csv
import hashlib
import io
import json
import zipfile
from collections import defaultdict
from collections.abc import Iterator
from datetime import date, datetime
from typing import IO, Any

from django.db.models import ForeignKey, Model, QuerySet

from kestrel.accounts.models import Kitchen
from kestrel.stove.models import Photo, Reading
from kestrel.whole.names import Renumber, in_column, renumber
from kestrel.whole.parts import LARDER, TABLES, Row

FORMAT, VERSION = "kestrel-fog/kitchen", 1
WAYS = ("temperature", "measures", "tablespoon_ml", "decimals", "dates")
"""Columns of the kitchen that say how it writes figures."""
MANIFEST = "kitchen.json"
READING_COLUMNS = (
    *("at", "kind", "value"),
    *("kept_key", "tray", "device_name", "simulated", "clock_off_s", "written_at"),
)
"""Columns of a batch's readings; files of before December 2026 have the first three."""
_WHEN = (2020, 1, 1, 0, 0, 0)
"""Of every file in it: when it was written is no part of a kitchen."""


def write_kitchen(kitchen: Kitchen, out: IO[bytes]) -> None:
    """``kitchen`` into ``out``. Passwords, devices and their tokens are not in it."""
    sums: dict[str, str] = {}
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:

        def put(name: str, data: bytes) -> None:
            sums[name] = hashlib.sha256(data).hexdigest()
            info = zipfile.ZipInfo(name, _WHEN)
            info.compress_type = zipfile.ZIP_DEFLATED
            info.external_attr = 0o644 << 16
            packed.writestr(info, data)

        for name, data in _Writing(kitchen).files():
            put(name, data)
        manifest = {
            "format": FORMAT,
            "version": VERSION,
            "name": kitchen.name,
            "currency": kitchen.currency,
            "ways": {name: getattr(kitchen, name) for name in WAYS},
            "files": dict(sorted(sums.items())),
        }
        put(MANIFEST, _json(manifest))


def _cell(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, datetime):
        return value.isoformat()
    return repr(value) if isinstance(value, float) else str(value)


def _json(document: Any) -> bytes:
    text = json.dumps(document, indent=1, ensure_ascii=False, sort_keys=True)
    return (text + "\n").encode()


_ORDER = {
    "versions": ("sauce_id", "number"),
    **dict.fromkeys(
        ("acts", "milestones", "photos", "labels", "entries", "served", "kept"), ("batch_id",)
    ),
    **dict.fromkeys(("lessons", "corrections"), ("entry__batch_id",)),
    "events": ("kept__batch_id", "kept_id"),
}
"""What stands in the file of something else is numbered by that first: so it is taken in again."""


class _Writing:
    def __init__(self, kitchen: Kitchen) -> None:
        self.kitchen = kitchen
        self.numbers: dict[str, dict[int, int]] = {}
        """By table: the number each row has in the file, by its own."""
        for name in TABLES:
            keys = self._rows(name).values_list("pk", flat=True)
            self.numbers[name] = {pk: number for number, pk in enumerate(keys, 1)}
        self.sauce = self._renumber("sauces")
        self.dish = self._renumber("dishes")

    def _renumber(self, table: str) -> Renumber:
        return renumber({str(pk): str(number) for pk, number in self.numbers[table].items()})

    def _rows(self, name: str) -> QuerySet[Any]:
        model = TABLES[name].model
        whose = "sauce__kitchen" if name == "versions" else "kitchen"
        rows = model._default_manager.filter(**{whose: self.kitchen})
        return rows.order_by(*_ORDER.get(name, ()), "pk")

    def files(self) -> Iterator[tuple[str, bytes]]:
        yield "larder.json", _json({name: self._told(name) for name in LARDER})
        versions = self._grouped("versions", "sauce")
        for row in self._told("sauces"):
            document = {"sauce": row, "versions": versions[row["n"]]}
            yield f"sauces/{row['n']:05}.json", _json(document)
        for name in ("dishes", "services", "run-ups"):
            for row in self._told(name):
                yield f"{name}/{row['n']:05}.json", _json(row)
        yield "practice.json", _json({"practice": self._told("practice")})
        yield from self._batches()

    def _batches(self) -> Iterator[tuple[str, bytes]]:
        of_batch = {
            name: self._grouped(name, "batch")
            for name in ("acts", "milestones", "photos", "labels", "entries", "served", "kept")
        }
        lessons, events = self._grouped("lessons", "entry"), self._grouped("events", "kept")
        corrections = self._grouped("corrections", "entry")
        for batch in self._rows("batches").iterator(chunk_size=200):
            row = self._row("batches", batch)
            n = row["n"]
            document: Row = {"batch": row, **{name: rows[n] for name, rows in of_batch.items()}}
            for part, rows_of in (("lessons", lessons), ("corrections", corrections)):
                document[part] = [one for e in document["entries"] for one in rows_of[e["n"]]]
            document["events"] = [one for k in document["kept"] for one in events[k["n"]]]
            yield f"batches/{n:06}.json", _json(document)
            if readings := self._readings(batch.pk):
                yield f"readings/{n:06}.csv", readings
        for photo in Photo.objects.filter(kitchen=self.kitchen).order_by("pk").iterator():
            yield f"photos/{self.numbers['photos'][photo.pk]:06}.jpg", bytes(photo.jpeg)

    def _readings(self, batch_id: int) -> bytes:
        rows = Reading.objects.filter(batch_id=batch_id).order_by("at", "pk")
        out = io.StringIO()
        writer = csv.writer(out, lineterminator="\n")
        writer.writerow(READING_COLUMNS)
        found = False
        for row in rows.values_list(*READING_COLUMNS).iterator():
            writer.writerow(_cell(value) for value in row)
            found = True
        return out.getvalue().encode() if found else b""

    def _grouped(self, name: str, by: str) -> dict[int, list[Row]]:
        found: dict[int, list[Row]] = defaultdict(list)
        for row in self._told(name):
            found[row[by]].append(row)
        return found

    def _told(self, name: str) -> list[Row]:
        table = TABLES[name]
        rows = self._rows(name).select_related(*table.people)
        if name == "photos":
            rows = rows.defer("jpeg")
        return [self._row(name, row) for row in rows]

    def _row(self, name: str, row: Model) -> Row:
        table = TABLES[name]
        told: Row = {"n": self.numbers[name][row.pk]}
        for column in table.columns:
            field = row._meta.get_field(column)
            if column in table.people:
                person = getattr(row, column)
                # Somebody who is not there any more is named as they were.
                value = person.called if person else None
            elif isinstance(field, ForeignKey):
                pointed = getattr(row, f"{column}_id")
                value = self.numbers[table.at[column]].get(pointed)
            else:
                value = getattr(row, column)
                if column in table.names:
                    value = in_column(name, column, value, self.sauce, self.dish)
            if isinstance(value, datetime | date):
                value = value.isoformat()
            told[column] = value
        return told
