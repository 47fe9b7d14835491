"""Sheets saved before: the same pot in today's words, and the grade they were saved for again."""

import copy
from typing import Any

from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.test import SimpleTestCase, TransactionTestCase

from kestrel.sauces.migrating import NOTE, NOTE_INSIDE, as_meant, same_pot
from kestrel.tests.flushing import Migrates
from saucier.check import check
from saucier.kitchen import Kitchen
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE, add, grams, roux, sheet, simmer, use

KITCHEN = Kitchen()
WITH_PIECES: dict[str, Any] = {
    "format": "kestrel-fog/sauce",
    "version": 1,
    "name": "Onion cream",
    "target": {"grade": "light-coat", "volume": {"value": 400, "unit": "mL"}},
    "steps": [
        add("butter-unsalted", 40),
        {"op": "sweat", "ingredient": "onion", "amount": grams(200), "minutes": 8},
        add("cream-35", 500),
        {"op": "reduce", "to": {"share": 0.6}, "heat": "lively"},
        {"op": "return", "ingredient": "prawns-peeled", "amount": grams(200), "minutes": 4},
    ],
}


class SamePot(SimpleTestCase):
    def test_a_share_of_the_pot_becomes_one_of_the_liquid(self) -> None:
        now = read_sheet(same_pot(copy.deepcopy(WITH_PIECES), KITCHEN))
        share = now.steps[3].to.share
        self.assertLess(share, 0.55)  # the onion and the butter on it were in the share
        states = check(now).steps
        # As before: six tenths of all that was in the pot.
        self.assertAlmostEqual(states[3].pot.total_g / states[2].pot.total_g, 0.6, delta=1e-3)
        self.assertEqual(now.steps[4].how, "raw")
        juice = states[4].pot.balance.mass_g - states[3].pot.balance.mass_g
        self.assertAlmostEqual(juice, 200 * 0.17 * 0.865, delta=1.5)

    def test_what_has_neither_pieces_nor_free_fat_stays(self) -> None:
        plain = {
            "name": "x",
            "steps": [add("cream-35", 500), {"op": "reduce", "to": {"share": 0.6}}],
        }
        self.assertEqual(read_sheet(same_pot(plain, KITCHEN)).steps[1].to.share, 0.6)
        broken = {"name": "x", "steps": [{"op": "levitate"}]}
        self.assertEqual(same_pot(broken, KITCHEN), broken)

    def test_as_meant(self) -> None:
        thin = read_sheet({**CHEESE_SAUCE, "steps": [*CHEESE_SAUCE["steps"][:3]]})
        again = as_meant(thin, KITCHEN)
        final = check(again).final
        self.assertEqual(final.thickness.grade, "binding")
        self.assertAlmostEqual(final.pot.yield_ml / 2000, 1, delta=0.02)
        self.assertIsNone(as_meant(again, KITCHEN))


class Migrating(Migrates, TransactionTestCase):
    """The migration itself, from a database as it was."""

    before = [
        ("sauces", "0001_initial"),
        ("larder", "0005_whisk"),
        ("stove", "0003_pots_of_a_service"),
    ]
    after = [("sauces", "0002_shares_of_the_liquid"), ("larder", "0006_body")]

    def test_each_still_cooks_to_what_it_was_saved_for(self) -> None:
        executor = MigrationExecutor(connection)
        executor.migrate(self.before)
        apps = executor.loader.project_state(self.before).apps
        kitchen = apps.get_model("accounts", "Kitchen").objects.create(name="Ridge")
        own = apps.get_model("larder", "OwnIngredient")
        own.objects.create(kitchen=kitchen, key="spinach-puree", row={"key": "spinach-puree"})
        sauces, versions = (apps.get_model("sauces", m) for m in ("Sauce", "SauceVersion"))
        sheets = {
            "Onion cream": WITH_PIECES,
            "Cheese sauce": {**CHEESE_SAUCE, "format": "kestrel-fog/sauce", "version": 1},
            "Of no grade": {"name": "Of no grade", "steps": [add("milk-whole", 500)]},
        }
        for name, saved in sheets.items():
            sauce = sauces.objects.create(kitchen=kitchen, name=name)
            versions.objects.create(sauce=sauce, number=1, sheet=saved, outcome={"grade": "nappe"})

        executor = MigrationExecutor(connection)
        executor.migrate(executor.loader.graph.leaf_nodes())

        from kestrel.larder.models import OwnIngredient
        from kestrel.sauces.models import Sauce, SauceVersion

        self.assertEqual(OwnIngredient.objects.get().row["body"], "10")
        for name in ("Onion cream", "Cheese sauce"):
            newest = Sauce.objects.get(name=name).newest
            self.assertEqual((newest.number, newest.note), (2, NOTE))
            anew = read_sheet(newest.sheet)
            final = check(anew).final
            self.assertEqual(final.thickness.grade, anew.target.grade)
            self.assertAlmostEqual(final.pot.yield_ml / anew.target.volume.base, 1, delta=0.025)
            self.assertEqual(newest.outcome["grade"], anew.target.grade)
        self.assertEqual(Sauce.objects.get(name="Of no grade").version, 1)
        first = SauceVersion.objects.get(sauce__name="Onion cream", number=1)
        self.assertEqual(first.outcome, {"grade": "nappe"})  # what it came to then stays
        self.assertLess(first.sheet["steps"][3]["to"]["share"], 0.55)

    def test_a_sauce_inside_that_cost_its_grade_is_proportioned_anew(self) -> None:
        before = [("sauces", "0002_shares_of_the_liquid"), ("larder", "0006_body")]
        executor = MigrationExecutor(connection)
        executor.migrate([*before, ("stove", "0004_shares_of_the_liquid")])
        apps = executor.loader.project_state(before).apps
        kitchen = apps.get_model("accounts", "Kitchen").objects.create(name="Ridge")
        sauces, versions = (apps.get_model("sauces", m) for m in ("Sauce", "SauceVersion"))
        inside = [roux(30, 30), add("milk-whole", 1, "L"), simmer(5)]
        steps = [add("milk-whole", 100), use(inside, grams(600))]
        grade = check(sheet(*steps)).final.thickness.grade
        for name, wanted, own in (
            ("Off", "binding", steps),
            ("Right", grade, steps),
            ("Plain", "panade", inside),
        ):
            document = {"name": name, "target": {"grade": wanted}, "steps": own}
            sauce = sauces.objects.create(kitchen=kitchen, name=name)
            versions.objects.create(sauce=sauce, number=1, sheet=document, outcome={})

        executor = MigrationExecutor(connection)
        executor.migrate([("sauces", "0003_a_pan_of_its_own")])
        now = executor.loader.project_state([("sauces", "0003_a_pan_of_its_own")]).apps
        kept = now.get_model("sauces", "Sauce").objects
        self.assertEqual(
            [(one.name, one.version) for one in kept.order_by("pk")],
            [("Off", 2), ("Right", 1), ("Plain", 1)],
        )
        newest = now.get_model("sauces", "SauceVersion").objects.get(sauce__name="Off", number=2)
        self.assertEqual(newest.note, NOTE_INSIDE)
        self.assertEqual(check(read_sheet(newest.sheet)).final.thickness.grade, "binding")
