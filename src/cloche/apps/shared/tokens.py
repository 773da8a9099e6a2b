"""Secrets that are shown once: long and random, so that a plain fingerprint of them is all that need be kept."""

from __future__ import annotations

import hashlib
import secrets


def new_token() -> str:
    """A secret that fits into an address or a heading."""
    return secrets.token_urlsafe(24)


def fingerprint(token: str) -> str:
    """What is kept of it; it cannot be turned round."""
    return hashlib.sha256(token.encode()).hexdigest()
