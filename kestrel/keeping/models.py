"""What is in the fridge and the freezer, and what was done with it: a record that stays."""

from django.db import models

from kestrel.accounts.models import OfKitchen, User
from kestrel.accounts.signing import SignedRow
from kestrel.stove.models import Batch


class Kept(SignedRow, OfKitchen):
    """So much of a batch put away. ``cooling`` is what was reckoned for it then, ``rules`` those in force;
    ``sheet`` as it was cooked; ``off_fire_at`` the end of its cooking (None: nobody knows), ``put_c``
    what was measured of it as it was put away (None: nobody did). Written once: what has become of it are its
    events."""

    SIGNER = "put_by"
    POINTERS = ("put_by",)

    key = models.CharField(max_length=40)
    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="kept")
    name = models.CharField(max_length=160)
    grams = models.FloatField()
    grade = models.CharField(max_length=20, blank=True)
    viscosity_pa_s = models.FloatField(null=True, blank=True)
    allergens = models.JSONField(default=list)
    sheet = models.JSONField()
    place = models.CharField(max_length=40)
    tray = models.CharField(max_length=60)
    trays = models.PositiveIntegerField(default=1)
    cooling = models.JSONField()
    rules = models.JSONField()
    use_by = models.DateField()
    keeps = models.CharField(max_length=300)
    for_when = models.DateField(null=True, blank=True)
    off_fire_at = models.DateTimeField(null=True, blank=True)
    put_c = models.FloatField(null=True, blank=True)
    put_at = models.DateTimeField()
    put_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        ordering = ["put_at", "pk"]
        indexes = [models.Index(fields=["kitchen", "put_at"])]
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "key"], name="put_away_happens_once")
        ]


OF_SERVICE = "service-"
"""What the key of an event begins with that was written for a service, not by a cook's hand."""


class Event(SignedRow, OfKitchen):
    """Something that happened to what is kept, written once; put right by another that says so."""

    POINTERS = ("by",)

    kept = models.ForeignKey(Kept, on_delete=models.PROTECT, related_name="events")
    key = models.CharField(max_length=40)
    kind = models.CharField(max_length=12)
    data = models.JSONField()
    at = models.DateTimeField()
    by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "key"], name="an_event_happens_once")
        ]

    @property
    def set_aside(self) -> bool:
        """Whether it was drawn for a service as its first pot went on: it still stands where it is kept until it is
        warmed."""
        return self.kind == "drawn" and self.key.startswith(OF_SERVICE)
