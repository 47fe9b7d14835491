from django.apps import AppConfig


class KeepingConfig(AppConfig):
    """Keeping hears when a service begins, and how warm became what was kept."""

    name = "kestrel.keeping"

    def ready(self) -> None:
        from kestrel.keeping import drawing, warming  # noqa: F401  their receivers are connected by being there
