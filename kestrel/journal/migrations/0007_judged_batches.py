"""What was judged and weighed of batches written down before stands with them too, as last corrected."""

from typing import Any, ClassVar

from django.db import migrations


def judged(apps: Any, schema_editor: Any) -> None:
    entries = apps.get_model("journal", "Entry").objects
    batches = apps.get_model("stove", "Batch").objects
    for entry in entries.prefetch_related("corrections").iterator(chunk_size=500):
        corrections = sorted(entry.corrections.all(), key=lambda correction: correction.pk)
        stands = corrections[-1] if corrections else entry
        if stands.reached_pa_s is not None or stands.weighed_g is not None:
            batches.filter(pk=entry.batch_id).update(
                judged_pa_s=stands.reached_pa_s, weighed_g=stands.weighed_g
            )


class Migration(migrations.Migration):
    dependencies: ClassVar = [("journal", "0006_people_of_one_name"), ("stove", "0013_judged")]
    operations: ClassVar = [migrations.RunPython(judged, migrations.RunPython.noop)]
