from django.apps import AppConfig


class RunUpConfig(AppConfig):
    """Run-ups bring documents of before up to date once everything is migrated."""

    name = "kestrel.run_up"

    def ready(self) -> None:
        from kestrel.run_up import renaming  # noqa: F401  its receiver is connected by being there
