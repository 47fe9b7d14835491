"""Steps in the making: what goes in by line and share, until amounts are known."""

from dataclasses import dataclass, field
from typing import Any

from saucier.document import written_amount
from saucier.exchange.lines import ReadLine
from saucier.exchange.mentions import Take
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient, spoken_role
from saucier.units import Amount
from saucier.words import Sentence, say

_RANKS = {
    "add-fat": 0,
    "sweat": 1,
    "roux": 2,
    "dust": 2,
    "deglaze": 3,
    "flame": 3,
    "add": 4,
    "use": 4,
    "infuse": 5,
    "simmer": 6,
    "reduce": 6,
    "strain": 7,
    "blend": 7,
    "liaison": 8,
    "melt": 9,
    "finish": 10,
    "mount": 10,
    "season": 11,
}
"""The order sauces are made in, for what the method does not place."""


@dataclass(frozen=True, slots=True)
class Portion:
    """So much of line ``line`` as one step takes: a share, an amount, or (None) what is left."""

    line: int
    take: Take = 1.0


@dataclass(eq=False)
class Draft:
    """A step with its portions in their fields; ``of`` is the larder row it is about."""

    op: str
    portions: dict[str, Portion] = field(default_factory=dict)
    rest: dict[str, Any] = field(default_factory=dict)
    of: Ingredient | None = None
    inside: list["Draft"] = field(default_factory=list)

    @property
    def rank(self) -> int:
        fat = self.op == "add" and self.of is not None and self.of.role == "fat"
        return _RANKS["add-fat" if fat else self.op]


@dataclass
class Made:
    """``drafts`` in order, ``lines`` with those the method added and those ``beside`` the sauce,
    sentences ``used`` by number. ``tasted``: salted at the end, by tongue."""

    drafts: list[Draft]
    lines: list[ReadLine]
    assumed: list[Sentence]
    used: set[int]
    tasted: bool
    beside: set[int]


def steps_of(made: Made, amounts: dict[int, Amount], kitchen: Kitchen) -> list[dict[str, Any]]:
    """The drafts as a sheet writes them, with ``amounts`` by line; portions of lines without one are
    left out, with their step."""
    grams = {n: kitchen.larder[made.lines[n].ingredient or ""].grams(a) for n, a in amounts.items()}
    taken: dict[int, float] = dict.fromkeys(grams, 0.0)
    # "The rest of the milk" is what no other step says it takes, whichever comes first.
    said: dict[int, float] = dict.fromkeys(grams, 0.0)
    for one in (one for draft in made.drafts for one in (draft, *draft.inside)):
        for line, take in ((p.line, p.take) for p in one.portions.values() if p.line in grams):
            if isinstance(take, Amount):
                said[line] += kitchen.larder[made.lines[line].ingredient or ""].grams(take)
            elif take is not None:
                said[line] += take * grams[line]
    left = {line: max(0.0, whole - said[line]) for line, whole in grams.items()}

    def amount(portion: Portion) -> dict[str, Any] | None:
        line, take = portion.line, portion.take
        if line not in amounts:
            return None
        row = kitchen.larder[made.lines[line].ingredient or ""]
        whole = grams[line]
        if take is None or isinstance(take, Amount):
            want = left[line] if take is None else min(row.grams(take), whole - taken[line])
            if want <= 0.0:
                return None
            taken[line] += want
            if take is None:
                left[line] = 0.0
            if want < whole:
                return written_amount(Amount(round(want, 1), "g"))
            return written_amount(amounts[line])
        taken[line] += take * whole
        return written_amount(amounts[line] if take == 1.0 else amounts[line].times(take))

    def written(draft: Draft) -> dict[str, Any] | None:
        step: dict[str, Any] = {"op": draft.op, **draft.rest}
        if draft.op == "use":
            inner = [one for one in map(written, draft.inside) if one]
            if not any(one["op"] == "add" for one in inner):
                return None
            return {
                "op": "use",
                "sauce": {
                    "name": str(say("steeped-liquid", of=spoken_role(_role(draft)))),
                    "steps": inner,
                },
            }
        for name, portion in draft.portions.items():
            given = amount(portion)
            if given is None:
                return None
            key = made.lines[portion.line].ingredient
            part = {"ingredient": key, "amount": given}
            step.update(part if name == "" else {name: part})
        return step

    return [step for draft in made.drafts if (step := written(draft)) is not None]


def _role(draft: Draft) -> str:
    """The role of the liquid of a pot made inside."""
    first = draft.inside[0].of
    return first.role if first is not None else "water"
