"""What is shaped, coated and fried in rounds, the fat recovering between them."""

from saucier.dish import Rounds, in_rounds
from saucier.run_up.jobs import Job, Keeps
from saucier.run_up.kitchen import At
from saucier.run_up.sides import in_rounds_of
from saucier.service import LinePlan
from saucier.timing import Use
from saucier.words import say


def fried(at: At, line: LinePlan, rounds: Rounds) -> str:
    """The rounds of ``line`` in a fryer, or in a pan with fat where there is none."""
    way = at.library.way("fry")
    found = in_rounds(rounds, line.line.portions)
    heat = way.heat_up, say("job.heat-fat")
    parts, touches = in_rounds_of(
        at,
        way,
        found.rounds,
        rounds.minutes,
        rounds.between_minutes,
        heat,
        clean=bool(line.line.without),
    )
    able = at.means.that_can("fry")
    fryers = [one for one in able if one.kind == "fryer"]
    uses = [Use(at.gear_units(fryers or able))] if able else []
    if not fryers:
        uses.append(Use(at.any_ring()))
    return at.board.add(
        Job(
            f"fry:{line.id}",
            "finish",
            say("job.fry", dish=line.called),
            tuple(parts),
            "stove",
            (line.id,),
            amount=say("job.pieces", count=found.pieces, what=rounds.what, a_round=found.a_round),
            touches=tuple(touches),
            uses=tuple(uses),
            keeps=Keeps(way.keeps, way.suffers, way.look),
            note=at.clean_for(line, fat=True),
        )
    )
