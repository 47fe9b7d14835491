import django.db.models.deletion
from django.db import migrations, models


def keep_what_was_cooked(apps, schema_editor):
    """Every batch holds its own sheet from here on: that of the version it was started from."""
    batches = apps.get_model("stove", "Batch").objects.select_related("version")
    for batch in batches.iterator(chunk_size=500):
        batch.sheet = batch.version.sheet
        batch.save(update_fields=["sheet"])


class Migration(migrations.Migration):

    dependencies = [
        ('sauces', '0001_initial'),
        ('service', '0001_dishes_and_services'),
        ('stove', '0002_mends'),
    ]

    operations = [
        migrations.AddField(
            model_name='batch',
            name='sheet',
            field=models.JSONField(default=dict),
            preserve_default=False,
        ),
        migrations.RunPython(keep_what_was_cooked, migrations.RunPython.noop),
        migrations.AddField(
            model_name='batch',
            name='service',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='batches', to='service.service'),
        ),
        migrations.AddField(
            model_name='batch',
            name='pot',
            field=models.CharField(blank=True, max_length=200),
        ),
        migrations.AlterField(
            model_name='batch',
            name='version',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='batches', to='sauces.sauceversion'),
        ),
        migrations.AddConstraint(
            model_name='batch',
            constraint=models.CheckConstraint(
                condition=models.Q(('version__isnull', False), ('service__isnull', False), _connector='OR'),
                name='of_a_sauce_or_a_service',
            ),
        ),
    ]
