"""From the fridge to the stove: drawn when it goes on, warmed with its middle asked of the probe, written down."""

from typing import Any

from django.utils import timezone

from kestrel.keeping.models import Event
from kestrel.keeping.tests.test_keeping_api import Keeping
from kestrel.stove.models import Batch
from kestrel.tests.acts import act, go, one, saw

REHEAT = 1


class FromTheFridge(Keeping):
    def setUp(self) -> None:
        super().setUp()
        self.kept = self.put(self.cooked(), place="ice-stirred").body

    def warm(self, grams: Any = 600.0, **more: Any) -> Any:
        self.count += 1
        body = {**one("drawn"), "grams": grams, "although": True, **more}
        return self.client.call("POST", f"/keeping/{self.kept['id']}/warm", body)

    def pot(self, answer: Any) -> dict[str, Any]:
        self.assertEqual(answer.status_code, 201, answer.content)
        return self.client.call("GET", f"/stove/{answer.body['batch_id']}").body

    def does(self, pot: dict[str, Any], *acts: dict[str, Any]) -> dict[str, Any]:
        answer = act(self.client, pot["id"], *acts)
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.body["batch"]

    def left(self) -> float:
        return self.client.call("GET", f"/keeping/{self.kept['id']}").body["left_g"]

    def warmed(self) -> list[dict[str, Any]]:
        return [event.data for event in Event.objects.filter(kind="warmed").order_by("pk")]

    def test_what_goes_on_is_drawn_from_its_tray_once(self) -> None:
        before = self.left()
        body = {**one("drawn"), "grams": 600.0, "although": True}
        path = f"/keeping/{self.kept['id']}/warm"
        told = [self.client.call("POST", path, body).body for _ in range(2)]
        self.assertEqual(told[0], told[1])
        self.assertAlmostEqual(self.left(), before - 600.0, delta=0.2)
        self.assertEqual(Batch.objects.exclude(drawn_key="").count(), 1)
        drawn = Event.objects.get(kind="drawn")
        self.assertEqual(drawn.data["purpose"], "warmed up")

    def test_it_is_read_as_it_is_typed(self) -> None:
        before = self.left()
        self.pot(self.warm("half a litre"))
        self.assertAlmostEqual(before - self.left(), 525, delta=25)
        for grams, field in (("lots", "grams"), ("900 L", "grams"), ("2 pieces", "grams")):
            self.assertEqual(self.fields(self.warm(grams)), [field])
        self.assertEqual(Batch.objects.exclude(drawn_key="").count(), 1)

    def test_more_than_there_is_draws_nothing_and_begins_nothing(self) -> None:
        before = self.left()
        self.assertEqual(self.fields(self.warm(100_000.0)), ["grams"])
        self.assertEqual(self.left(), before)
        self.assertFalse(Batch.objects.exclude(drawn_key="").exists())

    def test_frozen_it_is_thawed_first(self) -> None:
        self.happens(self.kept, "frozen")
        self.assertEqual(self.fields(self.warm()), ["kept"])

    def test_past_its_day_it_is_asked_about(self) -> None:
        with self.ago(days=9):
            old = self.put(self.cooked()).body
        self.kept = old
        self.assertEqual(self.fields(self.warm(although=False)), ["although"])
        self.assertEqual(self.warm(although=True).status_code, 201)

    def test_it_is_its_own_grade_and_is_let_down_by_its_millilitres(self) -> None:
        pot = self.pot(self.warm())
        self.assertEqual([step["op"] for step in pot["sheet"]["steps"]], ["use", "reheat", "add"])
        self.assertEqual(pot["plan"]["final"]["grade"], "nappe")
        self.assertEqual(pot["plan"]["target_grade"], "nappe")
        self.assertIn("from the fridge", pot["cards"][0]["title"])
        self.assertIn("70 °C", pot["cards"][REHEAT]["do"])
        self.assertEqual(pot["cards"][2]["weighed"][0]["amount"]["unit"], "mL")

    def test_its_judged_grade_is_its_own(self) -> None:
        batch = self.cooked()
        entry = {"batch_id": batch["id"], "weighed": "", "with_pan": False, "note": ""}
        judged = {**entry, "reached_pa_s": 2.0, "verdict": "again"}
        self.assertEqual(self.client.call("POST", "/journal", judged).status_code, 201)
        self.kept = self.put(batch).body
        self.assertEqual(self.kept["grade"], "binding")
        pot = self.pot(self.warm())
        self.assertEqual(pot["plan"]["final"]["grade"], "binding")

    def test_for_a_service_it_comes_to_the_grade_it_is_wanted_in(self) -> None:
        sauce = str(self.kept["sauce_id"])
        used = {"sauce": sauce, "use": "nap", "grade": "light-coat"}
        head = {"format": "kestrel-fog/dish", "version": 1, "name": "Leeks", "sauces": [used]}
        dish = {**head, "solids": [{"ingredient": "leek", "grams": 150}]}
        made = self.client.call("POST", "/dishes", {"document": dish}).body
        tub = {"sauce": sauce, "amount": "900 g", "viscosity_pa_s": self.kept["viscosity_pa_s"]}
        lines = [{"dish": str(made["id"]), "portions": 8}]
        document = {"name": "Lunch", "lines": lines, "on_hand": [tub]}
        service = self.client.call("POST", "/services", {"document": document}).body
        body = {"task": f"warm:{sauce}:0d#1", "use_unshown": True}
        answer = self.client.call("POST", f"/keeping/for-service/{service['id']}", body)
        plan = self.pot(answer)["plan"]
        self.assertEqual((plan["target_grade"], plan["final"]["grade"]), ("light-coat",) * 2)

    def test_done_too_cold_is_told_and_written_as_it_is(self) -> None:
        pot = self.does(self.pot(self.warm()), go(0, REHEAT))
        self.assertTrue(pot["reads_middle"])
        self.assertIn("70 °C is asked", pot["asks"])
        pot = self.does(pot, {**saw(REHEAT, "probe"), "value": "55"})
        self.assertIn("55 °C at most", pot["asks"])
        pot = self.does(pot, go(REHEAT, 2))
        self.assertIsNone(pot["asks"])
        self.assertEqual(self.warmed(), [{"asked_c": 70.0, "met": False, "celsius": 55.0}])

    def test_shown_by_the_probe_it_is_met(self) -> None:
        pot = self.does(self.pot(self.warm()), go(0, REHEAT), saw(REHEAT, "probe", 71.5))
        self.assertIsNone(pot["asks"])
        self.does(pot, go(REHEAT, 2))
        self.assertEqual(self.warmed(), [{"asked_c": 70.0, "met": True, "celsius": 71.5}])
        lines = self.record()
        self.assertIn(("71.5 °C", "70 °C at least", "met"), lines)

    def test_a_reading_taken_back_shows_nothing(self) -> None:
        read = saw(REHEAT, "probe", 71.5)
        pot = self.does(self.pot(self.warm()), go(0, REHEAT), read, one("undone", of=read["key"]))
        self.assertIn("Nobody has read", pot["asks"])
        self.does(pot, go(REHEAT, 2))
        self.assertEqual(self.warmed(), [{"asked_c": 70.0, "met": False}])
        self.assertIn(("nobody read it", "70 °C at least", "not shown"), self.record())

    def test_what_was_read_before_this_step_shows_nothing_of_it(self) -> None:
        pot = self.does(self.pot(self.warm()), saw(0, "probe", 90.0))
        pot = self.does(pot, go(0, REHEAT))
        self.assertIn("Nobody has read", pot["asks"])

    def test_back_and_on_again_is_written_twice_and_forgets_nothing(self) -> None:
        pot = self.does(self.pot(self.warm()), go(0, REHEAT), saw(REHEAT, "probe", 60.0))
        self.does(pot, go(REHEAT, 2), go(2, REHEAT), saw(REHEAT, "probe", 72.0), go(REHEAT, 2))
        self.assertEqual([data["met"] for data in self.warmed()], [False, True])
        # Come back to once more, it is asked once more: it may have cooled since.
        pot = self.does(pot, go(2, REHEAT))
        self.assertIn("Nobody has read", pot["asks"])

    def put_back(self, pot: dict[str, Any]) -> dict[str, Any]:
        """``pot`` warmed through, and put away once more."""
        last = len(pot["sheet"]["steps"])
        self.does(pot, go(0, REHEAT), saw(REHEAT, "probe", 75.0))
        self.does(pot, *(go(n, n + 1) for n in range(REHEAT, last)))
        answer = self.put(pot, place="ice-stirred", grams=400.0)
        self.assertEqual(answer.status_code, 201, answer.content)
        return answer.body

    def test_warmed_and_put_away_again_it_keeps_no_longer_on_paper_either(self) -> None:
        with self.ago(days=2):
            self.kept = self.put(self.cooked(), place="ice-stirred").body
        with self.ago(days=1, hours=23):
            self.happens(self.kept, "temperature", celsius=4.0, tray=1)
        pot = self.pot(self.warm())
        again = self.put_back(pot)
        self.assertEqual(again["use_by"], self.kept["use_by"])
        path, wanted = f"/stove/{pot['id']}/labels", {"copies": 1, "utc_offset_min": 0}
        label = self.client.call("POST", path, wanted).body["document"]
        self.assertEqual(label["use_by"], self.kept["use_by"])
        # And once more: the day of the first counts still.
        self.kept = again
        self.assertEqual(self.put_back(self.pot(self.warm(350.0)))["use_by"], again["use_by"])

    def test_what_tells_it_from_its_sauce_is_still_told_when_it_was_warmed(self) -> None:
        ham = {"op": "add", "ingredient": "ham-cooked", "amount": {"value": 50, "unit": "g"}}
        batch = self.cooked()
        act(self.client, batch["id"], one("mended", sign="flat", title="ham", do=[], steps=[ham]))
        self.kept = self.put(batch, place="ice-stirred").body
        self.assertEqual(len(self.kept["brings"]), 1)
        again = self.put_back(self.pot(self.warm()))
        self.assertEqual(again["brings"], self.kept["brings"])

    def test_what_was_left_out_is_still_told_when_it_was_warmed(self) -> None:
        batch = self.cooked({"op": "season", "ingredient": "nutmeg", "amount": "1 g"})
        act(self.client, batch["id"], one("skipped", step=3))
        self.kept = self.put(batch, place="ice-stirred").body
        self.assertEqual(self.put_back(self.pot(self.warm()))["lacks"], ["nutmeg"])

    def test_plain_and_warmed_it_is_its_sauce(self) -> None:
        again = self.put_back(self.pot(self.warm()))
        self.assertEqual((again["brings"], again["lacks"]), ([], []))

    def test_what_was_only_warmed_is_not_how_the_sauce_is_made(self) -> None:
        pot = self.pot(self.warm())
        self.put_back(pot)
        entry = {"batch_id": pot["id"], "weighed": "", "verdict": "again", "note": ""}
        written = self.client.call("POST", "/journal", entry)
        self.assertEqual(written.status_code, 201, written.content)
        sauce = Batch.objects.get(pk=pot["id"]).version.sauce
        answer = self.client.call("POST", f"/journal/{written.body['id']}/again")
        self.assertEqual(self.fields(answer), ["entry"])
        self.assertEqual(sauce.versions.count(), 1)

    def test_only_the_stove_writes_that_it_was_warmed(self) -> None:
        told = self.happens(self.kept, "warmed", asked_c=70.0, met=True, celsius=75.0)
        self.assertEqual(told.status_code, 422)
        self.assertEqual(self.warmed(), [])

    def test_what_was_read_off_at_the_stove_is_read_of_its_trays(self) -> None:
        batch = self.cooked()
        read, taken_back = saw(3, "probe", 84.0), saw(3, "probe", 20.0)
        undone = one("undone", of=taken_back["key"])
        self.does(batch, read, taken_back, undone)
        kept = self.put(batch, place="ice-stirred").body
        read_of_it = self.client.call("GET", f"/keeping/{kept['id']}").body["read"]
        self.assertEqual([(r["celsius"], r["shared"]) for r in read_of_it], [(84.0, True)])

    def test_nonsense_is_refused_by_field(self) -> None:
        pot = self.does(self.pot(self.warm()), go(0, REHEAT))
        for value in (1000.0, -100.0, "warm"):
            answer = act(self.client, pot["id"], {**saw(REHEAT, "probe"), "value": value})
            self.assertEqual(self.fields(answer), ["acts[0].value"])

    def record(self) -> list[tuple[str, str, str]]:
        today = timezone.localdate().isoformat()
        found = self.client.call("GET", f"/keeping/records?first={today}&last={today}").body
        return [(line["value"], line["rule"], line["met"]) for line in found]
