"""A pot played many times, each time a little off, building nothing but the pot itself."""

import math
import operator
import random
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from statistics import NormalDist

from saucier.check import Prepared
from saucier.errors import BadInput
from saucier.pot import EMPTY, Balance, Pot
from saucier.steps import AS_WRITTEN, Dust, Knobs, Pouring, PreparedSteps, Roux, Setting, StepBase
from saucier.steps import Move as StepMove
from saucier.steps.roux import powered
from saucier.sure.doubts import ADDED, ALL, BOIL, EYE, FAT, FLOUR, Doubt, Move

SEED = 20260611
_ALIKE = 1e-9
Part = tuple[int, int, float]
"""A doubt, a part of the balance (by their numbers), and how much of it a full share off brings."""


def stratified(count: int, many: int, seed: int = SEED) -> list[tuple[float, ...]]:
    """``many`` draws of ``count`` standard normals, each evenly spread over its strata (a Latin
    hypercube: McKay, Beckman, Conover 1979), the same every time.

    >>> draws = stratified(2, 100)
    >>> abs(sum(z for z, _ in draws)) < 0.5
    True
    """
    chosen = random.Random(seed)
    normal = NormalDist().inv_cdf
    column = [normal((n + 0.5) / many) for n in range(many)]
    # The middles of strata spread a little less than what they stand for.
    wide = math.sqrt(sum(z * z for z in column) / many)
    column = [z / wide for z in column]
    columns = []
    for _ in range(count):
        columns.append(column.copy())
        chosen.shuffle(columns[-1])
    return list(zip(*columns, strict=True)) if columns else [()] * many


@dataclass(frozen=True, slots=True)
class _Stretch:
    """Steps that do nothing but bring something in: what they bring, and the pot as it is
    ``after`` them, but for its sauce."""

    brings: Balance
    after: Pot
    off: tuple[Part, ...]


@dataclass(frozen=True, slots=True)
class _Step:
    """Any other step, played for every variant; ``off`` is what is in the pot beside what was meant."""

    number: int
    move: StepMove
    off: tuple[Part, ...]


class Variants:
    """``prepared`` at what its ``doubts`` may be off by: played at draws of standard normals, one for
    each doubt. A variant is the pot at its end alone: no state, no words, no cards; and steps that
    only bring something in are played once and added, as a mass balance may be."""

    def __init__(self, prepared: Prepared, doubts: Sequence[Doubt]) -> None:
        self._doubts = tuple(doubts)
        self._spreads = [doubt.spread for doubt in doubts]
        self._tree = _Tree(prepared, self._doubts, ())
        self._parts = self._in_parts(prepared)

    def play(self, draw: Sequence[float]) -> Pot:
        """The pot in the end where every doubt is off by its number of spreads in ``draw``. Raises
        :class:`BadInput` where it boils dry."""
        exp = math.exp
        factors = [exp(spread * z) for spread, z in zip(self._spreads, draw, strict=True)]
        turned = self._tree.turned(factors)
        pot = Pot()
        for part in self._parts:
            if isinstance(part, _Stretch):
                parts = list(map(operator.add, pot.balance, part.brings))
                pot = part.after._replace(
                    balance=_off(parts, part.off, factors),
                    pieces=pot.pieces,
                    lifted=pot.lifted,
                    set_aside=pot.set_aside,
                    split=pot.split or part.after.split,
                )
            else:
                pot = part.move(pot, turned.get(part.number, AS_WRITTEN))
                if part.off:
                    pot = pot._replace(balance=_off(list(pot.balance), part.off, factors))
            pot = pot.settled()
        return pot

    def plays(self, draws: Sequence[Sequence[float]]) -> Iterator[Pot | None]:
        """The pot at each of ``draws``; None where it boils dry."""
        for draw in draws:
            try:
                yield self.play(draw)
            except BadInput:
                yield None

    def _in_parts(self, prepared: Prepared) -> list["_Stretch | _Step"]:
        parts: list[_Stretch | _Step] = []
        before = Pot()
        for number, after in enumerate(prepared.walk()):
            step, setting = prepared.steps[number], prepared.settings[number]
            after = after._replace(remarks=())
            brought = _brought(step, setting)
            whole = EMPTY
            for one in brought.values():
                whole = whole.plus(one)
            if not brought or not _only_adds(before, after, whole):
                move, off = prepared.moves[number], tuple(self._tree.added.get(number, ()))
                parts.append(_Step(number, move, off))
            else:
                off = (*self._tree.added.get(number, ()), *self._tree.measured(number, brought))
                last = parts[-1] if parts else None
                if isinstance(last, _Stretch):
                    parts[-1] = _Stretch(last.brings.plus(whole), after, (*last.off, *off))
                else:
                    parts.append(_Stretch(whole, after, off))
            before = after
        return parts


def _brought(step: StepBase, setting: Setting) -> dict[str, Balance]:
    """What ``step`` brings in by what it weighs, by the part of it; nothing for what does more."""
    found: dict[str, Balance] = {}
    if step.inside is not None:
        return found
    for one in step.to_weigh(setting):
        row = setting.ingredient(one.ingredient) if one.ingredient else None
        if row is None or row.piece:
            return {}
        part = one.field.partition(".")[0]
        if isinstance(step, Dust) or (isinstance(step, Roux) and part == FLOUR):
            row = powered(row, step.colour)
        found[part] = EMPTY.plus(row.per_gram, one.grams)
    return found


def _only_adds(before: Pot, after: Pot, brought: Balance) -> bool:
    """Whether what was ``brought`` is all that changed in the sauce."""
    size = 1.0 + abs(after.balance.mass_g)
    alike = all(
        abs(now - was - more) <= _ALIKE * size
        for now, was, more in zip(after.balance, before.balance, brought, strict=True)
    )
    return alike and before.pieces == after.pieces and before.lifted == after.lifted


def _off(parts: list[float], off: Sequence[Part], factors: Sequence[float]) -> Balance:
    """A balance of ``parts`` with what is in it beside what was meant; nothing of it below nothing."""
    for doubt, part, by in off:
        more = parts[part] + (factors[doubt] - 1.0) * by
        parts[part] = more if more > 0.0 else 0.0
    return Balance._make(parts)


class _Tree:
    """Which doubts act at which step, and in the sauces inside."""

    def __init__(
        self, prepared: PreparedSteps, doubts: Sequence[Doubt], path: tuple[int, ...]
    ) -> None:
        self._turned: dict[int, list[tuple[str, int]]] = {}
        self.added: dict[int, list[Part]] = {}
        self._steps = len(prepared.steps)
        for number, doubt in enumerate(doubts):
            for move in doubt.at:
                if len(move.path) == len(path) + 1 and move.path[:-1] == path:
                    self._take(number, move)
        self._inside = {
            number: _Tree(move.inside, doubts, (*path, number))
            for number, move in enumerate(prepared.moves)
            if isinstance(move, Pouring) and prepared.steps[number].inside
        }

    def _take(self, number: int, move: Move) -> None:
        step = move.path[-1]
        if move.moves == ADDED:
            self.added.setdefault(step, []).extend(_parts(number, move.by))
        else:
            self._turned.setdefault(step, []).append((move.moves, number))

    def measured(self, step: int, brought: dict[str, Balance]) -> list[Part]:
        """What the wrong measures of ``step`` bring in beside what was meant."""
        off: list[Part] = []
        for what, number in self._turned.pop(step, ()):
            names = brought if what == ALL else {what}
            for name in names:
                off += _parts(number, brought[name])
        return off

    def turned(self, factors: Sequence[float]) -> dict[int, Knobs]:
        """The knobs of the steps at which something is off."""
        found: dict[int, Knobs] = {}
        for step, doubts in self._turned.items():
            scale = flour = fat = boil = eye = 1.0
            for what, number in doubts:
                factor = factors[number]
                if what == FLOUR:
                    flour *= factor
                elif what == FAT:
                    fat *= factor
                elif what == ALL:
                    scale *= factor
                elif what == BOIL:
                    boil *= factor
                elif what == EYE:
                    eye *= factor
            found[step] = Knobs(scale * fat, flour / fat, None, None, boil, eye)
        for step, inside in self._inside.items():
            own = inside.turned(factors)
            each = tuple(own.get(number, AS_WRITTEN) for number in range(inside._steps))
            found[step] = found.get(step, AS_WRITTEN)._replace(each=each)
        return found


def _parts(number: int, by: Balance) -> list[Part]:
    return [(number, part, amount) for part, amount in enumerate(by) if amount]
