"""Signatures as they were, what a reading came from, and what became of each batch as rows of the record."""

from typing import Any, ClassVar

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from kestrel.signed_columns import signed


def fill(apps: Any, schema_editor: Any) -> None:
    """Names as they stand today go into the rows: renaming somebody later changes none of them."""
    act_model, batch_model = apps.get_model("stove", "Act"), apps.get_model("stove", "Batch")
    milestone = apps.get_model("stove", "Milestone")
    names = {
        user.pk: user.first_name or user.username for user in apps.get_model("accounts", "User").objects.all()
    }
    for by in act_model.objects.exclude(by=None).values_list("by", flat=True).distinct():
        act_model.objects.filter(by=by).update(by_name=names[by])
    rows = []
    for batch in batch_model.objects.order_by("pk"):
        shared = {"kitchen_id": batch.kitchen_id, "batch": batch, "name": str(batch.plan.get("name", ""))[:160]}
        starter = {"by_id": batch.started_by_id, "by_name": names.get(batch.started_by_id, "")}
        rows.append(milestone(kind="began", at=batch.started_at, **starter, **shared))
        moves = list(act_model.objects.filter(batch=batch, kind__in=("left", "back"), taken=True).order_by("pk"))
        rows += [
            milestone(
                kind=act.kind,
                at=act.at,
                by_id=act.by_id,
                by_name=names.get(act.by_id, ""),
                written_at=act.written_at,
                **shared,
            )
            for act in moves
        ]
        told = moves[-1].kind if moves else ""
        if batch.ended_at is not None and not (batch.status == "left" and told == "left"):
            rows.append(milestone(kind=batch.status, at=batch.ended_at, **starter, **shared))
    milestone.objects.bulk_create(rows, batch_size=500)


class Migration(migrations.Migration):
    dependencies: ClassVar = [
        ("stove", "0010_last_cooked"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]
    operations: ClassVar = [
        *signed("act"),
        migrations.RenameField("act", "come_at", "written_at"),
        migrations.AlterField("act", "written_at", models.DateTimeField(blank=True, null=True)),
        migrations.AddField(
            "device",
            "kept_key",
            models.CharField(blank=True, db_default="", default="", max_length=40),
        ),
        migrations.AddField("device", "tray", models.PositiveSmallIntegerField(blank=True, null=True)),
        migrations.AddField(
            "device",
            "made_by",
            models.ForeignKey(
                null=True,
                on_delete=django.db.models.deletion.SET_NULL,
                related_name="+",
                to=settings.AUTH_USER_MODEL,
            ),
        ),
        migrations.AddField("device", "stopped_at", models.DateTimeField(blank=True, null=True)),
        migrations.AddField(
            "reading",
            "kept_key",
            models.CharField(blank=True, db_default="", default="", max_length=40),
        ),
        migrations.AddField("reading", "tray", models.PositiveSmallIntegerField(blank=True, null=True)),
        migrations.AddField(
            "reading",
            "device_name",
            models.CharField(blank=True, db_default="", default="", max_length=60),
        ),
        migrations.AddField("reading", "simulated", models.BooleanField(db_default=False, default=False)),
        migrations.AddField("reading", "clock_off_s", models.FloatField(db_default=0.0, default=0.0)),
        migrations.AddField("reading", "written_at", models.DateTimeField(blank=True, null=True)),
        migrations.AddField("reading", "imported_at", models.DateTimeField(blank=True, null=True)),
        migrations.CreateModel(
            name="Milestone",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                (
                    "by_name",
                    models.CharField(blank=True, db_default="", default="", max_length=150),
                ),
                (
                    "session_name",
                    models.CharField(blank=True, db_default="", default="", max_length=150),
                ),
                ("written_at", models.DateTimeField(blank=True, null=True)),
                ("imported_at", models.DateTimeField(blank=True, null=True)),
                (
                    "kind",
                    models.CharField(
                        choices=[
                            ("began", "began"),
                            ("done", "done"),
                            ("left", "abandoned"),
                            ("back", "brought back"),
                        ],
                        max_length=5,
                    ),
                ),
                ("name", models.CharField(max_length=160)),
                ("at", models.DateTimeField()),
                (
                    "batch",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT,
                        related_name="milestones",
                        to="stove.batch",
                    ),
                ),
                (
                    "by",
                    models.ForeignKey(
                        null=True,
                        on_delete=django.db.models.deletion.SET_NULL,
                        related_name="+",
                        to=settings.AUTH_USER_MODEL,
                    ),
                ),
                (
                    "kitchen",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="+",
                        to="accounts.kitchen",
                    ),
                ),
            ],
            options={
                "ordering": ["pk"],
                "indexes": [
                    models.Index(fields=["kitchen", "at"], name="stove_miles_kitchen_389d05_idx")
                ],
            },
        ),
        migrations.RunPython(fill, migrations.RunPython.noop),
    ]
