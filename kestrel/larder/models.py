"""What a kitchen owns: its pans."""

from django.db import models

from kestrel.accounts.models import OfKitchen


class Pan(OfKitchen):
    """A pan by its inner measures and its weight empty."""

    class Shape(models.TextChoices):
        STRAIGHT = "straight", "straight sides"
        SLOPED = "sloped", "sloped sides"
        BOWL = "bowl", "bowl"

    name = models.CharField(max_length=60)
    shape = models.CharField(max_length=10, choices=Shape)
    diameter_cm = models.FloatField()
    depth_cm = models.FloatField()
    tare_g = models.FloatField(default=0)

    class Meta:
        ordering = ["diameter_cm", "name"]
