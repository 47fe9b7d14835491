"""Bracketed root finding.

Chandrupatla's method (Advances in Engineering Software 28, 1997), the one behind scipy's
``elementwise.find_root``. Written out here because importing ``scipy.optimize`` alone takes
most of the second that the whole command line may take; a test holds it against scipy.
"""

import math
from collections.abc import Callable


def find_root(f: Callable[[float], float], low: float, high: float, xtol: float) -> float:
    """x in [``low``, ``high``] with f(x) = 0 to within ``xtol``.

    ``f`` must differ in sign at the ends; an infinite value counts as its sign. Raises
    ValueError otherwise.

    >>> round(find_root(lambda x: x * x - 2, 0, 2, 1e-12), 9)
    1.414213562
    """
    b, fb = low, f(low)
    if fb == 0.0:
        return b
    a, fa = high, f(high)
    if fa == 0.0:
        return a
    if (fa > 0.0) == (fb > 0.0):
        raise ValueError("the root is not between low and high")
    c, fc = a, fa
    t = 0.5
    for _ in range(200):
        x = a + t * (b - a)
        fx = f(x)
        if (fx > 0.0) == (fa > 0.0):
            c, fc = a, fa
        else:
            c, fc = b, fb
            b, fb = a, fa
        a, fa = x, fx
        nearest = a if abs(fa) < abs(fb) else b
        width = abs(b - a)
        if fx == 0.0 or width < xtol:
            return nearest
        tolerance = 0.5 * xtol / width
        t = 0.5
        xi = (a - b) / (c - b)
        span = fc - fb
        phi = (fa - fb) / span if span else 0.5
        # Inverse quadratic interpolation where the three points allow it, else bisection.
        if phi * phi < xi and (1.0 - phi) ** 2 < 1.0 - xi and fb != fa and fc != fa:
            t = fa / (fb - fa) * fc / (fb - fc) + (c - a) / (b - a) * fa / (fc - fa) * fb / (
                fc - fb
            )
            if math.isnan(t):  # an infinite end gives no slope
                t = 0.5
        t = min(1.0 - tolerance, max(tolerance, t))
    raise ValueError("the root was not found")  # pragma: no cover - bisection alone needs fewer
