"""Pieces in the sauce: their juice, what falls apart, and the starch a short boil brings out."""

import math
import unittest

from saucier import constants as K
from saucier.pot import Balance, Piece, Pot, Starch, alcohol_left, boil_off
from saucier.pot.pieces import cooked

SALTED = Piece(
    "ham", "Ham", Balance(water=60, salt=3, solids=2, fat=15, insoluble=20), to_leak_g=13
)
SOFT = Piece("onion", "Onion", Balance(water=88, solids=9, insoluble=3), 10.0, to_fall_g=80.0)


class Juice(unittest.TestCase):
    def test_it_takes_salt_and_sugar_along_as_the_piece_has_them_and_no_fat(self) -> None:
        piece, juice = cooked(SALTED, 60)
        self.assertAlmostEqual(juice.mass_g, 13.0, delta=1e-6)
        # 65 g of what can run out holds 3 g salt: a fifth of it is gone.
        self.assertAlmostEqual(juice.salt, 3.0 * 13 / 65, delta=1e-6)
        self.assertAlmostEqual(juice.solids, 2.0 * 13 / 65, delta=1e-6)
        self.assertEqual(juice.fat, 0.0)
        self.assertAlmostEqual(piece.content.salt + juice.salt, 3.0, delta=1e-9)
        self.assertAlmostEqual(piece.mass_g + juice.mass_g, SALTED.mass_g, delta=1e-9)

    def test_a_piece_never_gives_more_than_it_holds(self) -> None:
        greedy = SALTED._replace(to_leak_g=500.0)
        _, juice = cooked(greedy, 600)
        self.assertAlmostEqual(juice.mass_g, 0.95 * 65, delta=1e-6)
        soft = SOFT._replace(to_fall_g=5000.0)
        left, sauce = cooked(soft, 600)
        self.assertGreater(left.mass_g, 0.0)
        self.assertAlmostEqual(left.mass_g + sauce.mass_g, 100.0, delta=1e-9)

    def test_what_falls_apart_counts_the_juice_given_before(self) -> None:
        _, sauce = cooked(SOFT, 15)
        due = 80 * (1 - math.exp(-15 / K.FALL_APART_MINUTES))
        juice = 10 * (1 - math.exp(-15 / K.LEAK_MINUTES))
        self.assertAlmostEqual(sauce.mass_g, max(due, juice), delta=1e-6)
        twice = cooked(cooked(SOFT, 7)[0], 8)[0]
        self.assertAlmostEqual(twice.mass_g, cooked(SOFT, 15)[0].mass_g, delta=0.5)

    def test_half_the_pieces_have_half_of_everything(self) -> None:
        half = SOFT._replace(ahead_g=4.0).share(0.5)
        self.assertEqual((half.mass_g, half.to_leak_g, half.to_fall_g), (50.0, 5.0, 40.0))
        self.assertEqual((half.ahead_g, half.key), (2.0, "onion"))


class Flour(unittest.TestCase):
    def test_it_thickens_by_how_hot_it_was_and_how_long_it_boiled(self) -> None:
        pot = Pot(Balance(water=900, thickener=60), wetted=True, starch=(Starch(1.0),))
        warmed = [pot.heated(celsius).flour_given_now for celsius in (20, 65, 78, 90, 94)]
        self.assertEqual(sorted(warmed), warmed)
        self.assertEqual(warmed[0], 0.0)
        self.assertAlmostEqual(warmed[2], 0.5 * K.SWOLLEN_SHARE, delta=1e-9)
        boiled = [pot.heated(100, minutes).flour_given_now for minutes in (0, 1.5, 3, 30)]
        self.assertEqual(boiled[-2:], [1.0, 1.0])
        self.assertAlmostEqual(boiled[1], 0.5 * (1 + K.SWOLLEN_SHARE), delta=1e-9)
        self.assertEqual(
            pot.heated(100, 1).heated(70).flour_given_now, pot.heated(100, 1).flour_given_now
        )
        self.assertEqual(pot.flour_given, 1.0)  # cooked out it is all there


class Vapour(unittest.TestCase):
    def test_what_leaves_is_what_was_asked_for_and_alcohol_first(self) -> None:
        wine = Balance(water=880, alcohol=100, solids=20)
        for loss in (1.0, 90.0, 400.0, 979.0):
            left = boil_off(wine, loss)
            self.assertAlmostEqual(wine.mass_g - left.mass_g, loss, delta=1e-6)
            self.assertAlmostEqual(
                left.alcohol, alcohol_left(100, left.water / wine.water), delta=1e-9
            )


if __name__ == "__main__":
    unittest.main()
