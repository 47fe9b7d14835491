"""How well recipes are read: lines and steps beside their right answers, in ``recipes/*.toml``."""

import sys
import tomllib
from dataclasses import dataclass, field
from difflib import SequenceMatcher
from pathlib import Path
from typing import Any

from saucier.exchange import Reading, read_recipe
from saucier.kitchen import Kitchen
from saucier.sheet import write_sheet
from saucier.units import Amount

FOLDER = Path(__file__).with_name("recipes")
_ALIKE = {"finish": "season", "deglaze": "add"}
"""Steps that are as right for the same thing: a herb or mustard stirred in last, wine into the pan."""


@dataclass
class Score:
    """Lines ``right`` without a question, ``asked``, and silently ``wrong`` (each told); steps that
    are ``in_place`` out of ``steps``, and how they differ."""

    right: int = 0
    asked: list[str] = field(default_factory=list)
    wrong: list[str] = field(default_factory=list)
    in_place: int = 0
    steps: int = 0
    differ: list[str] = field(default_factory=list)

    @property
    def lines(self) -> int:
        return self.right + len(self.asked) + len(self.wrong)

    def plus(self, other: "Score") -> None:
        self.right += other.right
        self.asked += other.asked
        self.wrong += other.wrong
        self.in_place += other.in_place
        self.steps += other.steps
        self.differ += other.differ


def cases(*, held: bool) -> list[Path]:
    """The recipes worked with, or those held back."""
    return sorted(path for path in FOLDER.glob("*.toml") if path.name.startswith("held-") == held)


def scored(path: Path, kitchen: Kitchen) -> Score:
    case = tomllib.loads(path.read_text(encoding="utf-8"))
    reading = read_recipe(case["text"], kitchen)
    score = Score()
    _lines(score, path.stem, case["lines"], reading, kitchen)
    _steps(score, path.stem, case["steps"], reading)
    return score


def _lines(score: Score, name: str, wanted: list[str], reading: Reading, kitchen: Kitchen) -> None:
    left = list(enumerate(reading.lines))
    stepped = _ingredients(write_sheet(reading.sheet)["steps"]) if reading.sheet else set()
    asks = wanted.count("ask")
    for want in wanted:
        if want == "ask":
            continue
        key, _, amount = want.partition(" ")
        found = next((one for one in left if one[1].ingredient == key), None)
        if amount == "beside":
            found = next((one for one in left if (one[1].ingredient or "").startswith(key)), None)
        if found is not None:
            left.remove(found)
        line = found[1] if found else None
        told = f"{name}: {want}: {line.status + ' ' + str(line.amount) if line else 'nothing'}"
        if amount == "beside":
            # Said to go with it, or not spoken of at all: never in the pot.
            (score.wrong.append(told) if line and key in stepped else _right(score))
        elif line is None and want == "salt taste" and "salt" in stepped:
            _right(score)
        elif line is None:
            open_ones = [one for one in reading.lines if one.status in ("settle", "unread")]
            asked = any(
                key.split("-")[0] in one.text.lower() or key in one.guesses for one in open_ones
            )
            (score.asked if asked else score.wrong).append(told)
        elif line.status in ("settle", "unread"):
            score.asked.append(told)
        elif amount == "taste":
            fine = line.amount is None or line.status == "ours"
            _right(score) if fine else score.wrong.append(told)
        elif amount == "blank":
            _right(score) if line.status == "ours" else score.wrong.append(told)
        else:
            grams = kitchen.larder[key].grams(line.amount) if line.amount else 0.0
            value, _, unit = amount.partition(" ")
            meant = kitchen.larder[key].grams(Amount(float(value), unit or "g"))
            near = abs(grams - meant) <= max(0.035 * meant, 0.25)
            _right(score) if near and line.status == "read" else score.wrong.append(told)
    for _, line in left:
        if line.status in ("settle", "unread"):
            if asks:
                asks -= 1
                _right(score)
            else:
                score.asked.append(f"{name}: asked of {line.text!r}: {line.why}")
        elif line.ingredient in stepped and line.ingredient not in ("water",):
            score.wrong.append(f"{name}: not in it: {line.text!r} as {line.ingredient}")
    for _ in range(asks):
        score.wrong.append(f"{name}: should have asked once more")


def _right(score: Score) -> None:
    score.right += 1


def _ingredients(steps: list[dict[str, Any]]) -> set[str]:
    return {
        word for step in spoken(steps) for part in step.split()[1:2] for word in part.split("+")
    }


def spoken(steps: list[dict[str, Any]]) -> list[str]:
    """Steps in a word or three: what, of what, how long or how far."""
    told: list[str] = []
    for step in steps:
        if step["op"] == "use":
            told += [one for one in spoken(step["sauce"]["steps"]) if one != "strain"]
            continue
        parts = [step.get("ingredient", "")] + [
            step[name]["ingredient"] for name in ("fat", "flour", "yolk", "cream") if name in step
        ]
        if step["op"] == "season" and not parts[0]:
            parts = ["salt"]
        to = step.get("to", "")
        if isinstance(to, dict):
            to = next(iter(to.values()))
        if isinstance(to, dict):
            to = f"{to['value']:g} {to['unit']}"
        last = step.get("minutes", "") if step["op"] != "reduce" else to
        shown = f"{last:g}" if isinstance(last, float) else str(last)
        words = [step["op"], "+".join(part for part in parts if part), shown]
        told.append(" ".join(word for word in words if word))
    return told


def _steps(score: Score, name: str, wanted: list[str], reading: Reading) -> None:
    found = spoken(write_sheet(reading.sheet)["steps"]) if reading.sheet else []
    pairs = SequenceMatcher(
        None,
        [_bare(one, wanted) for one in found],
        [_bare(one, wanted) for one in wanted],
        autojunk=False,
    )
    score.steps += len(wanted)
    score.in_place += sum(block.size for block in pairs.get_matching_blocks())
    if pairs.ratio() < 1:
        score.differ.append(f"{name}:\n    wanted {wanted}\n    found  {found}")


def alike(step: str) -> str:
    """A step by a word that stands for those that are as right."""
    op, _, rest = step.partition(" ")
    return f"{_ALIKE.get(op, op)} {rest}"


def _bare(step: str, wanted: list[str]) -> str:
    """A step without what the answer leaves open: minutes where it gives none, ops as right."""
    op, _, rest = step.partition(" ")
    op = _ALIKE.get(op, op)
    for want in wanted:
        want_op, _, want_rest = want.partition(" ")
        if op == _ALIKE.get(want_op, want_op) and rest.startswith(f"{want_rest} ") and want_rest:
            return f"{op} {want_rest}"
    return f"{op} {rest}"


def main(held: bool, one: str = "") -> None:
    """Prints the score of the recipes, all that is not right beside it."""
    total, kitchen = Score(), Kitchen()
    for path in cases(held=held):
        if one in path.name:
            total.plus(scored(path, kitchen))
    print("\n".join([*total.wrong, "", *total.asked, "", *total.differ]))
    print(
        f"lines {total.right}/{total.lines} right, {len(total.asked)} asked, {len(total.wrong)} wrong;",
        end=" ",
    )
    print(f"steps {total.in_place}/{total.steps}")


if __name__ == "__main__":
    main("held" in sys.argv, next((word for word in sys.argv[1:] if word != "held"), ""))
