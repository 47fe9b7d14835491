"""The sauces made for a sauce, each in a pot of its own."""

from dataclasses import dataclass

from saucier.check.checked import CheckedSheet, check
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.steps import Setting, ShareOfIt, SheetPan, Use


@dataclass(frozen=True, slots=True)
class PotInside:
    """A sauce made for ``step`` (of the sheet at ``of``) of another: its ``key``, such as "2" or
    "2.0", the ``sheet`` as it is made there with its pan named, played; the ``used_g`` of it that
    go in. What is over stays in its pot."""

    key: str
    of: str
    step: int
    sheet: Sheet
    checked: CheckedSheet
    used_g: float

    @property
    def made_g(self) -> float:
        return self.checked.final.pot.total_g

    @property
    def left_g(self) -> float:
        """What is made of it and not used here, g."""
        return max(0.0, self.made_g - self.used_g)


def pots_inside(checked: CheckedSheet, kitchen: Kitchen, of: str = "") -> tuple[PotInside, ...]:
    """The pots made before the sauce of ``checked``, in the order they are made in. Shares of one
    and the same sauce come from one pot.

    >>> from saucier.testing import add, sheet, use
    >>> from saucier.kitchen import Kitchen
    >>> filling = sheet(use([add("milk-whole", 1, "L")], {"value": 515, "unit": "g"}))
    >>> made = pots_inside(check(filling), Kitchen())[0]
    >>> made.sheet.steps[0].amount.value, round(made.left_g, 3)
    (0.5, 0.0)
    """
    pots: list[PotInside] = []
    for number, (step, setting) in enumerate(
        zip(checked.sheet.steps, checked.settings, strict=True)
    ):
        if not isinstance(step, Use) or step.ready:
            continue
        if isinstance(step.amount, ShareOfIt):
            same = next((n for n, pot in enumerate(pots) if _same(pot, checked, step)), None)
            if same is not None:
                more = step.amount.share * pots[same].made_g
                pots[same] = _with(pots[same], used_g=pots[same].used_g + more)
                continue
        key = f"{of}.{number}" if of else str(number)
        made = _as_made(step, setting, checked)
        inner = check(made, kitchen)
        pots += pots_inside(inner, kitchen, key)
        pots.append(PotInside(key, of, number, made, inner, step.to_weigh(setting)[0].grams))
    return tuple(pots)


def _same(pot: PotInside, checked: CheckedSheet, step: Use) -> bool:
    """Whether ``step`` takes of the sauce ``pot`` holds."""
    other = checked.sheet.steps[pot.step] if pot.step < len(checked.sheet.steps) else None
    return (
        isinstance(other, Use)
        and isinstance(other.amount, ShareOfIt)
        and not other.ready
        and other.sauce == step.sauce
        and pot.sheet.name == step.sauce.name
    )


def _with(pot: PotInside, *, used_g: float) -> PotInside:
    return PotInside(pot.key, pot.of, pot.step, pot.sheet, pot.checked, used_g)


def _as_made(step: Use, setting: Setting, checked: CheckedSheet) -> Sheet:
    """The sauce inside as a sheet by itself, so much of it as is made."""
    pouring = step.pouring(setting)
    sauce = pouring.sauce_as_weighed()
    return Sheet(
        name=sauce.name,
        method=sauce.method,
        pan=SheetPan.of(pouring.inside.pan),
        burner=sauce.burner,
        lid=sauce.lid,
        target=checked.sheet.target.model_copy(
            update={"grade": None, "volume": None, "serves": None, "salt_pct": None}
        ),
        steps=sauce.steps,
    )
