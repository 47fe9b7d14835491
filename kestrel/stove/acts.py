"""What can be done at a batch, as documents. Each has a key made where it was done, and its moment."""

from typing import Annotated, Any, Literal

from ninja import Schema
from pydantic import Field

from kestrel.fields import Key, Moment

MAX_TIMER_S = 24 * 60 * 60
Typed = Annotated[str, Field(max_length=80)]
Words = Annotated[str, Field(max_length=300)]


class ActBase(Schema):
    """``key`` is any text of 8 to 40 letters that no other act has; ``at`` is by the device's own clock. ``done_by``:
    who was cooking at the device then, where it is sent later (None: who is now)."""

    key: Key
    at: Moment
    done_by: int | None = None


class Go(ActBase):
    """From one step to another: 0 is the first, one past the last is the weighing."""

    kind: Literal["go"]
    from_step: int
    to_step: int


class TimerOn(ActBase):
    """A timer started over ``seconds``; one of the same ``name`` is started anew. ``step`` is the step's
    own, which ends with it."""

    kind: Literal["timer-on"]
    name: Annotated[str, Field(min_length=1, max_length=60)] = "step"
    seconds: int


class TimerOff(ActBase):
    kind: Literal["timer-off"]
    name: Annotated[str, Field(min_length=1, max_length=60)] = "step"


class Saw(ActBase):
    """Something seen of the pot at a step (docs/model.md 17), or read off a probe in it (``probe``, °C). What the scale reads or how deep it stands may be as it
    is typed: "1.2 kg", "4 cm"."""

    kind: Literal["saw"]
    step: int
    what: Literal["scale", "level", "gone", "spoon", "boils", "probe"]
    value: float | Typed = 1.0


class Put(ActBase):
    """What really went in at a step for what the sheet has there as ``field``: ``grams`` where it was weighed, or
    ``amount`` as it is typed ("80 mL", "3 ladles"; a bare number is of ``unit``), of which the grams are reckoned as it
    comes. ``sure``: it was asked whether so much is meant, and it is."""

    kind: Literal["put"]
    step: int
    field: Annotated[str, Field(min_length=1, max_length=60)]
    grams: float | None = None
    amount: Typed | None = None
    unit: Annotated[str, Field(max_length=40)] = ""
    sure: bool = False


class PouredIn(ActBase):
    """What went in at a step as ``field``, told by what a cook can see: a ``jug`` that held ``before`` and
    holds ``after``, mL; the ``scale`` that reads ``after`` with the pan on it, g; the ``level`` of the pot
    ``after`` it, mm; each as a number or as it is typed. The grams are reckoned as it comes."""

    kind: Literal["poured"]
    step: int
    field: Annotated[str, Field(min_length=1, max_length=60)]
    how: Literal["jug", "scale", "level"]
    after: float | Typed
    before: float | Typed = 0.0


class Added(ActBase):
    """Cooked free hand: the next step as it is done, as a sheet has it (docs/formats/sheet). ``sure`` as of what is
    put."""

    kind: Literal["added"]
    put: dict[str, Any]
    sure: bool = False


class Stands(ActBase):
    """On which ring it stands, and whose it is, by their names; empty: nobody says. ``pan``: the one of the larder's that it
    stands in (None: the one it stood in), from its beginning."""

    kind: Literal["stands"]
    ring: Annotated[str, Field(max_length=60)] = ""
    cook: Annotated[str, Field(max_length=60)] = ""
    pan: Annotated[str, Field(max_length=60)] | None = None


class Through(ActBase):
    """What is no sauce is off the fire, and done."""

    kind: Literal["through"]


class Turn(Schema):
    """An amount of a step to come, g."""

    step: int
    field: Annotated[str, Field(min_length=1, max_length=60)]
    grams: float


class Turned(ActBase):
    """What is still to come, weighed otherwise: solved again for the grade."""

    kind: Literal["turned"]
    changes: Annotated[list[Turn], Field(min_length=1, max_length=60)]


class TookRemedy(ActBase):
    """A remedy that was taken: its sign, its words, and what went in as steps of a sheet."""

    kind: Literal["mended"]
    sign: Annotated[str, Field(max_length=40)]
    title: Annotated[str, Field(max_length=120)]
    do: Annotated[list[Words], Field(max_length=8)] = []
    steps: Annotated[list[dict[str, Any]], Field(max_length=8)] = []


class Corrected(ActBase):
    """At a step that corrects: so many grams of what was held back went in (of flour, with as much
    butter)."""

    kind: Literal["corrected"]
    step: int
    grams: Annotated[float, Field(ge=0, le=100_000)]


class Skipped(ActBase):
    """A step of its sheet that is not done: nothing of it goes in."""

    kind: Literal["skipped"]
    step: int


class Noted(ActBase):
    """Something to remember; ``tasted``: of its taste."""

    kind: Literal["noted"]
    text: Annotated[str, Field(min_length=1, max_length=500)]
    tasted: bool = False


class Undone(ActBase):
    """An act that was not so: a look, a weight, a note. It stays written down, and counts no more."""

    kind: Literal["undone"]
    of: Annotated[str, Field(min_length=8, max_length=40)]


class Left(ActBase):
    """Taken off unfinished."""

    kind: Literal["left"]


class Back(ActBase):
    """Put back on, where it was."""

    kind: Literal["back"]


AnyAct = Annotated[
    Go
    | TimerOn
    | TimerOff
    | Saw
    | Put
    | PouredIn
    | Added
    | Turned
    | Stands
    | TookRemedy
    | Corrected
    | Skipped
    | Noted
    | Undone
    | Through
    | Left
    | Back,
    Field(discriminator="kind"),
]


class ActsIn(Schema):
    """Acts in the order they were done. ``sent_at`` is the device's clock as it sends them: what it is off
    by is taken off their moments."""

    acts: Annotated[list[AnyAct], Field(min_length=1, max_length=200)]
    sent_at: Moment


class ActOut(Schema):
    """What became of an act: ``taken``, or ``why`` not."""

    key: str
    taken: bool
    why: str
