"""What a kitchen owns: its pans and its burners."""

from typing import Any, cast

from django.db import models

from kestrel.accounts.models import OfKitchen
from saucier.heat import Pan as CorePan


class Pan(OfKitchen):
    """A pan by its inner measures, its weight empty and what it is made of."""

    class Shape(models.TextChoices):
        STRAIGHT = "straight", "straight sides"
        SLOPED = "sloped", "sloped sides"
        BOWL = "bowl", "bowl"
        TRAY = "tray", "tray"
        SHELL = "shell", "shell"
        DISH = "dish", "small dish"

    name = models.CharField(max_length=60)
    shape = models.CharField(max_length=10, choices=Shape)
    diameter_cm = models.FloatField()
    depth_cm = models.FloatField()
    width_cm = models.FloatField(null=True, blank=True)
    tare_g = models.FloatField(default=0)
    reactive = models.BooleanField(default=False)
    heavy = models.BooleanField(default=True)

    class Meta:
        ordering = ["diameter_cm", "name"]

    def __str__(self) -> str:
        return self.name

    def core(self) -> CorePan:
        """This pan as the core knows it."""
        return CorePan(
            self.name,
            cast(Any, self.shape),
            self.diameter_cm,
            self.depth_cm,
            self.tare_g,
            self.width_cm,
            self.reactive,
            self.heavy,
        )


class Burner(OfKitchen):
    """A ring by its rated power and kind."""

    class Kind(models.TextChoices):
        GAS = "gas", "gas"
        ELECTRIC = "electric", "electric"
        INDUCTION = "induction", "induction"

    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=10, choices=Kind)
    watts = models.FloatField()

    class Meta:
        ordering = ["watts", "name"]

    def __str__(self) -> str:
        return self.name
