"""Run-ups of services, and the planning of them, which a process of its own does."""

from django.db import models

from kestrel.accounts.models import OfKitchen
from kestrel.service.models import Kept, Service


class RunUp(Kept):
    """The run-up of a ``service``, or of one dish tonight (``meal``, a service that is nowhere else).

    ``document`` is the cook's own word, the core's format. ``planned`` is what was planned last: days as
    the core tells them, with what it was planned of (``planned_of``). ``utc_offset_min`` is the clock of
    the kitchen, as its browsers tell it.
    """

    service = models.ForeignKey(
        Service, null=True, blank=True, on_delete=models.CASCADE, related_name="run_ups"
    )
    meal = models.JSONField(null=True, blank=True)
    date = models.DateField()
    planned = models.JSONField(null=True, blank=True)
    planned_of = models.CharField(max_length=64, blank=True)
    utc_offset_min = models.IntegerField(default=0)

    class Meta:
        ordering = ["-date", "-pk"]
        constraints = [
            models.UniqueConstraint(
                fields=["service"],
                name="one_run_up_of_a_service",
                condition=models.Q(service__isnull=False),
            )
        ]


class Planning(OfKitchen):
    """One planning of a run-up: asked for by a request, done by the planner's process.

    ``what`` is whether it plans, tries a ``move`` (``asked`` names the task and the minute), or times
    what was called. ``progress`` is how far it is; ``beat_at`` is written while it runs, so that one
    whose process is gone is taken up again. ``cancel`` asks it to stop with the best it has; one that
    only makes room for a move or a call is planned ``again`` after it. ``lost`` counts the processes that
    ended over it.
    """

    class What(models.TextChoices):
        PLAN = "plan", "plan"
        MOVE = "move", "try a move"
        CALL = "call", "time what was called"

    class State(models.TextChoices):
        WAITING = "waiting", "waiting"
        RUNNING = "running", "running"
        DONE = "done", "done"
        FAILED = "failed", "failed"

    OPEN = (State.WAITING, State.RUNNING)

    run_up = models.ForeignKey(RunUp, on_delete=models.CASCADE, related_name="plannings")
    what = models.CharField(max_length=4, choices=What, default=What.PLAN)
    state = models.CharField(max_length=8, choices=State, default=State.WAITING)
    asked = models.JSONField(default=dict, blank=True)
    progress = models.JSONField(default=dict, blank=True)
    answer = models.JSONField(default=dict, blank=True)
    cancel = models.BooleanField(default=False)
    again = models.BooleanField(default=False)
    lost = models.PositiveSmallIntegerField(default=0)
    asked_at = models.DateTimeField(auto_now_add=True)
    beat_at = models.DateTimeField(null=True, blank=True)
    ended_at = models.DateTimeField(null=True, blank=True)
    going: bool = False
    """Whether anything of its run-up is still to be done; not kept."""

    class Meta:
        ordering = ["pk"]
        indexes = [models.Index(fields=["state", "id"])]

    def __str__(self) -> str:
        return f"{self.what} of {self.run_up}"
