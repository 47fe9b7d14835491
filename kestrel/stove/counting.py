"""What of the acts at a batch counts, and what time it is there."""

from datetime import datetime
from typing import Any, cast

from django.utils import timezone

from kestrel.stove.models import Act, Batch

_OF_A_STEP = frozenset({"saw", "put", "poured", "mended"})


def now_of(batch: Batch) -> datetime:
    """This moment; a simulated device may be ahead of it, and then it is its."""
    latest = max(
        (d.read_at for d in batch.devices.all() if d.simulated and d.read_at), default=None
    )
    now = timezone.now()
    return max(now, latest) if latest else now


def counted(batch: Batch) -> list[Act]:
    """What was done at ``batch`` and counts: taken, and not undone since. With a step that was taken back
    goes what was said of it."""
    rows = [act for act in batch.acts.select_related("by") if act.taken]
    undone = {_data(act)["of"]: act.pk for act in rows if act.kind == "undone"}
    void = set(undone)
    for added in (act for act in rows if act.kind == "added" and act.key in undone):
        void |= {
            act.key
            for act in rows
            if act.kind in _OF_A_STEP
            and act.step == added.step
            and added.pk < act.pk < undone[added.key]
        }
    return [act for act in rows if act.key not in void and act.kind != "undone"]


def _data(act: Act) -> dict[str, Any]:
    return cast(dict[str, Any], act.data)
