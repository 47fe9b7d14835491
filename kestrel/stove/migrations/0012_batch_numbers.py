"""Which of several batches of a pot one is, told once and for all: until now it went by their order."""

from typing import Any, ClassVar

from django.db import migrations, models


def number(apps: Any, schema_editor: Any) -> None:
    batch_model = apps.get_model("stove", "Batch")
    of_pot: dict[tuple[int, str], int] = {}
    rows = batch_model.objects.exclude(service=None).exclude(status="left").order_by("started_at", "pk")
    for pk, service, pot in rows.values_list("pk", "service", "pot"):
        of_pot[service, pot] = of_pot.get((service, pot), 0) + 1
        batch_model.objects.filter(pk=pk).update(number=of_pot[service, pot])


class Migration(migrations.Migration):
    dependencies: ClassVar = [("stove", "0011_signatures_and_milestones")]
    operations: ClassVar = [
        migrations.AddField(
            "batch", "number", models.PositiveSmallIntegerField(db_default=1, default=1)
        ),
        migrations.RunPython(number, migrations.RunPython.noop),
    ]
