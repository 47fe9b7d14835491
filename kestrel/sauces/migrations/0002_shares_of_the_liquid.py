"""Saved sheets under today's reading of a share and today's law of thickness.

Every version is written for the pot it always made. Where the newest version of a sauce no longer
has the grade it was saved for, a further version is proportioned anew, with a note; the one before
it stays. What cannot be brought there stays as it is: the app shows what it comes to.
"""

from django.db import migrations, models

from kestrel.sauces.migrating import NOTE, further_version, same_pot
from saucier.errors import BadInput
from saucier.heat import POT_SHAPES, Pan
from saucier.kitchen import Kitchen
from saucier.larder import ingredient_from_row, shipped_larder

_PAN = (
    "name", "shape", "diameter_cm", "depth_cm", "tare_g", "width_cm", "reactive", "heavy",
)  # fmt: skip


def core_of(apps, kitchen_id):
    """The kitchen as it stood: its own rows of the larder and its pots."""
    rows = apps.get_model("larder", "OwnIngredient").objects.filter(kitchen_id=kitchen_id)
    pans = apps.get_model("larder", "Pan").objects.filter(kitchen_id=kitchen_id)
    good = []
    for own in rows:
        try:
            good.append(ingredient_from_row(own.row))
        except BadInput:
            continue
    return Kitchen(
        shipped_larder().with_rows(good),
        pans=tuple(
            Pan(**{name: getattr(pan, name) for name in _PAN})
            for pan in pans
            if pan.shape in POT_SHAPES
        ),
    )


def migrate(apps, schema_editor):
    sauces = apps.get_model("sauces", "Sauce")
    versions = apps.get_model("sauces", "SauceVersion")
    kitchens = {}
    for sauce in sauces.objects.order_by("pk"):
        kitchen = kitchens.setdefault(sauce.kitchen_id, None) or core_of(apps, sauce.kitchen_id)
        kitchens[sauce.kitchen_id] = kitchen
        for version in versions.objects.filter(sauce=sauce):
            now = same_pot(version.sheet, kitchen)
            if now != version.sheet:
                versions.objects.filter(pk=version.pk).update(sheet=now)
        further_version(sauces, versions, sauce, kitchen, NOTE)


class Migration(migrations.Migration):
    dependencies = [("sauces", "0001_initial"), ("larder", "0006_body")]
    operations = [
        migrations.AddField(
            model_name="sauceversion",
            name="note",
            field=models.CharField(blank=True, max_length=300),
        ),
        migrations.RunPython(migrate, migrations.RunPython.noop),
    ]
