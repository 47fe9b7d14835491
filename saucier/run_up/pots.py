"""The pots of a service as jobs: each a stretch on its ring, from the roux to the seasoning."""

from saucier import constants as K
from saucier.cards import cards
from saucier.check import CheckedSheet, check
from saucier.dish.tint import is_green
from saucier.heat import Pan
from saucier.keeping import stands_hot
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.run_up.jobs import Doing, Job, Keeps
from saucier.run_up.kitchen import At
from saucier.run_up.means import Ring
from saucier.service import BranchPlan, PotPlan
from saucier.sheet import Sheet
from saucier.timing import Hold, Use
from saucier.words import Sentence, say


def on_ring(sheet: Sheet, ring: Ring, kitchen: Kitchen) -> CheckedSheet:
    """``sheet`` played on ``ring``: its minutes follow."""
    return check(sheet.model_copy(update={"burner": ring.burner}), kitchen)


def doings(checked: CheckedSheet) -> tuple[Doing, ...]:
    """Each step of a sauce as a part of its job: handling takes half a minute where the step itself
    takes none, and coming to the boil is looked after as its step is."""
    parts, before = [], Pot()
    for step, state, card in zip(checked.sheet.steps, checked.steps, cards(checked), strict=True):
        minutes = state.pot.minutes - before.minutes
        hands = step.hands
        if minutes < K.HANDLING_MIN:
            minutes, hands = K.HANDLING_MIN, "all"
        parts.append(Doing(minutes, hands, card.title, card.cue))
        before = state.pot
    return tuple(parts)


def fire_of(checked: CheckedSheet, parts: tuple[Doing, ...]) -> tuple[float, float] | None:
    """From when to when it stands on its ring, minutes from its start."""
    at, spans = 0.0, []
    for step, part in zip(checked.sheet.steps, parts, strict=True):
        if step.fire:
            spans.append((at, at + part.minutes))
        at += part.minutes
    return (spans[0][0], spans[-1][1]) if spans else None


def keeps_of(sheet: Sheet, final: Pot, kitchen: Kitchen, mother: bool = False) -> Keeps:
    """How long the sauce of ``sheet``, finished as ``final``, may stand hot under film before it is used."""
    stands = stands_hot(final, green=is_green(sheet, kitchen), mother=mother)
    return Keeps(stands.minutes, stands.suffers, stands.words)


def lay_pots(at: At, days: dict[str, int]) -> None:
    """Every pot and branch as a job, weighed out before; ``days`` says which day each is made."""
    for first in at.plan.first:
        made = first.made.checked
        keys = _cooked(at, first.key, first.name, made, first.batches, first.pan, days, ())
        at.made[first.key] = keys
    for pot in at.plan.pots:
        lines = _lines(at, pot.key)
        keys = _cooked(at, pot.key, pot.name, pot.checked, pot.batches, pot.pan, days, lines, pot)
        at.made[pot.key] = keys
    mothers = {pot.key: pot for pot in at.plan.pots if pot.mother}
    for branch in at.plan.branches:
        if branch.pot in mothers:
            _branch(at, branch, mothers[branch.pot], days)
        elif branch.pot:
            at.made[branch.key] = at.made[branch.pot]
    for first in at.plan.first:
        for before in at.made[first.key]:
            for after in at.made.get(first.of, ()):
                at.board.follow(before, after)
    _on_hand(at)
    _guests_first(at)


def _lines(at: At, pot: str) -> tuple[int, ...]:
    return tuple(
        sorted(
            {
                at.plan.lines[a.line].id
                for b in at.plan.branches
                if pot in (b.pot, b.key)
                for a in b.asked
            }
        )
    )


def _cooked(
    at: At,
    key: str,
    name: Sentence | str,
    checked: CheckedSheet,
    batches: int,
    pan: Pan,
    days: dict[str, int],
    lines: tuple[int, ...],
    pot: PotPlan | None = None,
) -> tuple[str, ...]:
    board, day = at.board, days.get(key, 0)
    by_ring = {ring.name: on_ring(checked.sheet, ring, at.kitchen) for ring in at.means.rings}
    _minutes, rings = at.rings_for(
        key, lambda ring: by_ring[ring.name].final.pot.minutes, pan.diameter_cm
    )
    slowest = max(
        (found for name_, found in by_ring.items() if f"ring:{name_}" in rings),
        key=lambda found: found.final.pot.minutes,
    )
    parts = doings(slowest)
    uses = []
    if fire := fire_of(slowest, parts):
        uses.append(Use(rings, *fire))
    blenders = at.gear_units(at.means.that_can("blend"))
    if blenders and any(step.op == "blend" for step in slowest.sheet.steps):
        uses.append(Use(blenders, *_span(slowest, parts, "blend")))
    weighed = [one for card in cards(slowest) for one in card.weighed]
    weigh = board.add(
        Job(
            f"weigh:{key}",
            "weigh",
            say("job.weigh-out", name=name),
            (
                Doing(
                    K.WEIGH_MIN + K.WEIGH_EACH_MIN * len(weighed) * batches, "all", say("job.weigh")
                ),
            ),
            "prepare",
            lines,
            keeps=Keeps(None, 0),
            day=-1 if day else 0,
        )
    )
    keys = []
    for number in range(1, batches + 1):
        job = Job(
            f"pot:{key}#{number}",
            "pot",
            say("job.batch", name=name, number=number, batches=batches) if batches > 1 else name,
            parts,
            "stove",
            lines,
            amount=_makes(slowest),
            uses=tuple(uses),
            keeps=keeps_of(slowest.sheet, slowest.final.pot, at.kitchen, bool(pot and pot.mother)),
            day=-1 if day else 0,
            pot=key,
            note=pot.in_pan if pot else pan.name,
        )
        keys.append(board.add(job))
        board.follow(weigh, keys[-1])
        for one in weighed:
            if one.ingredient:
                at.want(one.ingredient, day, one.grams, weigh)
    return tuple(keys)


def _span(checked: CheckedSheet, parts: tuple[Doing, ...], op: str) -> tuple[float, float]:
    begin = 0.0
    for step, part in zip(checked.sheet.steps, parts, strict=True):
        if step.op == op:
            return begin, begin + part.minutes
        begin += part.minutes
    return 0.0, begin


def _makes(checked: CheckedSheet) -> Sentence:
    return say("job.makes", ml=checked.final.pot.yield_ml, g=checked.final.pot.total_g)


def _branch(at: At, branch: BranchPlan, mother: PotPlan, days: dict[str, int]) -> None:
    """What is poured from a mother and finished; a mother of the day before is warmed first."""
    board = at.board
    day = days.get(branch.key, 0)
    checked = check(branch.sheet, at.kitchen)
    keys = []
    lines = tuple(sorted({at.plan.lines[asked.line].id for asked in branch.asked}))
    warm = days.get(mother.key, 0) == -1 and not day
    for number in range(1, branch.batches + 1):
        parts = doings(checked)
        if warm:
            litres = branch.base_g / 1000.0 / branch.batches
            parts = (
                Doing(K.WARM_MIN + K.WARM_MIN_PER_L * litres, "now-and-then", say("job.warm-base")),
                *parts,
            )
        fire = fire_of(checked, parts[1:] if warm else parts)
        end = (fire[1] if fire else 0.0) + (parts[0].minutes if warm else 0.0)
        across = checked.sheet.pan.diameter_cm if checked.sheet.pan else 0.0
        uses = (Use(at.any_ring(across), 0.0, max(end, parts[0].minutes)),) if fire or warm else ()
        key = board.add(
            Job(
                f"pot:{branch.key}#{number}",
                "pot",
                branch.name
                if branch.batches == 1
                else say("job.batch", name=branch.name, number=number, batches=branch.batches),
                parts,
                "stove",
                lines,
                amount=_makes(checked),
                uses=uses,
                keeps=keeps_of(checked.sheet, checked.final.pot, at.kitchen),
                day=-1 if day else 0,
                pot=branch.key,
                note=branch.in_pan or branch.pan,
            )
        )
        keys.append(key)
        for card in cards(checked):
            for one in card.weighed:
                if one.ingredient:
                    at.want(one.ingredient, day, one.grams, key)
        if days.get(mother.key, 0) == day:
            for before in at.made[mother.key]:
                board.follow(before, key)
    at.made[branch.key] = tuple(keys)


def _on_hand(at: At) -> None:
    """What stood made is warmed and let down. Its key says which it is, not how much is taken of it."""
    of_the_kind: dict[str, int] = {}
    for used in at.plan.used:
        kind = f"warm:{used.sauce}:{used.age_days:g}d"
        of_the_kind[kind] = of_the_kind.get(kind, 0) + 1
        litres = used.ready_ml / 1000.0
        lines = tuple(
            sorted(
                {
                    at.plan.lines[a.line].id
                    for b in at.plan.branches
                    if b.sauce == used.sauce
                    for a in b.asked
                }
            )
        )
        key = at.board.add(
            Job(
                f"{kind}#{of_the_kind[kind]}",
                "pot",
                say("job.warm-up", name=used.name),
                (
                    Doing(
                        K.WARM_MIN + K.WARM_MIN_PER_L * litres,
                        "now-and-then",
                        say("job.warm"),
                        used.let_down,
                    ),
                    Doing(1.0, "all", say("job.let-down"), used.let_down),
                ),
                "stove",
                lines,
                amount=say("job.ml", ml=used.ready_ml),
                uses=(Use(at.any_ring()),),
                keeps=Keeps(K.ROUX_WAITS_MIN, 1, say("stands.roux")),
            )
        )
        for branch in at.plan.branches:
            if branch.sauce == used.sauce and branch.from_stock_ml:
                at.made[branch.key] = (*at.made.get(branch.key, ()), key)


def _guests_first(at: At) -> None:
    """Pots for guests are begun before any other that could have had their pan."""
    guests = [pot for pot in at.plan.pots if pot.guests and not pot.mother]
    for pot in guests:
        units = at.pan_units(pot.pan)
        for other in at.plan.pots:
            if other in guests or not units & at.pan_units(other.pan):
                continue
            for before in at.made[pot.key]:
                for after in at.made[other.key]:
                    job = at.board.jobs[before]
                    if job.day == at.board.jobs[after].day:
                        at.board.follow(before, after, at_least=-job.minutes, only_order=True)


def hold_pans(at: At) -> None:
    """Every pot keeps its pan until what is in it was used; then it can be washed. What is finished in
    its mother's pan stays there."""
    poured = {pot.key: pot for pot in at.plan.pots if pot.mother}
    for pot in at.plan.pots:
        branches = [branch for branch in at.plan.branches if branch.pot == pot.key]
        hers = [branch for branch in branches if pot.mother and _in_hers(branch, pot)]
        into = [key for b in branches if pot.mother for key in at.made[b.key]]
        for number, key in enumerate(at.made[pot.key]):
            staying = hers[number :: pot.batches][:1] if pot.mother else branches
            until = [key, *into, *(k for b in staying for k in at.eats.get(b.key, ()))]
            _held(at, pot.pan, key, until, pot.name)
    pans = {pan.name: pan for pan in at.means.pans}
    for branch in at.plan.branches:
        mother = poured.get(branch.pot)
        if mother and branch.pan in pans and not _in_hers(branch, mother):
            for key in at.made[branch.key]:
                until = [key, *at.eats.get(branch.key, ())]
                _held(at, pans[branch.pan], key, until, branch.name)
    for first in at.plan.first:
        for key in at.made[first.key]:
            _held(at, first.pan, key, [key, *at.made.get(first.of, ())], first.name)


def _in_hers(branch: BranchPlan, mother: PotPlan) -> bool:
    return branch.pan == mother.pan.name


def _held(at: At, pan: Pan, key: str, until: list[str], name: object) -> None:
    board = at.board
    units = at.pan_units(pan)
    day = board.jobs[key].day
    until = [one for one in dict.fromkeys(until) if board.jobs[one].day == day]
    if not units:
        return
    wash = Job(
        f"wash:{key}",
        "wash",
        say("job.wash", pan=pan.name, name=name),
        (Doing(K.WASH_MIN, "all", say("job.wash-it")),),
        "wash",
        uses=(Use(at.sink()),) if at.sink() else (),
        day=day,
    )
    board.washes[wash.key] = wash
    board.holds.append(Hold(units, key, tuple(until), wash.key))
