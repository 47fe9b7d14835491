"""A sentence before it is said: a code and its facts. Its words are in the catalogue."""

from collections.abc import Mapping, Sequence
from functools import reduce
from typing import Any, Protocol, runtime_checkable

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, core_schema, to_jsonable_python

from saucier.words.catalogue import template
from saucier.words.ways import filled_in


class Sentence:
    """``code`` names it in the catalogue, ``facts`` are the numbers and names in it.

    Programs go by the code. ``str()`` says it; in JSON it is what it says. Facts may be sentences
    themselves, or several names.

    >>> str(say("mounted"))
    'from here on it must not boil: its butter falls out'
    """

    __slots__ = ("code", "facts")

    def __init__(self, code: str, facts: Mapping[str, object]) -> None:
        self.code = code
        self.facts = facts

    def __str__(self) -> str:
        shown = {name: _shown(fact) for name, fact in self.facts.items()}
        return filled_in(template(self.code), shown)

    def __format__(self, spec: str) -> str:
        """As it is said; ``lower`` as it runs within another sentence."""
        words = str(self)
        if spec == "lower":
            return words[:1].lower() + words[1:]
        return format(words, spec)

    def __repr__(self) -> str:
        return f"say({self.code!r}, {dict(self.facts)!r})"

    def __eq__(self, other: object) -> bool:
        if not isinstance(other, Sentence):
            return NotImplemented
        return self.code == other.code and self.facts == other.facts

    def __hash__(self) -> int:
        return hash(self.code)

    @classmethod
    def __get_pydantic_core_schema__(cls, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        kept = core_schema.no_info_after_validator_function(said, core_schema.str_schema())
        return core_schema.union_schema(
            [core_schema.is_instance_schema(cls), kept],
            serialization=core_schema.plain_serializer_function_ser_schema(str),
        )

    @classmethod
    def __get_pydantic_json_schema__(
        cls, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> JsonSchemaValue:
        return {"type": "string"}


def say(code: str, **facts: object) -> Sentence:
    """The sentence ``code`` of the catalogue, with its ``facts``."""
    return Sentence(code, facts)


def one_of(names: Sequence[object]) -> object:
    """Several names to choose from: "a or b or c".

    >>> str(one_of(["milk", "cream"]))
    'milk or cream'
    """
    return _joined("or", names)


def weight(grams: float) -> Sentence:
    """A weight as it is told, kilos from one on.

    >>> str(weight(465.2)), str(weight(2390.0)), str(weight(4.26))
    ('465 g', '2.39 kg', '4.3 g')
    """
    if grams >= 1000.0:
        return say("figure.kilograms", kg=grams / 1000.0)
    return say("figure.grams" if grams >= 10.0 else "figure.tenths", grams=grams)


def all_of(names: Sequence[object]) -> object:
    """Several names together: "a and b"."""
    return _joined("and", names)


def _joined(code: str, names: Sequence[object]) -> object:
    if not names:
        return ""
    return reduce(lambda first, second: say(code, first=first, second=second), names)


def said(words: str) -> Sentence:
    """What was said once and kept as words, such as a plan stored with its batch."""
    return say("said", words=words)


@runtime_checkable
class SaysItself(Protocol):
    """A fact that says itself as the kitchen writes it, such as an amount."""

    def said(self) -> Sentence: ...


def _shown(fact: object) -> object:
    """A fact as a template can format it: several names as a list of them."""
    if isinstance(fact, str | float | int):  # nearly all, and to ask a protocol takes long
        return fact
    if isinstance(fact, tuple | list):
        return ", ".join(str(_shown(part)) for part in fact)
    if isinstance(fact, SaysItself):
        return fact.said()
    return "" if fact is None else fact


def plain(result: object) -> Any:
    """Any result of the core as plain data for JSON, its sentences said."""
    return to_jsonable_python(result, fallback=str)
