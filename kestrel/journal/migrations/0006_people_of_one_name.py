"""Two people of a kitchen never share a name that is shown: of those who do, the later ones are numbered. What is
written keeps the name it was signed with."""

from typing import Any, ClassVar

from django.db import migrations


def number(apps: Any, schema_editor: Any) -> None:
    user_model = apps.get_model("accounts", "User")
    members = apps.get_model("accounts", "Membership").objects.select_related("user").order_by("pk")
    taken: dict[int, set[str]] = {}
    for member in members:
        user = user_model.objects.get(pk=member.user_id)
        shown = user.first_name or user.username
        others = taken.setdefault(member.kitchen_id, set())
        numbered, count = shown, 1
        while " ".join(numbered.split()).casefold() in others:
            count += 1
            numbered = f"{shown} {count}"
        others.add(" ".join(numbered.split()).casefold())
        if numbered != shown:
            user_model.objects.filter(pk=user.pk).update(first_name=numbered)


class Migration(migrations.Migration):
    dependencies: ClassVar = [
        ("accounts", "0005_ways"),
        ("stove", "0011_signatures_and_milestones"),
        ("keeping", "0003_signatures"),
        ("journal", "0005_signatures"),
    ]
    operations: ClassVar = [migrations.RunPython(number, migrations.RunPython.noop)]
