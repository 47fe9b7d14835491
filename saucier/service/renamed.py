"""What was begun follows its pot where an edit gives that pot another key."""

from saucier.service.planned import BranchPlan, Plan


def renamed_pots(before: Plan, now: Plan) -> dict[str, str]:
    """Keys of pots and sauces made in ``before`` and not in ``now``, by the key under which the very same
    sauce is made in ``now``: as it is written, in the same grade, in a pot of its own as before, and nowhere
    in ``before``.

    So it is where a tub of a sauce is put on hand: for a guest, who eats of no tub, it is made fresh, apart
    from what the others get of it. Where several could be meant none is.
    """
    renamed: dict[str, str] = {}
    old, new = _made(before), _made(now)
    for key, branch in old.items():
        if key in new:
            continue
        same = [
            other
            for other in new.values()
            if other.key not in old and (other.sauce, other.grade) == (branch.sauce, branch.grade)
        ]
        if len(same) == 1 and _alone(branch) == _alone(same[0]):
            renamed[key] = same[0].key
            if _alone(branch):
                renamed[branch.pot] = same[0].pot
    return renamed


def _made(plan: Plan) -> dict[str, BranchPlan]:
    """Sauces that are made as they are written, by key."""
    return {branch.key: branch for branch in plan.branches if branch.pot and branch.as_written}


def _alone(branch: BranchPlan) -> bool:
    """Whether its pot holds it alone."""
    return branch.pot == f"own-{branch.key}"
