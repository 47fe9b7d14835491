"""What came out as it was judged and weighed, and that all of it is put away, stands with the batch."""

from typing import ClassVar

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies: ClassVar = [("stove", "0012_batch_numbers")]
    operations: ClassVar = [
        migrations.AddField("batch", "judged_pa_s", models.FloatField(blank=True, null=True)),
        migrations.AddField("batch", "weighed_g", models.FloatField(blank=True, null=True)),
        migrations.AddField("batch", "put_away_at", models.DateTimeField(blank=True, null=True)),
    ]
