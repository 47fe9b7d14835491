"""Sauces and their versions. A version, once saved, is never rewritten."""

from typing import Any

from django.db import models

from kestrel.accounts.models import OfKitchen, User


class Sauce(OfKitchen):
    """A sauce of a kitchen: the name and family of its newest version, for lists."""

    name = models.CharField(max_length=120)
    family = models.CharField(max_length=40, blank=True)
    version = models.PositiveIntegerField(default=1)
    favourite = models.BooleanField(default=False, db_default=False)
    tags = models.CharField(max_length=500, blank=True, default="", db_default="")
    """Words to find it by, each between bars: "|gratin|winter|"."""
    cooked_at = models.DateTimeField(null=True, blank=True)
    """When it was last put on the stove."""
    created_at = models.DateTimeField(auto_now_add=True)
    updated_at = models.DateTimeField(auto_now=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["name", "pk"]
        indexes = [
            models.Index(fields=["kitchen", "deleted_at", "name"]),
            models.Index(fields=["kitchen", "deleted_at", "-cooked_at"]),
            models.Index(fields=["kitchen", "deleted_at", "-updated_at"]),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def tag_list(self) -> list[str]:
        return [tag for tag in self.tags.split("|") if tag]

    @property
    def newest(self) -> "SauceVersion":
        return self.versions.get(number=self.version)


class SauceVersion(models.Model):
    """One saved state of a sauce: its sheet in the open format, and what it came to. ``note`` says
    why it is there where no cook made it."""

    sauce = models.ForeignKey(Sauce, on_delete=models.PROTECT, related_name="versions")
    number = models.PositiveIntegerField()
    sheet = models.JSONField()
    outcome = models.JSONField()
    note = models.CharField(max_length=300, blank=True)
    made_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-number"]
        constraints = [
            models.UniqueConstraint(fields=["sauce", "number"], name="one_of_each_version")
        ]

    def __str__(self) -> str:
        return f"{self.sauce}, version {self.number}"

    def save(self, *args: Any, **kwargs: Any) -> None:
        if self.pk is not None:
            raise TypeError("a saved version is never rewritten; save a new one")
        super().save(*args, **kwargs)
