from django.apps import AppConfig


class KeepingConfig(AppConfig):
    """Keeping hears when a service begins."""

    name = "kestrel.keeping"

    def ready(self) -> None:
        from kestrel.keeping import drawing  # noqa: F401  its receiver is connected by being there
