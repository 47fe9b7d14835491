"""Settings for the tests: quick password hashing, static files straight from the build."""

from kestrel.settings import *  # noqa: F403

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
SECRET_KEY = "only for tests"
STORAGES = {
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}
WHITENOISE_USE_FINDERS = True
WHITENOISE_AUTOREFRESH = True
LOGGING["loggers"] = {"django.request": {"level": "ERROR"}, "axes": {"level": "ERROR"}}  # noqa: F405
