"""Recipes out and in again, and read by a library that is not ours."""

import json
import unittest
from difflib import SequenceMatcher

from hypothesis import given
from hypothesis import strategies as st
from recipe_scrapers import scrape_html

from saucier.check import check, larder_of
from saucier.errors import BadInput
from saucier.exchange import (
    Settled,
    read_larder_csv,
    read_line,
    read_recipe,
    to_json_ld,
    to_markdown,
    write_larder_csv,
)
from saucier.exchange.tests.score import spoken
from saucier.kitchen import Kitchen
from saucier.larder import row_of
from saucier.sheet import write_sheet
from saucier.starts import STARTS
from saucier.units import Amount
from saucier.words import plain

KITCHEN = Kitchen()
LARDER = KITCHEN.larder

MESSY = """Cheese sauce for cauliflower
Ingredients
50 g butter
50 g plain flour
600 ml milk
100 g mature cheese, grated
1 tsp english mustard
1-2 cloves garlic
75 g mystery cheese
a handful of moonlight
salt to taste
1 cauliflower
Method
Melt the butter, stir in the flour and cook for 2 minutes. Add the milk gradually.
Simmer for 5-10 minutes. Pour over the cauliflower and serve.
"""


class Lines(unittest.TestCase):
    def test_what_a_cook_writes(self) -> None:
        for text, key, grams in (
            ("100 g plain flour, sifted", "wheat-flour", 100),
            ("½ cup milk", "milk-whole", 123.6),
            ("1 1/2 cups all-purpose flour", "wheat-flour", 190.8),
            ("1 scooped cup flour", "wheat-flour", 152.6),
            ("a knob of butter", "butter-unsalted", 15),
            ("200ml/7fl oz whole milk", "milk-whole", 206),
            ("3 egg yolks", "egg-yolk", 54),
            ("1 (400 g) tin tomatoes", "tomato", 400),
            ("juice of half a lemon", "lemon-juice", 20),
            ("one bunch chives", "chives", 20),
            ("1 stick celery", "celery", 60),
            ("1 stick butter", "butter-unsalted", 113),
            ("5 1/2 oz double cream", "cream-48", 155.9),
            ("1 onion, finely chopped", "onion", 120),
            ("• 60 g butter (soft)", "butter-unsalted", 60),
            ("2 heaped tbsp plain flour", "wheat-flour", 25.44),
            ("half a lemon, juice only", "lemon-juice", 20),
            ("zest of ½ lemon", "lemon-zest", 3),
            ("2 x 300ml pot double cream", "cream-48", 588),
            ("a good grating of nutmeg", "nutmeg", 0.3),
            ("3 medium free-range egg yolks", "egg-yolk", 54),
            ("10 black peppercorns", "peppercorns", 0.5),
            ("2 large handfuls spinach", "spinach", 60),
            ("1 tsp english mustard", "mustard-hot", 5.5),
            ("60 g grated parmesan", "parmesan-style-hard", 60),
            ("100 g feta", "cheese-brined", 100),
            ("4 rashers streaky bacon", "bacon-streaky", 88),
            ("a splash of pastis", "anise-spirit", 14.4),
            ("1 glass white wine", "wine-white-dry", 148.5),
            ("2 slices smoked salmon", "salmon-smoked", 50),
            ("a pinch of cayenne", "cayenne", 0.4),
            ("1 tsp dijon mustard", "mustard-hot", 5.5),
            ("a pinch of saffron", "saffron", 0.4),
            ("1 lobster tail", "lobster", 120),
            ("juice of 1 orange", "orange-juice", 80),
        ):
            with self.subTest(text):
                line = read_line(text, KITCHEN)
                self.assertEqual((line.status, line.ingredient), ("read", key), line.why)
                self.assertAlmostEqual(LARDER[key].grams(line.amount), grams, delta=0.1)

    def test_nothing_is_guessed_silently(self) -> None:
        for text, status, why in (
            ("1-2 cloves garlic", "settle", "range"),
            ("1 tsp plum mustard", "settle", "meant"),
            ("75 g mystery cheese", "settle", "meant"),
            ("1 chicken stock cube", "settle", "not counted"),
            ("3/4 pint milk", "settle", "473 mL in another"),
            ("some parsley", "settle", "no amount"),
            ("25 g each butter and flour", "settle", "meant"),
            ("unicorn tears", "unread", "not in the larder"),
            ("", "unread", "empty"),
        ):
            with self.subTest(text):
                line = read_line(text, KITCHEN)
                self.assertEqual(line.status, status)
                self.assertIn(why, str(line.why))

    @given(st.text(max_size=120))
    def test_never_raises(self, text: str) -> None:
        self.assertIn(read_line(text, KITCHEN).status, ("read", "settle", "unread"))


class Recipes(unittest.TestCase):
    def test_an_export_reads_back_line_for_line(self) -> None:
        for start in STARTS:
            out = to_json_ld(start, KITCHEN)
            back = read_recipe(json.dumps(out), KITCHEN)
            for step_line, line in zip(out["recipeIngredient"], back.lines, strict=True):
                self.assertEqual(line.status, "read", step_line)

    def test_all_that_goes_in_is_on_the_list(self) -> None:
        """Sauces made for it are told by what goes into them."""
        for start in STARTS:
            lines = " ".join(to_json_ld(start, KITCHEN)["recipeIngredient"]).lower()
            for key in larder_of(start):
                self.assertIn(KITCHEN.larder[key].name.lower(), lines, start.name)

    def test_grams_survive(self) -> None:
        start = next(s for s in STARTS if s.name == "Velouté")
        back = read_recipe(json.dumps(to_json_ld(start, KITCHEN)), KITCHEN)
        self.assertIsNotNone(back.sheet)
        was, now = check(start).final.pot.balance, check(back.sheet).final.pot.balance
        self.assertAlmostEqual(now.flour, was.flour, delta=0.5)
        self.assertAlmostEqual(now.salt, was.salt, delta=0.1)

    def test_the_method_survives(self) -> None:
        """Steps come back from the words alone: nearly all, and with them the grade."""
        same_grade, in_place, steps = 0, 0, 0
        for start in STARTS:
            back = read_recipe(json.dumps(to_json_ld(start, KITCHEN)), KITCHEN)
            was, now = (
                [one for one in spoken(write_sheet(sheet)["steps"]) if not one.startswith("season")]
                for sheet in (start, back.sheet)
            )
            matched = SequenceMatcher(None, was, now, autojunk=False).get_matching_blocks()
            in_place += sum(block.size for block in matched)
            steps += len(was)
            grades = [check(sheet).final.thickness.grade for sheet in (start, back.sheet)]
            same_grade += grades[0] == grades[1]
        self.assertGreaterEqual(same_grade, 28)
        self.assertGreaterEqual(in_place, 0.8 * steps)

    def test_settling_without_an_amount_takes_one_of_ours(self) -> None:
        found = read_recipe(MESSY, KITCHEN, {7: Settled("parsley")})
        self.assertEqual((found.lines[7].status, found.ours), ("ours", 1))

    def test_an_independent_library_reads_it(self) -> None:
        for start in STARTS:
            out = to_json_ld(start, KITCHEN)
            page = f'<html><head><script type="application/ld+json">{json.dumps(out)}</script></head></html>'
            found = scrape_html(page, org_url="https://kitchen.invalid/sauce", supported_only=False)
            with self.subTest(start.name):
                self.assertEqual(found.title(), start.name)
                self.assertEqual(found.ingredients(), out["recipeIngredient"])
                said = found.instructions_list()
                steps = [
                    step
                    for one in out["recipeInstructions"]
                    for step in one.get("itemListElement", [one])
                ]
                # Each step once, and nothing but steps and the names of pots made inside.
                heads = [one["name"] for one in out["recipeInstructions"] if "name" in one]
                self.assertEqual(
                    [one for one in said if one not in heads], [step["text"] for step in steps]
                )
                self.assertEqual(found.total_time(), max(1, round(check(start).final.pot.minutes)))

    def test_a_messy_one_shows_what_it_could_not_read(self) -> None:
        found = read_recipe(MESSY, KITCHEN)
        self.assertEqual(found.name, "Cheese sauce for cauliflower")
        self.assertEqual(found.open_lines, 3)
        self.assertEqual(
            [step.op for step in found.sheet.steps],
            ["roux", "add", "simmer", "melt", "season", "season"],
        )
        self.assertEqual(found.sheet.steps[2].minutes, 7.5)
        self.assertIn("Pour over the cauliflower and serve.", found.unused)
        self.assertEqual(plain(found.beside), ["1 cauliflower: with the sauce, not in it"])
        self.assertTrue(any("range" in str(one) for one in found.assumed))

    def test_whole_spice_is_steeped_and_the_yield_is_no_ingredient(self) -> None:
        found = read_recipe(
            "White sauce\nServes 6\n40 g butter\n40 g flour\n600 ml milk\n1 bay leaf\n10 g parsley\n"
            "Method\nSimmer for 8 minutes.",
            KITCHEN,
        )
        self.assertEqual((found.makes, found.open_lines), ("Serves 6", 0))
        assert found.sheet
        ops = [step.op for step in found.sheet.steps]
        self.assertEqual(ops, ["roux", "add", "infuse", "simmer", "finish"])
        self.assertIn("1 bay leaf: steeped 15 min; take it out again", plain(found.assumed))

    def test_settling_brings_a_line_in_and_leaving_out_keeps_it_out(self) -> None:
        lines = read_recipe(MESSY, KITCHEN).lines
        at = {line.text: number for number, line in enumerate(lines)}
        found = read_recipe(
            MESSY,
            KITCHEN,
            {
                at["75 g mystery cheese"]: Settled("cheese-blue"),
                at["a handful of moonlight"]: Settled(None),
                at["1-2 cloves garlic"]: Settled("garlic", Amount(2, "piece")),
            },
        )
        self.assertEqual(found.open_lines, 0)
        self.assertEqual([s.op for s in found.sheet.steps].count("melt"), 2)

    def test_settled_nonsense_names_the_line(self) -> None:
        for number, said, field in (
            (99, Settled("salt"), "settled[99]"),
            (0, Settled("unobtainium"), "settled[0].ingredient"),
            (2, Settled("milk-whole", Amount(2, "piece")), "settled[2].unit"),
        ):
            with self.subTest(field), self.assertRaises(BadInput) as caught:
                read_recipe(MESSY, KITCHEN, {number: said})
            self.assertEqual(caught.exception.problems[0].field, field)

    def test_two_stopping_rules_are_told_apart(self) -> None:
        found = read_recipe(
            "Pan cream\n20 g butter\n2 shallots\n150 ml dry white wine\n300 ml cream\nMethod\n"
            "Sweat the shallots for 5 minutes. Add the wine and reduce until nearly dry. "
            "Add the cream and reduce to two-thirds, 1 minute.",
            KITCHEN,
        )
        said = check(found.sheet).figures.warnings
        self.assertTrue(any("which is followed" in str(text) for text in said), said)

    def test_a_reduction_that_cannot_be_is_stopped_and_told(self) -> None:
        found = read_recipe(
            "Rich\n20 g butter\n100 ml double cream\nMethod\nReduce by three-quarters.", KITCHEN
        )
        self.assertTrue(any("would have stood" in str(one) for one in found.assumed), found.assumed)
        self.assertEqual(found.sheet.steps[-1].to.share, 0.25)
        self.assertEqual(check(found.sheet).final.emulsion, "split")

    def test_reductions_stay_in_the_order_they_are_given(self) -> None:
        found = read_recipe(
            "Supreme\n100 ml white wine\n300 ml chicken stock\n250 ml double cream\nMethod\n"
            "Boil the wine until nearly dry. Add the stock and reduce by two-thirds. "
            "Pour in the cream and boil down until it coats the back of a spoon.",
            KITCHEN,
        )
        steps = found.sheet.steps
        self.assertEqual([s.op for s in steps], ["add", "reduce"] * 3)
        self.assertEqual([s.to for s in steps[1:3:2]], ["nearly-dry"])
        self.assertAlmostEqual(steps[3].to.share, 1 / 3, places=3)
        self.assertEqual(steps[5].to.grade, "light-coat")
        self.assertEqual(check(found.sheet).final.thickness.grade, "light-coat")

    def test_saved_page_graph_and_own_sheet(self) -> None:
        out = to_json_ld(STARTS[0], KITCHEN)
        page = (
            f'<p>x</p><script type="application/ld+json">{json.dumps({"@graph": [out]})}</script>'
        )
        self.assertEqual(read_recipe(page, KITCHEN).name, STARTS[0].name)
        ours = read_recipe(json.dumps(write_sheet(STARTS[3])), KITCHEN)
        self.assertEqual(ours.sheet, STARTS[3])

    def test_no_recipe_names_the_field(self) -> None:
        for text in ("", "   ", "Only a name"):
            with self.assertRaises(BadInput) as caught:
                read_recipe(text, KITCHEN)
            self.assertEqual(caught.exception.problems[0].field, "text")

    @given(st.text(max_size=400))
    def test_nothing_but_bad_input_from_any_text(self, text: str) -> None:
        try:
            read_recipe(text, KITCHEN)
        except BadInput as bad:
            self.assertTrue(bad.problems[0].field)

    def test_markdown_tells_every_step_and_weight(self) -> None:
        for start in STARTS:
            text = to_markdown(start, KITCHEN)
            self.assertEqual(text.count("\n# ") + text.startswith("# "), 1)
            self.assertIn(f"\n{len(start.steps)}. **", text)
            self.assertIn("estimates", text)


class LarderFile(unittest.TestCase):
    def test_out_and_in_again_is_the_same(self) -> None:
        found = read_larder_csv(write_larder_csv(LARDER.values()), LARDER)
        self.assertEqual(len(found), len(LARDER))
        self.assertEqual({row.status for row in found}, {"same"})

    def test_row_by_row(self) -> None:
        text = (
            "key;name;price_per_kg;salt;role;water;density;cup_density;origin\n"
            "milk-whole;;;;;;;;\n"
            "cheese-hard-alpine;Ridge cheese;21,50;1.8;cheese;35.5;1.08;0.42;label\n"
            "brine;Brine;0.1;6;seasoning;94;1.04;1.04;balance\n"
            "bad one;Bad;x;;cheese;200;1;1;label\n"
            "brine;Twice;0.1;6;seasoning;94;1.04;1.04;balance\n"
        )
        found = read_larder_csv(text, LARDER)
        by_line = {row.line: row for row in found}
        self.assertEqual(
            [row.status for row in found], ["refused", "changed", "new", "refused", "refused"]
        )
        self.assertEqual(
            set(by_line[3].changed), {"name", "salt", "price_per_kg", "origin", "insoluble"}
        )
        self.assertAlmostEqual(by_line[3].ingredient.per_gram.mass_g, 1)
        self.assertEqual({p.field for p in by_line[5].problems}, {"key", "price_per_kg", "water"})
        self.assertIn("twice", str(by_line[6].problems[0].message))

    def test_no_such_table(self) -> None:
        for text in ("", "name,price\nx,1", "key,colour\nmilk-whole,white", "key\n"):
            with self.assertRaises(BadInput) as caught:
                read_larder_csv(text, LARDER)
            self.assertEqual(caught.exception.problems[0].field, "csv")

    @given(st.text(alphabet=st.characters(codec="utf-8"), max_size=200))
    def test_nothing_but_bad_input(self, text: str) -> None:
        try:
            read_larder_csv("key,name,water\n" + text, LARDER)
        except BadInput as bad:
            self.assertEqual(bad.problems[0].field, "csv")

    def test_rows_of_text_are_the_rows(self) -> None:
        self.assertEqual(row_of(LARDER["cream-35"])["fat"], "35")


if __name__ == "__main__":
    unittest.main()
