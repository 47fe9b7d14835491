"""What a cook types of weights and counts, read; what is wrong is told by field."""

import math
from typing import Any

from saucier.errors import BadInput, Problem, problem
from saucier.units import Dimension, is_nothing, read_amount


def grams_typed(
    text: str, field: str, problems: list[Problem], *, nothing: bool = False
) -> float | None:
    """Grams in ``text`` such as "2310 g" (a bare number is grams; empty: None). ``nothing``: 0 is an answer."""
    if nothing and is_nothing(text):
        return 0.0
    if not text.strip():
        return None
    try:
        amount = read_amount(text, "g")
    except BadInput as bad:
        problems.extend(bad.under(field).problems)
        return None
    if amount.dimension is not Dimension.WEIGHT:
        problems.append(problem(field, "weighed-is-no-weight", amount=amount))
        return None
    return amount.base


def without_pan(
    grams: float, pan: dict[str, Any], field: str, problems: list[Problem], least: float = 0.0
) -> float:
    """``grams`` less the weight of the empty pan; at least ``least`` has to be left."""
    tare = float(pan.get("tare_g") or 0.0)
    if not tare:
        problems.append(problem(field, "pan-weight-is-unknown"))
    elif grams - tare < least or grams == tare == 0.0:
        problems.append(problem(field, "weighs-less-than-its-pan", tare_g=tare))
    return grams - tare


def count_typed(text: str, field: str, most: float, problems: list[Problem]) -> float | None:
    """A number of portions in ``text``; empty: None."""
    if not text.strip():
        return None
    try:
        count = float(text.strip().replace(",", "."))
    except ValueError:
        count = -1.0
    if not (math.isfinite(count) and 0.0 <= count <= most):
        problems.append(problem(field, "so-many-portions", most=most))
        return None
    return count
