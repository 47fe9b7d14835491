"""Batches on the stove."""

from django.db import models

from kestrel.accounts.models import OfKitchen, User
from kestrel.sauces.models import SauceVersion


class Batch(OfKitchen):
    """One making of a saved version, from the first step to the weighing.

    ``plan`` is what was predicted when it was started (final state, cards): kept, so that a
    later change of the model rewrites no record. ``mends`` are the remedies taken on the way, each
    with its step, sign and words. ``revision`` counts changes, so that two
    windows do not move on twice.
    """

    class Status(models.TextChoices):
        ON = "on", "on the stove"
        DONE = "done", "done"
        LEFT = "left", "left"

    version = models.ForeignKey(SauceVersion, on_delete=models.PROTECT, related_name="batches")
    plan = models.JSONField()
    mends = models.JSONField(default=list, blank=True)
    status = models.CharField(max_length=4, choices=Status, default=Status.ON)
    step = models.PositiveIntegerField(default=0)
    revision = models.PositiveIntegerField(default=1)
    timer_started_at = models.DateTimeField(null=True, blank=True)
    timer_s = models.PositiveIntegerField(default=0)
    started_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    started_at = models.DateTimeField(auto_now_add=True)
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["started_at"]
        indexes = [models.Index(fields=["kitchen", "status"])]
