"""Guests: whatever the dice throw, no gram of what is excluded reaches a guest's plate."""

import collections
import csv
import random
import unittest
from concurrent.futures import ProcessPoolExecutor
from dataclasses import replace
from multiprocessing import get_context
from pathlib import Path
from typing import Any

import saucier.larder
from saucier.check import check
from saucier.guests import exclusions
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.larder.row import ingredient_from_row
from saucier.service import Plan, plan_service
from saucier.service.cautions import cautions_of
from saucier.service.tests.random_guests import FOODS, guest_service
from saucier.sheet import write_sheet
from saucier.testing import trial_count

KITCHEN = Kitchen()
PANS = [
    Pan("small", "straight", 16, 9),
    Pan("middle", "straight", 20, 11),
    Pan("large", "straight", 28, 16),
]
SERVICES, SHARES = trial_count(2000, 60), trial_count(4, 2)

with (Path(saucier.larder.__file__).parent / "ingredients.csv").open(encoding="utf-8") as _file:
    ROWS = {row["key"]: row for row in csv.DictReader(_file)}
_MEATS = {"pork", "beef", "poultry", "rabbit", "game", "lamb", "meat"}
_SEA = {"fish", "crustaceans", "molluscs"}


def foods(key: str) -> set[str]:
    """All that the table's own columns say ``key`` is and holds, read anew row by row."""
    found = {key}
    while True:
        more = {
            food
            for one in found & ROWS.keys()
            for column in ("of", "holds")
            for food in ROWS[one][column].split()
            if food != "-"
        }
        if more <= found:
            return found
        found |= more


def holds(key: str, word: str) -> bool:
    """Whether the row ``key`` of the shipped larder holds what ``word`` excludes; looked up in the
    table itself, not by the code under test."""
    row = ROWS[key]
    allergens, of = set(row["allergens"].split()), set(row["animals"].split())
    of |= allergens & {"milk", "egg", *_SEA}
    word = {"dairy": "milk", "no meat": "meat"}.get(word, word)
    if word == "alcohol":
        return float(row["alcohol"] or 0) > 0
    if word in ("vegetarian", "meat"):
        return bool(of & (_MEATS | (_SEA if word == "vegetarian" else set())))
    if word == "vegan":
        return bool(of - {"plant"})
    if word == "pork":
        return bool(of & {"pork", "meat"})
    if word in FOODS and word not in saucier.larder.ALLERGENS and word != "wheat":
        return word in foods(key)
    if word == "wheat":
        return "gluten" in allergens or "wheat" in foods(key)
    if word in ("cheese", "wine"):
        return word in foods(key) or any(ROWS[f]["role"] == word for f in foods(key) & ROWS.keys())
    if word in saucier.larder.ALLERGENS:  # a rice drink does the work of milk, and is none
        return word in allergens | of
    return word in (row["role"], key)


def grams_in(document: Any, found: collections.Counter[str]) -> collections.Counter[str]:
    """What any part of a written sheet names, with its grams where it has some, at least a trace."""
    if isinstance(document, dict):
        for name, value in document.items():
            if isinstance(value, str) and value in ROWS and name in ("ingredient", "fat", "flour"):
                amount = document.get("amount")
                found[value] += max(
                    1e-6, amount["value"] if isinstance(amount, dict) and "value" in amount else 0
                )
            grams_in(value, found)
    elif isinstance(document, list):
        for one in document:
            grams_in(one, found)
    return found


def on_the_plate(plan: Plan, number: int) -> collections.Counter[str]:
    """Every gram that reaches line ``number``."""
    found: collections.Counter[str] = collections.Counter()
    line, pots = plan.lines[number], {pot.key: pot for pot in plan.pots}
    for key in line.branches:
        branch = next(one for one in plan.branches if one.key == key)
        if branch.pot:
            grams_in(write_sheet(branch.sheet), found)
            grams_in(write_sheet(pots[branch.pot].sheet), found)
        if branch.from_stock_ml:
            for used in plan.used:
                grams_in(write_sheet(used.sheet), found)
    for part in (*line.dish.solids, *line.dish.toppings):
        found[part.ingredient] += 1
    return found


class _Look(unittest.TestCase):
    """So many services of one seed, every guest's plate looked through."""

    def __init__(self, seed: int) -> None:
        super().__init__("looked_through")
        self.dice, self.said = random.Random(seed), collections.Counter[str]()

    def looked_through(self) -> collections.Counter[str]:
        for number in range(SERVICES // SHARES):
            service, dishes, sheets = guest_service(self.dice)
            plan = plan_service(service, dishes, sheets, KITCHEN, PANS)
            self._names_tell_apart(plan, f"service {number}")
            for line in plan.lines:
                if not line.line.without:
                    self.said["other lines refused" if line.refused else "other lines"] += 1
                    continue
                self.said["guests' lines"] += 1
                if not line.refused:
                    self._nothing_of(plan, line.number, f"service {number}")
                    continue
                self.said["refused, with swaps" if line.offers else "refused"] += 1
                told = [one for one in plan.amiss if f"lines[{line.number}]" in one.field]
                self.assertTrue(told)
                if line.offers and self.said["offers accepted"] < 40:
                    self.said["offers accepted"] += 1
                    self._accepted(service, dishes, sheets, line.number, line.offers[-1].swaps)
        return self.said

    def _names_tell_apart(self, plan: Plan, service: str) -> None:
        """A cook takes a pot by its name: what is called the same holds the same food."""
        pots = [(str(pot.name), pot.sheet) for pot in plan.pots]
        pots += [(branch.name, branch.sheet) for branch in plan.branches]
        pots += [(first.name, first.made.sheet) for first in plan.first]
        held: dict[str, set[str]] = {}
        for name, sheet in pots:
            food = {key for step in sheet.steps for key in step.names() if key}
            self.assertEqual(held.setdefault(name, food), food, f"{service}: two pots “{name}”")
            self.said["names"] += 1

    def _nothing_of(self, plan: Plan, number: int, told: str) -> None:
        line = plan.lines[number]
        eaten = on_the_plate(plan, number)
        for word in line.line.without:
            if word == "raw yolk":
                self.assertNotIn("egg-whole", eaten, told)
                for key in line.branches:
                    branch = next(one for one in plan.branches if one.key == key)
                    pot = check(branch.sheet, KITCHEN).final.pot
                    self.assertFalse(pot.balance.yolk_protein > 0 and pot.hottest_c < 75, told)
                continue
            held = {key for key in eaten if holds(key, word)}
            self.assertFalse(held, f"{told}, line {number}: {held} for a guest without {word}")
            if word in saucier.larder.ALLERGENS:
                self.assertNotIn(word, line.allergens, told)

    def _accepted(self, service: Any, dishes: Any, sheets: Any, number: int, swaps: Any) -> None:
        """What was offered is taken: now the line is served."""
        line = service.lines[number].model_copy(update={"swaps": dict(swaps)})
        again = service.model_copy(update={"lines": (line,)})
        plan = plan_service(again, dishes, sheets, KITCHEN, PANS)
        self.assertFalse(plan.lines[0].refused, f"{line.without} {swaps} {plan.amiss}")
        self._nothing_of(plan, 0, "swapped")


def _look(seed: int) -> collections.Counter[str]:
    return _Look(seed).looked_through()


class NothingExcluded(unittest.TestCase):
    def test_in_many_services(self) -> None:
        said = collections.Counter[str]()
        with ProcessPoolExecutor(mp_context=get_context("spawn")) as pool:
            for one in pool.map(_look, range(SHARES)):
                said += one
        print(f"\n{SERVICES} services: {dict(said)}")
        self.assertGreater(said["guests' lines"], 1.2 * SERVICES)
        self.assertGreater(said["offers accepted"], 0.05 * SERVICES)
        self.assertLess(said["refused"], 0.1 * said["guests' lines"])
        self.assertEqual(said["other lines refused"], 0)


class AnOwnRow(unittest.TestCase):
    def test_what_is_in_it_goes_for_guests_too(self) -> None:
        """By its name, and by what it says it holds; where it says nothing, that is told."""
        text = {**ROWS["tomato-passata"], "of": "", "holds": "", "aliases": ""}
        for change, word, hit, unsaid in (
            ({"name": "Red onion chutney"}, "onion", True, True),
            ({"name": "House chutney", "holds": "onion-puree vinegar"}, "onion", True, False),
            ({"name": "House chutney", "holds": "onion-puree vinegar"}, "garlic", False, False),
            ({"name": "House chutney"}, "onion", False, True),
            ({"name": "House relish", "of": "ham"}, "hams", True, True),
        ):
            row = ingredient_from_row({**text, "key": "own-row", **change})
            larder = KITCHEN.larder.with_rows([row])
            [one] = exclusions([word], larder)
            with self.subTest(change=change, word=word):
                self.assertEqual((one.hits(larder["own-row"]), row.holds is None), (hit, unsaid))

    def test_what_does_not_say_what_is_in_it_is_told_with_the_guest(self) -> None:
        dice = random.Random(1)
        service, dishes, sheets = guest_service(dice)
        row = ingredient_from_row(
            {
                **ROWS["tomato-passata"],
                "key": "own-row",
                "name": "House chutney",
                "of": "",
                "holds": "",
            }
        )
        kitchen = Kitchen(KITCHEN.larder.with_rows([row]))
        dish = next(iter(dishes.values()))
        plate = dish.model_validate(
            {
                **dish.model_dump(),
                "solids": [{"ingredient": "own-row", "grams": 90}],
                "toppings": [],
                "sauces": [],
            }
        )
        lines = (service.lines[0].model_copy(update={"dish": "p", "without": ("onion",)}),)
        plan = plan_service(
            service.model_copy(update={"lines": lines, "force": {}, "on_hand": ()}),
            {"p": plate},
            sheets,
            kitchen,
            PANS,
        )
        self.assertFalse(plan.lines[0].refused)
        told = [one.code for one in cautions_of(plan, kitchen)]
        self.assertIn("caution.contents-unsaid", told)

    def test_of_which_nobody_says_what_it_is_of_is_given_to_no_vegetarian(self) -> None:
        dice = random.Random(1)
        service, dishes, sheets = guest_service(dice)
        row = replace(KITCHEN.larder["potato"], animals=frozenset(["unsaid"]))
        kitchen = Kitchen(KITCHEN.larder.with_rows([row]))
        dish = next(iter(dishes.values())).model_copy(update={"solids": ()})
        potato = dish.model_validate(
            {**dish.model_dump(), "solids": [{"ingredient": "potato", "grams": 90}], "sauces": []}
        )
        lines = (
            service.lines[0].model_copy(update={"dish": "p", "without": ("vegan",)}),
            service.lines[0].model_copy(update={"dish": "p", "without": ()}),
        )
        plan = plan_service(
            service.model_copy(update={"lines": lines, "force": {}, "on_hand": ()}),
            {"p": potato},
            sheets,
            kitchen,
            PANS,
        )
        self.assertEqual([line.refused for line in plan.lines], [True, False])


if __name__ == "__main__":
    unittest.main()
