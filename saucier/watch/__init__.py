"""A pot watched while it cooks: what is seen of it, by scale or by eye, and what that makes likely."""

from saucier.watch.again import Again, TurnedAmount, solved_again
from saucier.watch.belief import Belief
from saucier.watch.following import PotFollowed, StepAsDone, follow
from saucier.watch.found import as_found
from saucier.watch.put import Puts, as_put
from saucier.watch.reading import Reading, boils_since, read_readings
from saucier.watch.seen import Seen, SeenKind
from saucier.watch.watching import Goal, Guess, Passing, TrackPoint, Watched, watch
from saucier.watch.way import Way, way_of

__all__ = [
    "Again",
    "Belief",
    "Goal",
    "Guess",
    "Passing",
    "PotFollowed",
    "Puts",
    "Reading",
    "Seen",
    "SeenKind",
    "StepAsDone",
    "TrackPoint",
    "TurnedAmount",
    "Watched",
    "Way",
    "as_found",
    "as_put",
    "boils_since",
    "follow",
    "read_readings",
    "solved_again",
    "watch",
    "way_of",
]
