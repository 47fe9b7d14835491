"""Raw is raw: what the hands get is told as it lies on the board, never as it is served."""

import unittest

from saucier.dish import read_dish
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.run_up import Means, RunUp, run_up
from saucier.service import Plan, on_the_board, plan_service, production_of, read_service
from saucier.testing import add, roux, sheet, simmer

KITCHEN = Kitchen()


def leeks(grams: float = 160.0, portions: float = 5.0, state: str = "drained") -> Plan:
    white = sheet(
        roux(60, 60), add("milk-whole", 1, "L"), simmer(5), name="White", target={"grade": "nappe"}
    )
    dish = read_dish(
        {
            "name": "Leeks under white sauce",
            "sauces": [{"sauce": "w", "use": "nap"}],
            "solids": [
                {"ingredient": "leek", "grams": grams, "state": state},
                {"ingredient": "pasta-dry", "grams": 200},
                {"ingredient": "ham-cooked", "grams": 40},
            ],
        }
    )
    service = read_service({"name": "x", "lines": [{"dish": "l", "portions": portions}]})
    return plan_service(service, {"l": dish}, {"w": white}, KITCHEN, [Pan("p", "straight", 24, 14)])


class OnTheBoard(unittest.TestCase):
    def test_800_g_cooked_leek_are_1000_trimmed_and_1333_to_peel(self) -> None:
        production = production_of(leeks(), KITCHEN)
        leek = next(row for row in production.buy if row.ingredient == "leek")
        self.assertEqual(
            (round(leek.used_g), round(leek.board_g), round(leek.whole_g)), (800, 1000, 1333)
        )
        said = str(on_the_board(leek))
        self.assertIn("trimmed, raw", said)
        self.assertNotIn("800", said)
        order = " ".join(str(one) for one in production.prepare)
        self.assertNotIn("800 g", order)
        self.assertRegex(order, r"1\.33 kg Leek")

    def test_what_drinks_is_told_dry_and_what_neither_is_by_its_weight_alone(self) -> None:
        rows = {row.ingredient: row for row in production_of(leeks(), KITCHEN).buy}
        self.assertTrue(str(on_the_board(rows["pasta-dry"])).endswith("uncooked"))
        self.assertLess(rows["pasta-dry"].board_g, rows["pasta-dry"].used_g)
        ham = str(on_the_board(rows["ham-cooked"]))
        self.assertNotIn("raw", ham)

    def test_the_run_up_says_the_same_to_whoever_peels(self) -> None:
        board = run_up(leeks(), KITCHEN, Means.of(), RunUp()).board
        prep = board.jobs["prep:leek:0"]
        self.assertIn("trimmed", str(prep.amount))
        self.assertNotIn("800", str(prep.amount))
        side = next(
            job
            for key, job in board.jobs.items()
            if key.startswith("side:0:") and "leek" in str(job.name).lower()
        )
        self.assertIn("raw", str(side.amount))


if __name__ == "__main__":
    unittest.main()
