"""Dishes and services of a kitchen. The documents are the core's; rows hold who and when."""

from django.db import models

from kestrel.accounts.models import OfKitchen


class Kept(OfKitchen):
    """A document with a name for lists; ``revision`` counts changes, so that two windows do not
    overwrite each other."""

    name = models.CharField(max_length=120)
    document = models.JSONField()
    revision = models.PositiveIntegerField(default=1)
    created_at = models.DateTimeField(auto_now_add=True)
    updated_at = models.DateTimeField(auto_now=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        abstract = True

    def __str__(self) -> str:
        return self.name


class Dish(Kept):
    """A dish; its document names sauces by their numbers in this kitchen."""

    class Meta:
        ordering = ["name", "pk"]
        indexes = [models.Index(fields=["kitchen", "deleted_at", "name"])]


class Service(Kept):
    """A service; its document names dishes by their numbers. ``pinned`` holds the version of every
    sauce it was planned with: a sauce changed or deleted afterwards stays as it was here."""

    date = models.DateField(null=True, blank=True)
    pinned = models.JSONField(default=dict)

    class Meta:
        ordering = ["-date", "-pk"]
        indexes = [models.Index(fields=["kitchen", "deleted_at", "-date"])]
