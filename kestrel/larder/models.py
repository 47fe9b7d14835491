"""What a kitchen owns: its pans, its burners, and its own rows of the larder."""

from typing import Any, cast

from django.db import models

from kestrel.accounts.models import OfKitchen, User
from saucier.heat import Pan as CorePan


class Pan(OfKitchen):
    """A pan by its inner measures, its weight empty, what it is made of and how many such there are."""

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
    count = models.PositiveSmallIntegerField(default=1)

    class Meta:
        ordering = ["diameter_cm", "name"]

    def __str__(self) -> str:
        return self.name

    def core(self) -> CorePan:
        """This pan as the core knows it."""
        return CorePan(
            name=self.name,
            shape=cast(Any, self.shape),
            diameter_cm=self.diameter_cm,
            depth_cm=self.depth_cm,
            tare_g=self.tare_g,
            width_cm=self.width_cm,
            reactive=self.reactive,
            heavy=self.heavy,
            count=self.count,
        )


class Burner(OfKitchen):
    """A ring by its rated power and kind, and the widest pan that goes on it (None: any)."""

    class Kind(models.TextChoices):
        GAS = "gas", "gas"
        ELECTRIC = "electric", "electric"
        INDUCTION = "induction", "induction"

    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=10, choices=Kind)
    watts = models.FloatField()
    takes_cm = models.FloatField(null=True, blank=True)

    class Meta:
        ordering = ["watts", "name"]

    def __str__(self) -> str:
        return self.name


class OwnIngredient(OfKitchen):
    """A row of the larder as this kitchen has it: a shipped one it corrected, or one of its own.

    ``row`` holds the columns of ``ingredients.csv`` as text. ``retired``: no longer offered, but
    sauces that use it still know it. ``revision`` counts changes, so that two windows do not
    overwrite each other.
    """

    key = models.CharField(max_length=60)
    row = models.JSONField()
    retired = models.BooleanField(default=False)
    revision = models.PositiveIntegerField(default=1)
    updated_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "key"], name="one_row_of_each_ingredient")
        ]

    def __str__(self) -> str:
        return self.key


class OwnMeasure(OfKitchen):
    """A measure of this kitchen's: its own ladle, its own idea of a knob. ``row`` holds the columns
    of ``measures.csv`` as text."""

    name = models.CharField(max_length=40)
    of = models.CharField(max_length=60, blank=True)
    row = models.JSONField()

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "name", "of"], name="one_of_each_measure")
        ]

    def __str__(self) -> str:
        return self.name


class Habits(OfKitchen):
    """How this kitchen serves, where it is not the usual: mL for each unit of a use by its key, and
    what clings to each pot, and how much is whisked in one at the most. ``rules``: the rule set for cooling and
    keeping it goes by, whole (None: the usual one)."""

    per_ml = models.JSONField(default=dict)
    film_ml = models.FloatField(null=True, blank=True)
    whisk_ml = models.FloatField(null=True, blank=True)
    rules = models.JSONField(null=True, blank=True)

    class Meta:
        verbose_name_plural = "habits"
        constraints = [models.UniqueConstraint(fields=["kitchen"], name="one_set_of_habits")]

    def __str__(self) -> str:
        return f"habits of {self.kitchen}"


class Gear(OfKitchen):
    """Something of the kitchen that can do something: an oven, a grill, a steamer; how many there are,
    and where it differs from the usual one of its kind."""

    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=30)
    count = models.PositiveSmallIntegerField(default=1)
    can = models.JSONField(null=True, blank=True)
    shelves = models.PositiveSmallIntegerField(null=True, blank=True)
    area_cm2 = models.FloatField(null=True, blank=True)
    litres = models.FloatField(null=True, blank=True)

    class Meta:
        ordering = ["kind", "name"]
        verbose_name_plural = "gear"

    def __str__(self) -> str:
        return self.name


class Cook(OfKitchen):
    """Somebody who cooks here, and what they can do (nothing said: everything)."""

    name = models.CharField(max_length=60)
    can = models.JSONField(default=list)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "name"], name="one_cook_of_each_name")
        ]

    def __str__(self) -> str:
        return self.name


class OwnWay(OfKitchen):
    """A way to cook something, as this kitchen does it, in place of the shipped one of its key."""

    key = models.CharField(max_length=60)
    row = models.JSONField()

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["kitchen", "key"], name="one_way_of_each")]

    def __str__(self) -> str:
        return self.key


class Learnt(OfKitchen):
    """What this kitchen goes by because its own batches said so: of a pan at a heat (``pace``), of a flour
    (``strength``), of what clings to a pot (``film``), of what is served (``served``), of a cook's work
    (``work``). ``log`` is the logarithm of how much more it is than usual, with one standard ``spread``, by
    so many ``records``, whose scatter is ``scale`` times the usual. The newest that was not ``dropped_at``
    counts; none is ever rewritten."""

    class Kind(models.TextChoices):
        PACE = "pace", "what a pan boils off"
        STRENGTH = "strength", "how strong a flour is"
        FILM = "film", "what clings to a pot"
        SERVED = "served", "what is served to each"
        WORK = "work", "minutes at the board"

    kind = models.CharField(max_length=8, choices=Kind)
    of = models.CharField(max_length=60, blank=True)
    at = models.CharField(max_length=20, blank=True)
    log = models.FloatField()
    spread = models.FloatField()
    scale = models.FloatField(default=1.0)
    records = models.PositiveIntegerField()
    taken_at = models.DateTimeField(auto_now_add=True)
    taken_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    dropped_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["pk"]
        verbose_name_plural = "learnt"

    def __str__(self) -> str:
        return f"{self.kind} {self.of} {self.at}".strip()
