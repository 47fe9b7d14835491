"""Who signs a record: the name they had then, and whose session it was that was really signed in."""

from contextvars import ContextVar

from django.core.signals import request_finished
from django.db import models
from django.dispatch import receiver
from django.utils import timezone

from kestrel.append_only import AppendOnly

_session: ContextVar[str] = ContextVar("session_name", default="")
NAME_LENGTH = 150


def sign_as(session_name: str) -> None:
    """Records written from now on in this request carry ``session_name`` beside who did it."""
    _session.set(session_name)


@receiver(request_finished)
def _session_ends(**_: object) -> None:
    """The next request on this thread begins with nobody signed in."""
    _session.set("")


class SignedRow(AppendOnly):
    """A row of a record. ``by_name``: what who did it was called then; ``session_name``: whose session it was;
    ``written_at``: when it was written down (None in rows of before December 2026 that do not say);
    ``imported_at``: when it came in with a kitchen's file (None: it was written here). All are set once, when the
    row is made: renaming somebody changes no old line."""

    SIGNER = "by"
    """Which column points at who did it."""

    by_name = models.CharField(max_length=NAME_LENGTH, blank=True, default="", db_default="")
    session_name = models.CharField(max_length=NAME_LENGTH, blank=True, default="", db_default="")
    written_at = models.DateTimeField(null=True, blank=True)
    imported_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        abstract = True

    def save(self, *args: object, **kwargs: object) -> None:
        if self._state.adding:
            signer = getattr(self, self.SIGNER)
            self.by_name = self.by_name or (signer.called if signer else "")
            self.session_name = self.session_name or _session.get()
            self.written_at = self.written_at or timezone.now()
        super().save(*args, **kwargs)  # type: ignore[arg-type]
