"""Settings; everything that depends on the machine comes from PARTITOR_* variables."""

from __future__ import annotations

import os
from pathlib import Path

from csp.constants import NONCE, NONE, SELF

from partitor.isolation import CallLimits

from .logs import logging_of

ROOT = Path(__file__).resolve().parent.parent.parent
LOCAL = Path(os.environ.get("PARTITOR_LOCAL", ROOT / ".local"))
WEB_BUILD = Path(os.environ.get("PARTITOR_WEB", ROOT / "web" / "build"))


def _secret_key() -> str:
    """From the environment, else a random key kept in the local folder across starts."""
    given = os.environ.get("PARTITOR_SECRET_KEY")
    if given:
        return given
    path = LOCAL / "secret-key"
    if not path.exists():
        from django.core.management.utils import get_random_secret_key

        LOCAL.mkdir(parents=True, exist_ok=True)
        path.write_text(get_random_secret_key())
        path.chmod(0o600)
    return path.read_text()


SECRET_KEY = _secret_key()
DEBUG = False
ALLOWED_HOSTS = os.environ.get("PARTITOR_HOSTS", "127.0.0.1,localhost").split(",")
CSRF_TRUSTED_ORIGINS = [o for o in os.environ.get("PARTITOR_ORIGINS", "").split(",") if o]
HTTPS = os.environ.get("PARTITOR_HTTPS") == "1"

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "django.contrib.staticfiles",
    "procrastinate.contrib.django",
    "rest_framework",
    "drf_spectacular",
    "axes",
    "csp",
    "courses",
    "assignments",
    "intake",
    "checking",
    "review",
    "returns",
]

MIDDLEWARE = [
    "config.requests.RequestNumber",
    "config.parsing.StorableAddress",
    "django.middleware.security.SecurityMiddleware",
    "django.middleware.gzip.GZipMiddleware",
    "csp.middleware.CSPMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]

ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [Path(__file__).resolve().parent / "templates"],
        "APP_DIRS": True,
        "OPTIONS": {"context_processors": ["django.template.context_processors.request"]},
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "NAME": os.environ.get("PARTITOR_DB_NAME", "partitor"),
        "USER": os.environ.get("PARTITOR_DB_USER", "partitor"),
        "PASSWORD": os.environ.get("PARTITOR_DB_PASSWORD", ""),
        "HOST": os.environ.get("PARTITOR_DB_HOST", "127.0.0.1"),
        "PORT": os.environ.get("PARTITOR_DB_PORT", "5432"),
        "CONN_HEALTH_CHECKS": True,  # a connection that a restart of the database cut is replaced, not used
        "OPTIONS": {"pool": {"min_size": 1, "max_size": 12, "timeout": 5}},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = 0.25
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_LOCKOUT_CALLABLE = "config.errors.locked_out"
AXES_VERBOSE = False
TRUSTED_PROXIES = int(os.environ.get("PARTITOR_PROXIES", "0"))
"""Proxies of ours in front: so many entries of X-Forwarded-For, from the right, are believed."""
AXES_CLIENT_IP_CALLABLE = "config.address.client_address"

if HTTPS:  # behind a proxy that speaks TLS: one setting for all that this needs
    SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = True
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
    SECURE_HSTS_SECONDS = 31_536_000
    SECURE_SSL_REDIRECT = True
    SECURE_REDIRECT_EXEMPT = ["^healthy$", "^ready$"]
SESSION_COOKIE_SAMESITE = CSRF_COOKIE_SAMESITE = "Lax"
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CSRF_FAILURE_VIEW = "config.errors.no_token"

ROUTE_ANNOUNCER = "'sha256-S8qMpvofolR8Mpjy4kQvEm7m1q8clzU4dfDH0AmvZjo='"
"""The one inline style: SvelteKit's hidden line that tells screen readers of a new page."""
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF, NONCE],
        "style-src": [SELF, NONCE, "'unsafe-hashes'", ROUTE_ANNOUNCER],
        "img-src": [SELF, "data:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "frame-src": [SELF],
        "form-action": [SELF],
        "base-uri": [SELF],
        "frame-ancestors": [NONE],
    }
}

CACHES = {"default": {"BACKEND": "django.core.cache.backends.db.DatabaseCache", "LOCATION": "throttle_cache"}}
"""What is counted for throttling, for all server processes together."""

STATIC_URL = "/static/"
WHITENOISE_ROOT = WEB_BUILD if WEB_BUILD.exists() else None
WHITENOISE_INDEX_FILE = False

UPLOADS = Path(os.environ.get("PARTITOR_UPLOADS", LOCAL / "uploads"))
FILE_UPLOAD_TEMP_DIR = os.environ.get("PARTITOR_TMP")
FILE_UPLOAD_HANDLERS = ["intake.uploads.LimitedUpload"]
UPLOAD_MOST_BYTES = int(os.environ.get("PARTITOR_UPLOAD_MOST_BYTES", 100_000_000))
DATA_UPLOAD_MAX_MEMORY_SIZE = 5_000_000
DATA_UPLOAD_MAX_NUMBER_FILES = 2_000
CHECK_SECONDS, SAMPLE_SECONDS = 20.0, 4.0
"""Within these a check ends by itself, with what it has found; what does not is ended by the limits below."""
CHECK_LIMITS = CallLimits(cpu_seconds=30, wall_seconds=90, memory=1_500_000_000)
SAMPLE_LIMITS = CallLimits(cpu_seconds=6, wall_seconds=15, memory=800_000_000)
READING_LIMITS = CallLimits(cpu_seconds=120, wall_seconds=300, memory=4_000_000_000, answer=900_000_000)

REST_FRAMEWORK = {
    "DEFAULT_AUTHENTICATION_CLASSES": ["config.authentication.SessionLogin"],
    "DEFAULT_PERMISSION_CLASSES": ["rest_framework.permissions.IsAuthenticated"],
    "DEFAULT_RENDERER_CLASSES": ["rest_framework.renderers.JSONRenderer"],
    "DEFAULT_PARSER_CLASSES": ["config.parsing.StrictJSONParser"],
    "DEFAULT_SCHEMA_CLASS": "drf_spectacular.openapi.AutoSchema",
    "EXCEPTION_HANDLER": "config.errors.sentence",
    "DEFAULT_THROTTLE_RATES": {"sample": "40/min", "login": "60/min"},
    "NUM_PROXIES": TRUSTED_PROXIES,
}
SPECTACULAR_SETTINGS = {
    "TITLE": "Partitor",
    "VERSION": "1",
    "OAS_VERSION": "3.1.0",
    "SERVE_INCLUDE_SCHEMA": False,
    "COMPONENT_SPLIT_REQUEST": True,
    "SCHEMA_PATH_PREFIX": "/api/",
    "POSTPROCESSING_HOOKS": [
        "drf_spectacular.hooks.postprocess_schema_enums",
        "config.schema.add_core_records",
    ],
    "ENUM_NAME_OVERRIDES": {
        "CheckState": "checking.models.Check.State",
        "BatchState": "intake.models.Batch.State",
        "RemarkState": "review.models.Remark.State",
        "Part": "courses.models.Membership.Part",
        "Hint": "review.models.Remark.Hint",
    },
}

LANGUAGE_CODE = "en"
USE_TZ = True
TIME_ZONE = "UTC"
LOGGING = logging_of(os.environ.get("PARTITOR_LOG_LEVEL", "INFO"))
