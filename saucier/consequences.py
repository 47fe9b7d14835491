"""What differs between two ways of making a sauce, in numbers."""

from saucier.check import CheckedSheet, check
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.thickness import spoken_grade
from saucier.words import Sentence, say

_TOLD = {
    "minutes": 0.1,
    "fat_pct": 0.1,
    "salt_pct": 0.02,
    "alcohol_pct": 0.02,
    "acid_pct": 0.01,
    "temperature_c": 2.0,
    "cost": 0.02,
}
"""Figures worth telling where they move by so much."""
_EDGES = 0.05
"""So does how sure it is, by this share of the factor from edge to edge."""


def consequences(was: Sheet, now: Sheet, kitchen: Kitchen) -> tuple[Sentence, ...]:
    """What differs between two ways of making a sauce."""
    return told(check(was, kitchen), check(now, kitchen))


def told(before: CheckedSheet, after: CheckedSheet) -> tuple[Sentence, ...]:
    """What differs between two checked sheets, or one sheet in two kitchens."""
    a, b = before.figures, after.figures
    moves = []
    flour = before.final.pot.balance.flour, after.final.pot.balance.flour
    if abs(flour[1] - flour[0]) > 0.02 * max(flour) and max(flour) > 1:
        moves.append(say("moves-flour", was=flour[0], now=flour[1]))
    for name, least in _TOLD.items():
        was, now = getattr(a, name), getattr(b, name)
        if abs(now - was) >= least:
            moves.append(say(f"moves-{name}", was=was, now=now))
    if a.grade != b.grade:
        grades = (spoken_grade(g) if g else say("no-grade") for g in (a.grade, b.grade))
        moves.append(say("moves-grade", was=next(grades), now=next(grades)))
    if a.viscosity_pa_s and b.viscosity_pa_s:
        edges = before.final.thickness.edges, after.final.thickness.edges
        if abs(edges[1] / edges[0] - 1.0) > _EDGES:
            moves.append(say("moves-how-sure", was=edges[0], now=edges[1]))
    if len(before.steps) != len(after.steps):
        moves.append(say("moves-steps", was=len(before.steps), now=len(after.steps)))
    was, now = ({str(w): w for w in side.warnings} for side in (a, b))
    moves += [say("is-new", what=w) for text, w in now.items() if text not in was]
    moves += [say("is-no-longer", what=w) for text, w in was.items() if text not in now]
    return tuple(moves)
