"""Users and kitchens. Every other row belongs to a kitchen."""

from django.contrib.auth.models import AbstractUser
from django.db import models


class User(AbstractUser):
    """Somebody who signs in. Belongs to one kitchen or more. Or somebody who is only named in records that
    came from elsewhere: they never sign in, and are called by their first name."""

    @property
    def called(self) -> str:
        """As they are named in records."""
        return self.first_name or self.username


class Kitchen(models.Model):
    """A kitchen: what its people share."""

    name = models.CharField(max_length=80)
    currency = models.CharField(max_length=8, default="€")
    created_at = models.DateTimeField(auto_now_add=True)
    members = models.ManyToManyField(User, through="Membership", related_name="kitchens")

    def __str__(self) -> str:
        return self.name


class Membership(models.Model):
    """A user's place in a kitchen."""

    user = models.ForeignKey(User, on_delete=models.CASCADE)
    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["user", "kitchen"], name="one_place_in_a_kitchen")
        ]

    def __str__(self) -> str:
        return f"{self.user} in {self.kitchen}"


class Answered(models.Model):
    """What was answered to an act that made something, for when the answer was lost and it is sent again
    (kestrel.once). ``of`` is a digest of what was asked."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    key = models.CharField(max_length=40)
    of = models.CharField(max_length=64)
    status = models.PositiveSmallIntegerField()
    body = models.BinaryField()
    at = models.DateTimeField(auto_now_add=True, db_index=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "key"], name="one_answer_to_an_act")]

    def __str__(self) -> str:
        return self.key


class OfKitchen(models.Model):
    """A row that belongs to a kitchen. Routes only ever read ``objects.filter(kitchen=…)``."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="+")

    class Meta:
        abstract = True
