"""What a kitchen's own batches teach: how fast its pans boil off, how strong its flour is, what it serves."""

from saucier.learn.estimate import Estimate, Observed, estimate, learned_strength
from saucier.learn.notes import Said, said_again
from saucier.learn.record import Finished, Learned, observed
from saucier.learn.went import as_it_went

__all__ = [
    "Estimate",
    "Finished",
    "Learned",
    "Observed",
    "Said",
    "as_it_went",
    "estimate",
    "learned_strength",
    "observed",
    "said_again",
]
