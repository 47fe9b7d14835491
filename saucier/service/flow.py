"""Edits at a node that flow back to the lines: a pot's size, the covers of the whole."""

from saucier.errors import BadInput
from saucier.service.document import Service
from saucier.service.planned import Plan


def flowed(plan: Plan, node: str, ml: float) -> Service:
    """The service whose pot or branch ``node`` makes ``ml``: the portions of the lines it feeds grow or
    shrink together, to whole portions, never under one. Raises :class:`BadInput` (``node``, ``ml``)."""
    branches = [branch for branch in plan.branches if node in (branch.key, branch.pot)]
    if not branches:
        raise BadInput.at("node", "is-no-pot-of-this-service", node=node[:60])
    pot = next((pot for pot in plan.pots if pot.key == node), None)
    now = pot.made_ml if pot else branches[0].made_ml
    # What clings stays the same however much is made.
    clings = sum(branch.film_ml for branch in branches)
    if not clings < ml <= 1e6:
        raise BadInput.at("ml", "ml-is-out-of-reach", ml=ml, least_ml=clings)
    fed = {asked.line for branch in branches for asked in branch.asked}
    return _times(plan.service, (ml - clings) / max(now - clings, 1e-9), fed)


def scaled(service: Service, covers: float) -> Service:
    """The whole service for ``covers`` portions in all. Raises :class:`BadInput` (``covers``)."""
    now = sum(line.portions for line in service.lines)
    if not service.lines or not 0 < covers <= 50_000:
        raise BadInput.at("covers", "is-no-number-of-covers", covers=covers)
    return _times(service, covers / now, set(range(len(service.lines))))


def _times(service: Service, factor: float, which: set[int]) -> Service:
    lines = tuple(
        line.model_copy(update={"portions": float(max(1, round(line.portions * factor)))})
        if number in which
        else line
        for number, line in enumerate(service.lines)
    )
    return service.model_copy(update={"lines": lines})
