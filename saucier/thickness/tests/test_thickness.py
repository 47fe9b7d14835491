import itertools
import unittest

from hypothesis import given
from hypothesis import strategies as st

from saucier.check import check
from saucier.larder import shipped_larder
from saucier.pot import EMPTY, Balance, boil_off
from saucier.testing import add, flour_grams, grams, melt, reduce_to, roux, sheet, white_sauce
from saucier.thickness import GRADES, assess, film_mm, grade_of
from saucier.thickness.viscosity import at_temperature


def viscosity(*steps: dict, **rest: object) -> float:
    found = check(sheet(*steps, **rest)).final.thickness.viscosity_pa_s
    assert found is not None
    return found


class Grades(unittest.TestCase):
    def test_flour_per_litre_falls_into_the_cooks_bands(self) -> None:
        """The middle of each band of flour per litre in kitchen tables, milk and light stock."""
        table = {
            "pouring": (33, 38),
            "light-coat": (46, 54),
            "nappe": (62, 73),
            "binding": (85, 99),
            "spreading": (118, 138),
            "panade": (160, 180),
        }
        for grade, (in_milk, in_stock) in table.items():
            with self.subTest(grade):
                self.assertEqual(check(white_sauce(in_milk)).final.thickness.grade, grade)
                stock = sheet(
                    roux(in_stock, in_stock), add("stock-light", 1000), reduce_to(share=0.95)
                )
                self.assertEqual(check(stock).final.thickness.grade, grade)

    def test_bands_meet(self) -> None:
        for lower, upper in itertools.pairwise(GRADES):
            self.assertEqual(lower.high, upper.low)
        self.assertEqual(grade_of(0.0299), "liquid")

    def test_scooped_flour_about_doubles_viscosity(self) -> None:
        plain = check(white_sauce(66)).final.thickness.viscosity_pa_s
        scooped = check(white_sauce(66 * 1.2)).final.thickness.viscosity_pa_s
        self.assertAlmostEqual(scooped / plain, 2.0, delta=0.25)


class Validity(unittest.TestCase):
    def reason(self, *steps: dict, **rest: object) -> str:
        thickness = check(sheet(*steps, **rest)).final.thickness
        self.assertIsNone(thickness.viscosity_pa_s)
        self.assertIsNone(thickness.grade)
        return str(thickness.reason)

    def test_reasons_in_kitchen_words(self) -> None:
        self.assertIn("roux", self.reason(roux(50, 50)))
        self.assertIn("only fat", self.reason(add("butter-unsalted", 50)))
        self.assertIn("dough", self.reason(roux(10, 100), add("milk-whole", 100)))
        self.assertIn(
            "cheese", self.reason(add("milk-whole", 100), melt("cheese-hard-alpine", 400))
        )
        self.assertIn("split", self.reason(add("cream-35", 100), reduce_to(share=0.45)))
        self.assertIn(
            "set", self.reason(roux(60, 60), add("milk-whole", 1000), target={"serving_c": 5})
        )
        self.assertIn("nothing", self.reason())

    @given(
        st.lists(st.floats(0, 1000), min_size=9, max_size=9),
        st.floats(0, 100),
        st.booleans(),
    )
    def test_never_an_absurd_number(self, parts: list[float], at: float, wetted: bool) -> None:
        balance = Balance(*parts, thickener=parts[2])
        found = assess(balance, wetted=wetted, temperature_c=at)
        if found.viscosity_pa_s is None:
            self.assertTrue(found.reason)
        else:
            self.assertGreater(found.viscosity_pa_s, 0)
            self.assertLess(found.viscosity_pa_s, 1e6)
            self.assertLessEqual(found.low_pa_s, found.viscosity_pa_s)
            self.assertGreaterEqual(found.high_pa_s, found.viscosity_pa_s)


class Monotone(unittest.TestCase):
    """η rises with flour, reduction, cheese and heated yolk; falls with heat and milk."""

    @given(flour_grams, st.floats(1.01, 1.6))  # more of the most is a dough
    def test_flour(self, flour: float, more: float) -> None:
        base = (add("milk-whole", 1000), reduce_to(share=0.95))
        self.assertGreater(
            viscosity(roux(50, flour * more), *base), viscosity(roux(50, flour), *base)
        )

    @given(flour_grams, st.floats(0.5, 0.9), st.floats(0.01, 0.09))
    def test_reduction(self, flour: float, share: float, less: float) -> None:
        base = (roux(40, flour), add("milk-whole", 1000))
        looser = check(sheet(*base, reduce_to(share=share + less))).final.thickness
        tighter = check(sheet(*base, reduce_to(share=share))).final.thickness
        if tighter.viscosity_pa_s is not None:
            self.assertGreater(tighter.viscosity_pa_s, looser.viscosity_pa_s)

    @given(flour_grams, st.floats(1, 100), st.floats(1, 100))
    def test_cheese(self, flour: float, cheese: float, more: float) -> None:
        base = (roux(40, flour), add("milk-whole", 1000), reduce_to(share=0.95))
        self.assertGreater(
            viscosity(*base, melt("cheese-hard-alpine", cheese + more)),
            viscosity(*base, melt("cheese-hard-alpine", cheese)),
        )

    @given(flour_grams, st.floats(1, 500))
    def test_milk_let_in_thins(self, flour: float, milk: float) -> None:
        base = (roux(40, flour), add("milk-whole", 1000), reduce_to(share=0.95))
        self.assertLess(viscosity(*base, add("milk-whole", milk)), viscosity(*base))

    @given(st.floats(40, 95), st.floats(0.5, 20))
    def test_heat_thins(self, at: float, more: float) -> None:
        self.assertGreater(at_temperature(1.0, at), at_temperature(1.0, at + more))

    @given(st.floats(5, 80))
    def test_heated_yolk(self, yolk: float) -> None:
        larder = shipped_larder()
        pot = EMPTY.plus(larder["stock-light"].per_gram, 1000)
        pot = boil_off(pot.plus(larder["wheat-flour"].per_gram, 50), 50)
        pot = pot.plus(larder["egg-yolk"].per_gram, yolk)
        cold, hot = assess(pot, yolk_set=False), assess(pot, yolk_set=True)
        self.assertGreater(hot.viscosity_pa_s, cold.viscosity_pa_s)


class Uncertainty(unittest.TestCase):
    def test_widens_near_the_end_of_a_cream_reduction(self) -> None:
        early = check(sheet(add("cream-35", 1000), reduce_to(share=0.8))).final.thickness
        late = check(sheet(add("cream-35", 1000), reduce_to(mass=grams(500)))).final.thickness
        sauce = check(white_sauce(66)).final.thickness

        def width(found) -> float:
            return found.high_pa_s / found.low_pa_s

        self.assertGreater(width(late), 1.1 * width(early))
        self.assertAlmostEqual(width(sauce), 1.7**2, delta=0.3)

    def test_film_grows_with_viscosity(self) -> None:
        self.assertLess(film_mm(0.06), film_mm(0.063))


class Boiling(unittest.TestCase):
    def test_share_by_time(self) -> None:
        def given(minutes: float) -> float:
            steps = (roux(60, 60), add("milk-whole", 1000))
            simmered = sheet(*steps, {"op": "simmer", "minutes": minutes, "lid": True})
            return check(simmered).final.pot.flour_given_now

        self.assertAlmostEqual(given(0), 0.92)
        self.assertAlmostEqual(given(1), 0.92 + 0.08 / 3)
        self.assertAlmostEqual(given(3), 1.0)

    def test_not_boiled_is_said(self) -> None:
        unboiled = check(sheet(roux(60, 60), add("milk-whole", 1000)))
        self.assertTrue(any("never boiled" in str(w) for w in unboiled.figures.warnings))
        boiled = check(white_sauce(60))
        self.assertFalse(any("never boiled" in str(w) for w in boiled.figures.warnings))

    def test_darker_roux_thickens_less(self) -> None:
        found = [
            viscosity(roux(60, 60, colour), add("milk-whole", 1000), reduce_to(share=0.95))
            for colour in ("white", "blond", "brown", "dark")
        ]
        self.assertEqual(found, sorted(found, reverse=True))

    def test_mass_is_what_was_put_in(self) -> None:
        steps = (roux(47.3, 61.1), add("milk-whole", 1, "L"), melt("cheese-blue", 33))
        self.assertAlmostEqual(
            check(sheet(*steps)).final.pot.balance.mass_g, 47.3 + 61.1 + 1030 + 33, places=6
        )
        self.assertEqual(grams(3)["unit"], "g")
