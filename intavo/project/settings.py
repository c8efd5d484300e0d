"""Django's settings; everything that differs between places comes from the environment."""

from pathlib import Path

import environ
from csp.constants import NONCE
from django.core.exceptions import ImproperlyConfigured

from intavo.core.quotas import limits

BASE = Path(__file__).resolve().parent.parent.parent
env = environ.Env()

SECRET_KEY = env.str("INTAVO_SECRET_KEY")
SECRET_KEY_FALLBACKS = env.list("INTAVO_SECRET_KEYS_BEFORE", default=[])
DEBUG = False
BASE_URL = env.str("INTAVO_BASE_URL", "http://127.0.0.1:8400").rstrip("/")
TLS = BASE_URL.startswith("https://")
ALLOWED_HOSTS = env.list("INTAVO_ALLOWED_HOSTS", default=["127.0.0.1", "localhost"])
CSRF_TRUSTED_ORIGINS = [BASE_URL]
# Hosts of this machine or network that a gateway may stand on: the stand-in's, and none in earnest.
LOCAL_GATEWAYS = env.list("INTAVO_LOCAL_GATEWAYS", default=[])
TRUSTED_PROXIES = env.list("INTAVO_TRUSTED_PROXIES", default=[])

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "django.contrib.staticfiles",
    "csp",
    "allauth",
    "allauth.account",
    "allauth.mfa",
    "allauth.usersessions",
    "allauth.headless",
    "procrastinate.contrib.django",
    "intavo.accounts",
    "intavo.sites",
    "intavo.hours",
    "intavo.channels",
    "intavo.people",
    "intavo.imports",
    "intavo.touchpoints",
    "intavo.mail",
    "intavo.followup",
    "intavo.intake",
    "intavo.results",
    "intavo.talks",
    "intavo.mailin",
    "intavo.visitor",
    "intavo.copies",
    "intavo.project",
    # What is no part of it, and brings commands of its own.
    *env.list("INTAVO_MORE_APPS", default=[]),
]
MIDDLEWARE = [
    "intavo.project.log.RequestId",
    "intavo.project.measures.Measured",
    "intavo.project.door.Drained",
    "intavo.project.sides.Reader",
    "intavo.project.door.PathDoor",
    "intavo.project.sides.Packed",
    "intavo.project.sides.Private",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "intavo.project.sides.Sessions",
    "django.middleware.common.CommonMiddleware",
    "intavo.project.sides.Csrf",
    "intavo.project.sides.SignedIn",
    "intavo.project.sides.Notices",
    "intavo.project.sides.Framing",
    "intavo.project.sides.PageRules",
    "intavo.accounts.door.AccountDoor",
    "allauth.account.middleware.AccountMiddleware",
    # Right around what answers: all others are asked once.
    "intavo.project.again.Again",
]
ROOT_URLCONF = "intavo.project.urls"
WSGI_APPLICATION = "intavo.project.wsgi.application"
APPEND_SLASH = False
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        # Our words for what allauth writes go before its own.
        "DIRS": [BASE / "intavo/accounts/templates"],
        "APP_DIRS": True,
        "OPTIONS": {"context_processors": ["django.template.context_processors.request"]},
    }
]

DATABASES = {"default": {**env.db_url("DATABASE_URL"), "ENGINE": "intavo.project.database"}}
# Whoever asks while the database is away is told so in seconds.
_OPTIONS = DATABASES["default"].setdefault("OPTIONS", {})
_OPTIONS.setdefault("connect_timeout", 3)
# A database whose machine or network is gone is noticed while an answer is waited for.
_OPTIONS |= {"tcp_user_timeout": 5000, "keepalives_idle": 10, "keepalives_interval": 3, "keepalives_count": 3}
# What runs again and again (`accounts.rows`) is planned once for a connection. A pooler between has to know
# of it.
_OPTIONS["prepare_threshold"] = 1
# Nothing that somebody waits for takes longer; 0 is no limit, for jobs and commands (the web process sets its
# own).
if seconds := env.int("INTAVO_STATEMENT_SECONDS", 0):
    _OPTIONS["options"] = (
        f"-c statement_timeout={seconds}s -c idle_in_transaction_session_timeout={2 * seconds}s"
    )
if env.bool("INTAVO_DB_POOL", True):
    DATABASES["default"]["OPTIONS"]["pool"] = {
        "min_size": 1,
        "max_size": env.int("INTAVO_DB_POOL_SIZE", 16),
        "timeout": 4,
        "reconnect_timeout": 20,
    }
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
# Shared by all server processes, so that sign-in tries are counted once.
# Limits are counted in it: it holds so many that nobody easily makes it forget theirs by filling it. Every
# write counts its rows, so that what is over is cleared away each hour.
CACHES = {
    "default": {
        "BACKEND": "django.core.cache.backends.db.DatabaseCache", "LOCATION": "cache",
        "OPTIONS": {"MAX_ENTRIES": 50_000},
    }
}  # fmt: skip

LANGUAGE_CODE = "en-gb"
TIME_ZONE = "UTC"
USE_TZ = True

STATIC_URL = "/static/"
STATICFILES_DIRS = [("console", BASE / "console" / "dist"), ("touch", BASE / "visitor-script" / "dist")]
# The site's page that shows its look tells it to the window that opened it.
SECURE_CROSS_ORIGIN_OPENER_POLICY = "same-origin-allow-popups"
WHITENOISE_USE_FINDERS = True
WHITENOISE_IMMUTABLE_FILE_TEST = r"^.+-[0-9A-Za-z_-]{8}\.(js|css|woff2)$"
CONSOLE_INDEX = BASE / "console" / "dist" / "index.html"
VISITOR_DIST = BASE / "visitor-script" / "dist"
LOADER_FILE = VISITOR_DIST / "loader.js"
MEDIA_ROOT = env.str("INTAVO_MEDIA", str(BASE / "uploads"))
DATA_UPLOAD_MAX_MEMORY_SIZE = 2 * 1024 * 1024
# What is larger goes to the disk while it comes.
FILE_UPLOAD_MAX_MEMORY_SIZE = 12 * 1024 * 1024

AUTH_USER_MODEL = "accounts.User"
AUTHENTICATION_BACKENDS = ["allauth.account.auth_backends.AuthenticationBackend"]
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.NumericPasswordValidator"},
]
ACCOUNT_USER_MODEL_USERNAME_FIELD = None
ACCOUNT_LOGIN_METHODS = {"email"}
ACCOUNT_SIGNUP_FIELDS = ["email*", "password1*"]
ACCOUNT_EMAIL_VERIFICATION = "mandatory"
ACCOUNT_EMAIL_SUBJECT_PREFIX = ""
ACCOUNT_EMAIL_NOTIFICATIONS = True
# One address each: a new one takes the old one's place once it is confirmed, and for that the password is
# asked again.
ACCOUNT_CHANGE_EMAIL = True
ACCOUNT_REAUTHENTICATION_REQUIRED = True
MFA_SUPPORTED_TYPES = ["totp", "recovery_codes"]
MFA_TOTP_ISSUER = "Intavo"
# A code may be one step old: typed late in its half minute, or while the password is asked for. Source: RFC
# 6238, 5.2.
MFA_TOTP_TOLERANCE = 1
MFA_ADAPTER = "intavo.accounts.secrets.SealedAdapter"
MFA_RECOVERY_CODES_SHOW_ONCE = True
# Nobody signs in with an address that is not confirmed, so one that waits does no harm beside an
# authenticator.
MFA_ALLOW_UNVERIFIED_EMAIL = True
# Whoever confirms in the browser that signed up is signed in by it.
ACCOUNT_LOGIN_ON_EMAIL_CONFIRMATION = True
ACCOUNT_DEFAULT_HTTP_PROTOCOL = "https" if TLS else "http"
ACCOUNT_ADAPTER = "intavo.accounts.adapter.AccountAdapter"
ACCOUNT_RATE_LIMITS = {
    "login_failed": "10/5m/key,30/m/ip",
    # Codes of an authenticator that are tried where the account is not signed in.
    "second_step": "30/h/key",
    "login": env.str("INTAVO_SIGN_IN_RATE", "60/m/ip"),
}
HEADLESS_ONLY = True
HEADLESS_CLIENTS = ("browser",)
HEADLESS_FRONTEND_URLS = {
    "account_confirm_email": f"{BASE_URL}/verify/{{key}}",
    "account_reset_password": f"{BASE_URL}/reset",
    "account_reset_password_from_key": f"{BASE_URL}/reset/{{key}}",
    "account_signup": f"{BASE_URL}/sign-up",
}

EMAIL_CONFIG = env.email_url("INTAVO_MAIL_URL", default="smtp://127.0.0.1:8425")
EMAIL_BACKEND = EMAIL_CONFIG["EMAIL_BACKEND"]
EMAIL_HOST, EMAIL_PORT = EMAIL_CONFIG["EMAIL_HOST"], EMAIL_CONFIG["EMAIL_PORT"]
EMAIL_HOST_USER, EMAIL_HOST_PASSWORD = EMAIL_CONFIG["EMAIL_HOST_USER"], EMAIL_CONFIG["EMAIL_HOST_PASSWORD"]
EMAIL_USE_TLS = EMAIL_CONFIG.get("EMAIL_USE_TLS", False)
EMAIL_TIMEOUT = 20
# How often a worker says that it lives, in seconds; one that was silent for three times as long is dead.
HEARTBEAT_SECONDS = env.float("INTAVO_HEARTBEAT_SECONDS", 10.0)
# How many seconds an answer by mail can be taken back before it goes out.
TAKEN_BACK_SECONDS = env.int("INTAVO_TAKEN_BACK_SECONDS", 10)
# A secret under which a mail host hands in the mail of every business here; "" for none. Each has its own as
# well.
MAIL_IN_SECRET = env.str("INTAVO_MAIL_IN_SECRET", "")
# The domain whose mail all comes in here (one MX, or one pipe): each business has a name there; "" for none.
MAIL_IN_DOMAIN = env.str("INTAVO_MAIL_IN_DOMAIN", "").lower()
# How the mail host that hands mail in names itself in Authentication-Results; "" where it says nothing there.
MAIL_IN_HOST = env.str("INTAVO_MAIL_IN_HOST", "")
# So many mails that say thanks for what was sent go to one address in a day: anybody can type anybody's.
THANKS_A_DAY = env.int("INTAVO_THANKS_A_DAY", 10)
# The most that a business may have of each kind, where the operator says otherwise than `intavo.core.quotas`.
try:
    QUOTAS = limits(env.dict("INTAVO_QUOTAS", cast={"value": int}, default={}))
except ValueError as error:
    raise ImproperlyConfigured(f"INTAVO_QUOTAS: {error}") from None
DEFAULT_FROM_EMAIL = env.str("INTAVO_MAIL_FROM", "Intavo <no-reply@intavo.example>")

SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = TLS
# The server in front, which says it of every request, ends TLS.
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if TLS and TRUSTED_PROXIES else None
SECURE_HSTS_SECONDS = 31_536_000 if TLS else 0
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "SAMEORIGIN"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": ["'self'"],
        "style-src": ["'self'", NONCE],
        "img-src": ["'self'", "data:", "blob:"],
        "media-src": ["'self'", "blob:"],
        "object-src": ["'none'"],
        "base-uri": ["'none'"],
        "frame-ancestors": ["'self'"],
        "form-action": ["'self'"],
    }
}

PLAN_A_MINUTE = env.int("INTAVO_PLAN_RATE", 120)
# Of each kind of report, from one address on one site: a household's or an office's views, not a machine's.
BEATS_A_MINUTE = env.int("INTAVO_BEAT_RATE", 300)
INTAKE_A_MINUTE = env.int("INTAVO_INTAKE_RATE", 20)
PROCRASTINATE_ON_APP_READY = None

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {
        "line": {"()": "intavo.project.log.formatter"},
    },
    "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "line"}},
    "root": {"handlers": ["console"], "level": env.str("INTAVO_LOG_LEVEL", "WARNING")},
}
