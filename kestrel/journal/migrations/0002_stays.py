"""What was written down of a batch stays as it was written."""

from typing import ClassVar

from django.db import migrations

from kestrel.append_only import guard


class Migration(migrations.Migration):
    dependencies: ClassVar = [("journal", "0001_initial")]
    operations: ClassVar = [
        guard(
            "journal_entry",
            (
                "batch_id",
                "made_at",
                "weighed_g",
                "reached_pa_s",
                "verdict",
                "note",
                "kitchen_id",
            ),
        ),
    ]
