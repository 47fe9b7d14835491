"""Rows a kitchen corrected before rows had a body: the shipped row's figures for it."""

from django.db import migrations

from saucier.larder import row_of, shipped_larder

_NEW = ("falls_pct", "body", "body_spread_pct", "boils_away_pct", "body_origin")


def fill(apps, schema_editor):
    rows = apps.get_model("larder", "OwnIngredient")
    shipped = shipped_larder()
    for own in rows.objects.all():
        if own.key in shipped and not any(name in own.row for name in _NEW):
            had = row_of(shipped[own.key])
            own.row = {**own.row, **{name: had[name] for name in _NEW}}
            own.save(update_fields=["row"])


class Migration(migrations.Migration):
    dependencies = [("larder", "0005_whisk")]
    operations = [migrations.RunPython(fill, migrations.RunPython.noop)]
