"""The sauces made for a sauce, each in a pot of its own."""

import re
from collections.abc import Iterable
from dataclasses import dataclass, replace

from saucier.check.checked import CheckedSheet, check
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.steps import AnyStep, Setting, ShareOfIt, SheetPan, Use


@dataclass(frozen=True, slots=True)
class PotInside:
    """A sauce made for ``step`` (of the sheet at ``of``) of another: its ``key``, such as
    "white-sauce" or "white-sauce/onion-cream", the ``sheet`` as it is made there with its pan named,
    played; the ``used_g`` of it that go in. What is over stays in its pot."""

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


def keys_inside(steps: Iterable[AnyStep]) -> dict[int, str]:
    """The key of the sauce made for each ``use`` step, by the number of the step: the sauce's name, so
    that a step put in before it or taken out changes no key. Shares of one sauce have one key; other
    sauces of the same name are numbered in their order.

    >>> from saucier.testing import add, sheet, use
    >>> white, other = (use([add(of, 1, "L")], "half") for of in ("milk-whole", "water"))
    >>> list(keys_inside(sheet(white, add("water", 1, "L"), other, white).steps).items())
    [(0, 'inside'), (2, 'inside-2'), (3, 'inside')]
    """
    keys: dict[int, str] = {}
    shared: list[tuple[Use, str]] = []
    for number, step in enumerate(steps):
        if not isinstance(step, Use) or step.ready:
            continue
        share = isinstance(step.amount, ShareOfIt)
        same = [key for other, key in shared if share and other.sauce == step.sauce]
        if same:
            keys[number] = same[0]
            continue
        name = re.sub(r"\W+", "-", step.sauce.name.casefold()).strip("-")
        if not name or name.isdecimal():  # a number alone was the key until December 2026
            name = f"sauce-{name}".rstrip("-")
        key, count = name, 1
        while key in keys.values():
            count += 1
            key = f"{name}-{count}"
        keys[number] = key
        if share:
            shared.append((step, key))
    return keys


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
    keys = keys_inside(checked.sheet.steps)
    for number, (step, setting) in enumerate(
        zip(checked.sheet.steps, checked.settings, strict=True)
    ):
        if not isinstance(step, Use) or step.ready:
            continue
        key = f"{of}/{keys[number]}" if of else keys[number]
        same = next((n for n, pot in enumerate(pots) if pot.key == key), None)
        if same is not None:
            assert isinstance(step.amount, ShareOfIt)
            more = step.amount.share * pots[same].made_g
            pots[same] = replace(pots[same], used_g=pots[same].used_g + more)
            continue
        made = _as_made(step, setting, checked)
        inner = check(made, kitchen)
        pots += pots_inside(inner, kitchen, key)
        pots.append(PotInside(key, of, number, made, inner, step.to_weigh(setting)[0].grams))
    return tuple(pots)


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
