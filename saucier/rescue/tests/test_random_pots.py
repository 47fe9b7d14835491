"""Hundreds of pots nobody has seen, each too thick or too thin: the remedies are applied and
checked again."""

import collections
import math
import random
import unittest

from saucier.check import check
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.rescue import KINDS, Seen, applied, likely, remedies, seen_pot
from saucier.rescue.case import Case
from saucier.testing import trial_count
from saucier.units import Amount

POTS = trial_count(500, 60)
GRADES = ("pouring", "light-coat", "nappe", "binding", "spreading")


def random_pots(count: int) -> list[tuple[Seen, Case]]:
    """Pots as a cook would describe them; those that no such sauce can be are left out."""
    dice, kitchen, pots = random.Random(20261125), Kitchen(), []
    while len(pots) < count:
        seen = Seen(
            kind=dice.choice(list(KINDS)),
            amount=Amount(round(math.exp(dice.uniform(math.log(150), math.log(30_000)))), "mL"),
            viscosity_pa_s=math.exp(dice.uniform(math.log(0.01), math.log(14))),
            temperature_c=dice.uniform(42, 96),
            wanted=dice.choice(GRADES),
            serving_c=dice.choice([55, 60, 65, 70]),
            salt_pct=dice.choice([None, 0.6, 1.0]),
        )
        try:
            pots.append((seen, seen_pot(seen, kitchen)))
        except BadInput:
            continue
    return pots


class RandomPots(unittest.TestCase):
    def test_every_remedy_lands_in_the_grade_or_says_beforehand_why_not(self) -> None:
        said: collections.Counter[str] = collections.Counter()
        whys: collections.Counter[str] = collections.Counter()
        for seen, case in random_pots(POTS):
            signs = [s for s in likely(case) if s in ("too-thick", "too-thin")]
            if not signs:
                self.assertEqual(case.now.final.thickness.grade, case.grade)
                said["right as it is"] += 1
                continue
            found = remedies(case, signs[0])
            self.assertTrue(found)
            mended = [one for one in found if one.refused is None]
            for one in mended:
                said["remedies applied"] += 1
                again = check(applied(case.sheet, one), case.kitchen).final
                self.assertEqual(again.thickness.grade, case.grade, f"{one.title} for {seen}")
                self.assertNotIn(again.emulsion, ("oily", "split"), one.title)
                self.assertGreaterEqual(one.minutes, 0.0)
                self.assertGreaterEqual(one.cost, 0.0)
            for one in found:
                if one.refused is not None:
                    said["remedies refused"] += 1
                    whys[one.refused] += 1
                    self.assertFalse(one.steps)
            said["pots mended" if mended else "pots refused"] += 1
        print(f"\n{POTS} random pots: {dict(said)}; refusals: {dict(whys)}")
        self.assertGreater(said["pots mended"], 0.9 * (POTS - said["right as it is"]))
