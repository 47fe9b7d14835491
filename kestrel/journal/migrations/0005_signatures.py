"""Signatures as they were."""

from typing import Any, ClassVar

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from kestrel.signed_columns import signed


def fill(apps: Any, schema_editor: Any) -> None:
    names = {
        user.pk: user.first_name or user.username for user in apps.get_model("accounts", "User").objects.all()
    }
    for name in ("Served", "Correction"):
        model = apps.get_model("journal", name)
        for by in model.objects.exclude(by=None).values_list("by", flat=True).distinct():
            model.objects.filter(by=by).update(by_name=names[by])


class Migration(migrations.Migration):
    dependencies: ClassVar = [
        ("journal", "0004_corrections"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]
    operations: ClassVar = [
        *(
            operation
            for model in ("entry", "served", "correction")
            for operation in (
                *signed(model),
                migrations.AddField(model, "written_at", models.DateTimeField(blank=True, null=True)),
            )
        ),
        migrations.AddField(
            "entry",
            "by",
            models.ForeignKey(
                null=True,
                on_delete=django.db.models.deletion.SET_NULL,
                related_name="+",
                to=settings.AUTH_USER_MODEL,
            ),
        ),
        migrations.RunPython(fill, migrations.RunPython.noop),
    ]
