"""Settings, safe by default; what a kitchen may change comes from the environment.

KESTREL_DB       the SQLite file (default var/kitchen.sqlite3)
KESTREL_BACKUPS  where copies of it go (default: var/kitchen-copies, beside it)
KESTREL_HOSTS    further host names to answer to, with commas
KESTREL_HTTPS    1 behind a proxy that speaks HTTPS: cookies then travel over HTTPS only
KESTREL_ORIGINS  with it: the addresses cooks type, with commas (https://sauces.example)
KESTREL_PROXIES  with it: addresses of the proxies whose word counts, with commas (default 127.0.0.1)
KESTREL_SECRET   the secret key (default: made once and kept in var/)
"""

import os
from datetime import timedelta
from pathlib import Path
from urllib.parse import urlsplit

from kestrel.private import keep_private, secret_in

BASE_DIR = Path(__file__).resolve().parent.parent
VAR_DIR = BASE_DIR / "var"


def _several(name: str) -> list[str]:
    """What the environment lists under ``name``, with commas."""
    return [part.strip() for part in os.environ.get(name, "").split(",") if part.strip()]


SECRET_KEY = os.environ.get("KESTREL_SECRET") or secret_in(VAR_DIR / "secret_key")
DEBUG = False
HTTPS = os.environ.get("KESTREL_HTTPS") == "1"
PROXIES = (_several("KESTREL_PROXIES") or ["127.0.0.1"]) if HTTPS else []
CSRF_TRUSTED_ORIGINS = _several("KESTREL_ORIGINS")
ALLOWED_HOSTS = [
    "localhost",
    "127.0.0.1",
    *_several("KESTREL_HOSTS"),
    *filter(None, (urlsplit(origin).hostname for origin in CSRF_TRUSTED_ORIGINS)),
]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "csp",
    "ninja",
    "kestrel.accounts",
    "kestrel.larder",
    "kestrel.sauces",
    "kestrel.practice",
    "kestrel.service",
    "kestrel.stove",
    "kestrel.run_up",
    "kestrel.keeping",
    "kestrel.journal",
    "kestrel.whole",
]
MIDDLEWARE = [
    # What every answer carries, files of the interface too.
    "django.middleware.security.SecurityMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    # Answers of the API compressed; what streams says itself that it is not (kestrel.live).
    "django.middleware.gzip.GZipMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "axes.middleware.AxesMiddleware",
]
ROOT_URLCONF = "kestrel.urls"
ASGI_APPLICATION = "kestrel.asgi.application"

TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}]

DB = Path(os.environ.get("KESTREL_DB", VAR_DIR / "kitchen.sqlite3"))
BACKUPS = Path(os.environ.get("KESTREL_BACKUPS", DB.with_name(f"{DB.stem}-copies")))
keep_private(DB)
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DB,
        "OPTIONS": {
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL;",
            "transaction_mode": "IMMEDIATE",
            # Who waits for longer is told to try again (kestrel.trouble).
            "timeout": 8,
        },
        # A file, so that the threads of the browser tests' server share one database.
        "TEST": {"NAME": os.environ.get("KESTREL_TEST_DB", VAR_DIR / "test.sqlite3")},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.User"
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {
        "NAME": "django.contrib.auth.password_validation.MinimumLengthValidator",
        "OPTIONS": {"min_length": 10},
    },
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = timedelta(minutes=10)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_LOCKOUT_CALLABLE = "kestrel.accounts.auth.locked_out"
AXES_VERBOSE = False

SESSION_COOKIE_AGE = 60 * 60 * 24 * 30
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = HTTPS
CSRF_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SECURE = HTTPS
CSRF_FAILURE_VIEW = "kestrel.trouble.csrf_failed"
SECURE_SSL_REDIRECT = HTTPS
SECURE_HSTS_SECONDS = 60 * 60 * 24 * 30 if HTTPS else 0
# What else is served beside the kitchen's name is not ours to bind to HTTPS.
SILENCED_SYSTEM_CHECKS = ["security.W005", "security.W021"]
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": ["'self'"],
        # The component library writes its styles into the page as it runs.
        "style-src": ["'self'", "'unsafe-inline'"],
        # A photograph is shown from the device's memory until the server has it.
        "img-src": ["'self'", "data:", "blob:"],
        "font-src": ["'self'", "data:"],
        "frame-ancestors": ["'none'"],
        "form-action": ["'self'"],
        "base-uri": ["'self'"],
    }
}
DATA_UPLOAD_MAX_MEMORY_SIZE = 1024 * 1024
LARGER_BODIES = {
    r"/api/stove/\d+/photos": 7 * 1024 * 1024,
    r"/api/whole": 257 * 1024 * 1024,
}
"""Where somebody signed in may send more, in bytes: the limits of photographs and kitchens with what
is around a file in a form."""

USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en-gb"
USE_I18N = False

WEB_DIST = BASE_DIR / "web" / "dist"
STATIC_URL = "/static/"
STATIC_ROOT = VAR_DIR / "static"
STATICFILES_DIRS = [WEB_DIST] if WEB_DIST.exists() else []
STORAGES = {
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}


def _immutable(path: str, url: str) -> bool:
    return "/assets/" in url


WHITENOISE_IMMUTABLE_FILE_TEST = _immutable

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
