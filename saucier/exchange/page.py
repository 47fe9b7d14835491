"""A schema.org Recipe in what a cook pastes: JSON-LD as it is, or a saved page that holds it as
JSON-LD or as microdata."""

import html
from collections.abc import Iterator
from html.parser import HTMLParser
from typing import Any

from saucier.errors import BadInput
from saucier.strict import load


def find_recipe(text: str) -> dict[str, Any] | None:
    """The first schema.org Recipe in ``text``; None where there is none."""
    for document in _documents(text):
        for node in _nodes(document):
            kinds = node.get("@type")
            kinds = kinds if isinstance(kinds, list) else [kinds]
            if any(str(kind).rpartition("/")[2] == "Recipe" for kind in kinds):
                return node
    return _by_its_keys(text) or _microdata(text)


_LISTED = ("recipeingredient", "ingredients", "ingredientlines", "ingredient_list")
_DONE = ("recipeinstructions", "instructions", "steps", "method", "directions", "preparation")
_YIELDS = ("recipeyield", "yield", "yields", "servings", "serves", "portions")
_PARTS = (
    ("quantity", "amount", "qty"),
    ("unit", "measure"),
    ("name", "ingredient", "item"),
    ("prep", "preparation", "note"),
)
"""What other programs call the same, in small letters."""


def _by_its_keys(text: str) -> dict[str, Any] | None:
    """A recipe in JSON of no known kind, told by what its fields are called."""
    if not text.lstrip().startswith(("{", "[")):
        return None
    for node in _nodes(next(_documents(text), None)):
        fields = {str(key).lower(): value for key, value in node.items()}

        def first(names: tuple[str, ...], of: dict[str, Any] = fields) -> Any:
            return next((of[name] for name in names if of.get(name)), None)

        listed = first(_LISTED)
        if isinstance(listed, (list, str)):
            return {
                "name": first(("name", "title")),
                "recipeYield": str(first(_YIELDS) or ""),
                "recipeIngredient": [_said(one) for one in listed]
                if isinstance(listed, list)
                else listed,
                "recipeInstructions": first(_DONE),
            }
    return None


def _said(line: Any) -> str:
    """An ingredient given in fields of its own, as one line."""
    if not isinstance(line, dict):
        return str(line)
    fields = {str(key).lower(): value for key, value in line.items()}
    parts = [next((str(fields[n]) for n in names if fields.get(n)), "") for names in _PARTS]
    told = " ".join(part for part in parts[:3] if part) or str(next(iter(fields.values()), ""))
    return f"{told}, {parts[3]}" if parts[3] else told


def texts(value: Any) -> list[str]:
    """The words in a field that may be a text, a list, or steps and sections of them."""
    if isinstance(value, str):
        return [line.strip() for line in words_of(value).splitlines() if line.strip()]
    if isinstance(value, list):
        return [line for part in value for line in texts(part)]
    if isinstance(value, dict):
        return texts(value.get("itemListElement") or value.get("text") or value.get("name"))
    return []


def words_of(text: str) -> str:
    """``text`` without the marks of HTML: a line for each paragraph, heading, list item, table row.

    >>> words_of("<ul><li>25&nbsp;g butter</li></ul><ol><li>Melt it.</li></ol>").split("\\n")
    ['', '25 g butter', '1. Melt it.', '']
    """
    if "<" not in text and "&" not in text:
        return text
    reader = _Words()
    reader.feed(text)
    reader.close()
    return html.unescape("".join(reader.words)).replace("\xa0", " ")


_LINES = frozenset(
    ("p", "li", "br", "div", "tr", "dt", "dd", "ul", "ol", "table", "section", "article")
) | {f"h{n}" for n in range(1, 7)}
_AROUND = frozenset(("script", "style", "nav", "footer", "aside", "form", "button", "title"))
"""Parts of a page that are no recipe."""


class _Words(HTMLParser):
    """The words of a piece of HTML; what is a line of its own ends the one before."""

    def __init__(self) -> None:
        super().__init__()
        self.words: list[str] = []
        self._around = 0
        self._numbers: list[int] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        if tag in _AROUND:
            self._around += 1
        elif tag in _LINES:
            self._new_line()
        elif tag in ("td", "th"):
            self.words.append(" ")
        if tag in ("ol", "ul"):
            self._numbers.append(1 if tag == "ol" else 0)
        elif tag == "li" and self._numbers and self._numbers[-1]:
            self.words.append(f"{self._numbers[-1]}. ")
            self._numbers[-1] += 1

    def handle_endtag(self, tag: str) -> None:
        if tag in _AROUND:
            self._around = max(0, self._around - 1)
        elif tag in _LINES:
            self._new_line()
        if tag in ("ol", "ul") and self._numbers:
            self._numbers.pop()

    def _new_line(self) -> None:
        if not self.words or self.words[-1] != "\n":
            self.words.append("\n")

    def handle_data(self, data: str) -> None:
        if not self._around and (data.strip() or self.words[-1:] != ["\n"]):
            self.words.append(data)


def _documents(text: str) -> Iterator[Any]:
    for part in (text, *_scripts(text)):
        try:
            yield load(part)
        except BadInput:
            continue


def _nodes(document: Any, depth: int = 0) -> Iterator[dict[str, Any]]:
    """Everything in ``document`` that may be a recipe, the outermost first."""
    if depth > 8:
        return
    if isinstance(document, list):
        for part in document:
            yield from _nodes(part, depth + 1)
    elif isinstance(document, dict):
        yield document
        for part in document.values():
            if isinstance(part, dict | list):
                yield from _nodes(part, depth + 1)


class _Scripts(HTMLParser):
    def __init__(self) -> None:
        super().__init__()
        self.found: list[str] = []
        self._inside = False

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        kind = (dict(attrs).get("type") or "").lower()
        self._inside = tag == "script" and kind.partition(";")[0].strip() == "application/ld+json"
        if self._inside:
            self.found.append("")

    def handle_endtag(self, tag: str) -> None:
        self._inside = False

    def handle_data(self, data: str) -> None:
        if self._inside:
            self.found[-1] += data


def _scripts(text: str) -> list[str]:
    if "<script" not in text.lower():
        return []
    parser = _Scripts()
    parser.feed(text)
    return parser.found


_VOID = frozenset(("br", "img", "meta", "link", "hr", "input", "source", "wbr"))


class _Microdata(HTMLParser):
    """Properties of the first Recipe marked up as microdata, each with its texts."""

    def __init__(self) -> None:
        super().__init__()
        self.found: dict[str, list[str]] = {}
        self._depth = 0
        self._recipe: int | None = None
        self._open: list[tuple[int, str]] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        given = dict(attrs)
        if tag not in _VOID:
            self._depth += 1
        kind = (given.get("itemtype") or "").rstrip("/").rpartition("/")[2]
        if self._recipe is None and kind == "Recipe" and not self.found:
            self._recipe = self._depth
        if self._recipe is None:
            return
        if self._open and tag in ("p", "li", "br", "div"):
            self.handle_data("\n")
        for name in (given.get("itemprop") or "").split():
            if content := given.get("content"):
                self.found.setdefault(name, []).append(content)
            elif tag not in _VOID:
                self.found.setdefault(name, []).append("")
                self._open.append((self._depth, name))

    def handle_endtag(self, tag: str) -> None:
        if tag in _VOID:
            return
        self._open = [(depth, name) for depth, name in self._open if depth < self._depth]
        if self._recipe == self._depth:
            self._recipe, self._open = None, []
        self._depth -= 1

    def handle_data(self, data: str) -> None:
        for name in {name for _, name in self._open}:
            self.found[name][-1] += data


def _microdata(text: str) -> dict[str, Any] | None:
    if "itemtype" not in text.lower():
        return None
    parser = _Microdata()
    parser.feed(text)
    found = parser.found
    lines = found.get("recipeIngredient") or found.get("ingredients")
    if not lines:
        return None
    return {
        "name": " ".join(" ".join(found.get("name", [])[:1]).split()),
        "recipeYield": found.get("recipeYield"),
        "recipeIngredient": [" ".join(line.split()) for line in lines],
        "recipeInstructions": found.get("recipeInstructions"),
    }
