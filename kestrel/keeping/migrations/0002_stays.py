"""What happened to what is kept stays as it was written."""

from typing import ClassVar

from django.db import migrations

from kestrel.stays import stay


class Migration(migrations.Migration):
    dependencies: ClassVar = [("keeping", "0001_kept")]
    operations: ClassVar = [
        stay("keeping_event", ("kept_id", "key", "kind", "data", "at", "come_at", "kitchen_id")),
    ]
