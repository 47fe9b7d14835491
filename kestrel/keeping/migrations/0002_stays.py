"""What happened to what is kept stays as it was written."""

from typing import ClassVar

from django.db import migrations

from kestrel.append_only import guard


class Migration(migrations.Migration):
    dependencies: ClassVar = [("keeping", "0001_kept")]
    operations: ClassVar = [
        guard("keeping_event", ("kept_id", "key", "kind", "data", "at", "come_at", "kitchen_id")),
    ]
