"""What was asked of whom in practice, and how it went."""

from django.db import models

from kestrel.accounts.models import OfKitchen, User


class Round(OfKitchen):
    """One question somebody was asked: of a ``kind``, with its ``answer``; what was ``given`` and the
    ``score`` for it (None: not answered yet)."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    kind = models.CharField(max_length=10)
    question = models.JSONField()
    answer = models.JSONField()
    given = models.JSONField(null=True, blank=True)
    score = models.FloatField(null=True, blank=True)
    asked_at = models.DateTimeField(auto_now_add=True)
    answered_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["pk"]
        indexes = [models.Index(fields=["kitchen", "user", "kind", "-answered_at"])]

    def __str__(self) -> str:
        return f"{self.kind} for {self.user}"
