"""Users and kitchens. Every other row belongs to a kitchen."""

from django.contrib.auth.models import AbstractUser
from django.db import models
from django.utils.crypto import salted_hmac

from saucier.words import Ways


class User(AbstractUser):
    """Somebody who signs in. Belongs to one kitchen or more. Or somebody who is only named in records that
    came from elsewhere: they never sign in, and are called by their first name."""

    sign_ins = models.PositiveIntegerField(default=0, db_default=0)
    """Counted up, every session of theirs ends."""

    def _get_session_auth_hash(self, secret: str | None = None) -> str:
        if not self.sign_ins:
            return super()._get_session_auth_hash(secret=secret)  # type: ignore[misc,no-any-return]
        salt = "kestrel.accounts.User.sessions"
        text = f"{self.password} {self.sign_ins}"
        return salted_hmac(salt, text, secret=secret, algorithm="sha256").hexdigest()

    @property
    def called(self) -> str:
        """As they are named in records."""
        return self.first_name or self.username


class Kitchen(models.Model):
    """A kitchen: what its people share."""

    name = models.CharField(max_length=80)
    currency = models.CharField(max_length=8, default="€")
    temperature = models.CharField(max_length=1, default="C", db_default="C")
    """Degrees it reads: C or F."""
    measures = models.CharField(max_length=6, default="metric", db_default="metric")
    """Which measures come first: metric, or us with metric behind them."""
    tablespoon_ml = models.PositiveSmallIntegerField(default=15, db_default=15)
    decimals = models.CharField(max_length=1, default=".", db_default=".")
    dates = models.CharField(max_length=5, default="day", db_default="day")
    """How a day is written: day (27 Nov), month (Nov 27) or iso (2026-11-27)."""
    begun = models.BooleanField(default=False, db_default=False)
    """Whether it has said what it has, or that it will say so later."""
    daily_copies = models.BooleanField(default=False, db_default=False)
    """Whether a copy of each day is wanted, for a week (kestrel.whole.backup)."""
    created_at = models.DateTimeField(auto_now_add=True)
    members = models.ManyToManyField(User, through="Membership", related_name="kitchens")

    def __str__(self) -> str:
        return self.name

    @property
    def ways(self) -> Ways:
        """How its figures are written."""
        return Ways(
            fahrenheit=self.temperature == "F",
            us=self.measures == "us",
            comma=self.decimals == ",",
            tablespoon_ml=float(self.tablespoon_ml),
        )


class Membership(models.Model):
    """A user's place in a kitchen; an ``owner`` invites others and lets them go."""

    user = models.ForeignKey(User, on_delete=models.CASCADE)
    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE)
    owner = models.BooleanField(default=False, db_default=False)

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


class Invite(OfKitchen):
    """A link into a kitchen, until it expires or is used; of its token only a digest is kept. With
    ``for_user``: a new password for somebody who is there."""

    digest = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    expires_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True, blank=True)
    for_user = models.ForeignKey(User, null=True, on_delete=models.CASCADE, related_name="+")

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return f"into {self.kitchen}"
