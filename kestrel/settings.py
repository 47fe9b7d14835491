"""Settings, safe by default; what a kitchen may change comes from the environment.

KESTREL_DB      the SQLite file (default var/kitchen.sqlite3)
KESTREL_HOSTS   further host names to answer to, with commas
KESTREL_HTTPS   1 when served over HTTPS: cookies then travel over HTTPS only
KESTREL_SECRET  the secret key (default: made once and kept in var/)
"""

import os
import secrets
from datetime import timedelta
from pathlib import Path

BASE_DIR = Path(__file__).resolve().parent.parent
VAR_DIR = BASE_DIR / "var"


def _secret_key() -> str:
    given = os.environ.get("KESTREL_SECRET")
    if given:
        return given
    path = VAR_DIR / "secret_key"
    if not path.exists():
        VAR_DIR.mkdir(exist_ok=True)
        path.touch(mode=0o600)
        path.write_text(secrets.token_urlsafe(50), encoding="ascii")
    return path.read_text(encoding="ascii")


SECRET_KEY = _secret_key()
DEBUG = False
ALLOWED_HOSTS = [
    "localhost",
    "127.0.0.1",
    *filter(None, os.environ.get("KESTREL_HOSTS", "").split(",")),
]
HTTPS = os.environ.get("KESTREL_HTTPS") == "1"

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
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]
ROOT_URLCONF = "kestrel.urls"
ASGI_APPLICATION = "kestrel.asgi.application"

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": os.environ.get("KESTREL_DB", VAR_DIR / "kitchen.sqlite3"),
        "OPTIONS": {
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL;",
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
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
SECURE_SSL_REDIRECT = HTTPS
SECURE_HSTS_SECONDS = 60 * 60 * 24 * 30 if HTTPS else 0
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": ["'self'"],
        # The component library writes its styles into the page as it runs.
        "style-src": ["'self'", "'unsafe-inline'"],
        "img-src": ["'self'", "data:"],
        "font-src": ["'self'", "data:"],
        "frame-ancestors": ["'none'"],
        "form-action": ["'self'"],
        "base-uri": ["'self'"],
    }
}
DATA_UPLOAD_MAX_MEMORY_SIZE = 1024 * 1024

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
