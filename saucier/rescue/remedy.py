"""A remedy: what to do about a sauce, its price, and where it leads."""

from collections.abc import Iterable
from dataclasses import dataclass, field

from saucier.check import State, check
from saucier.errors import BadInput
from saucier.rescue.case import Case
from saucier.sheet import Sheet
from saucier.steps import AnyStep


@dataclass(frozen=True, slots=True)
class Remedy:
    """``title`` and ``do`` tell the cook; ``steps`` are the same as steps of a sheet, empty where
    nothing goes into the pot. ``minutes`` and ``cost`` are its price, ``loses_g`` what is lost
    on the way. ``after`` is the pot afterwards. ``refused`` says why it cannot be done, and
    then nothing else counts. ``notes`` are what else it moves.
    """

    way: str
    title: str
    do: tuple[str, ...] = ()
    steps: tuple[AnyStep, ...] = ()
    minutes: float = 0.0
    cost: float = 0.0
    loses_g: float = 0.0
    after: State | None = None
    refused: str | None = None
    notes: tuple[str, ...] = field(default=())


def applied(sheet: Sheet, remedy: Remedy) -> Sheet:
    """``sheet`` with the steps of ``remedy`` at its end."""
    return sheet.model_copy(update={"steps": (*sheet.steps, *remedy.steps)})


def refused(way: str, title: str, why: str) -> Remedy:
    return Remedy(way, title, refused=why)


def remedy_of(
    case: Case,
    way: str,
    title: str,
    do: Iterable[str],
    steps: Iterable[AnyStep] = (),
    *,
    loses_g: float = 0.0,
    minutes: float | None = None,
) -> Remedy:
    """A remedy with its price and its consequences worked out; refused where the steps cannot
    be taken. ``minutes`` None: what the steps take."""
    steps = tuple(steps)
    mended = Remedy(way, title, tuple(do), steps)
    try:
        after = check(applied(case.sheet, mended), case.kitchen).final
    except BadInput as bad:
        return refused(way, title, f"{bad.problems[0].message}. {bad.problems[0].remedy}")
    before = case.now.final
    took = after.pot.minutes - before.pot.minutes if minutes is None else minutes
    return Remedy(
        way,
        title,
        tuple(do),
        steps,
        took,
        after.pot.cost - before.pot.cost,
        loses_g,
        after,
        None,
        _notes(case, before, after),
    )


def _notes(case: Case, before: State, after: State) -> tuple[str, ...]:
    """What else a remedy moves: salt, fat, thickness, size, where these move enough to taste."""
    old, new = before.as_dict(), after.as_dict()
    told = [
        f"{name} {old[key]:.{digits}f} → {new[key]:.{digits}f} {unit}"
        for key, name, unit, least, digits in (
            ("salt_pct", "salt", "%", 0.02, 2),
            ("fat_pct", "fat", "%", 0.3, 1),
            ("acid_pct", "acid", "%", 0.05, 2),
            ("yield_ml", "makes", "mL", 5.0, 0),
        )
        if abs(new[key] - old[key]) >= least
    ]
    target = case.salt_target_pct
    if target is not None and new["salt_pct"] < target - 0.02 and new["total_g"] > old["total_g"]:
        told.append(f"salt again to {target:g} %: {_salt_to_add(new, target):.1f} g")
    told += [text for text in new["warnings"] if text not in old["warnings"]]
    fresh = sorted(set(new["allergens"]) - set(old["allergens"]))
    if fresh:
        told.append(f"brings {', '.join(fresh)}")
    return tuple(told)


def _salt_to_add(state: dict[str, float], target_pct: float) -> float:
    return float(state["mass_g"] * (target_pct - state["salt_pct"]) / (100.0 - target_pct))
