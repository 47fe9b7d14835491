"""Every family has starting points that can be cooked, each with its state and its warning."""

import json
import unittest
from pathlib import Path

from saucier.cards import cards
from saucier.check import CheckedSheet, check
from saucier.errors import BadInput
from saucier.sheet import read_sheet, write_sheet
from saucier.sheet.document import FAMILIES
from saucier.solve import goal_of, solve
from saucier.starts import STARTS

# Grade, minutes at the stove, and codes of the remarks its steps make ("" for none).
EXPECTED: dict[str, tuple[str | None, float, str]] = {
    "White sauce": ("nappe", 12.1, ""),
    "Infused white sauce": ("nappe", 35.4, ""),
    "Soft onion white sauce": ("nappe", 33.0, ""),
    "Velouté": ("nappe", 25.1, ""),
    "Velouté on poaching liquor": ("nappe", 29.7, ""),
    "Pan velouté for poultry": ("light-coat", 22.0, ""),
    "Cheese sauce": ("binding", 14.0, ""),
    "Two-cheese sauce with yolk": ("binding", 18.3, ""),
    "Cheese sauce on vegetable stock": ("nappe", 18.0, "hot-cheese"),
    "Cream velouté": ("nappe", 33.0, "mounted"),
    "Mushroom cream velouté": ("nappe", 25.0, ""),
    "Green velouté": ("light-coat", 21.0, ""),
    "Liaison sauce on veal stock": ("nappe", 28.0, ""),
    "Gratin liaison": ("binding", 17.6, ""),
    "Starchless liaison": ("pouring", 14.3, "liaison-bare"),
    "Cream reduction": ("light-coat", 29.1, ""),
    "Pepper cream with brandy": ("light-coat", 33.5, "flamed"),
    "Tomato cream": ("light-coat", 22.8, ""),
    "Shellfish cream with prawns": ("light-coat", 36.0, "safe-middle"),
    "Cream thickened with roux": ("nappe", 15.1, ""),
    "Blue cheese cream with beurre manié": ("nappe", 12.9, ""),
    "Soured cream pan sauce": ("light-coat", 17.0, "soft-cream"),
    "Yogurt sauce with a slurry": ("light-coat", 11.0, ""),
    "Crème fraîche and mustard sauce": ("light-coat", 22.3, ""),
    "Panade for croquettes": ("panade", 101.0, "keeping"),
    "Soufflé base": ("spreading", 16.0, ""),
    "Onion purée bound with white sauce": ("binding", 18.1, ""),
    "Soft fennel in velouté": ("nappe", 67.6, "keeping"),
    "Herb butter": (None, 2.0, ""),
    "Watercress purée": ("light-coat", 5.3, ""),
}


def codes(checked: CheckedSheet) -> set[str]:
    found = {remark.code for state in checked.steps for remark in state.pot.remarks}
    return found | ({f"emulsion-{checked.final.emulsion}"} - {"emulsion-stable"})


class Starts(unittest.TestCase):
    def test_every_family_and_no_two_alike(self) -> None:
        self.assertGreaterEqual(len(STARTS), 24)
        self.assertEqual({start.family for start in STARTS}, set(FAMILIES))
        seen = set()
        for start in STARTS:
            ops = tuple(step.op for step in start.steps)
            # Steps and method, whatever the amounts.
            way = (ops, start.method.model_dump_json())
            self.assertNotIn(way, seen, start.name)
            seen.add(way)

    def test_each_has_its_state_and_its_warning(self) -> None:
        self.assertEqual({start.name for start in STARTS}, set(EXPECTED))
        for start in STARTS:
            with self.subTest(start.name):
                grade, minutes, warnings = EXPECTED[start.name]
                checked = check(start)
                self.assertEqual(checked.final.thickness.grade, grade)
                self.assertAlmostEqual(checked.final.pot.minutes, minutes, delta=0.5)
                self.assertEqual(codes(checked), set(warnings.split()))
                if start.target.grade:
                    self.assertEqual(grade, start.target.grade)
                if start.target.salt_pct:
                    salt = checked.figures.salt_pct
                    self.assertAlmostEqual(salt, start.target.salt_pct, places=3)

    def test_each_is_told_step_by_step(self) -> None:
        for start in STARTS:
            with self.subTest(start.name):
                told = cards(check(start))
                self.assertTrue(all(card.title and card.do and card.cue for card in told))
                self.assertTrue(start.cover and start.cover.text)

    def test_each_scales_to_another_yield(self) -> None:
        for start in STARTS:
            with self.subTest(start.name):
                volume = check(start).final.pot.yield_ml
                from saucier.units import Amount

                solved = solve(start, goal_of(start, volume=Amount(2 * volume, "mL"))).sheet
                final = check(solved).final
                self.assertAlmostEqual(final.pot.yield_ml / volume, 2, delta=0.01)
                self.assertEqual(final.thickness.grade, check(start).final.thickness.grade)
                self.assertEqual(read_sheet(write_sheet(solved)), solved)

    def test_files_are_in_the_open_format(self) -> None:
        for path in sorted(Path(__file__).parents[1].glob("starts/*.json")):
            self.assertEqual(read_sheet(path.read_bytes()).format, "kestrel-fog/sauce")
            self.assertIn("format", json.loads(path.read_text(encoding="utf-8")))


class Nonsense(unittest.TestCase):
    def test_every_setting_of_every_step(self) -> None:
        """Each numeric or chosen field of each start's steps, replaced by nonsense."""
        for start in STARTS:
            document = write_sheet(start)
            for number, step in enumerate(document["steps"]):
                for field in step:
                    if field == "op":
                        continue
                    for nonsense in ("gibberish", -5, {"x": 1}, [1], 10**9):
                        changed = json.loads(json.dumps(document))
                        changed["steps"][number][field] = nonsense
                        if field.endswith("_c") and nonsense == -5:  # frozen is no nonsense
                            continue
                        try:
                            check(read_sheet(changed))
                        except BadInput as bad:
                            self.assertIn(f"steps[{number}]", bad.problems[0].field)
                        else:
                            # Notes take any text; nothing else does.
                            self.assertEqual((field, nonsense), ("note", "gibberish"))
