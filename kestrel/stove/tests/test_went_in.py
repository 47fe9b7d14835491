"""What really went in, as a cook types it: read by one reader, asked back where it is absurd, never dropped."""

from typing import Any

from kestrel.stove.models import Act, Batch
from kestrel.tests.acts import act, go, one, saw
from kestrel.tests.clients import KitchenTest
from saucier.units.tests.test_as_typed import SPELLINGS

MILK_G_PER_ML = 1.03


class WentIn(KitchenTest):
    """At the milk of a cheese sauce: 1 L."""

    def setUp(self) -> None:
        super().setUp()
        batch = self.client.call("POST", "/stove", {"sauce_id": self.saved().pk}).body
        self.at = Batch.objects.get(pk=batch["id"])
        self.does(go(0, 1))

    def does(self, *acts: dict) -> Any:
        return act(self.client, self.at.pk, *acts)

    def put(self, amount: str, **more: Any) -> Any:
        return self.does(
            one("put", **{"step": 1, "field": "amount", "amount": amount, "unit": "L"} | more)
        )

    def went_in(self, answer: Any) -> float:
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.body["batch"]["cards"][1]["weighed"][0]["grams"]

    def test_every_spelling_is_what_it_says(self) -> None:
        for text, ml in SPELLINGS.items():
            with self.subTest(text):
                grams = self.went_in(self.put(text, unit="mL", sure=True))
                self.assertAlmostEqual(grams, ml * MILK_G_PER_ML, delta=0.51)
        self.assertEqual(Act.objects.filter(kind="put", taken=True).count(), len(SPELLINGS))

    def test_a_bare_number_is_of_the_unit_that_stands_there(self) -> None:
        self.assertAlmostEqual(self.went_in(self.put("0.9")), 900 * MILK_G_PER_ML, delta=0.51)
        self.assertAlmostEqual(self.went_in(self.put("900", unit="g")), 900.0, delta=0.1)

    def test_nothing_of_it_is_an_answer(self) -> None:
        for text in ("0", "nothing", "0 mL"):
            self.put(text)
            self.assertEqual(Act.objects.filter(kind="put").last().data["grams"], 0.0)

    def test_a_doubt_is_the_pots(self) -> None:
        for text, spread in (("about 900 g", 0.1), ("8 ladles", 0.08), ("900 g", 0.0)):
            self.went_in(self.put(text))
            self.assertEqual(Act.objects.filter(kind="put").last().data["spread"], spread)

    def test_what_is_absurd_is_asked_back_and_taken_where_it_is_meant(self) -> None:
        for text, code in (
            ("700 cups", "put-beyond-pan-is-meant"),
            ("0.9 g", "put-is-meant"),
            ("5.5 L", "put-is-meant"),
        ):
            with self.subTest(text):
                asked = self.put(text)
                self.assertEqual(asked.status_code, 422)
                self.assertEqual(self.fields(asked), ["acts[0].amount"])
                self.assertIn(asked.body["problems"][0]["code"], (code, "put-beyond-pan-is-meant"))
                self.assertFalse(Act.objects.filter(kind="put", data__amount=text).exists())
        self.put("0.9 g", sure=True)
        self.assertEqual(Act.objects.get(kind="put").data["grams"], 0.9)

    def test_nonsense_names_the_field_and_changes_nothing(self) -> None:
        for text in ("", "lots", "-3 mL", "80 furlongs", "1e400 g", "9" * 70):
            with self.subTest(text):
                refused = self.put(text)
                self.assertEqual(refused.status_code, 422)
                self.assertTrue(self.fields(refused)[0].startswith("acts[0].amount"))
        self.assertEqual(
            self.fields(self.does(one("put", step=1, field="amount"))), ["acts[0].grams"]
        )
        self.assertEqual(Act.objects.filter(kind="put").count(), 0)

    def test_the_jug_the_scale_and_the_level_are_read_too(self) -> None:
        def poured(how: str, after: str, before: str = "0") -> Any:
            return self.does(
                one("poured", step=1, field="amount", how=how, after=after, before=before)
            )

        self.assertAlmostEqual(self.went_in(poured("jug", "0", "a litre")), 1030, delta=1)
        self.assertAlmostEqual(self.went_in(poured("jug", "1 dl", "1 L")), 927, delta=1)
        self.assertGreater(self.went_in(poured("level", "4 cm")), 300)
        self.assertEqual(self.fields(poured("jug", "30 g", "1 L")), ["acts[0].after"])
        self.assertEqual(self.fields(poured("level", "deep")), ["acts[0].after"])

    def test_a_scale_that_is_not_ours_is_read_as_it_is_typed(self) -> None:
        seen = self.does({**saw(1, "scale"), "value": "2.1 kg"})
        self.assertEqual(seen.status_code, 200, seen.content)
        self.assertEqual(Act.objects.get(kind="saw").data["value"], 2100.0)
        self.assertEqual(
            self.fields(self.does({**saw(1, "scale"), "value": "a lot"})), ["acts[0].value"]
        )
        self.assertEqual(
            self.fields(self.does({**saw(1, "gone"), "value": "half"})), ["acts[0].value"]
        )


class FreeHand(KitchenTest):
    def test_what_runs_over_is_asked_back(self) -> None:
        batch = self.client.call("POST", "/stove/free", {"name": "cap"}).body
        milk = {
            "op": "add",
            "ingredient": "milk-whole",
            "amount": {"value": "700 cups", "unit": "g"},
        }
        asked = act(self.client, batch["id"], one("added", put=milk))
        self.assertEqual(self.fields(asked), ["acts[0].put"])
        self.assertEqual(Batch.objects.get(pk=batch["id"]).sheet["steps"], [])
        milk["amount"] = {"value": "two thirds of a cup", "unit": "g"}
        told = act(self.client, batch["id"], one("added", put=milk))
        self.assertAlmostEqual(
            told.body["batch"]["cards"][0]["weighed"][0]["grams"], 164.8, delta=0.51
        )
