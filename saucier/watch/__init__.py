"""A pot watched while it cooks: what is seen of it, by scale or by eye, and what that makes likely."""

from saucier.watch.again import Again, TurnedAmount, solved_again
from saucier.watch.ahead import Ahead, LookAhead, Moment, ahead
from saucier.watch.as_seen import as_seen
from saucier.watch.belief import Belief
from saucier.watch.following import (
    Following,
    Mend,
    PotFollowed,
    StepAsDone,
    follow,
    following,
)
from saucier.watch.found import as_found, as_judged
from saucier.watch.left_out import with_left_out
from saucier.watch.mending import as_made, case_found, with_mends
from saucier.watch.poured import Poured, poured, read_told
from saucier.watch.probed import Probed, middle_c, probed, probed_middle
from saucier.watch.put import PutIn, Puts, as_put, check_put, heated_as_read, put_as_typed
from saucier.watch.reading import Reading, boils_since, read_readings
from saucier.watch.seen import Seen, SeenKind
from saucier.watch.watching import Guess, Passing, StopsAt, TrackPoint, Watched, watch
from saucier.watch.way import Way, way_of

__all__ = [
    "Again",
    "Ahead",
    "Belief",
    "Following",
    "Guess",
    "LookAhead",
    "Mend",
    "Moment",
    "Passing",
    "PotFollowed",
    "Poured",
    "Probed",
    "PutIn",
    "Puts",
    "Reading",
    "Seen",
    "SeenKind",
    "StepAsDone",
    "StopsAt",
    "TrackPoint",
    "TurnedAmount",
    "Watched",
    "Way",
    "ahead",
    "as_found",
    "as_judged",
    "as_made",
    "as_put",
    "as_seen",
    "boils_since",
    "case_found",
    "check_put",
    "follow",
    "following",
    "heated_as_read",
    "middle_c",
    "poured",
    "probed",
    "probed_middle",
    "put_as_typed",
    "read_readings",
    "read_told",
    "solved_again",
    "watch",
    "way_of",
    "with_left_out",
    "with_mends",
]
