"""What is poured from a mother pot takes a sauce that stands ready: it is not made again."""

from django.db import migrations


def migrate(apps, schema_editor):
    batches = apps.get_model("stove", "Batch")
    for batch in batches.objects.filter(service__isnull=False).iterator():
        steps = batch.sheet.get("steps") or [{}]
        # A branch is weighed out under a key of its own; a sauce in its own pot goes by the pot's.
        if steps[0].get("op") == "use" and not batch.pot.startswith("own-"):
            steps[0]["ready"] = True
            batches.objects.filter(pk=batch.pk).update(sheet=batch.sheet)


class Migration(migrations.Migration):
    dependencies = [("stove", "0005_made_first")]
    operations = [migrations.RunPython(migrate, migrations.RunPython.noop)]
