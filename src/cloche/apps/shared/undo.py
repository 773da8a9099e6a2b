"""Saying what was done, with the way back beside it."""

from __future__ import annotations

from django.contrib import messages
from django.http import HttpRequest


def done(request: HttpRequest, text: str, undo_url: str) -> None:
    """A notice on the next page; its button posts to the address that undoes what was done."""
    messages.success(request, text, extra_tags=undo_url)
