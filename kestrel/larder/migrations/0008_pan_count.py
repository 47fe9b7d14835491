"""How many of a pan there are: one, until a kitchen says otherwise."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("larder", "0007_animals")]
    operations = [migrations.AddField("pan", "count", models.PositiveSmallIntegerField(default=1))]
