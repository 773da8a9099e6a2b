"""The grower's own, durable data."""

from cloche.config.settings.base import *  # noqa: F403
