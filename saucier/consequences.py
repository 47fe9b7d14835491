"""What differs between two ways of making a sauce, told in words with numbers."""

from saucier.check import CheckedSheet, check
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet


def consequences(was: Sheet, now: Sheet, kitchen: Kitchen) -> tuple[str, ...]:
    """What differs between two ways of making a sauce, in words with numbers."""
    return told(check(was, kitchen), check(now, kitchen))


def told(before: CheckedSheet, after: CheckedSheet) -> tuple[str, ...]:
    """What differs between two checked sheets, or one sheet in two kitchens."""
    a, b = before.as_dict(), after.as_dict()
    found = []
    flour = before.final.pot.balance.flour, after.final.pot.balance.flour
    if abs(flour[1] - flour[0]) > 0.02 * max(flour) and max(flour) > 1:
        found.append(f"flour {flour[0]:.0f} → {flour[1]:.0f} g")
    for key, name, unit, least, digits in (
        ("minutes", "time", "min", 0.1, 1),
        ("fat_pct", "fat", "%", 0.1, 1),
        ("salt_pct", "salt", "%", 0.02, 2),
        ("alcohol_pct", "alcohol left", "%", 0.02, 2),
        ("acid_pct", "acid", "%", 0.01, 2),
        ("temperature_c", "leaves the ring at", "°C", 2, 0),
        ("cost", "cost", "", 0.02, 2),
    ):
        if abs(b[key] - a[key]) >= least:
            found.append(f"{name} {a[key]:.{digits}f} → {b[key]:.{digits}f} {unit}".rstrip())
    if a["grade"] != b["grade"]:
        found.append(f"grade {a['grade'] or 'none'} → {b['grade'] or 'none'}".replace("-", " "))
    if a["viscosity_pa_s"] and b["viscosity_pa_s"]:
        edges = [s["viscosity_high_pa_s"] / s["viscosity_low_pa_s"] for s in (a, b)]
        if abs(edges[1] / edges[0] - 1.0) > 0.05:
            found.append(f"how sure: a factor {edges[0]:.1f} → {edges[1]:.1f} from edge to edge")
    if len(before.steps) != len(after.steps):
        found.append(f"steps {len(before.steps)} → {len(after.steps)}")
    found += [f"new: {text}" for text in b["warnings"] if text not in a["warnings"]]
    found += [f"no longer: {text}" for text in a["warnings"] if text not in b["warnings"]]
    return tuple(found)
