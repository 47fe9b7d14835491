"""The worked examples in docstrings and in docs/model.md, run; and the places the code refers to."""

import ast
import doctest
import importlib
import pkgutil
import re
import unittest
from pathlib import Path

import saucier

ROOT = Path(__file__).resolve().parents[2]
MODEL = ROOT / "docs" / "model.md"


def load_tests(
    loader: unittest.TestLoader, tests: unittest.TestSuite, pattern: str | None
) -> unittest.TestSuite:
    for module in pkgutil.walk_packages(saucier.__path__, "saucier."):
        if ".tests" not in module.name and not module.name.endswith("__main__"):
            tests.addTests(doctest.DocTestSuite(importlib.import_module(module.name)))
    tests.addTests(doctest.DocFileSuite(str(MODEL), module_relative=False))
    return tests


ROOMS_OF_THE_MODEL = ("pot", "thickness", "heat", "seasoning", "units")


class Examples(unittest.TestCase):
    def test_every_function_of_the_model_shows_one(self) -> None:
        functions = [
            (f"{room}/{path.name}: {node.name}", ast.get_docstring(node) or "")
            for room in ROOMS_OF_THE_MODEL
            for path in sorted((ROOT / "saucier" / room).glob("*.py"))
            for node in ast.parse(path.read_text(encoding="utf-8")).body
            if isinstance(node, ast.FunctionDef) and not node.name.startswith("_")
        ]
        self.assertGreater(len(functions), 30)
        self.assertEqual([name for name, words in functions if ">>>" not in words], [])


class References(unittest.TestCase):
    def test_every_place_the_code_names_is_in_the_model(self) -> None:
        headings = set(re.findall(r"^## (\d+) ", MODEL.read_text(encoding="utf-8"), re.MULTILINE))
        named = {
            (path.name, number)
            for path in (ROOT / "saucier").rglob("*.py")
            for number in re.findall(r"docs/model\.md (\d+)", path.read_text(encoding="utf-8"))
        }
        self.assertGreater(len(named), 10)
        self.assertEqual({one for one in named if one[1] not in headings}, set())
