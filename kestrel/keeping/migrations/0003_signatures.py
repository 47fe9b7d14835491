"""Signatures as they were, and the end of cooking of what was put away."""

from datetime import datetime
from typing import Any, ClassVar

from django.db import migrations, models

from kestrel.signed_columns import signed


def fill(apps: Any, schema_editor: Any) -> None:
    names = {
        user.pk: user.first_name or user.username for user in apps.get_model("accounts", "User").objects.all()
    }
    event, kept_model = apps.get_model("keeping", "Event"), apps.get_model("keeping", "Kept")
    for by in event.objects.exclude(by=None).values_list("by", flat=True).distinct():
        event.objects.filter(by=by).update(by_name=names[by])
    for kept in kept_model.objects.select_related("batch"):
        batch = kept.batch
        last = batch.began.get(str(len(batch.plan.get("cards", []))))
        off_fire = datetime.fromisoformat(last) if last else batch.ended_at
        kept_model.objects.filter(pk=kept.pk).update(
            by_name=names.get(kept.put_by_id, ""),
            off_fire_at=min(off_fire, kept.put_at) if off_fire else None,
        )


class Migration(migrations.Migration):
    dependencies: ClassVar = [
        ("keeping", "0002_stays"),
        ("stove", "0011_signatures_and_milestones"),
    ]
    operations: ClassVar = [
        *signed("event"),
        migrations.RenameField("event", "come_at", "written_at"),
        migrations.AlterField("event", "written_at", models.DateTimeField(blank=True, null=True)),
        *signed("kept"),
        migrations.AddField("kept", "written_at", models.DateTimeField(blank=True, null=True)),
        migrations.AddField("kept", "off_fire_at", models.DateTimeField(blank=True, null=True)),
        migrations.AddField("kept", "put_c", models.FloatField(blank=True, null=True)),
        migrations.RunPython(fill, migrations.RunPython.noop),
    ]
