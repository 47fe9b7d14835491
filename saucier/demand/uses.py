"""The uses of a sauce, read from ``uses.csv``: a new use is one line there."""

import csv
from dataclasses import dataclass, replace
from difflib import get_close_matches
from pathlib import Path

from saucier.errors import BadInput
from saucier.kitchen import Kitchen

PASTA_BASIS = "pasta-100g"
"""The basis of a use that is measured by the dry pasta it goes over."""


@dataclass(frozen=True, slots=True)
class SauceUse:
    """A use: counted in ``counted_in``, usually ``each`` of them a portion, ``start_portions`` to
    begin with, ``per_ml`` mL for each counted one (usual range ``low_ml`` to
    ``high_ml``), with the grade, salt and serving temperature that go with it. ``basis`` is what a
    dish counts them by: ``portion``, ``piece``, ``solids-g``, ``pasta-100g``, ``filling-100g`` of
    each portion, or ``vessel-cm2`` of each vessel. Cost and energy are told for ``told_times`` of
    them, called ``told_for``: a gram of solids is nothing to speak of."""

    key: str
    name: str
    counted_in: str
    start_portions: float
    each: float
    per_ml: float
    low_ml: float
    high_ml: float
    grade: str
    salt_pct: float
    serving_c: float
    why: str
    basis: str
    told_for: str
    told_times: float


def _read() -> dict[str, SauceUse]:
    numbers = frozenset(
        (
            "start_portions",
            "each",
            "per_ml",
            "low_ml",
            "high_ml",
            "salt_pct",
            "serving_c",
            "told_times",
        )
    )
    with Path(__file__).with_name("uses.csv").open(encoding="utf-8", newline="") as file:
        return {
            row["key"]: SauceUse(**{k: float(v) if k in numbers else v for k, v in row.items()})  # type: ignore[arg-type]
            for row in csv.DictReader(file)
        }


USES: dict[str, SauceUse] = _read()


def use_named(key: str, kitchen: Kitchen | None = None) -> SauceUse:
    """The use called ``key``, with the amount ``kitchen`` gives where it has its own. Raises
    :class:`BadInput` (field ``use``).

    >>> use_named('nap').per_ml
    55.0
    """
    if key not in USES:
        if near := get_close_matches(key, USES, n=1):
            raise BadInput.at("use", "is-no-use-but-near-one", key=key[:40], near=near[0])
        raise BadInput.at("use", "is-no-use", key=key[:40], uses=tuple(USES))
    own = kitchen.per_ml.get(key) if kitchen else None
    return USES[key] if own is None else replace(USES[key], per_ml=own)
