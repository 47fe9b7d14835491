"""A whole kitchen out and in: the same again, and nothing of what is damaged or hostile."""

import io
import json
import tempfile
import zipfile
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from typing import Any
from unittest.mock import patch

from django.apps import apps
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import CommandError, call_command
from django.utils import timezone
from PIL import Image

from kestrel.accounts.actions import open_kitchen
from kestrel.accounts.models import Kitchen, User
from kestrel.journal.learning import taught
from kestrel.journal.models import Entry
from kestrel.keeping.models import Event, Kept
from kestrel.larder.learnt import go_by
from kestrel.larder.models import Learnt, OwnIngredient, Pan
from kestrel.run_up.models import RunUp
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.service.models import Service
from kestrel.service.work import worked
from kestrel.stove.models import Act, Batch, Photo, Reading
from kestrel.tests.acts import act, go, one, saw
from kestrel.tests.clients import PASSWORD, JsonClient, KitchenTest, signed_in
from kestrel.whole import reading
from kestrel.whole.names import key_with, renumber
from kestrel.whole.parts import TABLES
from kestrel.whole.reading import read_kitchen
from kestrel.whole.writing import write_kitchen
from saucier.errors import BadInput
from saucier.larder import row_of, shipped_larder
from saucier.learn import Estimate


def written(kitchen: Kitchen) -> bytes:
    out = io.BytesIO()
    write_kitchen(kitchen, out)
    return out.getvalue()


def done(answer: Any) -> Any:
    """The answer to what has to have been made."""
    assert answer.status_code == 201, answer.content
    return answer


class WholeTest(KitchenTest):
    """The demo kitchen, cooked in: something in every table."""

    @classmethod
    def setUpTestData(cls) -> None:
        super().setUpTestData()
        call_command("load_demo", verbosity=0, stdout=io.StringIO())
        cls.demo = User.objects.get(username="refectory").kitchens.get()
        cls.cook = cls.demo.members.get()
        cls.fill(signed_in(cls.cook))

    def setUp(self) -> None:
        super().setUp()
        self.client = self.signed_in(self.cook)

    @classmethod
    def fill(cls, client: JsonClient) -> None:
        call, demo = client.call, cls.demo
        sauce = Sauce.objects.filter(kitchen=demo, name__contains="celeriac").get()
        sheet = {**sauce.newest.sheet, "name": "White sauce, again"}
        call("PUT", f"/sauces/{sauce.pk}", {"sheet": sheet, "base_version": 1})
        Sauce.objects.filter(kitchen=demo).exclude(pk=sauce.pk).first()
        batch = call("POST", "/stove", {"sauce_id": sauce.pk}).body["id"]
        act(client, batch, go(0, 1), go(1, 2), saw(2, "spoon", 1.4), one("noted", text="ok"))
        act(client, batch, one("timer-on", name="bread", seconds=600))
        rows = [("scale", 2400.0 - n) for n in range(5)] + [("probe", 71.5)]
        for n, (kind, value) in enumerate(rows):
            at = timezone.now() + timedelta(seconds=n)
            Reading.objects.create(batch_id=batch, kind=kind, at=at, value=value)
        picture = io.BytesIO()
        Image.new("RGB", (640, 480), "wheat").save(picture, "JPEG")
        Photo.objects.create(
            kitchen=demo,
            batch_id=batch,
            key="photo-number-1",
            step=1,
            at=timezone.now(),
            by=cls.cook,
            jpeg=picture.getvalue(),
            width=640,
            height=480,
        )
        steps = len(Batch.objects.get(pk=batch).plan["cards"])
        act(client, batch, *(go(n, n + 1) for n in range(2, steps)))
        label = {"copies": 1, "utc_offset_min": 0}
        done(call("POST", f"/stove/{batch}/labels", label))
        tray = Pan.objects.get(kitchen=demo, shape="tray").name
        put = {"batch_id": batch, "tray": tray, "grams": 500, "key": "kept-number-1"}
        kept = done(call("POST", "/keeping", {**put, "place": "fridge"}))
        path = f"/keeping/{kept.body['id']}/events"
        thrown = one("thrown", grams=20, reason="fell down")
        call("POST", path, {"events": [thrown, one("temperature", celsius=40)]})
        warming = done(
            call("POST", f"/keeping/{kept.body['id']}/warm", {**one("drawn"), "grams": 200})
        )
        act(client, warming.body["batch_id"], go(0, 1), saw(1, "probe", 71.5), go(1, 2))
        for kind in ("spoon", "stop"):
            round_ = call("POST", "/practice", {"kind": kind}).body
            question = round_["question"]
            given = question["choices"][0]["key"] if question["choices"] else "5"
            call("POST", f"/practice/{round_['id']}", {"given": [given]})
        call("POST", "/practice", {"kind": "order"})
        entry = Entry.objects.filter(kitchen=demo).first()
        assert entry is not None
        said = {"key": "correction-1", "weighed": "900 g", "verdict": "nearly", "why": "scale"}
        done(call("POST", f"/journal/{entry.pk}/corrections", said))
        row = {**row_of(shipped_larder()["butter-unsalted"]), "price_per_kg": "9.5"}
        OwnIngredient.objects.create(kitchen=demo, key="butter-unsalted", row=row)
        go_by(demo, cls.cook, ("strength", "wheat-flour", ""), Estimate(0.05, 0.03, 8))
        service = Service.objects.filter(kitchen=demo).first()
        assert service is not None
        pot = worked(demo, service.document, service.pinned).plan.pots[0].key
        call("POST", f"/stove/of-service/{service.pk}", {"pot": pot})
        run = RunUp.objects.get(service=service)
        run.document = {**run.document, "pins": {f"pot:{pot}#1": 600.0}}
        run.save()

    def stored(self) -> dict[str, int]:
        counts = {name: t.model._default_manager.count() for name, t in TABLES.items()}
        return {**counts, "users": User.objects.count(), "readings": Reading.objects.count()}

    def take_in(self, data: bytes, user: User | None = None) -> dict[str, int]:
        user = user or self.stranger
        return read_kitchen(user.kitchens.get(), user, io.BytesIO(data))


class Whole(WholeTest):
    def test_out_in_out_is_the_same(self) -> None:
        first = written(self.demo)
        self.assertEqual(written(self.demo), first)  # and it is always the same file
        with zipfile.ZipFile(io.BytesIO(first)) as packed:
            self.assertIsNone(packed.testzip())
            names = packed.namelist()
        counts = self.take_in(first)
        for name in TABLES:  # something of everything, or it would prove nothing
            if name not in ("measures", "ways", "habits"):
                self.assertGreater(counts[name], 0, name)
        self.assertEqual(written(self.stranger.kitchens.get()), first)
        warmed = Event.objects.filter(kind="warmed", kept__kitchen=self.stranger.kitchens.get())
        self.assertEqual([event.data["met"] for event in warmed], [True])
        self.assertTrue(any(name.startswith("photos/") for name in names))
        self.assertTrue(any(name.startswith("readings/") for name in names))
        # And once more, from there.
        third = open_kitchen("Third", "cal", PASSWORD)
        self.take_in(written(self.stranger.kitchens.get()), third)
        self.assertEqual(written(third.kitchens.get()), first)

    def test_what_was_taken_in_works(self) -> None:
        self.take_in(written(self.demo))
        theirs = self.stranger.kitchens.get()
        call = self.other.call
        for path in ("/sauces", "/dishes", "/services", "/journal", "/keeping", "/run-ups"):
            mine, here = (client.call("GET", path) for client in (self.client, self.other))
            self.assertEqual((mine.status_code, here.status_code), (200, 200), path)
            self.assertEqual(len(mine.body), len(here.body), path)
        for batch in Batch.objects.filter(kitchen=theirs):
            self.assertEqual(call("GET", f"/stove/{batch.pk}").status_code, 200)
        for service in Service.objects.filter(kitchen=theirs):
            plan = worked(theirs, service.document, service.pinned).plan
            self.assertTrue(plan.pots)
            self.assertFalse([one for one in plan.lines if one.refused])
        kept = Kept.objects.get(kitchen=theirs)
        told = call("GET", f"/keeping/{kept.pk}").body
        self.assertEqual([one["by"] for one in told["events"]], 4 * ["refectory"])
        self.assertEqual(
            [one.factor for one in taught(theirs)], [one.factor for one in taught(self.demo)]
        )
        photo = Photo.objects.get(kitchen=theirs)
        self.assertEqual(self.other.get(f"/api/photos/{photo.pk}").status_code, 200)
        # Whoever is named in records is no account: they cannot sign in.
        record = User.objects.get(first_name="refectory")
        self.assertFalse(record.is_active or record.has_usable_password())
        self.assertEqual(Learnt.objects.filter(kitchen=theirs, dropped_at=None).count(), 1)

    def test_what_was_taken_in_is_told_as_imported_and_signed_as_it_was(self) -> None:
        days = (timezone.localdate() - timedelta(days=30), timezone.localdate() + timedelta(days=1))
        asked = f"/keeping/records?first={days[0]}&last={days[1]}"
        self.take_in(written(self.demo))
        mine, theirs = (client.call("GET", asked).body for client in (self.client, self.other))
        self.assertEqual(len(mine), len(theirs))
        self.assertTrue(mine)
        rows = [line for line in theirs if "by readings" not in line["what"]]
        self.assertTrue(rows)
        for line in rows:
            self.assertIn("imported", line["source"], line)
        told = [(line["at"], line["what"], line["value"], line["by"]) for line in mine]
        self.assertEqual([(x["at"], x["what"], x["value"], x["by"]) for x in theirs], told)
        self.assertFalse(any("imported" in line["source"] for line in mine))

    def test_a_label_stuck_on_elsewhere_opens_what_it_is_on(self) -> None:
        code = f"B{Kept.objects.get(kitchen=self.demo).batch_id}"
        self.take_in(written(self.demo))
        theirs = Kept.objects.get(kitchen=self.stranger.kitchens.get())
        found = self.other.call("GET", f"/keeping/code/{code}")
        self.assertEqual(found.body["id"], theirs.pk)
        # A batch of here may bear the same number: then nobody guesses.
        batch = Batch.objects.filter(kitchen=theirs.kitchen).exclude(pk=theirs.batch_id).first()
        label = theirs.batch.labels.get()
        label.document = {**label.document, "code": f"B{batch.pk}"}
        label.save()
        theirs.pk, theirs.key, theirs.batch = None, "kept-here-now", batch
        theirs.save()
        refused = self.other.call("GET", f"/keeping/code/B{batch.pk}")
        self.assertEqual(refused.status_code, 404)
        self.assertIn("Two batches", refused.body["message"])

    def test_moments_are_those_of_then(self) -> None:
        then = timezone.now() - timedelta(days=200)
        Batch.objects.filter(kitchen=self.demo).update(started_at=then)
        Sauce.objects.filter(kitchen=self.demo).update(created_at=then, updated_at=then)
        self.take_in(written(self.demo))
        theirs = self.stranger.kitchens.get()
        self.assertEqual(
            set(Batch.objects.filter(kitchen=theirs).values_list("started_at", flat=True)), {then}
        )
        self.assertEqual(Sauce.objects.filter(kitchen=theirs, created_at=then).count(), 15)

    def test_over_the_api(self) -> None:
        answer = self.client.get("/api/whole/kitchen.zip")
        self.assertEqual(answer["Content-Type"], "application/zip")
        data = b"".join(answer.streaming_content)  # type: ignore[attr-defined]
        self.assertEqual(data, written(self.demo))
        self.assertTrue(self.other.call("GET", "/whole").body["empty"])

        def send(client: Any, what: bytes) -> Any:
            token = {"X-CSRFToken": client.cookies["csrftoken"].value}
            file = SimpleUploadedFile("kitchen.zip", what)
            return client.post("/api/whole", {"file": file}, headers=token)

        self.client.call("GET", "/whole")
        refused = send(self.client, data)
        self.assertEqual(refused.status_code, 422)
        self.assertIn("not empty", refused.content.decode())
        self.assertEqual(send(self.other, data[: len(data) // 2]).status_code, 422)
        made = send(self.other, data)
        self.assertEqual(made.status_code, 201, made.content)
        self.assertEqual(made.json()["counts"]["sauces"], 15)
        self.assertFalse(self.other.call("GET", "/whole").body["empty"])

    def test_by_command(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "refectory.zip"
            call_command("export_kitchen", str(path), username="refectory", stdout=io.StringIO())
            out = io.StringIO()
            call_command(
                "import_kitchen", str(path), username="dora", password=PASSWORD, stdout=out
            )
            self.assertIn("15 sauces", out.getvalue())
            dora = User.objects.get(username="dora").kitchens.get()
            self.assertEqual(written(dora), path.read_bytes())
            path.write_bytes(b"PK nonsense")
            with self.assertRaises(CommandError) as refused:
                call_command("import_kitchen", str(path), username="emil", password=PASSWORD)
            self.assertEqual(refused.exception.returncode, 2)
            self.assertFalse(User.objects.filter(username="emil").exists())

    def test_no_table_of_a_kitchen_is_forgotten(self) -> None:
        left_out = {
            "Membership",
            "Invite",
            "Device",
            "Planning",
        }  # who signs in, tokens, what is reckoned anew
        mine = {
            model.__name__
            for model in apps.get_models()
            if any(field.name == "kitchen" for field in model._meta.get_fields())
        }
        there = {table.model.__name__ for table in TABLES.values()}
        self.assertEqual(mine - left_out, there - {"SauceVersion"})
        for table in TABLES.values():
            told = {*table.columns, "id", "kitchen", "jpeg", "planned", "planned_of", "imported_at"}
            columns = {f.name for f in table.model._meta.concrete_fields}
            self.assertEqual(columns - told, set(), table.model.__name__)

    def test_numbers_in_keys(self) -> None:
        turn = renumber({"12": "3"})
        for key, turned in (
            ("12~nappe", "3~nappe"),
            ("own-12~nappe~milk", "own-3~nappe~milk"),
            ("pot:12~as-is#2", "pot:3~as-is#2"),
            ("mother-12", "mother-12"),
            ("9~salt 12~", "0~salt 12~"),
            ("prep:leek:0", "prep:leek:0"),
        ):
            self.assertEqual(key_with(key, turn), turned)


class Hostile(WholeTest):
    """Whatever is wrong with a file: it says where, and nothing is stored."""

    def setUp(self) -> None:
        super().setUp()
        self.data = written(self.demo)

    def refused(self, data: bytes) -> str:
        before = self.stored()
        name = self.stranger.kitchens.get().name
        with self.assertRaises(BadInput) as bad:
            self.take_in(data)
        self.assertEqual(self.stored(), before)
        self.assertEqual(self.stranger.kitchens.get().name, name)
        told = bad.exception.problems[0]
        self.assertTrue(told.message and told.remedy)
        return f"{told.field}: {told.told}"

    def changed(self, change: Callable[[dict[str, bytes]], Any]) -> bytes:
        """The file with ``change`` made in it, its sums put right: what a hand at work would make."""
        import hashlib

        with zipfile.ZipFile(io.BytesIO(self.data)) as packed:
            files = {name: packed.read(name) for name in packed.namelist()}
        change(files)
        if "kitchen.json" in files:
            manifest = json.loads(files["kitchen.json"])
            if isinstance(manifest.get("files"), dict):
                manifest["files"] = {
                    name: hashlib.sha256(data).hexdigest()
                    for name, data in files.items()
                    if name != "kitchen.json"
                }
            files["kitchen.json"] = json.dumps(manifest).encode()
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
            for name, data in files.items():
                packed.writestr(name, data)
        return out.getvalue()

    def edited(self, name: str, edit: Callable[[Any], Any]) -> bytes:
        def change(files: dict[str, bytes]) -> None:
            document = json.loads(files[name])
            edit(document)
            files[name] = json.dumps(document).encode()

        return self.changed(change)

    def test_the_changing_itself_is_sound(self) -> None:
        self.take_in(self.changed(lambda files: None))

    def test_from_before_stars_tags_and_ways(self) -> None:
        def before(files: dict[str, bytes]) -> None:
            manifest = json.loads(files["kitchen.json"])
            del manifest["ways"]
            files["kitchen.json"] = json.dumps(manifest).encode()
            for name in [n for n in files if n.startswith("sauces/")]:
                document = json.loads(files[name])
                for column in ("favourite", "tags", "cooked_at"):
                    del document["sauce"][column]
                files[name] = json.dumps(document).encode()

        self.take_in(self.changed(before))
        kitchen = self.stranger.kitchens.get()
        self.assertEqual((kitchen.temperature, kitchen.begun), ("C", True))
        self.assertFalse(Sauce.objects.filter(kitchen=kitchen, favourite=True).exists())

    def test_how_figures_are_written_comes_along(self) -> None:
        def ways(manifest: Any) -> None:
            manifest["ways"] |= {"temperature": "F", "tablespoon_ml": 20}

        self.assertIn(
            "kitchen.json",
            self.refused(self.edited("kitchen.json", lambda m: m["ways"].update(decimals=";"))),
        )
        self.take_in(self.edited("kitchen.json", ways))
        kitchen = self.stranger.kitchens.get()
        self.assertEqual((kitchen.temperature, kitchen.tablespoon_ml), ("F", 20))

    def test_damaged(self) -> None:
        self.assertIn("damaged", self.refused(b""))
        self.assertIn("damaged", self.refused(b"not a zip at all"))
        for share in (0.1, 0.5, 0.9, 0.999):
            self.assertIn("damaged", self.refused(self.data[: int(share * len(self.data))]))
        spoilt = bytearray(self.data)
        at = self.data.index(b"larder.json") + 200
        spoilt[at : at + 40] = b"\0" * 40
        self.assertIn("damaged", self.refused(bytes(spoilt)))

    def test_another_format_or_version(self) -> None:
        def version(number: Any) -> bytes:
            return self.edited("kitchen.json", lambda one: one.update(version=number))

        self.assertIn("version: is 2", self.refused(version(2)))
        self.refused(version("1"))
        other = self.edited("kitchen.json", lambda one: one.update(format="something/else"))
        self.assertIn("is no kitchen", self.refused(other))
        self.assertIn("kitchen.json", self.refused(self.changed(lambda f: f.pop("kitchen.json"))))

    def test_strange_names(self) -> None:
        for name in ("../escape.json", "/etc/passwd", "sauces/../x.json", "run.sh", "C:\\x.json"):

            def add(files: dict[str, bytes], name: str = name) -> None:
                files[name] = b"{}"

            self.assertIn("no part of a kitchen", self.refused(self.changed(add)), name)

    def test_a_bomb(self) -> None:
        def blow(files: dict[str, bytes]) -> None:
            files["larder.json"] = b" " * (9 * 1024 * 1024) + b"{}"

        bomb = self.changed(blow)
        self.assertLess(len(bomb), 2 * len(self.data))
        self.assertIn("far too large", self.refused(bomb))
        with patch.object(reading, "MOST_UNPACKED", 50_000):
            self.assertIn("far too large", self.refused(self.data))
        with patch.object(reading, "MOST_FILES", 5):
            self.assertIn("too many files", self.refused(self.data))
        deep = self.changed(lambda files: files.update({"larder.json": b"[" * 100_000}))
        self.refused(deep)

    def test_missing_and_added_files(self) -> None:
        def drop(files: dict[str, bytes]) -> None:
            used = json.loads(files["dishes/00001.json"])["document"]["sauces"][0]["sauce"]
            del files[f"sauces/{int(used):05}.json"]

        self.assertIn("points at", self.refused(self.changed(drop)))
        with zipfile.ZipFile(io.BytesIO(self.data)) as packed:
            files = {name: packed.read(name) for name in packed.namelist()}
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w") as packed:
            for name, data in files.items():
                if name != "dishes/00002.json":
                    packed.writestr(name, data)
        self.assertIn("dishes/00002.json: is missing", self.refused(out.getvalue()))
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w") as packed:
            for name, data in files.items():
                packed.writestr(name, data.replace(b"milk", b"silk"))
        self.assertIn("not as it was written", self.refused(out.getvalue()))

    def test_nonsense_inside(self) -> None:
        batch = next(
            f"batches/{n:06}.json"
            for n, one in enumerate(Batch.objects.filter(kitchen=self.demo).order_by("pk"), 1)
            if one.acts.count() > 3
        )
        edits: list[tuple[str, Callable[[Any], Any], str]] = [
            ("larder.json", lambda d: d["pans"][0].update(diameter_cm="wide"), "diameter_cm"),
            ("larder.json", lambda d: d["pans"][0].update(shape="heart"), "shape"),
            ("larder.json", lambda d: d["pans"].append(d["pans"][0]), "twice"),
            ("larder.json", lambda d: d.update(pans={}), "pans"),
            ("larder.json", lambda d: d["ingredients"][0]["row"].update(water="900"), "row"),
            ("larder.json", lambda d: d["learned"][0].update(spread=-1), "spread"),
            ("larder.json", lambda d: d["learned"][0].update(kind="magic"), "kind"),
            (
                "sauces/00001.json",
                lambda d: d["versions"][0]["sheet"]["steps"][0].update(op="fly"),
                "sheet",
            ),
            ("sauces/00001.json", lambda d: d["versions"][0].update(outcome={}), "outcome"),
            ("sauces/00001.json", lambda d: d["versions"].clear(), "version"),
            ("sauces/00001.json", lambda d: d["sauce"].update(version=7), "version"),
            ("sauces/00001.json", lambda d: d["sauce"].pop("name"), "name"),
            ("sauces/00001.json", lambda d: d["sauce"].update(created_at="yesterday"), "moment"),
            ("dishes/00001.json", lambda d: d["document"].update(sauces=5), "document"),
            ("dishes/00001.json", lambda d: d.update(document=None), "document"),
            (
                "services/00001.json",
                lambda d: d["document"]["lines"][0].update(portions=-4),
                "portions",
            ),
            ("services/00001.json", lambda d: d.update(date="2026-13-45"), "date"),
            ("run-ups/00001.json", lambda d: d["document"].update(served_over=1e9), "served_over"),
            ("run-ups/00001.json", lambda d: d.update(service=99), "points at 99"),
            (batch, lambda d: d["batch"]["plan"].pop("final"), "plan"),
            (batch, lambda d: d["batch"]["plan"].update(cards=[]), "plan"),
            (batch, lambda d: d["batch"].update(version=4711), "points at"),
            (batch, lambda d: d["batch"].update(step=-3), "step"),
            (batch, lambda d: d["batch"].update(timers=["x"]), "timers"),
            (batch, lambda d: d["acts"][0].update(kind="dance"), "data"),
            (batch, lambda d: d["acts"][2]["data"].clear(), "data"),
            (batch, lambda d: d["acts"][0].update(key=d["acts"][1]["key"]), "does not fit"),
            (batch, lambda d: d["photos"][0].update(key=None), "key"),
            (batch, lambda d: d["kept"][0].update(cooling={}), "cooling"),
            (batch, lambda d: d["kept"][0].update(grams=float("inf")), ""),
            (batch, lambda d: d["events"][0].update(data={}), "data"),
            (batch, lambda d: d["labels"][0].update(document={"name": "x"}), "document"),
        ]
        for name, edit, says in edits:
            told = self.refused(self.edited(name, edit))
            self.assertIn(says, told)
            self.assertIn(name, told)

        def nonsense(files: dict[str, bytes]) -> None:
            at = next(key for key in files if key.startswith("photos/"))
            files[at] = b"<script>alert(1)</script>"

        self.assertIn("photos, file", self.refused(self.changed(nonsense)))

        def readings(files: dict[str, bytes]) -> None:
            at = next(key for key in files if key.startswith("readings/"))
            files[at] += b"2026-01-01T00:00:00+00:00,scale,nan\n"

        self.assertIn("line 8", self.refused(self.changed(readings)))

    def test_nothing_of_anybody_elses_is_reached(self) -> None:
        """A number in a file is one of the file's, never one that stands here already."""
        mine = self.saved(name="Secret sauce of the lower kitchen")
        strange = self.edited(
            "dishes/00001.json",
            lambda d: d["document"]["sauces"][0].update(sauce=str(mine.pk)),
        )
        self.assertIn(f"points at {mine.pk}", self.refused(strange))
        self.take_in(self.data)
        theirs = self.stranger.kitchens.get()
        self.assertFalse(Sauce.objects.filter(kitchen=theirs, name=mine.name).exists())
        self.assertEqual(Entry.objects.filter(kitchen=theirs).count(), 16)
        self.assertEqual(Act.objects.filter(kitchen=theirs, batch__kitchen=self.demo).count(), 0)
        self.assertEqual(Event.objects.filter(kept__kitchen=theirs).count(), 4)
        self.assertTrue(SauceVersion.objects.filter(sauce__kitchen=theirs).exists())
