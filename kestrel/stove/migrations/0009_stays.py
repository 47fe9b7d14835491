"""Acts at a batch and what devices read of it stay as they were written."""

from typing import ClassVar

from django.db import migrations

from kestrel.append_only import guard


class Migration(migrations.Migration):
    dependencies: ClassVar = [("stove", "0008_free_hand_asides_photos_labels")]
    operations: ClassVar = [
        guard(
            "stove_act",
            (
                "batch_id",
                "key",
                "kind",
                "step",
                "data",
                "at",
                "come_at",
                "taken",
                "why",
                "kitchen_id",
            ),
        ),
        guard("stove_reading", ("batch_id", "kind", "at", "value")),
    ]
