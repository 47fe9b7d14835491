"""Settings for the tests: quick password hashing, static files straight from the build."""

import tempfile
from pathlib import Path

from kestrel.settings import *  # noqa: F403

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
SECRET_KEY = "only for tests"
STORAGES = {
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}
WHITENOISE_USE_FINDERS = True
WHITENOISE_AUTOREFRESH = True
DB = Path(str(DATABASES["default"]["TEST"]["NAME"]))  # type: ignore[index]  # noqa: F405
BACKUPS = Path(tempfile.mkdtemp(prefix="kestrel-copies-"))
LOGGING["loggers"] = {"django.request": {"level": "ERROR"}, "axes": {"level": "ERROR"}}  # noqa: F405

# Tests lose nothing in a power cut: no waiting for the disk.
_options: dict[str, object] = DATABASES["default"]["OPTIONS"]  # type: ignore[assignment]  # noqa: F405
_options["init_command"] = "PRAGMA journal_mode=WAL; PRAGMA synchronous=OFF;"
