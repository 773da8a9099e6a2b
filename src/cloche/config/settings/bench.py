"""Measuring and taking pictures: the demo on its own day, static files as they lie."""

from datetime import date

from cloche.config.settings.demo import *  # noqa: F403
from cloche.demo.day import demo_day

STORAGES["staticfiles"] = {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"}
CLOCHE_DAY_OFFSET = (demo_day("", date.today()) - date.today()).days  # noqa: DTZ011
