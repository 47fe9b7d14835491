import re
import unittest

from hypothesis import given
from hypothesis import strategies as st

from saucier.check import check
from saucier.heat import Pan, Stove, evaporation_g_per_min
from saucier.pot import Balance, boil_off
from saucier.sheet import Sheet
from saucier.testing import add, grams, reduce_to, roux, roux_sheets, sheet

liquids = st.builds(
    lambda water, alcohol, fat: Balance(water=water, alcohol=alcohol, fat=fat),
    st.floats(1, 5000),
    st.floats(0, 800),
    st.floats(0, 900),
)


class BoilingOff(unittest.TestCase):
    @given(liquids, st.floats(0, 0.999))
    def test_mass_goes_where_it_should(self, balance: Balance, share: float) -> None:
        loss = share * (balance.water + balance.alcohol)
        left = boil_off(balance, loss)
        self.assertAlmostEqual(balance.mass_g - left.mass_g, loss, delta=1e-6 * balance.mass_g)
        self.assertGreaterEqual(left.water, 0)
        self.assertLessEqual(left.alcohol, balance.alcohol + 1e-9)
        if loss and balance.alcohol > 1e-3 and left.water > 1:
            self.assertAlmostEqual(
                left.alcohol / balance.alcohol, (left.water / balance.water) ** 4.5, delta=1e-4
            )

    def test_a_stop_that_cannot_be_reached_is_a_state(self) -> None:
        """Played to 3 % of its water and told, as split with the share it would have stood where
        it is a cream; never a refusal."""
        for stop in ({"share": 0.02}, {"mass": grams(5)}, {"volume": {"value": 3, "unit": "mL"}}):
            found = check(sheet(add("cream-35", 1000), reduce_to(**stop)))
            self.assertAlmostEqual(found.final.pot.balance.water, 0.03 * 586, places=6)
            self.assertEqual(found.final.emulsion, "split")
            self.assertIsNone(found.final.thickness.grade)
            said = next(w for w in found.final.warnings if w.code == "stop-out-of-reach")
            share = float(re.search(r"stood ([\d.]+) %", str(said))[1]) / 100
            stood = check(sheet(add("cream-35", 1000), reduce_to(share=share))).final
            self.assertAlmostEqual(stood.thickness.fat_volume_share, 0.82, delta=0.01)
        dry = check(sheet(add("stock-light", 1000), reduce_to(share=0.001)))
        self.assertEqual(dry.final.emulsion, "stable")
        self.assertIn("boils dry", " ".join(str(w) for w in dry.final.warnings))

    def test_nearly_dry_leaves_a_tenth(self) -> None:
        found = check(
            sheet(add("wine-white-dry", 200), {"op": "reduce", "to": "nearly-dry"})
        ).final.pot
        self.assertAlmostEqual(found.balance.mass_g, 20, places=6)
        self.assertLess(found.balance.alcohol, 0.1)

    def test_to_a_volume(self) -> None:
        found = check(
            sheet(
                add("wine-white-dry", 300),
                add("cream-35", 500),
                reduce_to(volume={"value": 500, "unit": "mL"}),
            )
        ).final.pot
        self.assertAlmostEqual(found.balance.volume_ml, 500, delta=0.5)

    def test_a_stop_above_what_is_there_boils_nothing_off_and_is_told(self) -> None:
        found = check(sheet(add("milk-whole", 500), reduce_to(mass=grams(900)))).final
        self.assertAlmostEqual(found.pot.total_g, 500)
        self.assertIn("already-less", [w.code for w in found.warnings])


class Conservation(unittest.TestCase):
    @given(roux_sheets())
    def test_what_goes_in_stays_or_boils_off(self, case: Sheet) -> None:
        checked = check(case)
        before = 0.0
        for step, state in zip(case.steps, checked.steps, strict=True):
            mass = state.pot.balance.mass_g
            if step.op == "simmer":
                self.assertLess(mass, before)
                previous = checked.steps[case.steps.index(step) - 1].pot.balance
                self.assertAlmostEqual(state.pot.balance.fat, previous.fat)
                self.assertAlmostEqual(state.pot.balance.flour, previous.flour)
                self.assertAlmostEqual(state.pot.balance.salt, previous.salt)
            else:
                self.assertGreater(mass, before)
            before = mass


class Pans(unittest.TestCase):
    def test_level_and_capacity_agree(self) -> None:
        for shape in ("straight", "sloped", "bowl"):
            pan = Pan("x", shape, 24, 11)
            self.assertAlmostEqual(pan.level_mm(pan.capacity_ml), 110, delta=0.01)
            levels = [pan.level_mm(v) for v in (100, 500, 1000, 2000)]
            self.assertEqual(levels, sorted(levels))

    def test_doubling_in_the_same_pan_doubles_the_minutes(self) -> None:
        pan = {"diameter_cm": 24, "depth_cm": 20}

        def minutes(litres: float) -> float:
            states = check(sheet(add("cream-35", litres, "L"), reduce_to(share=0.6), pan=pan)).steps
            return states[1].pot.minutes

        self.assertAlmostEqual(minutes(2) / minutes(1), 2, delta=0.05)

    def test_lid_and_power_hold_vapour_back(self) -> None:
        wide = Stove(Pan("w", "straight", 40, 20))
        plain = evaporation_g_per_min(2000, "lively", wide)
        self.assertAlmostEqual(
            evaporation_g_per_min(2000, "lively", wide, lid=True), 0.1 * plain, places=9
        )
        weak = Stove(wide.pan, burner_w=500)
        self.assertAlmostEqual(
            evaporation_g_per_min(2000, "rolling", weak), 500 * 0.45 / 2257 * 60, places=6
        )

    def test_a_full_pan_warns(self) -> None:
        small = sheet(add("milk-whole", 2, "L"), pan={"diameter_cm": 16, "depth_cm": 8})
        self.assertTrue(any("does not fit" in str(w) for w in check(small).figures.warnings))


class Salt(unittest.TestCase):
    def test_to_target(self) -> None:
        season = {"op": "season", "ingredient": "salt", "amount": {"to_salt_pct": 0.9}}
        found = check(sheet(roux(60, 60), add("milk-whole", 1000), season)).figures
        self.assertAlmostEqual(found.salt_pct, 0.9, places=4)

    def test_over_is_said_with_what_evens_it_out(self) -> None:
        season = {"op": "season", "amount": {"to_salt_pct": 0.5}}
        found = check(
            sheet(
                add("milk-whole", 500),
                {"op": "season", "amount": grams(8)},
                season,
                target={"salt_pct": 0.5},
            )
        ).figures
        self.assertGreater(found.salt_over_g, 0)
        self.assertEqual(found.salt_to_add_g, 0)
        mass, salt = found.mass_g, found.salt_pct / 100 * found.mass_g
        self.assertAlmostEqual(salt / (mass + found.salt_liquid_g), 0.005, places=5)
        self.assertTrue(any("salt over" in str(w) for w in found.warnings))
