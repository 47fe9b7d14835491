"""Batches on the stove, what was done at them, what scales and probes read, photographs and labels."""

from django.db import models

from kestrel.accounts.models import OfKitchen, User
from kestrel.accounts.signing import SignedRow
from kestrel.append_only import AppendOnly
from kestrel.sauces.models import SauceVersion
from kestrel.service.models import Service


class Batch(OfKitchen):
    """One making of ``sheet``, from the first step to the weighing.

    The sheet is that of a saved ``version``, or the ``pot`` of a ``service`` (a mother is of no
    saved sauce: it has no version); of several batches of that pot it is the one of this ``number``, whatever becomes
    of the others. ``plan`` is what was predicted when it was started (final state, cards): kept, so that a
    later change of the model rewrites no record. What happens to it are its acts; ``step``, ``began``
    (when each step was, by number), ``timers`` that run, ``mends`` and ``status`` are what they come
    to. A sauce made for another is ``made_for`` that one's batch. It stands on ``ring``, and is
    ``cook``'s, by their names in the larder. ``revision`` counts changes. ``judged_pa_s`` and ``weighed_g``: how thick
    it was judged in the end, Pa·s at serving temperature, and what it weighed (None: nobody said); they win over what
    is reckoned. ``drawn_key``: it was made before and comes from the fridge; the line of the record that says that it was
    taken out. ``put_away_at``: since when all of it is put away, so that it stands on no ring (None: it is not).

    Of another ``kind`` than a sauce: cooked *free* hand, its sheet grows by what goes in, and its plan is
    of what is in so far; *aside*, what is no sauce (fish, pasta, an oven), it has cards of its own and an
    empty sheet.
    """

    class Kind(models.TextChoices):
        SAUCE = "sauce", "a sauce"
        FREE = "free", "cooked free hand"
        ASIDE = "aside", "beside the pots"

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
    number = models.PositiveSmallIntegerField(default=1, db_default=1)
    sheet = models.JSONField()
    plan = models.JSONField()
    mends = models.JSONField(default=list, blank=True)
    kind = models.CharField(max_length=5, choices=Kind, default=Kind.SAUCE)
    ring = models.CharField(max_length=60, blank=True)
    cook = models.CharField(max_length=60, blank=True)
    status = models.CharField(max_length=4, choices=Status, default=Status.ON)
    step = models.PositiveIntegerField(default=0)
    began = models.JSONField(default=dict, blank=True)
    timers = models.JSONField(default=list, blank=True)
    revision = models.PositiveIntegerField(default=1)
    judged_pa_s = models.FloatField(null=True, blank=True)
    weighed_g = models.FloatField(null=True, blank=True)
    put_away_at = models.DateTimeField(null=True, blank=True)
    drawn_key = models.CharField(max_length=40, blank=True, default="", db_default="")
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
                condition=models.Q(version__isnull=False)
                | models.Q(service__isnull=False)
                | ~models.Q(kind="sauce")
                | ~models.Q(drawn_key=""),
            )
        ]


class Milestone(SignedRow, OfKitchen):
    """Something that became of a batch as a whole, for the record: it began, was done, was abandoned, was brought
    back. ``name`` is what it was called then; ``at`` when it is said to have happened."""

    POINTERS = ("by",)

    class Kind(models.TextChoices):
        BEGAN = "began", "began"
        DONE = "done", "done"
        ABANDONED = "left", "abandoned"
        RESUMED = "back", "brought back"

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="milestones")
    kind = models.CharField(max_length=5, choices=Kind)
    name = models.CharField(max_length=160)
    at = models.DateTimeField()
    by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        ordering = ["pk"]
        indexes = [models.Index(fields=["kitchen", "at"])]


class Act(SignedRow, OfKitchen):
    """Something somebody did at a batch, written once. ``key`` was made where it was done, so that an act
    that is sent twice happens once; ``at`` is when it was done, ``written_at`` when it arrived. One that
    came too late to change anything is kept too, not ``taken``, and says why."""

    POINTERS = ("by",)

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="acts")
    key = models.CharField(max_length=40)
    kind = models.CharField(max_length=12)
    step = models.PositiveIntegerField()
    data = models.JSONField()
    at = models.DateTimeField()
    by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    taken = models.BooleanField(default=True)
    why = models.CharField(max_length=300, blank=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "key"], name="an_act_happens_once")
        ]


class Device(OfKitchen):
    """A scale, a probe or a label printer, known by a token of which only a digest is kept. ``batch`` is
    what it stands under, or hangs in; of what was put away of it, in which tray (``kept_key``, ``tray``). What it read
    last where it was before (``read_before``: its ``value``, ``at`` and of what, ``of``). A
    ``simulated`` one may tell of a time that is ahead. ``made_by`` entered it; one that is ``stopped_at`` is let in
    no more: who made it was let go."""

    class Kind(models.TextChoices):
        SCALE = "scale", "scale"
        PROBE = "probe", "probe"
        PRINTER = "printer", "label printer"

    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=7, choices=Kind)
    digest = models.CharField(max_length=64, unique=True)
    simulated = models.BooleanField(default=False)
    batch = models.ForeignKey(
        Batch, null=True, blank=True, on_delete=models.SET_NULL, related_name="devices"
    )
    kept_key = models.CharField(max_length=40, blank=True, default="", db_default="")
    tray = models.PositiveSmallIntegerField(null=True, blank=True)
    value = models.FloatField(null=True, blank=True)
    read_at = models.DateTimeField(null=True, blank=True)
    read_before = models.JSONField(null=True, blank=True)
    made_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    stopped_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["pk"]

    @property
    def made_by_name(self) -> str:
        """Who entered it."""
        return self.made_by.called if self.made_by else ""


class Reading(AppendOnly):
    """What a device read while it stood under a batch: g, or °C. In which ``tray`` of what was put away
    (``kept_key``; empty: in the pot, or nobody said). ``device_name`` and ``simulated`` as it was then,
    ``clock_off_s`` how far its clock was ahead of ours, ``written_at`` when it came in (None: of before December
    2026), ``imported_at`` when it came with a kitchen's file."""

    POINTERS = ("device",)

    device = models.ForeignKey(
        Device, null=True, on_delete=models.SET_NULL, related_name="readings"
    )
    batch = models.ForeignKey(Batch, on_delete=models.CASCADE, related_name="readings")
    kind = models.CharField(max_length=5)
    at = models.DateTimeField()
    value = models.FloatField()
    kept_key = models.CharField(max_length=40, blank=True, default="", db_default="")
    tray = models.PositiveSmallIntegerField(null=True, blank=True)
    device_name = models.CharField(max_length=60, blank=True, default="", db_default="")
    simulated = models.BooleanField(default=False, db_default=False)
    clock_off_s = models.FloatField(default=0.0, db_default=0.0)
    written_at = models.DateTimeField(null=True, blank=True)
    imported_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["at"]
        indexes = [models.Index(fields=["batch", "at"])]

    def __str__(self) -> str:
        return f"{self.kind} {self.value:g}"


class Photo(OfKitchen):
    """A photograph of a batch at a step, made small and with nothing in it of where it was taken. ``key``
    as of an act: one that is sent twice is there once."""

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="photos")
    key = models.CharField(max_length=40)
    step = models.PositiveIntegerField()
    at = models.DateTimeField()
    by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    jpeg = models.BinaryField()
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()

    class Meta:
        ordering = ["at", "pk"]
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "key"], name="a_photo_is_there_once")
        ]


class Label(OfKitchen):
    """A label of a batch that was put away, as a ``document`` (docs/formats/label); ``copies`` are still to
    be printed until it was, ``printed_at``."""

    batch = models.ForeignKey(Batch, on_delete=models.PROTECT, related_name="labels")
    document = models.JSONField()
    copies = models.PositiveIntegerField(default=1)
    made_at = models.DateTimeField(auto_now_add=True)
    made_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    printed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["pk"]
