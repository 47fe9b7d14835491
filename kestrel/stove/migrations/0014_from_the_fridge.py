"""A pot of what was kept, and what a probe read before it was put where it is."""

from typing import ClassVar

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies: ClassVar = [("stove", "0013_judged")]
    operations: ClassVar = [
        migrations.AddField(
            "batch", "drawn_key", models.CharField(blank=True, db_default="", default="", max_length=40)
        ),
        migrations.AddField("device", "read_before", models.JSONField(blank=True, null=True)),
        migrations.RemoveConstraint("batch", "of_a_sauce_or_a_service"),
        migrations.AddConstraint(
            "batch",
            models.CheckConstraint(
                name="of_a_sauce_or_a_service",
                condition=models.Q(version__isnull=False)
                | models.Q(service__isnull=False)
                | ~models.Q(kind="sauce")
                | ~models.Q(drawn_key=""),
            ),
        ),
    ]
