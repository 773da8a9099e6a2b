"""Sentences of the border and of units, in the reader's language: the application says how they are looked up."""

from __future__ import annotations

from collections.abc import Callable

_lookup: list[Callable[[str], str]] = [str]


def speak_with(lookup: Callable[[str], str]) -> None:
    """From now on sentences are looked up so."""
    _lookup[0] = lookup


def say(sentence: str, **values: object) -> str:
    """A sentence with its values in place of {names}."""
    translation = _lookup[0](sentence)
    return translation.format(**values) if values else translation
