"""Sentences of the border and of units, in the reader's language: the application says how they are looked up."""

from __future__ import annotations

from collections.abc import Callable

_lookup: list[Callable[[str], str]] = [str]


def speak_with(lookup: Callable[[str], str]) -> None:
    """Set the function that translates sentences."""
    _lookup[0] = lookup


def say(sentence: str, **values: object) -> str:
    """Return a sentence with its values in place of the named placeholders."""
    translation = _lookup[0](sentence)
    return translation.format(**values) if values else translation


def number_text(text: str) -> str:
    """Return a formatted number with the separators of the reader's language: 1,000.5 in English, 1.000,5 in German."""
    pattern = say("1,000.5")
    return text.translate({ord(","): pattern[1], ord("."): pattern[5]})
