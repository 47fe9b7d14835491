"""Rows a kitchen corrected before rows told what of animals is in them: as the shipped row has it."""

from django.db import migrations

from saucier.larder import row_of, shipped_larder


def fill(apps, schema_editor):
    rows = apps.get_model("larder", "OwnIngredient")
    shipped = shipped_larder()
    for own in rows.objects.all():
        if own.key in shipped and "animals" not in own.row:
            own.row = {**own.row, "animals": row_of(shipped[own.key])["animals"]}
            own.save(update_fields=["row"])


class Migration(migrations.Migration):
    dependencies = [("larder", "0006_body")]
    operations = [migrations.RunPython(fill, migrations.RunPython.noop)]
