"""A whole kitchen read from a zip: everything is looked over, and all of it is taken in or nothing."""

import csv
import hashlib
import io
import math
import re
import zipfile
import zlib
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from dataclasses import replace
from datetime import datetime
from typing import IO, Any

from django.core.exceptions import ValidationError
from django.core.serializers.base import DeserializedObject
from django.db import IntegrityError, models, transaction
from django.db.models import Exists, OuterRef
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from kestrel.accounts.actions import somebody_who_was
from kestrel.accounts.models import Kitchen, User
from kestrel.accounts.schemas import KitchenWays
from kestrel.accounts.signing import SignedRow
from kestrel.run_up import actions as run_up
from kestrel.run_up.models import Planning, RunUp
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.stove.models import Reading
from kestrel.whole.names import in_column, renumber
from kestrel.whole.parts import LARDER, TABLES, Row, picture
from kestrel.whole.writing import FORMAT, MANIFEST, VERSION, WAYS
from saucier.errors import BadInput
from saucier.sheet import parse_json

MOST_UPLOAD = 256 * 1024 * 1024
MOST_FILES = 200_000
MOST_UNPACKED = 1024 * 1024 * 1024
_MOST_OF_ONE = {"json": 8 * 1024 * 1024, "csv": 16 * 1024 * 1024, "jpg": 4 * 1024 * 1024}
_NAME = re.compile(
    r"larder\.json|kitchen\.json|practice\.json|(sauces|dishes|services|run-ups)/\d{5,9}\.json"
    r"|batches/\d{6,9}\.json|readings/\d{6,9}\.csv|photos/\d{6,9}\.jpg"
)
_BLOCK = 1024 * 1024


def is_empty(kitchen: Kitchen) -> bool:
    """Whether nothing was entered in it yet."""
    return not any(
        table.model._default_manager.filter(kitchen=kitchen).exists()
        for name, table in TABLES.items()
        if name not in ("versions", "practice")
    )


@transaction.atomic
def read_kitchen(kitchen: Kitchen, user: User, file: IO[bytes]) -> dict[str, int]:
    """The kitchen in ``file`` taken into ``kitchen``, which is empty; how many of each there are. Raises
    :class:`BadInput`, with the file and the field in it; then nothing is stored."""
    if not is_empty(kitchen):
        raise BadInput.at("file", "kitchen-is-not-empty")
    with _damage_told():
        packed = zipfile.ZipFile(file)
    with packed:
        return _Reading(kitchen, user, _Packed(packed)).read()


@contextmanager
def _damage_told() -> Iterator[None]:
    """What a broken, locked or strangely packed zip makes of its reader, told as such."""
    try:
        yield
    except (zipfile.BadZipFile, zlib.error, EOFError, OSError, RuntimeError):
        raise BadInput.at("file", "is-a-damaged-zip") from None


class _Packed:
    """The files of a zip, none of them taken on trust: neither their names nor their sizes."""

    def __init__(self, packed: zipfile.ZipFile) -> None:
        self._packed = packed
        self._sums: Mapping[str, Any] = {}
        infos = packed.infolist()
        if len(infos) > MOST_FILES:
            raise BadInput.at("file", "zip-has-too-many-files", most=MOST_FILES)
        self._left = MOST_UNPACKED
        self.names: dict[str, zipfile.ZipInfo] = {}
        for info in infos:
            if not _NAME.fullmatch(info.filename) or info.filename in self.names:
                raise BadInput.at("file", "zip-has-a-strange-file", name=info.filename[:80])
            self.names[info.filename] = info
        if MANIFEST not in self.names:
            raise BadInput.at("file", "is-no-kitchen", name=MANIFEST)
        manifest = self.json(MANIFEST)
        if manifest.get("format") != FORMAT:
            raise BadInput.at("kitchen.json: format", "is-no-kitchen", name=FORMAT)
        if manifest.get("version") != VERSION:
            version = str(manifest.get("version"))[:20]
            raise BadInput.at(
                "kitchen.json: version", "kitchen-of-another-version", version=version
            )
        self.manifest = manifest
        sums = manifest.get("files")
        if not isinstance(sums, Mapping):
            raise BadInput.at("kitchen.json: files", "part-is-missing")
        self._sums = sums
        there = set(self.names) - {MANIFEST}
        if lost := sorted(set(self._sums) - there):
            raise BadInput.at(str(lost[0])[:80], "file-is-missing-in-zip")
        if strange := sorted(there - set(self._sums)):
            raise BadInput.at("file", "zip-has-a-strange-file", name=strange[0])

    def of(self, folder: str) -> list[str]:
        return sorted(name for name in self.names if name.startswith(f"{folder}/"))

    def bytes(self, name: str) -> bytes:
        """What a file holds, never more than it may."""
        most = min(_MOST_OF_ONE[name.rpartition(".")[2]], self._left)
        held = io.BytesIO()
        with _damage_told(), self._packed.open(self.names[name]) as opened:
            while block := opened.read(_BLOCK):
                held.write(block)
                if held.tell() > most:
                    raise BadInput.at(name, "file-in-zip-is-too-large", most_mb=most / _BLOCK)
        self._left -= held.tell()
        data = held.getvalue()
        if name != MANIFEST and hashlib.sha256(data).hexdigest() != self._sums.get(name):
            raise BadInput.at(name, "file-in-zip-was-changed")
        return data

    def json(self, name: str) -> dict[str, Any]:
        try:
            document = parse_json(self.bytes(name), _MOST_OF_ONE["json"])
        except RecursionError:
            raise BadInput.at(name, "part-is-missing") from None
        except BadInput as bad:
            raise _placed(bad, name) from None
        if not isinstance(document, dict):
            raise BadInput.at(name, "part-is-missing")
        return document


class _Reading:
    def __init__(self, kitchen: Kitchen, user: User, packed: _Packed) -> None:
        self.kitchen, self.user, self.packed = kitchen, user, packed
        self.now = timezone.now()
        self.made: dict[str, dict[int, int]] = {name: {} for name in TABLES}
        """By table: the row each number of the file became here."""
        self.sauces: dict[str, str] = {}
        self.dishes: dict[str, str] = {}
        self.people: dict[str, User] = {member.called: member for member in kitchen.members.all()}

    def read(self) -> dict[str, int]:
        larder = self.packed.json("larder.json") if "larder.json" in self.packed.names else {}
        for name in LARDER:
            self._rows(name, larder.get(name, []), f"larder.json: {name}")
        for name in self.packed.of("sauces"):
            document = self.packed.json(name)
            self._rows("sauces", [document.get("sauce")], f"{name}: sauce")
            self._rows("versions", document.get("versions"), f"{name}: versions")
        self._newest_are_there()
        for folder in ("dishes", "services", "run-ups"):
            for name in self.packed.of(folder):
                self._rows(folder, [self.packed.json(name)], name)
        if "practice.json" in self.packed.names:
            rounds = self.packed.json("practice.json").get("practice")
            self._rows("practice", rounds, "practice.json: practice")
        for name in self.packed.of("batches"):
            self._batch(name)
        for name in self.packed.of("photos"):
            if int(name[7:-4]) not in self.made["photos"]:
                raise BadInput.at(name, "part-is-missing")
        self._take_kitchen()
        for row in RunUp.objects.filter(kitchen=self.kitchen, deleted_at=None):
            run_up.ask(row, Planning.What.PLAN)
        return {name: len(rows) for name, rows in self.made.items()}

    def _take_kitchen(self) -> None:
        manifest = self.packed.manifest
        name, currency = str(manifest.get("name") or "").strip(), manifest.get("currency")
        if name:
            self.kitchen.name = name[:80]
        if isinstance(currency, str) and 1 <= len(currency) <= 8:
            self.kitchen.currency = currency
        if (ways := manifest.get("ways")) is not None:  # a file from before has none
            try:
                written = KitchenWays(**{**ways, "currency": self.kitchen.currency})
            except (TypeError, ValueError):
                raise BadInput.at("kitchen.json: ways", "part-is-missing") from None
            for column in WAYS:
                setattr(self.kitchen, column, getattr(written, column))
        self.kitchen.begun = True
        self.kitchen.save(update_fields=["name", "currency", "begun", *WAYS])

    def _newest_are_there(self) -> None:
        newest = SauceVersion.objects.filter(sauce=OuterRef("pk"), number=OuterRef("version"))
        lost = Sauce.objects.filter(~Exists(newest), kitchen=self.kitchen).first()
        if lost is not None:
            n = next(n for n, pk in self.made["sauces"].items() if pk == lost.pk)
            raise BadInput.at(f"sauces/{n:05}.json: sauce.version", "part-is-missing")

    def _batch(self, name: str) -> None:
        document = self.packed.json(name)
        self._rows("batches", [document.get("batch")], f"{name}: batch")
        parts = (
            "acts",
            "milestones",
            "photos",
            "labels",
            "entries",
            "corrections",
            "lessons",
            "served",
        )
        for part in (*parts, "kept", "events"):
            self._rows(part, document.get(part, []), f"{name}: {part}")
        number = int(name[8:-5])
        readings = f"readings/{number:06}.csv"
        if readings in self.packed.names:
            batch = self.made["batches"].get(number)
            if batch is None:
                raise BadInput.at(readings, "part-is-missing")
            rows = list(self._readings(readings, batch))
            Reading.objects.bulk_create(rows, batch_size=500)

    def _readings(self, name: str, batch_id: int) -> Iterator[Reading]:
        text = io.StringIO(self.packed.bytes(name).decode("utf-8", "replace"))
        for number, row in enumerate(csv.DictReader(text), 2):
            try:
                at, value = _moment(row["at"]), float(row["value"])
                kind = {"scale": "scale", "probe": "probe"}[row["kind"]]
            except (KeyError, TypeError, ValueError):
                raise BadInput.at(f"{name}: line {number}", "part-is-missing") from None
            if not math.isfinite(value):
                raise BadInput.at(f"{name}: line {number}", "part-is-missing")
            try:
                yield Reading(
                    batch_id=batch_id,
                    kind=kind,
                    at=at,
                    value=value,
                    kept_key=(row.get("kept_key") or "")[:40],
                    tray=int(row["tray"]) if row.get("tray") else None,
                    device_name=(row.get("device_name") or "")[:60],
                    simulated=row.get("simulated") == "True",
                    clock_off_s=float(row.get("clock_off_s") or 0.0),
                    written_at=_moment(row["written_at"]) if row.get("written_at") else None,
                    imported_at=self.now,
                )
            except ValueError:
                raise BadInput.at(f"{name}: line {number}", "part-is-missing") from None

    def _rows(self, name: str, rows: Any, at: str) -> None:
        if not isinstance(rows, list):
            raise BadInput.at(at, "part-is-missing")
        for number, row in enumerate(rows):
            where = f"{at}[{number}]" if len(rows) > 1 else at
            try:
                self._row(name, row)
            except BadInput as bad:
                raise _placed(bad, where) from None

    def _row(self, name: str, row: Any) -> None:
        table = TABLES[name]
        if not isinstance(row, dict) or not isinstance(row.get("n"), int):
            raise BadInput.at("n", "part-is-missing")
        if row["n"] in self.made[name]:
            raise BadInput.at("n", "number-is-there-twice", number=row["n"])
        columns = [column for column in table.columns if column in row or column not in table.later]
        if missing := [column for column in columns if column not in row]:
            raise BadInput.at(missing[0], "part-is-missing")
        row = self._here(
            name, {**{new: row[old] for new, old in table.was.items() if old in row}, **row}
        )
        columns = [column for column in table.columns if column in row]
        made = table.model()
        for column in columns:
            field = made._meta.get_field(column)
            value = row[column]
            if column in table.people:
                setattr(made, column, self._person(value))
            elif column in table.at:
                pointed = self._pointed(table.at[column], value, field, column)
                setattr(made, f"{column}_id", pointed)
            else:
                setattr(made, column, _clean(field, value, column, made))
        if name == "photos":
            self._picture(made, row["n"])
        table.sane(row)
        if isinstance(made, SignedRow):
            self._signature(made)
        if name != "versions":
            made.kitchen = self.kitchen  # type: ignore[attr-defined]
        try:
            # As it was: its own moments, not those of today.
            DeserializedObject(made).save(force_insert=True)
        except IntegrityError:
            raise BadInput.at("n", "row-does-not-fit") from None
        self.made[name][row["n"]] = made.pk
        if name in ("sauces", "dishes"):
            getattr(self, name)[str(row["n"])] = str(made.pk)

    def _signature(self, made: SignedRow) -> None:
        """The name it was signed with, and that it came from elsewhere."""
        signer = getattr(made, made.SIGNER)
        made.by_name = made.by_name or (signer.called if signer else "")
        made.imported_at = self.now

    def _here(self, name: str, row: Row) -> Row:
        """``row`` with the numbers inside its documents as they are here."""
        columns = TABLES[name].names
        if not columns:
            return row
        sauce, dish = (renumber(numbers, columns[0]) for numbers in (self.sauces, self.dishes))
        try:
            return {
                **row,
                **{column: in_column(name, column, row[column], sauce, dish) for column in columns},
            }
        except (AttributeError, TypeError, KeyError):
            raise BadInput.at(columns[0], "part-is-missing") from None

    def _pointed(self, table: str, n: Any, field: Any, column: str) -> int | None:
        if n is None and field.null:
            return None
        found = self.made[table].get(n) if isinstance(n, int) else None
        if found is None:
            raise BadInput.at(column, "points-at-nothing", number=str(n)[:20])
        return found

    def _person(self, name: Any) -> User | None:
        if not isinstance(name, str) or not name.strip():
            return None
        if name not in self.people:
            self.people[name] = somebody_who_was(self.kitchen, name[:150])
        return self.people[name]

    def _picture(self, made: Any, n: int) -> None:
        name = f"photos/{n:06}.jpg"
        if name not in self.packed.names:
            raise BadInput.at(name, "file-is-missing-in-zip")
        made.jpeg = self.packed.bytes(name)
        made.width, made.height = picture(made.jpeg)


def _clean(field: Any, value: Any, column: str, made: models.Model) -> Any:
    """``value`` as its column takes it. Raises :class:`BadInput` by column."""
    if isinstance(value, float) and not math.isfinite(value):
        raise BadInput.at(column, "part-is-missing")
    if isinstance(field, models.DateTimeField) and isinstance(value, str):
        try:
            return _moment(value)
        except ValueError:
            raise BadInput.at(column, "row-has-no-moment") from None
    if value is None and field.null:
        return None
    if value is None or (
        isinstance(field, models.CharField | models.TextField) and not isinstance(value, str)
    ):
        raise BadInput.at(column, "part-is-missing")
    if value == "" and field.blank:
        return value
    if isinstance(field, models.JSONField) and value in ({}, []):
        return value
    try:
        return field.clean(value, made)
    except ValidationError as wrong:
        raise BadInput.at(
            column, "row-value-does-not-fit", why=wrong.messages[0].rstrip(".")
        ) from None


def _moment(text: str) -> datetime:
    found = parse_datetime(text)
    if found is None or timezone.is_naive(found):
        raise ValueError(text)
    return found


def _placed(bad: BadInput, where: str) -> BadInput:
    """``bad`` with where in the file it is."""
    return BadInput(
        *(
            replace(one, field=f"{where}, {one.field}" if one.field else where)
            for one in bad.problems
        )
    )
