"""Limits on what one person or garden may store, so that none fills the disk for all. Operators set them."""

from __future__ import annotations

from django.conf import settings
from django.core.exceptions import ValidationError
from django.utils.translation import gettext as _

from cloche.bridge.values.texts import number_text


def refuse_beyond(what: str, number: int) -> None:
    """Raise ValidationError where a limit would be exceeded.

    `what` is a key of CLOCHE_MOST and `number` the resulting total.
    """
    most = settings.CLOCHE_MOST[what]
    if number > most:
        raise ValidationError(_sentence(what, number_text(f"{most:,}")), code="quota")


def _sentence(what: str, most: str) -> str:
    """Return the error message, translated when it is shown."""
    sentences = {
        "gardens": _("One person can have at most {most} gardens here. Delete a garden that is no longer used, or leave it."),
        "people": _("A garden can have at most {most} people here."),
        "places": _("A garden can have at most {most} places here."),
        "values": _("A garden can have at most {most} readings here. The administrator can allow more."),
    }
    return sentences[what].format(most=most)
