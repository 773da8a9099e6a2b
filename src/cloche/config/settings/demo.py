"""The demo: invented gardens on a day of their own."""

from cloche.config.settings.base import *  # noqa: F403

CLOCHE_DEMO = True
