"""Every line of a service gets the id it is told apart by; until now it was told by where it stands."""

from typing import Any, ClassVar

from django.db import migrations


def identify(apps: Any, schema_editor: Any) -> None:
    service_model = apps.get_model("service", "Service")
    for service in service_model.objects.all():
        lines = service.document.get("lines", [])
        if any("id" not in line for line in lines):
            for number, line in enumerate(lines):
                line.setdefault("id", number)
            service_model.objects.filter(pk=service.pk).update(document=service.document)


class Migration(migrations.Migration):
    dependencies: ClassVar = [("service", "0001_dishes_and_services")]
    operations: ClassVar = [migrations.RunPython(identify, migrations.RunPython.noop)]
