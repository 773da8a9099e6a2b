"""The demo: invented gardens on a day of their own."""

from cloche.config.settings.base import *  # noqa: F403

CLOCHE_DEMO = True
LOGGING["loggers"]["cloche.security"] = {"level": "WARNING"}  # who is invented in a demo is no news
