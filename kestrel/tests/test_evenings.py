"""Three evenings of a simulated kitchen, from saved sauces to the record, judged by who knows the truth."""

from django.test import TestCase

from tools.evenings import played

SEEDS = (302, 305, 308)


class Evenings(TestCase):
    """What must never be is not, in kitchens whose flour, rings and cooks are drawn wider than the app's doubt."""

    def _play(self, seed: int) -> list[str]:
        """The story of the evening of ``seed``, once it is looked at."""
        evening, verdict = played(seed)
        self.assertEqual(verdict.worst, (), "\n".join(evening.story))
        # Three dishes for twelve: a line for the guest, one for the others, where the guest can be served.
        lines = {plate.line for plate in evening.plates}
        self.assertEqual(len(lines), 6 - len(evening.unserved))
        self.assertLess(len(verdict.grades_missed) + len(verdict.short), 0.5 * verdict.plates)
        self.assertTrue(evening.kitchen.put_away)
        self.assertTrue(all(pot.done_min is not None for pot in evening.kitchen.cooked))
        return evening.story

    def test_the_first_and_it_is_the_same_again(self) -> None:
        self.assertEqual(self._play(SEEDS[0]), self._play(SEEDS[0]))

    def test_the_second(self) -> None:
        self._play(SEEDS[1])

    def test_the_third(self) -> None:
        self._play(SEEDS[2])
