"""Schools: where good cooks disagree, and what switching from one to another changes.

A switch rewrites the steps, then solves for the same target again, so that what it costs shows
in amounts, minutes and risks.
"""

from saucier.schools.school import Choice, Followed, School
from saucier.schools.switching import SCHOOLS, Switched, followed_in, switch

__all__ = ["SCHOOLS", "Choice", "Followed", "School", "Switched", "followed_in", "switch"]
