"""In which language and units a person is spoken to, and what a garden calls its crops."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpResponseBase

from cloche.apps.gardens.models import Garden, User
from cloche.bridge.services import crops

A_YEAR_S = 365 * 24 * 3600
AMERICAN = "en-us"


def language_of(user: User) -> str:
    """Return the language of a person for letters and feeds, where no browser states one."""
    return user.language or settings.LANGUAGE_CODE


def remember_language(response: HttpResponseBase, user: User) -> None:
    """Store the chosen language in the cookie that Django reads."""
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
    """Return usual units for a language: °F and inches in American English, otherwise °C and cm."""
    if language == AMERICAN:
        return User.Temperature.FAHRENHEIT, User.Length.INCHES
    return User.Temperature.CELSIUS, User.Length.CENTIMETRES


def speak_for(garden: Garden) -> None:
    """Use a garden's crops and their names from now on. Called once at the start of a request or task."""
    crops.set_spoken_names(garden.spoken)
    crops.set_custom_crops(garden.own_crops)
