"""What views are asked for, and answer with."""

from django.http import HttpRequest

INVALID = 422
"""The form comes back with what is wrong at its fields; nothing was stored [RFC 9110, 15.5.21]."""


def is_piece(request: HttpRequest) -> bool:
    """Whether a page asks for a piece of itself, and not to be left for another."""
    return bool(request.headers.get("HX-Request")) and not request.headers.get("HX-Boosted")
