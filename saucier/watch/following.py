"""A sauce followed as it is cooked: what has been done as it was done, what is left from the pot there is."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import NamedTuple

from saucier import constants as K
from saucier.check import (
    CheckedSheet,
    Figures,
    Prepared,
    check,
    hand_spread,
    model_spread_of,
    prepare,
)
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.sheet import Sheet
from saucier.steps import AnyStep, Correct, Lift, Reduce, Reserve, Simmer, Strain, advance
from saucier.steps.reduce import Stop
from saucier.steps.step import amounts_in
from saucier.thickness import grade_named, thickness_of
from saucier.watch.again import Again, solved_again
from saucier.watch.begun import ALL_ALIKE, WATER, Doubt, WentIn, as_it_went_in
from saucier.watch.belief import FULL, PACE, STRENGTH, Prior
from saucier.watch.found import as_found
from saucier.watch.seen import Seen
from saucier.watch.watching import Watched, Watching

_JUST_LOOKED_MIN = 1.0
"""A look so soon before a step is ended is better than that it was."""


@dataclass(frozen=True, slots=True)
class Mend:
    """What went in ``at_min`` minutes after a step began, to mend the sauce: ``steps`` of a remedy."""

    at_min: float
    steps: tuple[AnyStep, ...]


@dataclass(frozen=True, slots=True)
class StepAsDone:
    """What is known of a step that was begun: all that was ``seen`` at it, the ``minutes`` it took, or has
    taken so far, the ``mends`` that went in meanwhile, and of what was held back to correct it, how much
    did (``put_g``; None: as much as was expected)."""

    seen: Sequence[Seen] = ()
    minutes: float = 0.0
    mends: Sequence[Mend] = ()
    put_g: float | None = None


@dataclass(frozen=True, slots=True)
class PotFollowed:
    """A sauce at step ``at``: the ``states`` after every step, those behind as they were found and those
    ahead as they follow; ``watched``: the step it is at, where it boils something off; ``off_g`` and
    ``strength``: how much more is in the pot than planned, and how much stronger it thickens; ``again``:
    what is still to come solved again, where it would not come out."""

    at: int
    states: tuple[Figures, ...]
    watched: Watched | None
    off_g: float
    strength: float
    again: Again | None


@dataclass(frozen=True)
class Following:
    """What is ``told`` of a sauce that is followed, with what that was found by: its sheet ``checked``,
    with the states as they were found; the pot as it stands ``now``, and as it was ``before`` the step it
    is at; by how much stronger it thickens, ``log_strength`` of log η; what went in to mend it, by the
    number of the step it was at; what is believed of it as it is ``watching`` (None: nothing boils off there); what
    was seen to have ``went_in``; and the ``spoon_pa_s`` that was said of the pot as it is now (None: nobody lifted one
    since it was changed last)."""

    told: PotFollowed
    checked: CheckedSheet
    now: Pot
    before: Pot
    log_strength: float
    mends: Mapping[int, tuple[AnyStep, ...]]
    watching: Watching | None = None
    went_in: tuple[WentIn, ...] = ()
    spoon_pa_s: float | None = None

    @property
    def sheet(self) -> Sheet:
        """What was cooked, with what went in as it was seen to have."""
        return as_it_went_in(self.checked.sheet, self.went_in)


class _Settled(NamedTuple):
    """What the pot weighed when it was last seen, and how well that was known, g."""

    mass_g: float
    spread_g: float


class _ByEye(NamedTuple):
    """Something measured by eye: ``grams`` of the ingredient ``key``, off by a standard share of ``spread``;
    ``out_g`` of it were taken out again."""

    key: str
    grams: float
    spread: float
    out_g: float = 0.0

    def share(self, share: float) -> "_ByEye":
        return self._replace(grams=share * self.grams, out_g=share * self.out_g)

    def taken_out(self, before: Pot, after: Pot) -> "_ByEye":
        return self._replace(
            out_g=self.out_g + max(0.0, _pieces_g(before, self.key) - _pieces_g(after, self.key))
        )

    def open_g(self, pot: Pot) -> float:
        """Grams by which ``pot`` is open for it: what of it is in there, by its spread."""
        lifted = sum(piece.mass_g for piece in pot.lifted if piece.key == self.key)
        return self.spread * max(0.0, self.grams - max(self.out_g, lifted))


def _pieces_g(pot: Pot, key: str) -> float:
    return sum(piece.mass_g for piece in pot.pieces if piece.key == key)


@dataclass
class _Known:
    """What is carried from one step to the next; ``unseen`` is how far the strength was open before anything
    was seen, ``paced`` whether a boiling pot was."""

    pot: Pot = field(default_factory=Pot)
    prior: Prior = field(default_factory=Prior)
    strength: float = 0.0
    spread: float = K.STRENGTH_SPREAD
    unseen: float = K.STRENGTH_SPREAD
    paced: bool = False
    settled: _Settled | None = None
    by_eye: list[_ByEye] = field(default_factory=list)
    went_in: list[WentIn] = field(default_factory=list)
    spoon_pa_s: float | None = None
    """What was said of the pot as it is, Pa·s at serving temperature."""

    @classmethod
    def of(cls, prepared: Prepared) -> "_Known":
        """What is known beforehand: less is open where the kitchen has learned of its flour."""
        spread = min(K.STRENGTH_SPREAD, model_spread_of(prepared))
        return cls(prior=Prior(strength_spread=spread), spread=spread, unseen=spread)

    @property
    def mass_spread_g(self) -> float:
        """Grams by which the pot may weigh more or less than is reckoned."""
        return math.sqrt(sum(doubt.grams**2 for doubt in self.doubts))

    @property
    def doubts(self) -> tuple[Doubt, ...]:
        """What it may weigh more, or less, for: what was known when it was last seen (it boils off more, or less) and what
        has gone in since, each by itself; what was measured by eye by its own doubt, as far as it is still in."""
        total = self.pot.total_g
        by_eye = [Doubt(part.key, part.open_g(self.pot), part.grams) for part in self.by_eye]
        if self.settled is None:
            return (Doubt(ALL_ALIKE, K.POURED_SPREAD * total), *by_eye)
        poured = max(0.0, total - self.settled.mass_g)
        boiled = Doubt(WATER, self.settled.spread_g)
        return (boiled, Doubt(ALL_ALIKE, K.POURED_SPREAD * poured), *by_eye)

    def after_step(self, prepared: Prepared, number: int, before: Pot) -> None:
        """Step ``number`` is done: what it measured by eye, what it took out of the pot again."""
        step, setting = prepared.sheet.steps[number], prepared.settings[number]
        if isinstance(step, Reserve):
            self.by_eye = [one.share(1.0 - step.share) for one in self.by_eye]
        if isinstance(step, Strain | Lift):
            self.by_eye = [one.taken_out(before, self.pot) for one in self.by_eye]
        larder = setting.kitchen.larder
        vague = {
            name: spread
            for name, key, amount in amounts_in(step)
            if (spread := hand_spread(amount, larder[key].role if key else ""))
        }
        if vague:  # weighing a sauce made for it plays that sauce: only where something is to be told by eye
            for weighed in step.to_weigh(setting):
                if spread := vague.get(weighed.field, 0.0):
                    self.by_eye.append(_ByEye(weighed.ingredient, weighed.grams, spread))
        self.prior = replace(self.prior, mass_spread_g=self.mass_spread_g, doubts=self.doubts)


def follow(
    sheet: Sheet,
    kitchen: Kitchen,
    at: int,
    done: Mapping[int, StepAsDone],
    planned: Sheet | None = None,
    ahead: int | None = None,
) -> PotFollowed:
    """``sheet`` with what was ``done`` of its steps by number, now at step ``at`` (one past the last: it
    is through). ``planned``: as it was begun, where other amounts went in; ``ahead``: the first step of
    which nothing has gone in yet. Raises :class:`BadInput` as checking does."""
    return following(sheet, kitchen, at, done, planned, ahead).told


def following(
    sheet: Sheet,
    kitchen: Kitchen,
    at: int,
    done: Mapping[int, StepAsDone],
    planned: Sheet | None = None,
    ahead: int | None = None,
    pan: Pan | None = None,
) -> Following:
    """As :func:`follow`, with the pots it was found by. ``pan``: the one it stands in (None: its sheet's, or the one that
    takes it)."""
    checked = check(sheet, kitchen, pan)
    prepared = prepare(sheet, kitchen, checked.pan)
    cook = _Cook(checked, prepared, kitchen)
    told: Watched | None = None
    seen_now: Watching | None = None
    now: Pot | None = None
    here = Pot()
    found: list[Pot] = []
    known = cook.known
    for number in range(len(prepared.moves)):
        before = known.pot
        step = done.get(number) if number <= at else None
        if number <= at:  # what is still to come leaves the pot as it is
            known.spoon_pa_s = None
        watching = cook.does(number, step, going_on=number == at)
        if watching is not None and number == at:
            told, seen_now = watching.told(), watching
            now = as_found(known.pot, watching.belief.mass_g)
        if number == at:
            here = before
        known.after_step(prepared, number, before)
        found.append(known.pot)
    if found and (last_of_all := done.get(len(found))) and at >= len(found):
        cook.as_it_came(last_of_all)
        found[-1] = known.pot
    states = tuple(
        replace(planned, pot=pot, before=before)
        for pot, before, planned in zip(
            found, [Pot(), *found][: len(found)], checked.steps, strict=True
        )
    )
    last = min(at, len(states)) - 1
    off = found[last].total_g - checked.steps[last].pot.total_g if last >= 0 else 0.0
    first = min(at + 1 if ahead is None else ahead, len(found))
    pot = found[first - 1] if first else Pot()
    begun = check(planned, kitchen, pan).steps if planned not in (None, sheet) else checked.steps
    again = solved_again(prepared, begun, kitchen, first, pot)
    if at >= len(found):
        now = here = found[-1] if found else Pot()
    return Following(
        PotFollowed(
            at,
            tuple(_sure(state.figures, known.spread / known.unseen) for state in states),
            told,
            off,
            math.exp(known.strength / K.FLOUR_EXPONENT),
            again,
        ),
        replace(checked, steps=states),
        found[at] if now is None else now,
        here,
        known.strength,
        {
            number: tuple(part for mend in step.mends for part in mend.steps)
            for number, step in done.items()
            if step.mends and number <= at
        },
        seen_now,
        tuple(known.went_in),
        known.spoon_pa_s,
    )


class _Cook:
    """The steps of a sheet done one after the other, each as it was."""

    def __init__(self, checked: CheckedSheet, prepared: Prepared, kitchen: Kitchen) -> None:
        self.checked, self.prepared, self.kitchen = checked, prepared, kitchen
        self.known = _Known.of(prepared)

    def does(self, number: int, step: StepAsDone | None, *, going_on: bool) -> Watching | None:
        """Step ``number`` as it was done (None: as it is planned). What is watched of it, where it boils
        something off."""
        known, move = self.known, self.prepared.moves[number]
        before = known.pot
        if step is None:
            known.pot = advance(before, move)
            return None
        watching = self._boils(number, step, going_on=going_on)
        if watching is not None:
            known.spoon_pa_s = _just_lifted(step)
            return watching
        written = self.checked.sheet.steps[number]
        if isinstance(written, Correct):
            self._lifts(before, step.seen)
            known.pot = self._corrected(written, number, step.put_g)
            known.spoon_pa_s = None  # it was lifted before what was held back went in
            known.pot = self.mended(known.pot, step.mends)
        else:
            known.pot = advance(before, move)
            self.as_it_came(step)
        return None

    def as_it_came(self, step: StepAsDone) -> None:
        """Spoons lifted and what went in to mend it, in the order in which that was: a look is of the pot it was of."""
        known = self.known
        # Of one moment, what went in was first: who says that it did looks at what came of it.
        happened: tuple[Mend | Seen, ...] = (*step.mends, *step.seen)
        for event in sorted(happened, key=lambda event: event.at_min):
            if isinstance(event, Mend):
                known.pot, known.spoon_pa_s = self.mended(known.pot, [event]), None
            else:
                self._lifts(known.pot, [event])

    def mended(self, pot: Pot, mends: Sequence[Mend]) -> Pot:
        """``pot`` with what went in to mend it."""
        for mend in mends:
            steps = self.checked.sheet.model_copy(update={"steps": mend.steps})
            for move in prepare(steps, self.kitchen, self.checked.pan).moves:
                pot = advance(pot, move)
        return pot

    def _boils(self, number: int, step: StepAsDone, *, going_on: bool) -> Watching | None:
        """A step that boils something off, from one mend to the next, each stretch from the pot there was
        then. Of one that is going on, where it will stop is as it was to be."""
        known, move = self.known, self.prepared.moves[number]
        mends = sorted((one for one in step.mends), key=lambda one: one.at_min)
        pot, began = known.pot, 0.0
        watching: Watching | None = None
        at_the_end = () if going_on else self._said_to_be_there(number, step)
        for until, mend in [*((one.at_min, one) for one in mends), (step.minutes, None)]:
            seen = [
                replace(one, at_min=one.at_min - began)
                for one in (*step.seen, *at_the_end)
                if began <= one.at_min and (mend is None or one.at_min < until)
            ]
            watching = Watching.of(
                self.checked, number, seen, max(0.0, until - began), self._prior(number), pot
            )
            if watching is None:
                return None
            looked = any(one.what != "boils" for one in seen)
            if looked:
                self._learns(watching)
            elif not going_on and mend is None:
                self._left_by_eye(number)
            known.pot = advance(watching.begun if looked else pot, move)
            if looked or mends:
                stops = watching.stops_at if going_on and mend is None else watching.belief.mass_g
                off = float(watching.belief.mean[STRENGTH]) if looked else 0.0
                known.pot = as_found(known.pot, stops, off)
            if mend is not None:
                belief = watching.belief
                known.prior = replace(
                    known.prior,
                    full_g=float(belief.mean[FULL]),
                    boiled_min=known.prior.boiled_min + max(0.0, until - began - belief.boils_at),
                )
                pot, began = self.mended(known.pot, [mend]), until
        known.prior = replace(known.prior, full_g=None, boiled_min=0.0)
        return watching

    def _said_to_be_there(self, number: int, step: StepAsDone) -> tuple[Seen, ...]:
        """Who ends a reduction says that it is where it stops: a look as any other, where there were some before and none
        was better. (Of a pot that nobody looked at it is believed as it is: there it is as it was planned.)"""
        looks = [look for look in step.seen if look.what != "boils"]
        if not looks or any(look.what == "scale" for look in looks):
            return ()
        if step.minutes - max(look.at_min for look in looks) < _JUST_LOOKED_MIN:
            return ()
        stop = self._stop(number)
        if stop is None:
            return ()
        if stop.share is not None:
            return (Seen(step.minutes, "gone", 1.0 - stop.share),)
        assert stop.grade is not None
        return (Seen(step.minutes, "spoon", grade_named(stop.grade).target),)

    def _stop(self, number: int) -> Stop | None:
        """Where step ``number`` stops, where that is judged by the eye."""
        step = self.checked.sheet.steps[number]
        stop = step.stop if isinstance(step, Reduce) else None
        return stop if stop is not None and (stop.share or stop.grade) else None

    def _left_by_eye(self, number: int) -> None:
        """A reduction that nobody looked at stops where it was to: as far as an eye can tell."""
        known, stop = self.known, self._stop(number)
        if stop is None:
            return
        mass_g = self.checked.steps[number].pot.total_g
        known.settled = _Settled(mass_g, math.hypot(known.mass_spread_g, K.EYE_SPREAD * mass_g))
        known.by_eye = []

    def _prior(self, number: int) -> Prior:
        """What is known before a step that boils: how fast, where the kitchen has learned that of its pan."""
        step, prior = self.checked.sheet.steps[number], self.known.prior
        learned = (
            self.prepared.settings[number].stove.pace(step.heat)
            if isinstance(step, Simmer | Reduce)
            else None
        )
        if learned is None or self.known.paced:
            return prior
        return replace(prior, pace_spread=math.hypot(learned.spread, K.PACE_OF_THE_DAY))

    def _learns(self, watching: Watching) -> None:
        """What was seen of a boiling pot, for the steps to come."""
        known, belief = self.known, watching.belief
        spread, known.paced = belief.spread(STRENGTH), True
        # What is found of the strength is in the pot from here on, and not told twice.
        known.strength, known.spread = known.strength + float(belief.mean[STRENGTH]), spread
        known.prior = replace(
            known.prior,
            pace=float(belief.mean[PACE]),
            pace_spread=math.hypot(belief.spread(PACE), K.PACE_SPREAD / 3.0),
            strength=0.0,
            strength_spread=spread,
            mass_spread_g=watching.mass_spread_g,
            tare_g=watching.tare_g or 0.0,
        )
        if watching.went_in is not None:
            known.went_in.append(watching.went_in)
        known.settled = _Settled(belief.mass_g, watching.mass_spread_g)
        known.by_eye = []

    def _lifts(self, pot: Pot, seen: Sequence[Seen]) -> None:
        """Spoons lifted where nothing boils: how strong ``pot`` is, each believed as far as eyes go."""
        known = self.known
        thick = thickness_of(pot, self.checked.sheet.target.serving_c).viscosity_pa_s
        for one in sorted(seen, key=lambda one: one.at_min):
            if one.what != "spoon" or not thick:
                continue
            missed = math.log(one.value / thick)
            gain = known.spread**2 / (known.spread**2 + one.spread**2)
            off = gain * missed
            thick *= math.exp(off)
            known.pot = as_found(known.pot, None, off)
            known.spoon_pa_s = one.value
            known.strength, known.spread = known.strength + off, known.spread * math.sqrt(1 - gain)
            known.prior = replace(known.prior, strength_spread=known.spread)

    def _corrected(self, step: Correct, number: int, put_g: float | None) -> Pot:
        """The pot with what was held back for it: so much as was said to have gone in."""
        if put_g is None:
            return advance(self.known.pot, self.prepared.moves[number])
        put = step.putting(self.checked.settings[number])(self.known.pot, put_g)
        minutes = self.known.pot.minutes + K.CORRECT_MINUTES[step.hold]
        return put._replace(minutes=minutes)


def _just_lifted(step: StepAsDone) -> float | None:
    """The spoon that was lifted last of a pot that boils, where that was just now and nothing went in since."""
    since = max((mend.at_min for mend in step.mends), default=0.0)
    since = max(since, step.minutes - _JUST_LOOKED_MIN)
    spoons = [look for look in step.seen if look.what == "spoon" and look.at_min >= since]
    return max(spoons, key=lambda look: look.at_min).value if spoons else None


def _sure(figures: Figures, by: float) -> Figures:
    """``figures`` with the edges of its thickness drawn in to a share of them, by what a spoon has told."""
    eta, low, high = (
        figures.viscosity_pa_s,
        figures.viscosity_low_pa_s,
        figures.viscosity_high_pa_s,
    )
    if not (eta and low and high) or by >= 1.0:
        return figures
    return replace(
        figures,
        viscosity_low_pa_s=eta * (low / eta) ** by,
        viscosity_high_pa_s=eta * (high / eta) ** by,
    )
