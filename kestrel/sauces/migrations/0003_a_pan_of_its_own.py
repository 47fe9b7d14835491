"""A sauce inside a sauce is made in a pan of its own, as much of it as goes in: where that cost a saved
sauce its grade, a further version is proportioned anew, with a note."""

import importlib

from django.db import migrations

from kestrel.sauces.migrating import NOTE_INSIDE, further_version

_core_of = importlib.import_module("kestrel.sauces.migrations.0002_shares_of_the_liquid").core_of


def migrate(apps, schema_editor):
    sauces = apps.get_model("sauces", "Sauce")
    versions = apps.get_model("sauces", "SauceVersion")
    for sauce in sauces.objects.order_by("pk"):
        newest = versions.objects.filter(sauce=sauce, number=sauce.version).first()
        steps = newest.sheet.get("steps", []) if newest else []
        if any(step.get("op") == "use" for step in steps):
            kitchen = _core_of(apps, sauce.kitchen_id)
            further_version(sauces, versions, sauce, kitchen, NOTE_INSIDE)


class Migration(migrations.Migration):
    dependencies = [("sauces", "0002_shares_of_the_liquid"), ("larder", "0006_body")]
    operations = [migrations.RunPython(migrate, migrations.RunPython.noop)]
