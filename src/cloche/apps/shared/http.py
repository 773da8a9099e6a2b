"""Requests and addresses: large bodies, tokens, converters, answers to scripts."""

from __future__ import annotations

import hashlib
import re
import secrets
from datetime import date

from django.http import HttpRequest

INVALID = 422
"""The form comes back with what is wrong at its fields; nothing was stored [RFC 9110, 15.5.21]."""


def is_piece(request: HttpRequest) -> bool:
    """Whether a page asks for a piece of itself, and not to be left for another."""
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
    """Of the body of a request. known: whether its browser is one that somebody has signed in with."""
    most = next((limit for pattern, limit in LIMITS if pattern.fullmatch(path)), USUAL)
    return most if known or most <= LARGE_NEEDS_KNOWN else USUAL


class DayConverter:
    """2026-04-09."""

    regex = r"\d{4}-\d{2}-\d{2}"

    def to_python(self, value: str) -> date:
        """A ValueError makes the address one that does not exist."""
        return date.fromisoformat(value)

    def to_url(self, value: date) -> str:
        """ISO."""
        return value.isoformat()


def new_token() -> str:
    """A secret that fits into an address or a heading."""
    return secrets.token_urlsafe(24)


def fingerprint(token: str) -> str:
    """What is kept of it; it cannot be turned round."""
    return hashlib.sha256(token.encode()).hexdigest()
