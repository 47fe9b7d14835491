"""What is shaped, coated and fried in rounds, the fat recovering between them."""

from saucier.dish import Rounds, in_rounds
from saucier.run_up.jobs import Doing, Job, Keeps, Touch
from saucier.run_up.kitchen import At
from saucier.service import LinePlan
from saucier.timing import Use
from saucier.words import said, say


def fried(at: At, line: LinePlan, rounds: Rounds) -> str:
    """The rounds of ``line`` in a fryer, or in a pan with fat where there is none."""
    way = at.library.way("fry")
    found = in_rounds(rounds, line.line.portions)
    parts, touches, clock = [Doing(way.heat_up, "none", say("job.heat-fat"))], [], way.heat_up
    for number in range(1, found.rounds + 1):
        name = say("job.round", number=number, rounds=found.rounds)
        parts.append(Doing(way.put_in, "all", name))
        touches.append(Touch(clock + way.put_in + 0.5 * rounds.minutes, say("job.turn")))
        parts.append(
            Doing(rounds.minutes, "now-and-then", say("job.cooking", way=said(way.name)), way.cue)
        )
        parts.append(Doing(way.take_out, "all", say("job.out")))
        clock += way.put_in + rounds.minutes + way.take_out
        if number < found.rounds:
            parts.append(Doing(rounds.between_minutes, "none", say("job.recover")))
            clock += rounds.between_minutes
    fryers = [one for one in at.means.that_can("fry") if one.kind == "fryer"]
    uses = (
        [Use(at.gear_units(fryers or at.means.that_can("fry")))] if at.means.that_can("fry") else []
    )
    if not fryers:
        uses.append(Use(at.any_ring()))
    return at.board.add(
        Job(
            f"fry:{line.number}",
            "finish",
            say("job.fry", dish=line.called),
            tuple(parts),
            "stove",
            (line.number,),
            amount=say("job.pieces", count=found.pieces, what=rounds.what, a_round=found.a_round),
            touches=tuple(touches),
            uses=tuple(uses),
            keeps=Keeps(way.keeps, way.suffers, way.cue),
        )
    )
