"""How large what is sent to an address may be: asked of the heading, before any of it is received."""

from __future__ import annotations

import re

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
