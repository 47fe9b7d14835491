"""Every remark of the steps against rules written apart from them: none is said without cause, none that matters is
left out, none has no rule."""

import ast
import random
import unittest
from collections import Counter
from pathlib import Path

import saucier
from saucier.check import CheckedSheet, check
from saucier.errors import BadInput
from saucier.sheet import Sheet
from saucier.starts import STARTS
from saucier.steps import SheetPan, Simmer
from saucier.testing import trial_count
from saucier.tests.random_sheets import a_sauce, any_sheet
from saucier.tests.remark_rules import MUST, RULES, all_said
from saucier.words.catalogue import REMEDY, sentences

PARTS_OF_OTHERS = {
    "no-fat-to-sweat",
    "no-fat-to-sear",
    "no-sauce-to-bind",
    "no-sauce-to-mount",
    "no-sauce-to-melt",
    "never-boils-here",
    "long-to-boil-here",
    "no-way-to-boil",
    "keeping-clock",
    "keeping-at",
    "keeping-middle",
    "dries-before-its-stop",
    "splits-before-its-stop",
    "minutes-would-leave",
    "minutes-would-boil-it-further",
    "turns-oily-first",
    "boils-dry-first",
    "boils-with-a-lid",
    "boils-on-a-ring",
    "boils-in-two-pots",
}
"""Sentences that stand within another, or say how a stop ends: their rule is the one around them."""
NO_REMARKS = {
    "pan-assumed",
    "bare-pan-assumed",
    "thickness-now",
    "thickness-once-boiled",
    "thickness-as-served",
}
"""What is said of a sheet or of a thickness, beside the remarks."""


def spoken_in(*rooms: str) -> set[str]:
    """Codes of the sentences said anywhere in ``rooms``, read from their source."""
    codes = set()
    root = Path(saucier.__file__).parent
    for room in rooms:
        for path in (root / room).glob("*.py"):
            for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
                is_say = isinstance(node, ast.Call) and getattr(node.func, "id", "") == "say"
                if is_say and node.args and isinstance(node.args[0], ast.Constant):
                    codes.add(str(node.args[0].value))
    return codes


def random_sheets(seed: int, count: int) -> list[Sheet]:
    """``count`` sheets, every other one as a cook would write it; some boiled on, under a lid, in a small pan."""
    dice = random.Random(seed)
    sheets = [any_sheet(dice) if n % 2 else a_sauce(dice) for n in range(count)]
    return [_mistreated(sheet, n) for n, sheet in enumerate(sheets)]


def _mistreated(sheet: Sheet, number: int) -> Sheet:
    if number % 5 == 0:
        boil = Simmer(op="simmer", minutes=1.5, heat="bare-simmer")
        sheet = sheet.model_copy(update={"steps": (*sheet.steps, boil)})
    if number % 6 == 1:
        sheet = sheet.model_copy(update={"lid": True})
    if number % 8 == 2:
        sheet = sheet.model_copy(update={"pan": SheetPan(diameter_cm=16, depth_cm=8)})
    return sheet


def played(sheets: list[Sheet]) -> list[CheckedSheet]:
    """``sheets`` checked, less those that cannot be made."""
    checked = []
    for sheet in sheets:
        try:
            checked.append(check(sheet))
        except BadInput:
            continue
    return checked


class RemarksAreRight(unittest.TestCase):
    def setUp(self) -> None:
        self.sheets = played([*STARTS, *random_sheets(11, trial_count(2000, 120))])

    def test_none_is_made_without_cause(self) -> None:
        said_of_any = 0
        for checked in self.sheets:
            for said in all_said(checked):
                said_of_any += 1
                with self.subTest(said.sentence.code):
                    self.assertTrue(RULES[said.sentence.code](said), str(said.sentence))
        self.assertGreater(said_of_any, len(self.sheets))

    def test_none_that_matters_is_left_out(self) -> None:
        held = Counter[tuple[str, ...]]()
        for checked in self.sheets:
            codes = {said.sentence.code for said in all_said(checked)}
            for wanted, rule in MUST.items():
                if rule(checked):
                    held[wanted] += 1
                    ops = [step.op for step in checked.sheet.steps]
                    with self.subTest(wanted):
                        self.assertTrue(codes & set(wanted), f"{wanted} not said of {ops}")
        self.assertGreater(len(held), len(MUST) // 2)

    def test_every_remark_has_its_rule(self) -> None:
        codes = spoken_in("steps", "check") - PARTS_OF_OTHERS - NO_REMARKS
        self.assertEqual(codes - set(RULES), set())
        self.assertEqual({code for code in RULES if code not in sentences()}, set())
        self.assertFalse(any(code.endswith(REMEDY) for code in RULES))


if __name__ == "__main__":
    unittest.main()
