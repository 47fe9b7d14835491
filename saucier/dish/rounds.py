"""What is done in rounds: pieces that must not crowd a pan, a basket, a grill tray."""

import math
from dataclasses import dataclass

from saucier.dish.document import Rounds
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class InRounds:
    """``pieces`` in ``rounds`` of at most ``a_round``, ``minutes`` in all with the waits between;
    ``line`` tells the arithmetic."""

    what: str
    pieces: int
    a_round: int
    rounds: int
    minutes: float
    line: Sentence


def in_rounds(rounds: Rounds, portions: float) -> InRounds:
    """``portions`` of what ``rounds`` describes; at least one piece fits each round.

    >>> fry = Rounds(what="croquettes", each=3, piece_cm2=12, room_cm2=300, minutes=3)
    >>> in_rounds(fry, 20).rounds
    4
    """
    pieces = math.ceil(rounds.each * portions - 1e-9)
    a_round = max(1, math.floor(rounds.room_cm2 * rounds.fill_pct / 100.0 / rounds.piece_cm2))
    count = math.ceil(pieces / a_round)
    minutes = count * rounds.minutes + max(0, count - 1) * rounds.between_minutes
    line = say(
        "in-rounds",
        pieces=pieces,
        what=rounds.what,
        a_round=a_round,
        room_cm2=rounds.room_cm2,
        fill_pct=rounds.fill_pct,
        piece_cm2=rounds.piece_cm2,
        rounds=count,
        minutes=rounds.minutes,
    )
    if count > 1 and rounds.between_minutes:
        line = say("in-rounds-with-waits", line=line, minutes=rounds.between_minutes)
    return InRounds(
        what=rounds.what, pieces=pieces, a_round=a_round, rounds=count, minutes=minutes, line=line
    )
