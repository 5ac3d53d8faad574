"""Settings; everything that differs between places comes from HAVRIN_* variables."""

import os
import secrets
from datetime import timedelta
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent.parent
SAMPLE_WORLD = "demo.play.play_sample_world"  # what plays the sample world in; the server itself knows none
STATE = Path(os.environ.get("HAVRIN_STATE", ROOT / ".havrin"))


_DAY_S = 60 * 60 * 24


def _secret_key() -> str:
    """Return the key of this installation: from the environment, else made once and kept."""
    if "HAVRIN_SECRET_KEY" in os.environ:
        return os.environ["HAVRIN_SECRET_KEY"]
    file = STATE / "secret-key"
    if not file.exists():
        STATE.mkdir(parents=True, exist_ok=True)
        file.touch(mode=0o600)
        file.write_text(secrets.token_urlsafe(50))
    return file.read_text()


def _files() -> dict[str, Any]:
    """Return where photos, plates and logs are kept: a folder of this installation, or a bucket where one is set."""
    told = {
        name: os.environ.get(f"HAVRIN_FILES_{name}", "") for name in ("BUCKET", "ENDPOINT", "REGION", "KEY", "SECRET")
    }
    if not told["BUCKET"]:
        return {"BACKEND": "django.core.files.storage.FileSystemStorage"}
    from botocore.config import Config  # not loaded where nobody needs it

    # A page waits for some seconds and sends again: what takes longer here only holds others up.
    patience = Config(
        connect_timeout=3, read_timeout=8, retries={"total_max_attempts": 2}, s3={"addressing_style": "path"}
    )
    options = {
        "bucket_name": told["BUCKET"],
        "endpoint_url": told["ENDPOINT"] or None,
        "region_name": told["REGION"] or None,
        "access_key": told["KEY"],
        "secret_key": told["SECRET"],
        "file_overwrite": False,
        "default_acl": None,
        "client_config": patience,
    }
    return {"BACKEND": "havrin_server.operations.bucket.Bucket", "OPTIONS": options}


SECRET_KEY = _secret_key()
DEBUG = False
ALLOWED_HOSTS = os.environ.get("HAVRIN_HOSTS", "127.0.0.1,localhost").split(",")
INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "axes",
    "ninja",
    "procrastinate.contrib.django",
    "havrin_server.people",
    "havrin_server.versions",
    "havrin_server.work",
    "havrin_server.shop",
    "havrin_server.instruments",
    "havrin_server.units",
    "havrin_server.visits",
    "havrin_server.cards",
    "havrin_server.captures",
    "havrin_server.reports",
    "havrin_server.operations",
]
MIDDLEWARE = [
    "havrin_server.streams.StreamsHoldNothing",
    "django.middleware.security.SecurityMiddleware",
    "havrin_server.people.origin.Origin",
    "havrin_server.page.ContentPolicy",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "havrin_server.operations.access.Access",
    "havrin_server.people.wall.WallComesDown",
    "havrin_server.people.sessions.SessionLimits",
    "havrin_server.people.formats.FirmFormats",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]
ROOT_URLCONF = "havrin_server.urls"
ASGI_APPLICATION = "havrin_server.asgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}]
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "HOST": os.environ.get("HAVRIN_DB_HOST", "127.0.0.1"),
        "PORT": os.environ.get("HAVRIN_DB_PORT", "5432"),
        "NAME": os.environ.get("HAVRIN_DB_NAME", "havrin"),
        "USER": os.environ.get("HAVRIN_DB_USER", "havrin"),
        "PASSWORD": os.environ.get("HAVRIN_DB_PASSWORD", ""),
        # A connection is looked at before it is used: after the database was away the first calls would fail without it.
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            "pool": {"min_size": 1, "max_size": 10, "timeout": 4},
            "connect_timeout": 4,
            # Planning takes as long as answering, with the walls between firms: what is asked again is planned once.
            "server_side_binding": True,
            "prepare_threshold": 3,
        },
    }
}
# Long work tells how far it is beside its own transaction.
DATABASES["beside"] = {**DATABASES["default"], "OPTIONS": {"connect_timeout": 4}, "TEST": {"MIRROR": "default"}}
# Overviews are read from a replica where there is one (overviews.py); one that does not answer makes nobody wait long.
if os.environ.get("HAVRIN_DB_REPLICA_HOST"):
    DATABASES["replica"] = {
        **DATABASES["default"],
        "HOST": os.environ["HAVRIN_DB_REPLICA_HOST"],
        "PORT": os.environ.get("HAVRIN_DB_REPLICA_PORT", "5432"),
        "OPTIONS": {
            "pool": {"min_size": 0, "max_size": 10, "timeout": 2},
            "connect_timeout": 2,
            "server_side_binding": True,
            "prepare_threshold": 3,
        },
    }
DATABASE_ROUTERS = ["havrin_server.overviews.Router"]
AUTH_USER_MODEL = "people.Person"
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en"
STATIC_URL = "/django-static/"
WHITENOISE_ROOT = ROOT / "web" / "dist"
WHITENOISE_INDEX_FILE = True
WHITENOISE_MAX_AGE = 0
WHITENOISE_IMMUTABLE_FILE_TEST = r"/assets/.+-[\w-]{8}\.\w+$"
MEDIA_ROOT = STATE / "media"
STORAGES = {
    "default": _files(),
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}
FILE_UPLOAD_PERMISSIONS, FILE_UPLOAD_DIRECTORY_PERMISSIONS = 0o600, 0o700
FILE_UPLOAD_MAX_MEMORY_SIZE = 1024 * 1024  # larger uploads go to disk as they arrive
DATA_UPLOAD_MAX_MEMORY_SIZE = 8 * 1024 * 1024
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_ENGINE = "havrin_server.people.session_store"
SESSION_COOKIE_AGE = _DAY_S * int(
    os.environ.get("HAVRIN_IDLE_DAYS", "7")
)  # without use; a tablet may lie in a van over the holidays
SESSION_LONGEST_S = _DAY_S * int(
    os.environ.get("HAVRIN_LONGEST_DAYS", "30")
)  # then the password is asked again, whatever was done
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}", "OPTIONS": options}
    for name, options in (
        ("UserAttributeSimilarityValidator", {}),
        ("MinimumLengthValidator", {"min_length": 10}),
        ("CommonPasswordValidator", {}),
        ("NumericPasswordValidator", {}),
    )
]
HTTPS = os.environ.get("HAVRIN_HTTPS") == "1"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = HTTPS
if HTTPS:  # cookies that no other host and no plain wire can set
    SESSION_COOKIE_NAME, CSRF_COOKIE_NAME = "__Host-sessionid", "__Host-csrftoken"
    SECURE_HSTS_SECONDS = 60 * 60 * 24 * 365
# Five wrong passwords for a name from one address: a wait of five minutes.
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "havrin_server.people.backend.WithFirm"]
AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = timedelta(minutes=5)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_RESET_COOL_OFF_ON_FAILURE_DURING_LOCKOUT = False
AXES_VERBOSE = False
SILENCED_SYSTEM_CHECKS = ["axes.W002"]  # its middleware answers forms; the call for signing in answers by itself
CALL_RATE = os.environ.get("HAVRIN_CALL_RATE", "400/10s")  # of a person: an open page needs one or two a second
NINJA_NUM_PROXIES = 0  # who asks is already what a trusted proxy says, and nothing else (serving.py)
SECURE_CONTENT_TYPE_NOSNIFF = True
X_FRAME_OPTIONS = "DENY"
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "filters": {"secrets": {"()": "havrin_server.operations.logs.WithoutSecrets"}},
    "formatters": {"json": {"()": "havrin_server.operations.logs.JsonLine"}},
    "handlers": {
        "console": {
            "class": "logging.StreamHandler",
            "filters": ["secrets"],
            **({"formatter": "json"} if os.environ.get("HAVRIN_JSON_LOG") == "1" else {}),
        }
    },
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {"havrin.access": {"level": "INFO" if os.environ.get("HAVRIN_JSON_LOG") == "1" else "WARNING"}},
}
