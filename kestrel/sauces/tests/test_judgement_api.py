"""Fix it, what if, swaps, recipes in and out, and what a change of the larder moves."""

import json

from kestrel.tests.clients import KitchenTest
from saucier.sheet import write_sheet
from saucier.starts import STARTS
from saucier.testing import CHEESE_SAUCE


class Fix(KitchenTest):
    def fix(self, **body: object):
        return self.client.call("POST", "/work/fix", body)

    def test_signs_and_kinds(self) -> None:
        found = self.client.call("GET", "/work/signs").body
        self.assertGreaterEqual(len(found["signs"]), 17)
        self.assertIn("veloute", [kind["key"] for kind in found["kinds"]])

    def test_an_unknown_pot(self) -> None:
        seen = {
            "kind": "veloute",
            "amount": "3 L",
            "viscosity_pa_s": 2.2,
            "temperature_c": 80,
            "wanted": "nappe",
        }
        found = self.fix(seen=seen).body
        self.assertEqual(found["likely"], ["too-thick"])
        first = found["remedies"][0]
        self.assertEqual(first["after"]["grade"], "nappe")
        self.assertGreater(first["cost"], 0)
        # The steps put in by hand land where the remedy said.
        sheet = {**found["sheet"], "steps": [*found["sheet"]["steps"], *first["steps"]]}
        again = self.client.call("POST", "/work/check", {"sheet": sheet}).body["final"]
        self.assertAlmostEqual(again["viscosity_pa_s"], first["after"]["viscosity_pa_s"], places=3)

    def test_a_sheet_after_a_step_as_it_was_found(self) -> None:
        found = self.fix(sheet=CHEESE_SAUCE, at=2, seen={"viscosity_pa_s": 0.3}).body
        self.assertEqual(found["likely"], ["too-thin"])
        self.assertEqual(found["wanted_grade"], "binding")

    def test_nonsense_names_the_field(self) -> None:
        pot = {"amount": "3 L", "viscosity_pa_s": 2.2}
        for body, field in (
            ({}, "seen"),
            ({"seen": {**pot, "amount": "3 stones"}}, "seen.amount.unit"),
            ({"seen": {**pot, "kind": "gravy"}}, "seen.kind"),
            ({"seen": pot, "sign": "sulks"}, "sign"),
            ({"sheet": CHEESE_SAUCE, "at": 44}, "at"),
        ):
            with self.subTest(field):
                self.assertIn(field, self.fields(self.fix(**body)))


class WhatIfAndSwaps(KitchenTest):
    def test_levers_and_curves(self) -> None:
        body = {"sheet": CHEESE_SAUCE, "pulls": {"flour": 120}}
        found = self.client.call("POST", "/work/what-if", body).body
        self.assertEqual(found["sheet"]["steps"][0]["flour"]["amount"]["value"], 96)
        self.assertEqual(len(found["along"]), len(CHEESE_SAUCE["steps"]))
        self.assertTrue(any(point["set"] for point in found["curve"]))
        far = {"sheet": CHEESE_SAUCE, "pulls": {"flour": 9000}}
        self.assertIn("pulls.flour", self.fields(self.client.call("POST", "/work/what-if", far)))

    def test_swaps(self) -> None:
        body = {"sheet": CHEESE_SAUCE, "ingredient": "milk-whole"}
        found = self.client.call("POST", "/work/swaps", body).body
        self.assertEqual(found[0]["ingredient"], "milk-semi")
        body["ingredient"] = "brandy"
        self.assertIn("ingredient", self.fields(self.client.call("POST", "/work/swaps", body)))

    def test_amounts_in_the_kitchens_own_measures(self) -> None:
        measure = {"name": "Dipper", "size": "90", "unit": "mL", "kind": "ladle"}
        made = self.client.call("PUT", "/larder/measures", measure)
        self.assertEqual(made.body["name"], "dipper")
        steps = [*CHEESE_SAUCE["steps"]]
        steps[1] = {**steps[1], "amount": "10 dippers"}
        sheet = {**CHEESE_SAUCE, "steps": steps}
        amount = self.client.call("POST", "/work/check", {"sheet": sheet}).body["sheet"]["steps"][
            1
        ]["amount"]
        self.assertEqual((amount["value"], amount["unit"]), (900, "mL"))
        self.assertEqual(amount["measure"]["name"], "dipper")
        # Another kitchen does not know it.
        refused = self.other.call("POST", "/work/check", {"sheet": sheet})
        self.assertIn("steps[1].amount.unit", self.fields(refused))


class HowSure(KitchenTest):
    def ask(self, sheet: dict, **more):
        return self.client.call("POST", "/work/sure", {"sheet": sheet, **more})

    def test_the_chance_alone_and_with_what_would_help(self) -> None:
        found = self.ask(CHEESE_SAUCE).body
        self.assertEqual((found["grade"], found["mends"], found["surest"]), ("binding", [], None))
        self.assertAlmostEqual(sum(one["chance"] for one in found["by_grade"]), 1.0, places=6)
        helped = self.ask(CHEESE_SAUCE, mends=True).body
        self.assertEqual(helped["chance"], found["chance"])
        best = helped["mends"][0]
        self.assertGreater(best["chance"], found["chance"])
        self.assertEqual(
            self.client.call("POST", "/work/check", {"sheet": best["sheet"]}).status_code, 200
        )

    def test_a_kitchen_with_pans_is_as_sure_as_it_is(self) -> None:
        """In the words of the kitchen, too: its measures are read."""
        by_hand = {**CHEESE_SAUCE, "steps": [dict(step) for step in CHEESE_SAUCE["steps"]]}
        flour = {"ingredient": "wheat-flour", "amount": "1 scooped cup"}
        by_hand["steps"][0] = {**by_hand["steps"][0], "flour": flour}
        self.assertLess(self.ask(by_hand).body["chance"], self.ask(CHEESE_SAUCE).body["chance"])

    def test_nothing_to_be_sure_of_and_nonsense(self) -> None:
        self.assertIsNone(self.ask({"name": "x", "steps": []}).body)
        self.assertEqual(
            self.fields(self.ask({"name": "x", "steps": [{"op": "simmer"}]})), ["steps[0].minutes"]
        )


class Recipes(KitchenTest):
    TEXT = "Roux sauce\n60 g butter\n60 g flour\n1 L milk\n1-2 cloves garlic\nsalt\nMethod\nSimmer 5 minutes."

    def test_read_settle_open(self) -> None:
        found = self.client.call("POST", "/work/read", {"text": self.TEXT}).body
        self.assertEqual(found["reading"]["open_lines"], 1)
        self.assertEqual(found["final"]["grade"], "nappe")
        settled = [{"line": 3, "ingredient": "garlic", "amount": "2 pieces"}]
        body = {"text": self.TEXT, "settled": settled}
        self.assertEqual(
            self.client.call("POST", "/work/read", body).body["reading"]["open_lines"], 0
        )
        settled[0]["amount"] = "2 moons"
        refused = self.client.call("POST", "/work/read", body)
        self.assertIn("settled[3].amount.unit", self.fields(refused))
        self.assertIn("text", self.fields(self.client.call("POST", "/work/read", {"text": " "})))

    def test_every_form_out_and_the_recipe_in_again(self) -> None:
        for start in STARTS[:8]:
            sheet = write_sheet(start)
            for form, ending in (("sheet", "json"), ("json-ld", "jsonld"), ("markdown", "md")):
                made = self.client.call("POST", "/work/write", {"sheet": sheet, "form": form}).body
                self.assertEqual(made["ending"], ending)
                self.assertIn(start.name, made["text"])
        body = {"sheet": CHEESE_SAUCE, "form": "json-ld"}
        text = self.client.call("POST", "/work/write", body).body["text"]
        self.assertEqual(json.loads(text)["@type"], "Recipe")
        self.assertEqual(
            self.client.call("POST", "/work/read", {"text": text}).body["reading"]["open_lines"], 0
        )
        body["form"] = "papyrus"
        self.assertIn("form", self.fields(self.client.call("POST", "/work/write", body)))


class LarderMoves(KitchenTest):
    def test_told_before_and_true_after(self) -> None:
        self.saved()
        row = self.client.call("GET", "/larder/ingredients/cheese-hard-alpine").body
        self.assertEqual(row["revision"], 0)
        changed = {**row["row"], "fat": "25", "water": "43", "price_per_kg": "30"}
        moved = self.client.call("POST", "/work/larder-moves", {"rows": [changed]}).body
        self.assertEqual([one["name"] for one in moved], ["cheese sauce"])
        self.assertTrue(any(word.startswith("cost") for word in moved[0]["changes"]))
        before = self.client.call("POST", "/work/check", {"sheet": CHEESE_SAUCE}).body["final"]
        saved = self.client.call("PUT", "/larder/ingredients", {"row": changed, "revision": 0})
        self.assertEqual(saved.body["revision"], 1)
        after = self.client.call("POST", "/work/check", {"sheet": CHEESE_SAUCE}).body["final"]
        self.assertLess(after["fat_pct"], before["fat_pct"])
        self.assertIn(f"cost {before['cost']:.2f} → {after['cost']:.2f}", moved[0]["changes"])
        # Another kitchen's larder stays as it was.
        other = self.other.call("POST", "/work/check", {"sheet": CHEESE_SAUCE}).body["final"]
        self.assertEqual(other["fat_pct"], before["fat_pct"])
