"""Requests and URLs: body limits, tokens, converters and partial responses."""

from __future__ import annotations

import hashlib
import re
import secrets
from datetime import date

from django.http import HttpRequest

INVALID = 422
"""The form comes back with what is wrong at its fields; nothing was stored [RFC 9110, 15.5.21]."""


def is_piece(request: HttpRequest) -> bool:
    """Return whether a request is for part of a page rather than a navigation."""
    return bool(request.headers.get("HX-Request")) and not request.headers.get("HX-Boosted")


USUAL, LARGE_NEEDS_KNOWN = 1_000_000, 4_100_000
MULTIPART = 200_000
"""What surrounds a file that is sent from a form."""
LIMITS = (
    (re.compile(r"/(sign-in|sign-out|welcome|me|me/password|join/[^/]+)/"), 100_000),
    (re.compile(r"/api/v1/.*"), LARGE_NEEDS_KNOWN),
    (re.compile(r"/g/[0-9]+/round/send/"), 12_000_000 + MULTIPART),
    (re.compile(r"/g/[0-9]+/round/"), 12_000_000 + MULTIPART),
    (re.compile(r"/g/[0-9]+/files/"), 20_000_000 + MULTIPART),
    (re.compile(r"/gardens/bring/"), 500_000_000 + MULTIPART),
)


def most_bytes(path: str, known: bool) -> int:
    """Return the maximum size of a request body.

    `known` tells whether the browser is one that somebody has signed in with.
    """
    most = next((limit for pattern, limit in LIMITS if pattern.fullmatch(path)), USUAL)
    return most if known or most <= LARGE_NEEDS_KNOWN else USUAL


class DayConverter:
    """URL converter for dates such as 2026-04-09."""

    regex = r"\d{4}-\d{2}-\d{2}"

    def to_python(self, value: str) -> date:
        """Parse the date; a ValueError makes the URL a 404."""
        return date.fromisoformat(value)

    def to_url(self, value: date) -> str:
        """Format the date as ISO 8601."""
        return value.isoformat()


def new_token() -> str:
    """Return a secret that fits into a URL or a header."""
    return secrets.token_urlsafe(24)


def fingerprint(token: str) -> str:
    """Return the irreversible hash that is stored of a token."""
    return hashlib.sha256(token.encode()).hexdigest()
