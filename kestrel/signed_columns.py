"""The columns every signed row got in December 2026."""

from django.db import migrations, models


def signed(model: str) -> list[migrations.AddField]:
    """The columns of a signature for ``model``."""
    return [
        migrations.AddField(
            model,
            "by_name",
            models.CharField(blank=True, db_default="", default="", max_length=150),
        ),
        migrations.AddField(
            model,
            "session_name",
            models.CharField(blank=True, db_default="", default="", max_length=150),
        ),
        migrations.AddField(model, "imported_at", models.DateTimeField(blank=True, null=True)),
    ]
