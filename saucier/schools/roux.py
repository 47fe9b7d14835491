"""Schools of the roux: its fat, how liquid meets it, how long it simmers."""

from saucier import constants as K
from saucier.kitchen import Kitchen
from saucier.schools.school import School, index_of, with_method, with_steps
from saucier.sheet import Sheet
from saucier.steps import (
    FLOURED,
    Add,
    Melt,
    Reduce,
    Roux,
    Simmer,
    Use,
)

# --- fat to flour ----------------------------------------------------------------------


def _fat_followed(sheet: Sheet, kitchen: Kitchen) -> str | None:
    at = index_of(sheet, Roux)
    if at is None:
        return None
    roux = sheet.steps[at]
    assert isinstance(roux, Roux)
    ratio = sheet.method.fat_to_flour
    if ratio is None:
        ratio = roux.fat.amount.base / roux.flour.amount.base
    return min(K.FAT_TO_FLOUR, key=lambda key: abs(K.FAT_TO_FLOUR[key] - ratio))


def _fat_rewrite(sheet: Sheet, choice: str, kitchen: Kitchen) -> Sheet:
    return with_method(sheet, fat_to_flour=K.FAT_TO_FLOUR[choice])


# --- liquid into roux ------------------------------------------------------------------


def _liquids_after_roux(sheet: Sheet) -> tuple[int, int, int] | None:
    """Index of the roux, and the stretch of liquids it meets, before or after it."""
    at = index_of(sheet, Roux)
    if at is None:
        return None
    end = at + 1
    while end < len(sheet.steps) and isinstance(sheet.steps[end], Add | Use):
        end += 1
    if end > at + 1:
        return at, at + 1, end
    first = at
    while first > 0 and isinstance(sheet.steps[first - 1], Add | Use | Simmer | Reduce):
        first -= 1
    return (at, first, at) if first < at else None


def _liquid_followed(sheet: Sheet, kitchen: Kitchen) -> str | None:
    return sheet.method.liquid_in if _liquids_after_roux(sheet) else None


def _liquid_rewrite(sheet: Sheet, choice: str, kitchen: Kitchen) -> Sheet:
    stretch = _liquids_after_roux(sheet)
    assert stretch is not None
    at, first, end = stretch
    steps = list(sheet.steps)
    roux = steps[at]
    liquids = [
        step.model_copy(update={"temperature_c": K.LIQUID_IN_C[choice]})
        if isinstance(step, Add | Use) and not isinstance(step, Melt)
        else step
        for step in steps[first:end]
    ]
    last = choice == "cold-roux-into-boiling"
    both = [*liquids, roux] if last else [roux, *liquids]
    rest_from, rest_to = min(at, first), max(at + 1, end)
    steps[rest_from:rest_to] = both
    return with_method(with_steps(sheet, steps), liquid_in=choice)


# --- how long to simmer ----------------------------------------------------------------
_SIMMERS = {"short": (2.0, "simmer"), "medium": (8.0, "simmer"), "long": (30.0, "bare-simmer")}


def _floured_simmer(sheet: Sheet) -> int | None:
    floured = index_of(sheet, FLOURED)
    if floured is None:
        return None
    return next(
        (n for n, s in enumerate(sheet.steps) if n > floured and isinstance(s, Simmer)), None
    )


def _simmer_followed(sheet: Sheet, kitchen: Kitchen) -> str | None:
    at = _floured_simmer(sheet)
    if at is None:
        return None
    step = sheet.steps[at]
    assert isinstance(step, Simmer)
    return min(_SIMMERS, key=lambda key: abs(_SIMMERS[key][0] - step.minutes))


def _simmer_rewrite(sheet: Sheet, choice: str, kitchen: Kitchen) -> Sheet:
    at = _floured_simmer(sheet)
    assert at is not None
    minutes, heat = _SIMMERS[choice]
    steps = list(sheet.steps)
    steps[at] = steps[at].model_copy(update={"minutes": minutes, "heat": heat})
    return with_method(with_steps(sheet, steps), simmer_minutes=minutes)


FAT_TO_FLOUR = School(
    "fat-to-flour",
    ("drier", "equal", "more-fat", "spoonfuls"),
    _fat_followed,
    _fat_rewrite,
)
LIQUID_IN = School(
    "liquid-in",
    ("cold-gradual", "warm-stream", "hot-at-once", "cold-roux-into-boiling"),
    _liquid_followed,
    _liquid_rewrite,
)
SIMMER = School(
    "simmer",
    ("short", "medium", "long"),
    _simmer_followed,
    _simmer_rewrite,
)
