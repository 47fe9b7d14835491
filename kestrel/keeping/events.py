"""What can happen to what is kept, as documents. Each has a key made where it was done, and its moment."""

from typing import Annotated, Any, Literal

from pydantic import Field

from kestrel.stove.acts import ActBase

Words = Annotated[str, Field(min_length=1, max_length=300)]


class Temperature(ActBase):
    """What a probe said, read by a cook, °C."""

    kind: Literal["temperature"]
    celsius: Annotated[float, Field(ge=-60, le=150)]


class Drawn(ActBase):
    """So many grams taken out, and what for."""

    kind: Literal["drawn"]
    grams: Annotated[float, Field(gt=0, le=1_000_000)]
    purpose: Annotated[str, Field(max_length=120)] = ""


class Thrown(ActBase):
    """Thrown away, so many grams (None: all that is left), and why."""

    kind: Literal["thrown"]
    grams: Annotated[float, Field(gt=0, le=1_000_000)] | None = None
    reason: Words


class Frozen(ActBase):
    """Into the freezer."""

    kind: Literal["frozen"]


class Thawed(ActBase):
    """Out of the freezer into the fridge."""

    kind: Literal["thawed"]


class Action(ActBase):
    """What was done about a rule that was missed."""

    kind: Literal["action"]
    words: Words


class WasNotSo(ActBase):
    """An event that was not so; it stays written down, and counts no more."""

    kind: Literal["corrected"]
    of: Annotated[str, Field(min_length=8, max_length=40)]
    why: Words


AnyEvent = Annotated[
    Temperature | Drawn | Thrown | Frozen | Thawed | Action | WasNotSo,
    Field(discriminator="kind"),
]


def counted(events: list[Any]) -> list[Any]:
    """Of ``events`` in order those that count: not corrected since."""
    void = {one.data["of"] for one in events if one.kind == "corrected"}
    return [one for one in events if one.key not in void]
