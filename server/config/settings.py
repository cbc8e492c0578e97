"""Settings. Everything that differs between machines comes from the environment, with SKYPANE_
before its name."""

import os
from pathlib import Path

from csp.constants import NONE, SELF

ROOT = Path(__file__).resolve().parents[2]


def env(name: str, default: str = "") -> str:
    return os.environ.get(f"SKYPANE_{name}", default)


VAR = Path(env("VAR", str(ROOT / "var")))
DEBUG = env("DEBUG") == "1"
DEMO = env("DEMO") == "1"
#: Where Vite's dev server answers, in `./run dev`; "" where the built application is served.
VITE = env("VITE")
SECRET_KEY = env("SECRET_KEY") or ("development-only" if DEBUG or env("TESTING") == "1" else "")
#: The names of the keys that addresses of the image service are signed with, the one in use first.
SERVICE_KEYS = [k for k in env("SERVICE_KEYS", "1").split(",") if k]
ALLOWED_HOSTS = env("HOSTS", "127.0.0.1,localhost,[::1]").split(",")
CSRF_TRUSTED_ORIGINS = [o for o in env("TRUSTED_ORIGINS").split(",") if o]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "ninja",  # so that the API's page is served from here and not from elsewhere
    "axes",
    "csp",
    "accounts",
    "sites.apps.SitesConfig",
    "originals",
    "placements",
    "deliveries",
]
MIDDLEWARE = [
    # before all that answers: problems and what is static carry the same headers
    "common.middleware.Headers",
    "django.middleware.security.SecurityMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "csp.middleware.CSPMiddleware",
    "common.middleware.ProblemPages",
    "common.middleware.NoNul",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "common.middleware.GzipOfTexts",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "common.middleware.Answered",
    "common.middleware.UploadGate",
    "axes.middleware.AxesMiddleware",
]
ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.mysql",
        "NAME": env("DB_NAME", "skypane"),
        "USER": env("DB_USER", "skypane"),
        "PASSWORD": env("DB_PASSWORD"),
        "HOST": env("DB_HOST", "127.0.0.1"),
        "PORT": env("DB_PORT", "3306"),
        "CONN_MAX_AGE": 60,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            "charset": "utf8mb4",
            "init_command": "SET sql_mode='STRICT_TRANS_TABLES', innodb_strict_mode=1",
        },
        "TEST": {"CHARSET": "utf8mb4", "COLLATION": "utf8mb4_unicode_ci"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

REDIS = env("REDIS_URL", "redis://127.0.0.1:6379/0")
CACHES = {
    "default": {
        "BACKEND": "common.cache.ForgivingRedisCache",
        "LOCATION": REDIS,
        "OPTIONS": {"socket_connect_timeout": 1, "socket_timeout": 2},
    }
}
CELERY_BROKER_URL = REDIS
CELERY_BROKER_CONNECTION_TIMEOUT = 1
CELERY_BROKER_CONNECTION_MAX_RETRIES = None
CELERY_BROKER_TRANSPORT_OPTIONS = {
    "socket_connect_timeout": 1,
    "socket_timeout": 5,
    "visibility_timeout": 43_200,
}
CELERY_TASK_IGNORE_RESULT = True
CELERY_TASK_ACKS_LATE = True
CELERY_TASK_REJECT_ON_WORKER_LOST = True
CELERY_WORKER_PREFETCH_MULTIPLIER = 1
CELERY_BROKER_CONNECTION_RETRY_ON_STARTUP = True
CELERY_BEAT_SCHEDULE = {
    "requeue": {
        "task": "deliveries.tasks.requeue_lost",
        "schedule": 10.0,
        "options": {"expires": 10},
    },
    "sweep": {"task": "deliveries.tasks.sweep", "schedule": 3600.0, "options": {"expires": 3600}},
}
CELERY_BEAT_SCHEDULE_FILENAME = str(VAR / "beat")

AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = 0.25  # hours
# in the order that common.throttle reads
AXES_LOCKOUT_PARAMETERS = [
    ["username", "ip_address"],
    "username",
    "ip_address",
]
AXES_HANDLER = "common.throttle.Throttle"
AXES_USERNAME_CALLABLE = "common.throttle.counted_name"
AXES_CLIENT_IP_CALLABLE = "common.throttle.client_address"
AXES_RESET_ON_SUCCESS = True
AXES_DISABLE_ACCESS_LOG = True
PROXIES = int(env("PROXIES", "0"))  # how many proxies of ours stand before the application
AXES_VERBOSE = False
AXES_LOCKOUT_CALLABLE = "common.problems.locked_out"
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
SESSION_ENGINE = "django.contrib.sessions.backends.cached_db"
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = env("HTTPS") == "1"

#: A bucket at any store that speaks S3; keys come from AWS_ACCESS_KEY_ID and AWS_SECRET_ACCESS_KEY.
S3 = {
    "bucket_name": env("S3_BUCKET"),
    "endpoint_url": env("S3_ENDPOINT") or None,
    "region_name": env("S3_REGION") or None,
    "location": env("S3_PREFIX"),
    "file_overwrite": True,  # files are named by their content
    "querystring_auth": True,
}
IN_S3 = bool(S3["bucket_name"])
STORAGES = {
    "default": (
        {"BACKEND": "storages.backends.s3.S3Storage", "OPTIONS": S3}
        if IN_S3
        else {"BACKEND": env("STORAGE", "django.core.files.storage.FileSystemStorage")}
    ),
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}
MEDIA_ROOT = VAR / "media"
FILE_UPLOAD_MAX_MEMORY_SIZE = 1_000_000
DATA_UPLOAD_MAX_MEMORY_SIZE = 5_000_000
# how many files are encoded at once on this machine; 0: as many as it has cores
ENCODE_AT_ONCE = int(env("ENCODE_AT_ONCE", "0"))
FILE_UPLOAD_PERMISSIONS = 0o644
MOST_UPLOAD_BYTES = int(env("MOST_UPLOAD_BYTES", str(250_000_000)))
# an exported site with all its originals
MOST_ARCHIVE_BYTES = int(env("MOST_ARCHIVE_MB", "4000")) * 1_000_000
WORK_ROOT = VAR / "work"  # what is being made; swept of what killed processes leave
WORK_ROOT.mkdir(parents=True, exist_ok=True)
FILE_UPLOAD_TEMP_DIR = WORK_ROOT
# how long a file stays that nothing refers to
KEEP_UNUSED_HOURS = float(env("KEEP_UNUSED_HOURS", "24"))
PICTURE_LIMITS = {
    "seconds": float(env("PICTURE_SECONDS", "30")),
    "drawing_seconds": float(env("DRAWING_SECONDS", "10")),
    "file_seconds": float(env("FILE_SECONDS", "300")),
    "memory_mb": int(env("PICTURE_MB", "2000")),
    "at_once": int(env("PICTURES_AT_ONCE", "2")),
}

STATIC_URL = "/static/"
WEB_DIST = ROOT / "web" / "dist"
WHITENOISE_ROOT = WEB_DIST if WEB_DIST.exists() else None
WHITENOISE_USE_FINDERS = True
WHITENOISE_MAX_AGE = 0 if DEBUG else 3600
# a name with a hash in it stands for one content for ever
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/assets/.+-[\w-]{8}\.\w+$"
WHITENOISE_ALLOW_ALL_ORIGINS = False

X_FRAME_OPTIONS = "SAMEORIGIN"  # the proof shows the delivered page in a frame
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "img-src": [SELF, "data:", "blob:"],
        "style-src": [SELF, "'unsafe-inline'"],  # Mantine and the panes carry styles inline
        "font-src": [SELF, "data:"],
        "frame-src": [SELF, "blob:"],
        "frame-ancestors": [SELF],
        "object-src": [NONE],
        "base-uri": [SELF],
        "form-action": [SELF],
    }
}
if VITE:  # it writes a script into the page, and tells it over a socket what has changed
    CONTENT_SECURITY_POLICY["DIRECTIVES"] |= {
        "script-src": [SELF, "'unsafe-inline'"],
        "connect-src": [SELF, VITE.replace("http", "ws", 1)],
    }
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"

LANGUAGE_CODE = "en"
USE_TZ = True
TIME_ZONE = "UTC"
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
if env("TESTING") == "1":
    PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
