from datetime import timedelta

from django.core.management import call_command
from django.utils import timezone

from kestrel.accounts.models import User
from kestrel.journal.models import Entry
from kestrel.sauces.models import Sauce
from kestrel.stove.actions import start
from kestrel.stove.models import Batch
from kestrel.tests.acts import act, one
from kestrel.tests.clients import KitchenTest


class Journal(KitchenTest):
    def setUp(self) -> None:
        super().setUp()
        self.batch = start(
            self.kitchen, self.user, self.saved(pan={"diameter_cm": 24, "tare_g": 1200}).newest
        )

    def write(self, **change: object):
        body = {
            "batch_id": self.batch.pk,
            "weighed": "2.31 kg",
            "with_pan": True,
            "reached_pa_s": 2.19,
            "verdict": "again",
            "note": "just so",
            **change,
        }
        return self.client.call("POST", "/journal", body)

    def test_what_was_mended_stands_in_the_entry(self) -> None:
        act(self.client, self.batch.pk, one("mended", sign="lumps", title="Whisk hard"))
        self.assertEqual(self.write().body["mends"], ["Lumps: Whisk hard"])

    def test_plan_beside_actual(self) -> None:
        made = self.write()
        self.assertEqual(made.status_code, 201)
        self.assertAlmostEqual(made.body["actual"]["mass_g"], 1110)
        self.assertEqual(made.body["actual"]["grade"], "binding")
        planned = made.body["plan"]["mass_g"]
        self.assertAlmostEqual(made.body["mass_off_pct"], 100 * (1110 / planned - 1))
        self.assertEqual(made.body["plan"]["grade"], "binding")
        self.assertEqual(self.client.call("GET", "/stove").body, [])
        self.assertEqual(self.client.call("GET", "/journal").body["total"], 1)
        self.assertEqual(self.write().status_code, 409)
        self.assertEqual(self.other.call("GET", "/journal").body["total"], 0)

    def test_nothing_weighed_is_allowed(self) -> None:
        self.assertIsNone(self.write(weighed="", reached_pa_s=None).body["actual"]["mass_g"])

    def test_nonsense_names_the_field_and_loses_nothing(self) -> None:
        for change, field in (
            ({"weighed": "lots"}, "weighed"),
            ({"weighed": "-4 g"}, "weighed"),
            ({"weighed": "2 L"}, "weighed"),
            ({"weighed": "900 g"}, "weighed"),
            ({"verdict": "meh"}, "verdict"),
            ({"reached_pa_s": "thick"}, "reached_pa_s"),
            ({"reached_pa_s": -1}, "reached_pa_s"),
            ({"note": "x" * 3000}, "note"),
        ):
            with self.subTest(change):
                self.assertEqual(self.fields(self.write(**change)), [field])
        self.assertEqual(Batch.objects.get().status, Batch.Status.ON)
        self.assertFalse(Entry.objects.exists())

    def test_pages_meet(self) -> None:
        now = timezone.now()
        for number in range(120):
            batch = Batch.objects.create(
                kitchen=self.kitchen,
                version=self.batch.version,
                sheet=self.batch.sheet,
                plan=self.batch.plan,
            )
            Entry.objects.create(
                kitchen=self.kitchen,
                batch=batch,
                made_at=now - timedelta(minutes=number // 2),  # pairs share a minute
                verdict="again",
            )
        seen: list[int] = []
        cursor = ""
        while cursor is not None:
            page = self.client.call("GET", "/journal", query_params={"older": cursor}).body
            seen += [entry["id"] for entry in page["entries"]]
            cursor = page["older"]
        self.assertEqual(len(seen), 120)
        self.assertEqual(len(set(seen)), 120)
        self.assertEqual(self.fields(self.client.call("GET", "/journal?older=x")), ["older"])

    def test_demo_loads_once_and_touches_nothing(self) -> None:
        call_command("load_demo", verbosity=0)
        self.assertGreaterEqual(Entry.objects.count(), 4)
        mine = Sauce.objects.filter(kitchen=self.kitchen).count()
        Sauce.objects.exclude(kitchen=self.kitchen).first().versions.count()
        before = (Sauce.objects.count(), Entry.objects.count(), User.objects.count())
        call_command("load_demo", verbosity=0)
        self.assertEqual(
            before, (Sauce.objects.count(), Entry.objects.count(), User.objects.count())
        )
        self.assertEqual(Sauce.objects.filter(kitchen=self.kitchen).count(), mine)
