"""Sentences in the reader's language: British English is the source, every other language a file of `locale`."""

from __future__ import annotations

from typing import cast

from django.utils.translation import gettext_lazy


def lazy(text: str) -> str:
    """A sentence that is looked up whenever it is shown: for what is written down once, when the program starts."""
    return cast(str, gettext_lazy(text))
