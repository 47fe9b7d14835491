"""A service: from dishes and portions to pots, branches, vessels and a production sheet."""

from saucier.service.amiss import Amiss, told
from saucier.service.document import (
    Line,
    OnHand,
    Service,
    read_service,
    read_what_can_be,
    write_service,
)
from saucier.service.flow import flowed, scaled
from saucier.service.plan import plan_service
from saucier.service.planned import Asked, BranchPlan, LinePlan, Plan, PotPlan
from saucier.service.pots import first_key
from saucier.service.production import Buy, Production, on_the_board, production_of
from saucier.service.renamed import renamed_pots
from saucier.service.short import Short, short_of

__all__ = [
    "Amiss",
    "Asked",
    "BranchPlan",
    "Buy",
    "Line",
    "LinePlan",
    "OnHand",
    "Plan",
    "PotPlan",
    "Production",
    "Service",
    "Short",
    "first_key",
    "flowed",
    "on_the_board",
    "plan_service",
    "production_of",
    "read_service",
    "read_what_can_be",
    "renamed_pots",
    "scaled",
    "short_of",
    "told",
    "write_service",
]
