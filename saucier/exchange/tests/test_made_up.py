"""Recipes made up at random are read line for line and step for step."""

import unittest

from saucier.exchange import Reading, read_recipe
from saucier.exchange.tests.made_up import KITCHEN, Item, made_up
from saucier.exchange.tests.score import alike, spoken
from saucier.sheet import write_sheet
from saucier.testing import trial_count

COUNT = trial_count(150, 50)


def _has(reading: Reading, item: Item) -> bool:
    row = KITCHEN.larder[item.key]
    return any(
        line.status == "read"
        and line.ingredient == item.key
        and line.amount is not None
        and abs(row.grams(line.amount) - item.grams) <= 0.035 * item.grams + 0.3
        for line in reading.lines
    )


class MadeUpRecipes(unittest.TestCase):
    def test_every_line_and_every_step(self) -> None:
        for seed in range(COUNT):
            recipe = made_up(seed)
            with self.subTest(seed, text=recipe.text):
                reading = read_recipe(recipe.text, KITCHEN)
                self.assertEqual([one for one in recipe.items if not _has(reading, one)], [])
                self.assertEqual([one for one in reading.lines if one.status == "ours"], [])
                self.assertEqual(reading.open_lines, 0)
                assert reading.sheet is not None
                found = [
                    one
                    for one in spoken(write_sheet(reading.sheet)["steps"])
                    if one != "season salt"
                ]
                self.assertEqual(list(map(alike, found)), list(map(alike, recipe.steps)))


if __name__ == "__main__":
    unittest.main()
