"""A service: from dishes and portions to pots, branches, vessels and a production sheet."""

from saucier.service.document import Line, OnHand, Service, read_service, write_service
from saucier.service.flow import flowed, scaled
from saucier.service.plan import plan_service
from saucier.service.planned import Asked, BranchPlan, LinePlan, Plan, PotPlan
from saucier.service.pots import first_key
from saucier.service.production import Production, production_of
from saucier.service.short import Short, short_of

__all__ = [
    "Asked",
    "BranchPlan",
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
    "plan_service",
    "production_of",
    "read_service",
    "scaled",
    "short_of",
    "write_service",
]
