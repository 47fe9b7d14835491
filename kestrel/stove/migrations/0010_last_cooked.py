"""When each sauce was last put on the stove, from the batches there are."""

from django.db import migrations
from django.db.models import Max


def last_cooked(apps, schema_editor):
    batches = apps.get_model("stove", "Batch").objects
    sauces = apps.get_model("sauces", "Sauce").objects
    rows = (
        batches.exclude(version=None)
        .values("version__sauce")
        .annotate(last=Max("started_at"))
        .order_by()
    )
    for row in rows:
        sauces.filter(pk=row["version__sauce"]).update(cooked_at=row["last"])


class Migration(migrations.Migration):
    dependencies = [("stove", "0009_stays"), ("sauces", "0004_marks")]
    operations = [migrations.RunPython(last_cooked, migrations.RunPython.noop)]
