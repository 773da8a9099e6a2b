"""In which language and units a person is spoken to, and what a garden calls its crops."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpResponseBase

from cloche.apps.gardens.models import Garden, User
from cloche.bridge.services import crops

A_YEAR_S = 365 * 24 * 3600
AMERICAN = "en-us"


def language_of(user: User) -> str:
    """For letters and feeds, where no browser asks."""
    return user.language or settings.LANGUAGE_CODE


def remember_language(response: HttpResponseBase, user: User) -> None:
    """This browser speaks as its person has chosen; Django's own middleware reads the cookie."""
    if user.language:
        response.set_cookie(
            settings.LANGUAGE_COOKIE_NAME,
            user.language,
            max_age=A_YEAR_S,
            httponly=True,
            samesite="Lax",
            secure=settings.SESSION_COOKIE_SECURE,
        )
    else:
        response.delete_cookie(settings.LANGUAGE_COOKIE_NAME, samesite="Lax")


def usual_units(language: str | None) -> tuple[str, str]:
    """Temperature and length as people who speak so mostly measure: an American in °F and inches, others in °C and cm."""
    if language == AMERICAN:
        return User.Temperature.FAHRENHEIT, User.Length.INCHES
    return User.Temperature.CELSIUS, User.Length.CENTIMETRES


def speak_for(garden: Garden) -> None:
    """From now on crops are those of this garden, under the names that it uses; said once at the start of a request or task."""
    crops.set_spoken_names(garden.spoken)
    crops.set_custom_crops(garden.own_crops)
