"""What is said of an evening by one who knows the truth."""

from collections.abc import Iterable
from dataclasses import dataclass

from standins.evening.app import App
from standins.evening.pots import grade_of
from standins.evening.records import false_lines
from standins.evening.run import Evening, Plate


@dataclass(frozen=True)
class Verdict:
    """Each list in words. ``grades_missed`` of ``plates`` served; ``short``: lines that got too little; ``given``: what a
    guest got who goes without it; ``lost``: acts that were taken and are not among what the batch says was done;
    ``false``: lines of a record that are not true; ``broken``: the app's own errors."""

    plates: int
    grades_missed: tuple[str, ...]
    short: tuple[str, ...]
    given: tuple[str, ...]
    false: tuple[str, ...]
    lost: tuple[str, ...]
    broken: tuple[str, ...]
    dead_ends: tuple[str, ...]

    @property
    def worst(self) -> tuple[str, ...]:
        """What must never be, whatever the kitchen is like."""
        return (*self.given, *self.false, *self.lost, *self.broken, *self.dead_ends)


def judge(evening: Evening) -> Verdict:
    app = evening.app
    refused = (f"refused: {call.method} {call.path}: {call.said}" for call in app.refused)
    false, lost = tuple(false_lines(evening.kitchen)), tuple(_lost(app))
    return Verdict(
        len(evening.plates),
        tuple(_off(plate) for plate in evening.plates if grade_of(plate.eta) != plate.wanted),
        tuple(f"too little sauce: {words}" for words in evening.short),
        tuple(_given(evening.plates)),
        false,
        lost,
        tuple(f"{call.status}: {call.method} {call.path}: {call.said}" for call in app.broken),
        (*evening.dead_ends, *refused),
    )


def _off(plate: Plate) -> str:
    return f"{plate.line}: {plate.sauce} is {grade_of(plate.eta)}, {plate.wanted} was wanted"


def _given(plates: Iterable[Plate]) -> Iterable[str]:
    for plate in plates:
        for key in plate.brings & set(plate.without):
            yield f"{plate.line}: {key} was given, with {plate.sauce}"


def _lost(app: App) -> Iterable[str]:
    """Acts that were taken and are not there; what a later one takes the place of stays there too."""
    kept_keys: dict[int, set[str]] = {}
    for act in app.acts:
        if act.batch not in kept_keys:
            batch = app.ask("GET", f"/stove/{act.batch}")
            kept_keys[act.batch] = {kept["key"] for kept in (batch or {"acts": []})["acts"]}
        if act.taken and act.said["kind"] in _TOLD and act.key not in kept_keys[act.batch]:
            yield f"batch {act.batch}: {act.said['kind']} is not told any more"


_TOLD = frozenset({"saw", "put", "mended", "go", "timer-on"})
"""Kinds that a batch tells of."""
