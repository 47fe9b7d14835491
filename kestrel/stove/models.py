"""Batches on the stove."""

from django.db import models

from kestrel.accounts.models import OfKitchen, User
from kestrel.sauces.models import SauceVersion
from kestrel.service.models import Service


class Batch(OfKitchen):
    """One making of ``sheet``, from the first step to the weighing.

    The sheet is that of a saved ``version``, or the ``pot`` of a ``service`` (a mother is of no
    saved sauce: it has no version). ``plan`` is what was predicted when it was started (final state, cards): kept, so that a
    later change of the model rewrites no record. ``mends`` are the remedies taken on the way, each
    with its step, sign and words. A sauce made for another is ``made_for`` that one's batch. ``revision`` counts changes, so that two
    windows do not move on twice.
    """

    class Status(models.TextChoices):
        ON = "on", "on the stove"
        DONE = "done", "done"
        LEFT = "left", "left"

    version = models.ForeignKey(
        SauceVersion, null=True, on_delete=models.PROTECT, related_name="batches"
    )
    service = models.ForeignKey(
        Service, null=True, on_delete=models.PROTECT, related_name="batches"
    )
    pot = models.CharField(max_length=200, blank=True)
    sheet = models.JSONField()
    plan = models.JSONField()
    mends = models.JSONField(default=list, blank=True)
    status = models.CharField(max_length=4, choices=Status, default=Status.ON)
    step = models.PositiveIntegerField(default=0)
    revision = models.PositiveIntegerField(default=1)
    timer_started_at = models.DateTimeField(null=True, blank=True)
    timer_s = models.PositiveIntegerField(default=0)
    made_for = models.ForeignKey(
        "self", null=True, blank=True, on_delete=models.SET_NULL, related_name="made_first"
    )
    started_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    started_at = models.DateTimeField(auto_now_add=True)
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["started_at"]
        indexes = [models.Index(fields=["kitchen", "status"])]
        constraints = [
            models.CheckConstraint(
                name="of_a_sauce_or_a_service",
                condition=models.Q(version__isnull=False) | models.Q(service__isnull=False),
            )
        ]
