"""Every sentence the code names is in the catalogue, with the facts it needs, and none is idle."""

import ast
import re
import string
import tomllib
from collections.abc import Iterator
from functools import cache
from pathlib import Path
from unittest import TestCase

from saucier.words import Sentence, all_of, one_of, plain, said, say, sentences
from saucier.words.catalogue import REMEDY

CORE = Path(__file__).resolve().parents[2]
_MAKES = {"say": 0, "_told": 0, "at": 1, "problem": 1, "Problem": 1}
"""Calls that name a sentence, and which of their arguments is its code."""


def _calls() -> Iterator[tuple[str, ast.Call, ast.expr]]:
    """Every call of the core that names a sentence: where, the call, its code as written."""
    for path in sorted(CORE.rglob("*.py")):
        if "tests" in path.parts:
            continue
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if not isinstance(node, ast.Call):
                continue
            name = getattr(node.func, "attr", getattr(node.func, "id", ""))
            at = _MAKES.get(name)
            if at is None or len(node.args) <= at:
                continue
            if name == "at" and "BadInput" not in ast.unparse(node.func):
                continue
            yield f"{path.name}:{node.lineno}", node, node.args[at]


def _codes(code: ast.expr) -> list[str]:
    """The codes an expression may name, as patterns: one for each branch of a choice."""
    if isinstance(code, ast.Constant):
        return [re.escape(str(code.value))]
    if isinstance(code, ast.IfExp):
        return _codes(code.body) + _codes(code.orelse)
    if isinstance(code, ast.JoinedStr):
        parts = (
            re.escape(str(part.value)) if isinstance(part, ast.Constant) else ".+"
            for part in code.values
        )
        return ["".join(parts)]
    return []


def _needs(template: str) -> set[str]:
    return {name for _, name, _, _ in string.Formatter().parse(template) if name}


class Catalogue(TestCase):
    def test_what_the_code_names_is_there_with_its_facts(self) -> None:
        there = sentences()

        @cache
        def named(pattern: str) -> list[str]:
            told = re.compile(rf"{pattern}(\.(title|do|cue))?")
            return [code for code in there if told.fullmatch(code)]

        for where, call, code in _calls():
            whole = not any(keyword.arg is None for keyword in call.keywords)
            given = {keyword.arg for keyword in call.keywords if keyword.arg}
            for pattern in _codes(code):
                found = named(pattern)
                with self.subTest(at=where, code=pattern):
                    self.assertTrue(found)
                    named_in_full = isinstance(code, ast.Constant) and call.keywords and whole
                    if named_in_full and not isinstance(call.func, ast.Attribute):
                        for one in found:
                            self.assertLessEqual(_needs(there[one]), given)

    def test_problems_have_a_remedy_and_their_facts(self) -> None:
        there = sentences()
        for where, call, code in _calls():
            name = getattr(call.func, "attr", getattr(call.func, "id", ""))
            if name not in ("at", "problem") or not isinstance(code, ast.Constant):
                continue
            given = {keyword.arg for keyword in call.keywords}
            with self.subTest(at=where, code=code.value):
                self.assertTrue(code.value + REMEDY in there)
                needs = _needs(there[code.value]) | _needs(there[code.value + REMEDY])
                self.assertLessEqual(needs, given)

    def test_nothing_is_in_it_that_nobody_says(self) -> None:
        patterns = {pattern for _, _, code in _calls() for pattern in _codes(code)}
        patterns |= {f"{one}.(title|do|cue)" for one in patterns}
        text = "\n".join(
            path.read_text(encoding="utf-8")
            for path in CORE.rglob("*.py")
            if "tests" not in path.parts
        )
        whole = re.compile("|".join(f"(?:{one})" for one in sorted(patterns)))
        for code in sentences():
            if code.endswith(REMEDY) or whole.fullmatch(code):
                continue
            with self.subTest(code=code):
                self.assertTrue(f'"{code}"' in text)

    def test_every_template_can_be_filled_in(self) -> None:
        for code, template in sentences().items():
            for _, name, spec, conversion in string.Formatter().parse(template):
                with self.subTest(code=code, fact=name):
                    self.assertIsNone(conversion)
                    self.assertTrue(name is None or name.isidentifier())
                    self.assertRegex(spec or "", r"^(lower|\.?\d?[fg])?$")

    def test_no_code_stands_twice(self) -> None:
        codes: list[str] = []

        def walk(table: dict[str, object], under: str = "") -> None:
            for name, value in table.items():
                if isinstance(value, dict):
                    walk(value, f"{under}{name}.")
                else:
                    codes.append(under + name)

        for path in (CORE / "words" / "en").glob("*.toml"):
            walk(tomllib.loads(path.read_text(encoding="utf-8")))
        self.assertEqual(len(codes), len(set(codes)))


class Said(TestCase):
    def test_facts_are_put_in(self) -> None:
        self.assertEqual(
            str(say("short-boil", minutes=1.0, full_min=3.0)),
            "boiled 1 min: give it 3, or it tastes of raw flour",
        )

    def test_a_sentence_within_another_begins_small(self) -> None:
        base = say("base.white", liquid="milk")
        self.assertEqual(f"{base:lower}", "white roux with milk")
        self.assertIn("own base is white roux", str(say("made-to-share", base=base)))

    def test_several_names(self) -> None:
        self.assertEqual(str(one_of(["a", "b", "c"])), "a or b or c")
        self.assertEqual(str(all_of(["a", "b"])), "a and b")
        self.assertEqual(str(all_of([])), "")
        found = say("brings-allergens", allergens=("egg", "milk"))
        self.assertEqual(str(found), "brings egg, milk")

    def test_code_and_facts_make_it_the_same(self) -> None:
        self.assertEqual(say("too-cool", temperature_c=60.0), say("too-cool", temperature_c=60.0))
        self.assertNotEqual(
            say("too-cool", temperature_c=60.0), say("too-cool", temperature_c=61.0)
        )
        self.assertNotEqual(say("mounted"), "mounted")

    def test_in_json_it_is_what_it_says(self) -> None:
        self.assertEqual(plain({"cue": say("blend.cue")}), {"cue": "no grain between the fingers"})

    def test_what_was_kept_as_words_stays_as_it_was(self) -> None:
        kept = said("no grain {at all}")
        self.assertIsInstance(kept, Sentence)
        self.assertEqual(str(kept), "no grain {at all}")
