"""What a garden calls its crops, and the crops of its own: told once at the start of a request or a task."""

from __future__ import annotations

from cloche.apps.gardens.models import Garden
from cloche.bridge.services import names, own


def speak_for(garden: Garden) -> None:
    """From now on crops are those of this garden, under the names that it uses."""
    names.speak(garden.spoken)
    own.use(garden.own_crops)
