"""What can happen to what is kept, as documents. Each has a key made where it was done, and its moment."""

from typing import Annotated, Any, Literal

from pydantic import Field

from kestrel.stove.acts import ActBase, Typed

Tray = Annotated[int, Field(ge=1, le=100)]
Celsius = Annotated[float, Field(ge=-60, le=150)]
Words = Annotated[str, Field(min_length=1, max_length=300)]


class Temperature(ActBase):
    """What a probe said, read by a cook, °C: of which ``tray`` (None: of the pot, before it was shared out, or of the
    only one)."""

    kind: Literal["temperature"]
    celsius: Celsius
    tray: Tray | None = None


Grams = Annotated[float, Field(gt=0, le=1_000_000)] | Typed


class Drawn(ActBase):
    """So many grams taken out (or as it is typed: "600 mL", "3 ladles", "half a litre"), and what for. ``although``:
    asked and answered that it is to be used, though nothing shows that it cooled in time, or its day is past."""

    kind: Literal["drawn"]
    grams: Grams
    purpose: Annotated[str, Field(max_length=120)] = ""
    tray: Tray | None = None
    although: bool = False


class Thrown(ActBase):
    """Thrown away, so many grams (as of what is drawn; None: all that is left), and why."""

    kind: Literal["thrown"]
    grams: Grams | None = None
    reason: Words
    tray: Tray | None = None


class Frozen(ActBase):
    """Into the freezer."""

    kind: Literal["frozen"]


class Thawed(ActBase):
    """Out of the freezer into the fridge."""

    kind: Literal["thawed"]


class Action(ActBase):
    """What was done about a rule that was missed; of one ``tray``, or of all. It makes nothing kept that was not."""

    kind: Literal["action"]
    words: Words
    tray: Tray | None = None


class WasNotSo(ActBase):
    """An event or a device's reading (``reading-`` and its number) that was not so; it stays written down, and
    counts no more. ``celsius``: what it really was, where a temperature was wrong."""

    kind: Literal["corrected"]
    of: Annotated[str, Field(min_length=8, max_length=40)]
    why: Words
    celsius: Celsius | None = None


AnyEvent = Annotated[
    Temperature | Drawn | Thrown | Frozen | Thawed | Action | WasNotSo,
    Field(discriminator="kind"),
]


class Warmed(ActBase):
    """Warmed on the stove: what is asked of its middle (``asked_c``), the hottest that was read of it (None: nobody read
    it), and whether that shows it (``met``). Written by the stove alone."""

    kind: Literal["warmed"]
    asked_c: Celsius
    met: bool
    celsius: Celsius | None = None


Recorded = Annotated[AnyEvent | Warmed, Field(union_mode="left_to_right")]
"""All that stands in the record: what can be told from outside, and what the stove writes."""


def counted(events: list[Any]) -> list[Any]:
    """Of ``events`` in order those that count: not corrected since."""
    void = {one.data["of"] for one in events if one.kind == "corrected"}
    return [one for one in events if one.key not in void]
