"""The sheets batches were made from, written for the pot they made. Plans stay as predicted then."""

import importlib

from django.db import migrations

from kestrel.sauces.migrating import same_pot

_core_of = importlib.import_module("kestrel.sauces.migrations.0002_shares_of_the_liquid").core_of


def migrate(apps, schema_editor):
    batches = apps.get_model("stove", "Batch")
    kitchens = {}
    for batch in batches.objects.iterator():
        if batch.kitchen_id not in kitchens:
            kitchens[batch.kitchen_id] = _core_of(apps, batch.kitchen_id)
        now = same_pot(batch.sheet, kitchens[batch.kitchen_id])
        if now != batch.sheet:
            batches.objects.filter(pk=batch.pk).update(sheet=now)


class Migration(migrations.Migration):
    dependencies = [("stove", "0003_pots_of_a_service"), ("sauces", "0002_shares_of_the_liquid")]
    operations = [migrations.RunPython(migrate, migrations.RunPython.noop)]
