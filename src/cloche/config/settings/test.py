"""Tests: fast hashing, plain static files, no lock-out."""

from cloche.config.settings.base import *  # noqa: F403

SECRET_KEY = "tests only, and nothing that is kept is signed with it"
PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
STORAGES["staticfiles"] = {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"}
DATABASES["default"]["CONN_MAX_AGE"] = 0
AXES_ENABLED = False
CACHES["default"] = CACHES["process"]  # emptied after each test, those without a database too
WHITENOISE_AUTOREFRESH = True  # nothing is collected for tests
CLOCHE_HELPER = False  # what a test sets right must hold where the engine runs
