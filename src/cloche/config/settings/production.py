"""The grower's own, durable data."""

from cloche.config.settings.base import *  # noqa: F403
from cloche.config.settings.base import OWN_BACKUPS

CLOCHE_BACKUPS = OWN_BACKUPS
