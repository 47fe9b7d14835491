"""What happened: one entry for each finished batch."""

from django.db import models

from kestrel.accounts.models import OfKitchen
from kestrel.stove.models import Batch


class Entry(OfKitchen):
    """What came out of a batch, beside its plan. Never rewritten."""

    class Verdict(models.TextChoices):
        AGAIN = "again", "again just so"
        NEARLY = "nearly", "nearly"
        NOT_SO = "not-so", "not like this"

    batch = models.OneToOneField(Batch, on_delete=models.PROTECT, related_name="entry")
    made_at = models.DateTimeField()
    weighed_g = models.FloatField(null=True, blank=True)
    reached_pa_s = models.FloatField(null=True, blank=True)
    verdict = models.CharField(max_length=6, choices=Verdict)
    note = models.TextField(blank=True, max_length=2000)

    class Meta:
        ordering = ["-made_at", "-pk"]
        indexes = [models.Index(fields=["kitchen", "-made_at", "-id"])]
