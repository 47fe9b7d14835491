import itertools
import json
import math
import unittest

from saucier.cards import cards
from saucier.cards.words import words_of
from saucier.check import check
from saucier.kitchen import Kitchen
from saucier.rescue import salt_remedies
from saucier.sheet import differences, read_sheet
from saucier.starts import STARTS
from saucier.steps import STEPS, LeftOut, StepBase
from saucier.testing import CHEESE_SAUCE, add, grams, melt, reduce_to, roux, sheet, simmer
from saucier.words import plain

KITCHEN = Kitchen()


class CardsTellTheTruth(unittest.TestCase):
    def test_every_kind_of_step_has_words(self) -> None:
        without = words_of.dispatch(StepBase)
        for op, kind in {**STEPS, "left out": LeftOut}.items():
            self.assertIsNot(words_of.dispatch(kind), without, op)

    def test_weighed_grams_are_what_goes_in(self) -> None:
        """The weights on a sheet's cards add up to its pot, less what boiled or stayed behind."""
        for start in STARTS:
            with self.subTest(start.name):
                checked = check(start)
                told = cards(checked)
                before = 0.0
                for step, card, state in zip(start.steps, told, checked.steps, strict=True):
                    after = state.pot.total_g
                    weighed = sum(w.grams for w in card.weighed)
                    if step.op in (
                        "add",
                        "roux",
                        "melt",
                        "season",
                        "dust",
                        "liaison",
                        "mount",
                        "finish",
                        "start",
                        "deglaze",
                        "use",
                        "infuse",
                        "return",
                    ):
                        # A card's salt is told to a tenth of a gram.
                        self.assertAlmostEqual(after - before, weighed, delta=0.06)
                    elif step.op in ("simmer", "reduce", "strain", "reserve", "flame"):
                        self.assertLess(after, before)
                    before = after

    def test_timers_are_whole_seconds_and_reductions_include_the_boil_up(self) -> None:
        case = sheet(add("cream-35", 500), reduce_to(share=0.7), simmer(2), pan={"diameter_cm": 20})
        first, second, third = cards(check(case))
        self.assertIsNone(first.timer_s)
        self.assertEqual(third.timer_s, 120)
        minutes = check(case).steps[1].pot.minutes
        self.assertEqual(second.timer_s, round(60 * minutes))

    def test_liaison_lists_its_ladles(self) -> None:
        start = next(s for s in STARTS if s.name == "Gratin liaison")
        card = next(c for c in cards(check(start)) if c.title.code == "liaison.title")
        self.assertGreaterEqual(len(card.lines), 2)
        self.assertTrue(all("°C" in str(line) for line in card.lines))

    def test_roux_school_is_in_the_words(self) -> None:
        for school, words in (
            ("cold-gradual", "splashes"),
            ("hot-at-once", "all at once"),
            ("warm-stream", "thin stream"),
        ):
            case = read_sheet({**CHEESE_SAUCE, "method": {"liquid_in": school}})
            self.assertIn(words, str(cards(check(case))[1].do))


class States(unittest.TestCase):
    def test_every_state_is_strict_json(self) -> None:
        for start in STARTS:
            checked = check(start)
            for figures in (checked.figures, *(state.figures for state in checked.steps)):
                self.assertIn('"grade"', json.dumps(plain(figures), allow_nan=False))

    def test_final_figures_stay_within_their_pot(self) -> None:
        for start in STARTS:
            with self.subTest(start.name):
                for state in check(start).steps:
                    found = state.figures
                    parts = sum((found.water_pct, found.fat_pct, found.alcohol_pct, found.salt_pct))
                    self.assertLessEqual(parts, 100.1)
                    self.assertGreaterEqual(found.temperature_c, -1)
                    self.assertLessEqual(found.temperature_c, 125)
                    self.assertGreaterEqual(found.cost, 0)
                    if found.viscosity_pa_s is not None:
                        self.assertTrue(math.isfinite(found.film_mm))

    def test_minutes_only_grow(self) -> None:
        for start in STARTS:
            minutes = [state.pot.minutes for state in check(start).steps]
            self.assertEqual(minutes, sorted(minutes), start.name)

    def test_allergens_follow_into_a_sauce_within_a_sauce(self) -> None:
        start = next(s for s in STARTS if s.name == "Onion purée bound with white sauce")
        self.assertLessEqual({"gluten", "milk"}, check(start).final.pot.allergens)

    def test_no_two_starts_are_the_same_document(self) -> None:
        for one, other in itertools.pairwise(STARTS):
            self.assertTrue(differences(one, other))


class TooSalty(unittest.TestCase):
    PAN = {"pan": {"diameter_cm": 20}}

    def salty(self, target: float):
        return sheet(
            roux(40, 40),
            add("milk-whole", 600),
            simmer(3),
            melt("cheese-blue", 200),
            target={"salt_pct": target},
            **self.PAN,
        )

    def test_each_remedy_brings_it_to_target(self) -> None:
        case = self.salty(0.6)
        liquid, cream, less = salt_remedies(check(case), KITCHEN)
        let_in = liquid.facts["grams"]
        water = sheet(*self.dumped(case), add("water", let_in), **self.PAN)
        self.assertAlmostEqual(check(water).figures.salt_pct, 0.6, delta=0.002)
        with_cream = sheet(*self.dumped(case), add("cream-35", cream.facts["grams"]), **self.PAN)
        self.assertAlmostEqual(check(with_cream).figures.salt_pct, 0.6, delta=0.002)
        fewer = 200 - less.facts["grams"]
        leaner = sheet(*self.dumped(case)[:3], melt("cheese-blue", fewer), **self.PAN)
        self.assertAlmostEqual(check(leaner).figures.salt_pct, 0.6, delta=0.01)

    def test_nothing_to_mend(self) -> None:
        self.assertEqual(salt_remedies(check(self.salty(2.0)), KITCHEN), ())
        self.assertEqual(salt_remedies(check(sheet(add("milk-whole", 100))), KITCHEN), ())

    @staticmethod
    def dumped(case) -> list[dict]:
        return [step.model_dump(mode="json", exclude_none=True) for step in case.steps]


class Heat(unittest.TestCase):
    def test_boil_up_follows_the_burner(self) -> None:
        """A litre of milk from 5 °C: 1030 g at about 3.9 J/gK over 95 K, by net power less some 40 W on the way."""

        def minutes(**burner: object) -> float:
            case = sheet(
                {**add("milk-whole", 1, "L"), "temperature_c": 5}, simmer(1), burner=burner
            )
            return check(case).final.pot.minutes - 1

        gas = minutes(kind="gas", watts=2500)
        self.assertAlmostEqual(gas, 1030 * 3.87 * 95 / (2500 * 0.45 - 40) / 60, delta=0.1)
        self.assertAlmostEqual(minutes(kind="induction", watts=2500) / gas, 0.45 / 0.85, places=1)
        self.assertAlmostEqual(minutes(kind="gas", watts=1250) / gas, 2, delta=0.1)

    def test_cold_cream_cools_a_hot_pot(self) -> None:
        case = sheet(
            add("stock-light", 500), simmer(2), {**add("cream-35", 500), "temperature_c": 5}
        )
        self.assertAlmostEqual(check(case).final.pot.temperature_c, 58, delta=4)

    def test_dip_marks_before_and_after(self) -> None:
        case = sheet(
            add("cream-35", 1, "L"), reduce_to(share=0.6), pan={"diameter_cm": 20, "depth_cm": 12}
        )
        before, after = (state.figures.level_mm for state in check(case).steps)
        area_cm2 = grams(314.159)["value"]
        self.assertAlmostEqual(
            before, 10 * check(case).steps[0].pot.total_ml / area_cm2, delta=0.05
        )
        self.assertLess(after, 0.65 * before)
