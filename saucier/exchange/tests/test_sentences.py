"""What a method says, and what is left as words."""

import unittest

from saucier.exchange.sentences import read_method, sentences_of


class Sentences(unittest.TestCase):
    def test_minutes_go_to_what_they_are_about(self) -> None:
        found = read_method(
            sentences_of(
                [
                    "Soften the onions in the butter for 8 minutes. Stir in the flour and cook 2 min.",
                    "Pour in the milk. Bring to the boil, then simmer for about 10 minutes.",
                ]
            )
        )
        self.assertEqual(
            (found.sweat_minutes, found.roux_minutes, found.simmer_minutes), (8, 2, 10)
        )
        self.assertEqual(found.unused, ("Pour in the milk.",))

    def test_how_far_to_boil_down(self) -> None:
        for text, share in (
            ("Reduce by half.", 0.5),
            ("Reduce the wine by two-thirds.", 1 / 3),
            ("Boil down to two thirds.", 2 / 3),
            ("Cook down by a quarter, stirring.", 0.75),
            ("Reduce until nearly dry.", None),
            ("Reduce to a syrup.", None),
        ):
            with self.subTest(text):
                stop = read_method([text]).stops[0]
                if share is None:
                    self.assertEqual(stop.to, "nearly-dry")
                else:
                    self.assertAlmostEqual(stop.share, share, places=4)
        self.assertEqual(read_method(["Reduce a little."]).stops, ())
        self.assertEqual(read_method(["Reduce by half, 3 minutes."]).stops[0].minutes, 3)
        for text, to in (
            ("Reduce until it coats the back of a spoon.", {"grade": "light-coat"}),
            ("Reduce for 4 minutes.", {"minutes": 4.0}),
            ("Boil down to taste.", "to-taste"),
        ):
            self.assertEqual(read_method([text]).stops[0].to, to, text)

    def test_cooking_aromatics_is_no_simmer(self) -> None:
        said = [
            "Add the onion and cook for 5 minutes without colouring.",
            "Stir in the flour and cook for 2 minutes.",
            "Whisk in the stock, bring to the boil and simmer for 20 minutes.",
            "Add the peas and cook 4 minutes.",
        ]
        found = read_method(said)
        self.assertEqual(
            (found.sweat_minutes, found.roux_minutes, found.simmer_minutes), (5, 2, 20)
        )
        self.assertEqual(found.unused, (said[3],))
        self.assertEqual(read_method(["Cook the sauce for 6 minutes."]).simmer_minutes, 6)

    def test_boiled_until_dry_is_a_reduction(self) -> None:
        found = read_method(["Boil the wine with the shallots until almost dry, 4 minutes."])
        self.assertEqual((found.stops[0].share, found.stops[0].minutes), (None, 4))
        self.assertIsNone(found.simmer_minutes)

    def test_a_range_is_told_and_its_middle_taken(self) -> None:
        found = read_method(["Simmer for 20-40 minutes."])
        self.assertEqual(found.simmer_minutes, 30)
        self.assertEqual(len(found.ranges), 1)

    def test_the_roux_has_a_colour(self) -> None:
        self.assertEqual(
            read_method(["Cook the roux until golden, 4 minutes."]).roux_colour, "blond"
        )
        self.assertEqual(read_method(["Make a brown roux."]).roux_colour, "brown")
        self.assertEqual(read_method(["Brown the meat."]).roux_colour, "white")

    def test_nothing_from_nothing(self) -> None:
        found = read_method(["Serve at once.", "Enjoy for 10 days."])
        self.assertEqual(found.unused, ("Serve at once.", "Enjoy for 10 days."))
        self.assertIsNone(found.simmer_minutes)


if __name__ == "__main__":
    unittest.main()
