"""What happened: one entry for each finished batch, what became of it, and what it teaches."""

from django.db import models

from kestrel.accounts.models import OfKitchen, User
from kestrel.accounts.signing import SignedRow
from kestrel.stove.models import Batch


class Entry(SignedRow, OfKitchen):
    """What came out of a batch, beside its plan. Never rewritten."""

    POINTERS = ("by",)

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
    by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        ordering = ["-made_at", "-pk"]
        indexes = [models.Index(fields=["kitchen", "-made_at", "-id"])]

    @property
    def stands(self) -> "Entry | Correction":
        """What came out, as it stands: the newest correction, else what was written first."""
        corrections = list(self.corrections.all())
        return corrections[-1] if corrections else self


class Correction(SignedRow, OfKitchen):
    """What was written of a batch, written anew and why; what stood before stays beside it. Written once; the
    newest of an entry counts."""

    POINTERS = ("by",)

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="corrections")
    key = models.CharField(max_length=40)
    weighed_g = models.FloatField(null=True, blank=True)
    reached_pa_s = models.FloatField(null=True, blank=True)
    verdict = models.CharField(max_length=6, choices=Entry.Verdict)
    note = models.TextField(blank=True, max_length=2000)
    why = models.CharField(max_length=300)
    at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "key"], name="a_correction_is_said_once")
        ]


class Served(SignedRow, OfKitchen):
    """What became of a batch once it was done: how many ``portions`` really went out, what was ``thrown_g``
    away of it and why, what clung to the emptied pot, ``film_g`` (None: nobody said); ``told`` as
    of a :class:`Lesson`. Written once; the newest of a batch counts."""

    POINTERS = ("by",)

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="served")
    key = models.CharField(max_length=40)
    portions = models.FloatField(null=True, blank=True)
    thrown_g = models.FloatField(null=True, blank=True)
    reason = models.CharField(max_length=120, blank=True)
    film_g = models.FloatField(null=True, blank=True)
    told = models.JSONField(default=list)
    at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "key"], name="served_is_said_once")
        ]


class Lesson(OfKitchen):
    """What an entry says of its kitchen, reckoned once when it is written: ``told`` holds each thing as
    kind, of what, at which heat, the logarithm of how much more than usual, and its spread."""

    entry = models.OneToOneField(Entry, on_delete=models.CASCADE, related_name="lesson")
    told = models.JSONField(default=list)

    class Meta:
        ordering = ["pk"]
