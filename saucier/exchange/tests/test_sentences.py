"""What a method says, clause by clause, and what is left as words."""

import unittest

from saucier.exchange.sentences import clauses_of, sentences_of, tells


def said(text: str) -> list[tuple]:
    """Each clause's act with its minutes or the stop of its reduction."""
    return [
        (one.act, one.stop.to if one.stop else one.minutes)
        for one in clauses_of(sentences_of([text]))
    ]


class Sentences(unittest.TestCase):
    def test_acts_and_minutes(self) -> None:
        for text, wanted in (
            ("Melt the butter, stir in the flour and cook 2 min.", ["melt", "add", ("cook", 2)]),
            ("Simmer for about 10 minutes.", [("simmer", 10)]),
            ("Cook slowly for half an hour.", [("cook", 30)]),
            ("Let it cook two minutes, then whisk in the milk.", [("cook", 2), "add"]),
            ("Simmer 5-10 minutes.", [("simmer", 7.5)]),
            ("Let it flame.", ["flame"]),
            ("Pull it off the heat.", ["out"]),
            ("Bake for 20 minutes.", [("elsewhere", 20)]),
            ("Five minutes at a simmer.", [(None, 5)]),
            ("Over the fennel, 200C, 25 minutes.", [("elsewhere", 25)]),
            ("Warm it to 175 °F for 2 minutes.", [("melt", 2)]),  # a sauce, not an oven
            ("Warm it to 80 °C for 2 minutes.", [("melt", 2)]),
        ):
            with self.subTest(text):
                told = [one if isinstance(one, tuple) else (one, None) for one in wanted]
                self.assertEqual(said(text), told)

    def test_how_far_to_boil_down(self) -> None:
        for text, to in (
            ("Reduce by half.", {"share": 0.5}),
            ("Reduce the wine by two-thirds.", {"share": 0.3333}),
            ("Boil down to two thirds.", {"share": 0.6667}),
            ("Cook down by a quarter, stirring.", {"share": 0.75}),
            ("Boil it right down to 30 %.", {"share": 0.3}),
            ("Reduce by 20 percent.", {"share": 0.8}),
            ("Reduce until nearly dry.", "nearly-dry"),
            ("Boil it until almost nothing is left.", "nearly-dry"),
            ("Let it boil away.", "nearly-dry"),
            ("Reduce until it coats the back of a spoon.", {"grade": "light-coat"}),
            ("Reduce for 4 minutes.", {"minutes": 4.0}),
            ("Boil down to taste.", "to-taste"),
        ):
            with self.subTest(text):
                self.assertEqual(said(text)[0], ("reduce", to))
        stop = clauses_of(["Reduce by half, 3 minutes."])[0].stop
        assert stop
        self.assertEqual(stop.minutes, 3)

    def test_what_is_no_reduction(self) -> None:
        self.assertEqual(said("Simmer until thick, 15 minutes."), [("simmer", 15.0)])
        self.assertEqual(said("Reduce a little."), [("simmer", None)])
        self.assertEqual(said("Boil the pasta 8 minutes."), [("simmer", 8.0)])

    def test_colour_is_taken_only_where_it_is_wanted(self) -> None:
        for text, colour in (
            ("Cook to a pale straw colour.", "blond"),
            ("Cook without letting it brown.", None),
            ("Let the roux go nut-brown.", "brown"),
        ):
            self.assertEqual(clauses_of([text])[0].colour, colour, text)

    def test_sentences_end_where_they_end(self) -> None:
        for text, count in (
            ("Melt it. Stir.", 2),
            ("Cook 2 min. Add stock.", 2),
            ("Cook c. 2 min. over low heat.", 1),
            ("Melt it. Until: it froths. Stir.", 2),
        ):
            self.assertEqual(len(sentences_of([text])), count, text)

    def test_telling_from_listing(self) -> None:
        self.assertTrue(tells("You then pour in the stock"))
        for line in (
            "50 g butter, melted",
            "salt and pepper",
            "2 tbsp tomato purée; 1 onion, sliced",
        ):
            self.assertFalse(tells(line), line)


if __name__ == "__main__":
    unittest.main()
