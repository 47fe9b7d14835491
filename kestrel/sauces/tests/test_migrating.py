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
        # The prawns' own, and the little the onions had still to give.
        self.assertAlmostEqual(juice, 200 * 0.17 * 0.865, delta=3)

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
    """The migrations themselves, from a database as it was."""

    def test_each_still_cooks_to_what_it_was_saved_for(self) -> None:
        """Also one with a sauce inside that cost it its grade: it is proportioned anew."""
        self.at(
            ("sauces", "0001_initial"),
            ("larder", "0005_whisk"),
            ("stove", "0003_pots_of_a_service"),
        )
        kitchen = self.model("accounts", "Kitchen").objects.create(name="Ridge")
        own = self.model("larder", "OwnIngredient")
        own.objects.create(kitchen=kitchen, key="spinach-puree", row={"key": "spinach-puree"})
        for name, saved in (
            ("Onion cream", WITH_PIECES),
            ("Cheese sauce", {**CHEESE_SAUCE, "format": "kestrel-fog/sauce", "version": 1}),
            ("Of no grade", {"name": "Of no grade", "steps": [add("milk-whole", 500)]}),
        ):
            self.save(kitchen.pk, name, saved, {"grade": "nappe"})

        self.at(
            ("sauces", "0002_shares_of_the_liquid"),
            ("larder", "0006_body"),
            ("stove", "0004_shares_of_the_liquid"),
        )
        inside = [roux(30, 30), add("milk-whole", 1, "L"), simmer(5)]
        steps = [add("milk-whole", 100), use(inside, grams(600))]
        grade = check(sheet(*steps)).final.thickness.grade
        wanted = {"Off": ("binding", steps), "Right": (grade, steps), "Plain": ("panade", inside)}
        for name, (target, own_steps) in wanted.items():
            self.save(
                kitchen.pk,
                name,
                {"name": name, "target": {"grade": target}, "steps": own_steps},
                {},
            )

        self.at(("sauces", "0003_a_pan_of_its_own"))
        kept = self.model("sauces", "Sauce").objects.filter(name__in=wanted)
        versions = [(sauce.name, sauce.version) for sauce in kept.order_by("pk")]
        self.assertEqual(versions, [("Off", 2), ("Right", 1), ("Plain", 1)])
        newest = self.model("sauces", "SauceVersion").objects.get(sauce__name="Off", number=2)
        self.assertEqual(newest.note, NOTE_INSIDE)
        self.assertEqual(check(read_sheet(newest.sheet)).final.thickness.grade, "binding")

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

    def at(self, *target: tuple[str, str]) -> None:
        """Bring the database to what these migrations left."""
        executor = MigrationExecutor(connection)
        executor.migrate(list(target))
        self.apps = executor.loader.project_state(list(target)).apps

    def model(self, app: str, name: str) -> Any:
        return self.apps.get_model(app, name)

    def save(self, kitchen: int, name: str, saved: dict[str, Any], outcome: dict[str, Any]) -> None:
        sauce = self.model("sauces", "Sauce").objects.create(kitchen_id=kitchen, name=name)
        versions = self.model("sauces", "SauceVersion").objects
        versions.create(sauce=sauce, number=1, sheet=saved, outcome=outcome)
