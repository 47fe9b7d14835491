"""Keeping: a sauce put away where it cools quickly enough, watched, drawn on, corrected, and on the record."""

from datetime import timedelta

from django.utils import timezone

from browser_tests.base import BrowserTest
from browser_tests.browser import resize
from kestrel.keeping.models import Event, Kept
from kestrel.larder.models import Habits, Pan
from kestrel.stove.models import Label
from kestrel.tests.acts import act, go
from kestrel.tests.clients import JsonClient
from kestrel.tests.flushing import rewriting
from saucier.testing import add, roux, simmer


class Keeping(BrowserTest):
    def cooked(self, name: str = "White for the bake") -> int:
        Pan.objects.create(
            kitchen=self.kitchen,
            name="tray 50 by 30",
            shape="tray",
            diameter_cm=50,
            width_cm=30,
            depth_cm=6.5,
        )
        sauce = self.saved(
            name=name,
            steps=[roux(200, 200), add("milk-whole", 3, "L"), simmer(5)],
            target={"grade": "nappe"},
        )
        self.other = JsonClient()
        self.other.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        made = self.other.call("POST", "/stove", {"sauce_id": sauce.pk}).body
        act(self.other, made["id"], go(0, 1), go(1, 2), go(2, 3))
        self.sign_in()
        return made["id"]

    def test_from_the_pot_to_the_fridge_to_the_record(self) -> None:
        self.cooked()
        self.go("/keeping")
        self.see("Made today, not put away")
        self.see("nothing to let in")  # kept hot under film
        self.find(".hot .check input").click()
        self.see("brings it back")
        self.find(".possible button").click()
        self.see("in ice, stirred")
        self.wait(lambda: len(self.all(".verdicts [role=radio]")) == 6, "every place")
        self.assertIn("ice first", self.find(".verdicts").text)
        self.enter("Grams to put away", "99999")
        self.see("so much was not in it")
        self.assertFalse(self.find(".go").is_enabled())
        self.enter("Grams to put away", "2000")
        self.wait(lambda: self.find(".go").is_enabled(), "a way on")
        self.find(".go").click()
        self.see("left of 2.00 kg")
        self.assertEqual((Kept.objects.count(), Label.objects.count()), (1, 1))
        self.press("Take out")
        self.enter("Grams", "1500")
        self.enter("What for", "the night shift")
        self.press("Write it down")
        self.see("1500 g taken out for the night shift")
        self.see("500 g")
        self.press("Was not so")
        self.enter("What was wrong", "it was 150 g")
        self.press("Correct it")
        self.see("corrected: it was 150 g")
        self.wait(lambda: "2.00 kg" in self.find(".much").text, "all of it back")
        self.press("Temperature")
        self.enter("Temperature, °C", "71,5")
        self.press("Write it down")
        self.see("71.5 °C")
        self.assertEqual(
            [e.kind for e in Event.objects.all()], ["drawn", "corrected", "temperature"]
        )
        self.go("/keeping/record")
        for words in ("put away in 1 of tray 50 by 30", "1500 g", "it was 150 g", "71.5 °C"):
            self.see(words)
        self.go("/keeping")
        self.enter("Code of a label", Label.objects.get().document["code"])
        self.press("Open by its label")
        self.see("left of 2.00 kg")

    def test_what_is_put_away_whole_is_not_put_away_again(self) -> None:
        batch = self.cooked()
        given = {"batch_id": batch, "tray": "tray 50 by 30", "key": "put-away-1", "place": "blast"}
        self.other.call("POST", "/keeping", given)
        self.go(f"/keeping/put/{batch}")
        self.see("all of it is put away already")
        self.assertFalse(self.find(".go").is_enabled())

    def test_what_happens_in_another_window_is_seen_here(self) -> None:
        batch = self.cooked()
        given = {"batch_id": batch, "tray": "tray 50 by 30", "key": "put-away-1", "place": "blast"}
        kept = self.other.call("POST", "/keeping", given).body
        self.go(f"/keeping/{kept['id']}")
        self.see("left of")
        event = {"kind": "thrown", "reason": "dropped", "key": "event-key-1", "at": kept["put_at"]}
        self.other.call("POST", f"/keeping/{kept['id']}/events", {"events": [event]})
        self.see("thrown away: dropped")
        self.see("used up")

    def test_nothing_sticks_out(self) -> None:
        batch = self.cooked("Mustard liaison for the small beetroot gratins of the visitors")
        resize(self.driver, 390, 844)
        self.go("/keeping")
        self.see("Made today, not put away")
        self.assertEqual(self.overflow(), [])
        given = {"batch_id": batch, "tray": "tray 50 by 30", "key": "put-away-1", "place": "blast"}
        given["grams"] = 500  # some of it is still to be put away
        kept = self.other.call("POST", "/keeping", given).body
        for path in (
            "/keeping",
            f"/keeping/{kept['id']}",
            f"/keeping/put/{batch}",
            "/keeping/record",
        ):
            for width, height in ((390, 844), (640, 400), (1280, 800)):
                resize(self.driver, width, height)
                self.go(path)
                self.see("Mustard liaison" if "put" not in path else "in ice, stirred")
                self.assertEqual(self.overflow(), [], (path, width))
        resize(self.driver, 1280, 800)

    def test_a_rule_that_was_missed_asks_what_was_done(self) -> None:
        batch = self.cooked()
        given = {"batch_id": batch, "tray": "tray 50 by 30", "key": "put-away-1", "place": "table"}
        kept = self.other.call("POST", "/keeping", given).body
        began = timezone.now() - timedelta(hours=5)
        with rewriting(Kept):
            Kept.objects.update(put_at=began, off_fire_at=began)
        at = (timezone.now() - timedelta(minutes=1)).isoformat()
        warm = {"kind": "temperature", "celsius": 41, "key": "event-key-1", "at": at}
        self.other.call("POST", f"/keeping/{kept['id']}/events", {"events": [warm]})
        self.go(f"/keeping/{kept['id']}")
        self.see("What was done about it?")
        self.assertEqual(self.overflow(), [])
        self.press("heated through and served at once")
        self.see("heated through and served at once")
        self.wait(lambda: not self.all(".missed"), "asked no more")
        self.assertEqual(Event.objects.filter(kind="action").count(), 1)

    def test_rules_of_its_own(self) -> None:
        self.cooked()
        self.go("/keeping")
        self.see("nothing to let in")  # what stands above is there: nothing moves any more
        self.press("Rules of your own…")
        self.enter("What you call them", "The ridge's rules")
        self.enter("down to", "99")
        self.press("Go by these")
        self.see("colder than the one before")
        self.enter("down to", "7,5")
        self.enter("for at most", "lots")
        self.press("Go by these")
        self.wait(lambda: len(self.all(".number.wrong")) == 1, "the field that is wrong")
        self.enter("for at most", "1")
        self.press("Go by these")
        self.see("The ridge's rules")
        rules = Habits.objects.get(kitchen=self.kitchen).rules
        self.assertEqual((rules["stages"][0]["to_c"], rules["chilled_days"]), (7.5, 1))
        self.see("Change your own")

    def test_trays_are_told_apart_and_what_was_typed_wrongly_is_corrected(self) -> None:
        batch = self.cooked()
        given = {"batch_id": batch, "tray": "tray 50 by 30", "trays": 2, "key": "put-away-1"}
        kept = self.other.call("POST", "/keeping", {**given, "place": "blast"}).body
        began = timezone.now() - timedelta(minutes=100)
        with rewriting(Kept):
            Kept.objects.update(put_at=began, off_fire_at=began)
        for number, (minute, celsius) in enumerate(((5, 66), (12, 61), (90, 90))):
            at = (began + timedelta(minutes=minute)).isoformat()
            event = {"kind": "temperature", "celsius": celsius, "tray": 1, "at": at}
            body = {"events": [{**event, "key": f"event-key-{number}"}]}
            self.other.call("POST", f"/keeping/{kept['id']}/events", body)
        self.go(f"/keeping/{kept['id']}")
        self.see("Tray 2")
        self.press("Was not so")
        self.enter("What was wrong", "misread")
        self.enter("What it really was, °C", "9.0")
        self.press("Correct it")
        self.see("corrected: misread, it was 9.0 °C")
        self.see("10 °C in 85 min at most: met")
        self.assertIn("cooled in time", self.find("[aria-label='Tray']").text)
        self.all("[aria-label='Tray'] button")[1].click()
        self.see("not shown yet")
        self.press("Temperature")
        self.enter("Temperature, °C", "70")
        self.press("Write it down")
        self.see("70.0 °C, tray 2")
        self.go("/keeping/record")
        self.see("first written 90.0 °C")
        self.see("typed by hand")

    def test_what_is_not_shown_to_have_cooled_is_drawn_on_only_when_said_so(self) -> None:
        batch = self.cooked()
        given = {"batch_id": batch, "tray": "tray 50 by 30", "key": "put-away-1", "place": "blast"}
        kept = self.other.call("POST", "/keeping", given).body
        began = timezone.now() - timedelta(hours=5)
        with rewriting(Kept):
            Kept.objects.update(put_at=began, off_fire_at=began)
        self.go(f"/keeping/{kept['id']}")
        self.see("not shown")
        self.driver.execute_script(
            "window.asked = []; window.confirm = (q) => (asked.push(q), asked.length > 1)"
        )
        for taken in (0, 1):
            if not taken:
                self.press("Take out")
                self.enter("Grams", "300")
            self.press("Write it down")
            self.wait(
                lambda n=taken: len(self.driver.execute_script("return asked")) == n + 1, "asked"
            )
            self.assertEqual(
                Event.objects.filter(kind="drawn").count(),
                0 if not taken else Event.objects.count(),
            )
        self.see("although not shown cooled in time")
