"""What is beside the sauce: pans of fish, who stands where, jugs and levels, labels, photographs."""

import io
import json
import re
from datetime import timedelta
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone
from PIL import Image

from kestrel.accounts.people import join
from kestrel.sauces.actions import save_new
from kestrel.stove.labels import picture_of
from kestrel.stove.models import Batch, Device, Label, Photo
from kestrel.tests.acts import act, go, one, saw
from kestrel.tests.clients import KitchenTest
from saucier.keeping import Label as CoreLabel
from saucier.larder import ALLERGENS
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE, add, reduce_to, roux, simmer

LIAISON = {
    "op": "liaison",
    "yolk": {"ingredient": "egg-yolk", "amount": {"value": 3, "unit": "piece"}},
    "cream": {"ingredient": "cream-35", "amount": {"value": 100, "unit": "g"}},
    "heat_to_c": 85,
}
MOUNT = {"op": "mount", "amount": {"value": 40, "unit": "g"}}


class BesideTest(KitchenTest):
    def white(self, *more: dict[str, Any], **rest: Any) -> dict[str, Any]:
        steps = [roux(60, 60), add("milk-whole", 1, "L"), simmer(5), *more]
        sauce = self.saved(steps=steps, target={"grade": "nappe", "salt_pct": 0.9}, **rest)
        return self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body

    def does(self, batch: dict[str, Any], *acts: dict[str, Any]) -> dict[str, Any]:
        answer = act(self.client, batch["id"], *acts)
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.body["batch"]

    def device(self, kind: str) -> str:
        made = self.client.call("POST", "/devices", {"name": f"my {kind}", "kind": kind})
        self.assertEqual(made.status_code, 201, made.content)
        return made.body["token"]


class Asides(BesideTest):
    def start(self, **more: Any) -> Any:
        given = {"name": "Hake", "way": "sear", "minutes": 6, "ingredient": "fish-white", **more}
        return self.client.call("POST", "/stove/asides", given)

    def test_fish_is_put_in_turned_taken_out_and_rests(self) -> None:
        fish = self.start().body
        self.assertEqual(
            [c["title"] for c in fish["cards"]], ["Hake: in", "Hake: turn", "Hake: out, and rest"]
        )
        self.assertEqual([c["timer_s"] for c in fish["cards"]], [180, 180, 240])
        self.assertEqual(fish["plan"]["middle_c"], 63.0)
        moved = self.does(fish, go(0, 1), one("timer-on", name="step", seconds=180))
        self.assertEqual(moved["title"], "Hake: turn")
        done = self.does(fish, go(1, 2), one("through"))
        self.assertEqual(done["status"], "done")
        self.assertEqual(self.client.call("GET", "/stove").body, [])

    def test_a_job_of_the_run_up_goes_by_its_parts(self) -> None:
        parts = [
            {"do": "Put it in", "minutes": 1, "hands": "all"},
            {"do": "Roast", "minutes": 35, "cue": "until the edges brown", "hands": "none"},
        ]
        squash = self.start(way="", parts=parts).body
        self.assertEqual([c["title"] for c in squash["cards"]], ["Put it in", "Roast"])
        self.assertEqual([c["timer_s"] for c in squash["cards"]], [60, 2100])
        bad = self.start(parts=[{"do": "Roast", "minutes": -1}])
        self.assertEqual(self.fields(bad), ["parts[0].minutes"])

    def test_a_probe_tells_its_middle(self) -> None:
        fish, token = self.start().body, self.device("probe")
        probe = Device.objects.get()
        self.client.call("PUT", f"/devices/{probe.pk}", {"batch_id": fish["id"]})
        for at_c, how in ((48.0, "below"), (64.0, "there")):
            sent = self.client_class().post(
                "/api/readings",
                json.dumps({"temperature_c": at_c}),
                content_type="application/json",
                headers={"Authorization": f"Bearer {token}"},
            )
            self.assertEqual(sent.status_code, 200, sent.content)
            told = self.client.call("GET", f"/stove/{fish['id']}").body["probed"]
            self.assertEqual((told["at_c"], told["how"], told["from_c"]), (at_c, how, 63.0))

    def test_nonsense_names_its_field(self) -> None:
        for more, field in (
            ({"name": ""}, "name"),
            ({"way": "dance"}, "way"),
            ({"minutes": 0}, "minutes"),
            ({"minutes": 9999}, "minutes"),
            ({"ingredient": "soul"}, "ingredient"),
        ):
            with self.subTest(**more):
                self.assertEqual(self.fields(self.start(**more)), [field])
        sauce = self.white()
        told = act(self.client, sauce["id"], one("through")).body["acts"][0]
        self.assertFalse(told["taken"])

    def test_who_stands_where_is_on_the_strip(self) -> None:
        sauce = self.white()
        self.does(sauce, one("stands", ring="back left", cook="Tove"))
        line = self.client.call("GET", "/stove").body[0]
        self.assertEqual((line["ring"], line["cook"]), ("back left", "Tove"))
        hob = self.client.call("GET", "/stove/hob").body
        self.assertTrue(hob["rings"] and any(way["key"] == "boil-pasta" for way in hob["ways"]))


class Poured(BesideTest):
    def milk(self) -> dict[str, Any]:
        return self.does(self.white(), go(0, 1))

    def test_the_jug_the_scale_and_the_level_tell_what_went_in(self) -> None:
        batch = self.milk()
        tare = batch["plan"]["pan"]["tare_g"]
        for told, grams in (
            ({"how": "jug", "before": 1000.0, "after": 200.0}, 824.0),
            ({"how": "level", "after": 20.0}, None),
        ):
            found = self.does(batch, one("poured", step=1, field="amount", **told))
            data = found["acts"][-1]["data"]
            if grams is not None:
                self.assertAlmostEqual(data["grams"], grams, delta=2.0)
            self.assertGreater(data["spread"], 0.0)
            milk = found["cards"][1]["weighed"][0]
            self.assertAlmostEqual(milk["grams"], data["grams"], delta=0.2)
            self.assertEqual(milk["amount"]["measure"]["name"], "g")
        self.assertEqual(tare, 0.0)
        told = act(
            self.client,
            batch["id"],
            one("poured", step=1, field="amount", how="scale", after=1900.0),
        )
        self.assertEqual(self.fields(told), ["acts[0].after"])

    def test_what_was_poured_solves_the_rest_again(self) -> None:
        batch = self.milk()
        self.does(batch, one("poured", step=1, field="amount", how="jug", before=1500.0, after=0.0))
        found = self.client.call("GET", f"/stove/{batch['id']}").body["followed"]["again"]
        self.assertNotEqual(found["as_is"], "nappe")

    def test_nonsense_names_its_field(self) -> None:
        batch = self.milk()
        for told, field in (
            ({"field": "soul", "how": "jug", "before": 5.0, "after": 1.0}, "field"),
            ({"field": "amount", "how": "jug", "before": 1.0, "after": 5.0}, "after"),
            ({"field": "amount", "how": "level", "after": -3.0}, "after"),
            ({"field": "amount", "how": "guess", "after": 3.0}, "how"),
        ):
            with self.subTest(**told):
                bad = act(self.client, batch["id"], one("poured", step=1, **told))
                self.assertTrue(self.fields(bad)[0].endswith(field), bad.body)


class AsItIs(BesideTest):
    """The card, the remedies and the waiting go by the pot there is."""

    SALT = {"op": "season", "ingredient": "salt", "amount": {"to_salt_pct": 0.9}}

    def test_salt_up_to_a_target_goes_by_what_is_in_the_pot(self) -> None:
        batch = self.white(self.SALT)
        before = batch["cards"][3]["weighed"][0]["grams"]
        half = self.does(batch, go(0, 1), one("put", step=1, field="amount", grams=500.0))
        self.assertLess(half["cards"][3]["weighed"][0]["grams"], 0.65 * before)

    def test_fix_it_opens_on_the_pot_as_it_was_found(self) -> None:
        batch = self.does(self.white(), go(0, 1), go(1, 2), saw(2, "spoon", 6.0))
        found = self.client.call("POST", f"/stove/{batch['id']}/fix", {"sign": None})
        self.assertEqual(found.status_code, 200, found.content)
        self.assertIn("too-thick", found.body["likely"])
        planned = batch["plan"]["states"][2]["viscosity_pa_s"]
        self.assertGreater(found.body["now"]["viscosity_pa_s"], 1.5 * planned)
        bad = self.client.call("POST", f"/stove/{batch['id']}/fix", {"sign": "sad"})
        self.assertEqual(self.fields(bad), ["sign"])
        self.assertEqual(self.other.call("POST", f"/stove/{batch['id']}/fix", {}).status_code, 404)

    def test_a_finished_sauce_waits_with_its_grade_and_what_brings_it_back(self) -> None:
        batch = self.does(self.white(), go(0, 1), go(1, 2))
        self.assertIsNone(batch["waits"])
        row = Batch.objects.get()
        self.does(batch, go(2, 3))
        row.refresh_from_db()
        long_ago = (timezone.now() - timedelta(minutes=120)).isoformat()
        row.began = {**row.began, "3": long_ago}
        row.revision += 1
        row.save()
        waits = self.client.call("GET", "/stove").body[0]["waits"]
        self.assertAlmostEqual(waits["minutes"], 120.0, delta=0.2)
        self.assertLess(waits["temperature_c"], 60.0)
        self.assertGreater(waits["let_down_ml"], 5.0)


class WhatMendsIt(BesideTest):
    """What goes in to mend a sauce is in it: in its thickness, its allergens, and the sauce made of it."""

    def cream(self) -> dict[str, Any]:
        steps = [add("cream-35", 500), reduce_to(share=0.9), self.SALT]
        sauce = self.saved(steps=steps, target={"grade": "nappe", "salt_pct": 0.8}, family=None)
        batch = self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body
        return self.does(batch, go(0, 1), go(1, 2))

    SALT = AsItIs.SALT

    def take(self, batch: dict[str, Any], sign: str, way: str) -> dict[str, Any]:
        fixes = self.client.call("POST", f"/stove/{batch['id']}/fix", {"sign": sign}).body
        remedy = next(one for one in fixes["remedies"] if one["way"] == way)
        self.assertIsNone(remedy["refused"])
        self.remedy = remedy
        taken = one("mended", sign=sign, title=remedy["title"], do=[], steps=remedy["steps"])
        return self.does(batch, taken)

    def test_a_thickener_is_in_the_pot_and_its_allergen_on_the_label(self) -> None:
        batch = self.cream()
        before = batch["followed"]["states"][-1]
        self.assertNotIn("gluten", before["allergens"])
        mended = self.take(batch, "too-thin", "beurre-manie")
        after = mended["followed"]["states"][-1]
        self.assertGreater(after["viscosity_pa_s"], 1.5 * before["viscosity_pa_s"])
        self.assertEqual(after["grade"], "nappe")
        self.assertIn("gluten", after["allergens"])
        self.does(mended, go(2, 3))
        label = self.client.call("POST", f"/stove/{batch['id']}/labels", {}).body
        self.assertIn("gluten", label["document"]["allergens"])
        self.assertIn("CONTAINS gluten, milk", label["text"])
        made = self.client.call("POST", f"/stove/{batch['id']}/sauce", {"name": "Bound"}).body
        sauce = self.client.call("GET", f"/sauces/{made['sauce_id']}").body
        self.assertIn("gluten", sauce["outcome"]["allergens"])

    def test_one_more_at_the_end_counts_too_and_can_be_taken_back(self) -> None:
        batch = self.does(self.cream(), go(2, 3))
        thin = batch["followed"]["states"][-1]
        mended = self.take(batch, "too-thin", "beurre-manie")
        self.assertIn("gluten", mended["followed"]["states"][-1]["allergens"])
        key = next(a["key"] for a in mended["acts"] if a["kind"] == "mended")
        back = self.does(mended, one("undone", of=key))
        self.assertEqual(back["followed"]["states"][-1], thin)
        self.assertEqual(back["mends"], [])

    def test_what_went_in_while_it_boils_is_no_jump_of_the_scale(self) -> None:
        sauce = self.saved(
            steps=[add("cream-35", 500), reduce_to(share=0.5)],
            target={},
            family=None,
            pan={"shape": "straight", "diameter_cm": 20, "depth_cm": 10, "tare_g": 1200},
        )
        batch = self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body
        began = timezone.now() - timedelta(minutes=20)
        Batch.objects.update(started_at=began, began={"0": began.isoformat()})
        at = lambda minute, act: {**act, "at": (began + timedelta(minutes=minute)).isoformat()}  # noqa: E731
        water = {"op": "add", "ingredient": "water", "amount": {"value": 100, "unit": "g"}}
        told = self.does(
            batch,
            at(1, go(0, 1)),
            at(8, saw(1, "scale", 1600.0)),
            at(8.5, one("mended", sign="too-thick", title="water", do=[], steps=[water])),
            at(9, saw(1, "scale", 1690.0)),
        )
        watched = told["followed"]["watched"]
        self.assertEqual(watched["jumps"], [])
        self.assertEqual(watched["looked"], 1)

    def test_nonsense_is_refused_by_field(self) -> None:
        batch = self.cream()
        for steps, field in (
            ([{"op": "dance"}], "steps[0]"),
            ([{"op": "add", "ingredient": "soul", "amount": "1 g"}], "steps[3].ingredient"),
        ):
            bad = act(
                self.client,
                batch["id"],
                one("mended", sign="too-thin", title="x", do=[], steps=steps),
            )
            self.assertEqual(self.fields(bad), [f"acts[0].{field}"])

    def test_a_spoon_is_believed_where_nothing_boils(self) -> None:
        batch = self.does(
            self.white({"op": "melt", "ingredient": "cheese-hard-alpine", "amount": "60 g"}),
            go(0, 1),
            go(1, 2),
            go(2, 3),
        )
        before = batch["followed"]["states"][-1]["viscosity_pa_s"]
        seen = self.does(batch, saw(3, "spoon", 3.0 * before))
        after = seen["followed"]["states"][-1]["viscosity_pa_s"]
        self.assertTrue(1.5 * before < after < 3.0 * before, (before, after))
        self.assertGreater(seen["followed"]["strength"], 1.05)

    def test_what_was_held_back_goes_in_as_the_spoon_says(self) -> None:
        white = {**CHEESE_SAUCE, "target": {**CHEESE_SAUCE["target"]}}
        body = {"sheet": white, "school": "correcting", "choice": "liquid"}
        sheet = self.client.call("POST", "/work/switch", body).body["sheet"]
        sauce = save_new(self.kitchen, self.user, read_sheet(sheet))
        batch = self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body
        at = next(n for n, step in enumerate(sheet["steps"]) if step["op"] == "correct")
        path = f"/stove/{batch['id']}/correct"
        self.assertEqual(self.fields(self.client.call("POST", path, {})), ["at"])
        batch = self.does(batch, *(go(n, n + 1) for n in range(at)))
        found = self.client.call("POST", path, {"seen_pa_s": 3.7}).body
        self.assertEqual(found["amount"]["unit"], "mL")
        self.assertAlmostEqual(found["makes_ml"], 2000, delta=60)
        thin = self.client.call("POST", path, {"seen_pa_s": 1.0}).body
        self.assertIsNone(thin["amount"])
        self.assertIn("Fix it", thin["notes"][0])
        none = self.does(batch, one("corrected", step=at, grams=0.0))
        much = self.does(batch, one("corrected", step=at, grams=300.0))
        masses = [one["followed"]["states"][at]["mass_g"] for one in (none, much)]
        self.assertAlmostEqual(masses[1] - masses[0], 300.0, delta=0.1)
        wrong = act(self.client, batch["id"], one("corrected", step=0, grams=5.0))
        self.assertEqual(self.fields(wrong), ["acts[0].step"])


class Labels(BesideTest):
    def label(self, batch: dict[str, Any], **more: Any) -> Any:
        return self.client.call("POST", f"/stove/{batch['id']}/labels", more)

    def test_a_label_says_what_when_until_and_leads_to_its_batch(self) -> None:
        batch = self.white()
        made = self.label(batch, mass_g=1080.0)
        self.assertEqual(made.status_code, 201, made.content)
        told = made.body["document"]
        self.assertEqual(told["allergens"], ["gluten", "milk"])
        self.assertTrue(told["opens"].endswith(f"/stove/{batch['id']}"))
        self.assertEqual(told["mass_g"], 1080.0)
        self.assertIn("USE BY", made.body["text"])
        self.assertTrue(all(len(line) <= 32 for line in made.body["text"].splitlines()))
        picture = self.client.get(f"/api/labels/{made.body['id']}.svg")
        self.assertEqual(picture["Content-Type"], "image/svg+xml")
        self.assertIn(b"<path", picture.content)
        self.assertEqual(self.other.get(f"/api/labels/{made.body['id']}.svg").status_code, 404)

    def test_what_does_not_keep_is_for_today(self) -> None:
        days = []
        much = {**MOUNT, "amount": {"value": 150, "unit": "g"}}  # more than its flour holds
        for steps in ((), (MOUNT,), (much,), (LIAISON,)):
            made = self.label(self.white(*steps)).body["document"]
            made_on = timezone.datetime.fromisoformat(made["made_at"]).date()
            days.append((timezone.datetime.fromisoformat(made["use_by"]).date() - made_on).days)
        self.assertEqual(days, [2, 2, 0, 1])

    def test_a_name_with_marks_in_it_breaks_no_picture(self) -> None:
        batch = self.white(name='Fennel <b>&"quot\'es"</b> ' + "long " * 12)
        label = Label.objects.get(pk=self.label(batch).body["id"])
        svg = self.client.get(f"/api/labels/{label.pk}.svg").content.decode()
        self.assertNotIn("<b>", svg)

    def test_nothing_of_a_label_is_cut_off_or_under_its_code(self) -> None:
        made = timezone.now().replace(tzinfo=None)
        for name in ("Cap", "Cheese sauce for ham and chicory pancakes", "long " * 30):
            for allergens in ((), ("gluten", "milk"), ALLERGENS):
                label = Label(
                    document=CoreLabel(
                        name=name.strip(),
                        code="B123",
                        opens="http://kitchen.local:8000/stove/123",
                        made_at=made,
                        made_by="somebody of a long name",
                        mass_g=1240,
                        allergens=allergens,
                        use_by=made.date(),
                    ).model_dump(mode="json")
                )
                svg = picture_of(label)
                shown = "".join(re.findall(r">([^<]*)</text>", svg)).replace(" ", "")
                for allergen in allergens:
                    self.assertIn(allergen.replace(" ", ""), shown)
                for x, y, px, rest, words in re.findall(
                    r'<text x="(\d+)" y="(\d+)" font-size="([\d.]+)"([^>]*)>([^<]*)<', svg
                ):
                    fitted = re.search(r'textLength="(\d+)"', rest)
                    width = float(fitted[1]) if fitted else 0.62 * float(px) * len(words)
                    with self.subTest(name=name, words=words):
                        self.assertLess(float(y), 300.0)
                        above_code = float(y) < 300 - 12 - 140
                        self.assertLessEqual(
                            float(x) + width, 480 if above_code else 480 - 140 - 12
                        )

    def test_a_printer_fetches_each_label_once(self) -> None:
        batch, token, scale = self.white(), self.device("printer"), self.device("scale")
        first = self.label(batch, copies=2).body["id"]
        second = self.label(batch).body["id"]
        fetched = []
        for _ in range(3):
            answer = self.printer("GET", "/api/labels/next", token)
            if answer.status_code == 204:
                break
            label = answer.json()
            fetched.append((label["id"], label["copies"]))
            for _ in range(2):  # a lost answer: said again
                done = self.printer("POST", f"/api/labels/{label['id']}/printed", token)
                self.assertEqual(done.status_code, 200)
        self.assertEqual(fetched, [(first, 2), (second, 1)])
        for wrong in (scale, "no-token"):
            self.assertEqual(self.printer("GET", "/api/labels/next", wrong).status_code, 401)
        self.assertEqual(self.printer("POST", "/api/labels/99999/printed", token).status_code, 404)

    def printer(self, method: str, path: str, token: str) -> Any:
        return self.client_class().generic(
            method, path, headers={"Authorization": f"Bearer {token}"}
        )

    def test_a_label_is_written_as_its_kitchen_writes(self) -> None:
        self.kitchen.measures = "us"
        self.kitchen.save()
        batch, token = self.white(), self.device("printer")
        self.label(batch, mass_g=1200)
        printed = self.printer("GET", "/api/labels/next", token).json()
        self.assertIn("2.65 lb (1200 g)", json.dumps(printed))

    def test_another_kitchens_printer_gets_nothing(self) -> None:
        self.label(self.white())
        theirs = self.other.call("POST", "/devices", {"name": "theirs", "kind": "printer"}).body
        self.assertEqual(self.printer("GET", "/api/labels/next", theirs["token"]).status_code, 204)

    def test_nonsense_names_its_field(self) -> None:
        batch = self.white()
        self.assertEqual(self.fields(self.label(batch, copies=0)), ["copies"])
        self.assertEqual(self.fields(self.label(batch, mass_g=-3.0)), ["mass_g"])
        fish = self.client.call("POST", "/stove/asides", {"name": "Hake", "way": "sear"}).body
        self.assertEqual(self.fields(self.label(fish)), ["batch"])


class Photos(BesideTest):
    def send(self, batch: dict[str, Any], data: bytes, name: str = "pot.jpg", **more: Any) -> Any:
        given = {"key": "photo-key-1", "at": timezone.now().isoformat(), "step": 0, **more}
        answer: Any = self.client.post(
            f"/api/stove/{batch['id']}/photos",
            {**given, "file": SimpleUploadedFile(name, data, "image/jpeg")},
            headers={"X-CSRFToken": self.client.cookies["csrftoken"].value},
        )
        answer.body = answer.json()
        return answer

    def picture(self, size: tuple[int, int] = (3000, 2000), **more: Any) -> bytes:
        made = io.BytesIO()
        exif = Image.Exif()
        exif[0x010F] = "Camera of somebody"
        exif.get_ifd(0x8825)[2] = (46.0, 30.0, 0.0)
        Image.new("RGB", size, "tan").save(made, "JPEG", exif=exif, comment=b"where I was", **more)
        return made.getvalue()

    def test_it_is_made_small_and_tells_nothing_of_where(self) -> None:
        batch = self.white()
        sent = self.picture()
        self.assertIn(b"Camera of somebody", sent)
        made = self.send(batch, sent)
        self.assertEqual(made.status_code, 201, made.content)
        got = self.client.get(f"/api/photos/{made.json()['id']}")
        self.assertEqual(got["Content-Type"], "image/jpeg")
        for trace in (b"Camera", b"Exif", b"where I was"):
            self.assertNotIn(trace, got.content)
        with Image.open(io.BytesIO(got.content)) as picture:
            self.assertEqual(max(picture.size), 1280)
        self.assertEqual(self.other.get(f"/api/photos/{made.json()['id']}").status_code, 404)
        told = self.client.call("GET", f"/stove/{batch['id']}").body["photos"]
        self.assertEqual([one["by"] for one in told], ["ada"])

    def test_one_taken_offline_is_of_who_took_it_then(self) -> None:
        invite = self.client.call("POST", "/people/invites", {}).body["path"]
        tove = join(invite.rsplit("/", 1)[1], "tove", "Tove", "quiet-ridge-42")
        batch, sent = self.white(), self.picture((400, 300))
        self.assertEqual(self.send(batch, sent, done_by=tove.pk).json()["by"], "Tove")
        refused = self.send(batch, sent, key="photo-key-2", done_by=self.stranger.pk)
        self.assertEqual(self.fields(refused), ["done_by"])
        self.assertEqual(Photo.objects.count(), 1)

    def test_sent_twice_it_is_there_once(self) -> None:
        batch = self.white()
        ids = {self.send(batch, self.picture((400, 300))).json()["id"] for _ in range(2)}
        self.assertEqual((len(ids), Photo.objects.count()), (1, 1))

    def test_what_is_no_photo_says_so(self) -> None:
        batch = self.white()
        svg = b"<svg xmlns='http://www.w3.org/2000/svg'/>"
        half = self.picture()[:2000]
        for data in (b"", b"not a picture", svg, half, b"GIF89a" + bytes(40)):
            self.assertEqual(
                self.fields(self.send(batch, data, key=f"key-{len(data)}-abc")), ["file"]
            )
        bomb = io.BytesIO()
        Image.new("1", (12_000, 9_000)).save(bomb, "PNG")
        self.assertEqual(self.fields(self.send(batch, bomb.getvalue())), ["file"])
        self.assertEqual(self.fields(self.send(batch, self.picture((9, 9)), step=77)), ["step"])
        self.assertEqual(Photo.objects.count(), 0)
