from django.apps import AppConfig


class RunUpConfig(AppConfig):
    """Run-ups bring documents of before up to date once everything is migrated."""

    name = "kestrel.run_up"

    def ready(self) -> None:
        from kestrel.run_up import begun, renaming  # noqa: F401  receivers are connected by being there
