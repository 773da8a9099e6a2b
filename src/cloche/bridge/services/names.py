"""Names of crops as a garden's people say them: set once for a request or a task, heard by all that names crops in it."""

from __future__ import annotations

from contextvars import ContextVar
from dataclasses import replace

from cloche.bridge.values.texts import say
from cloche.core.crops.catalogue import Crop

AMERICAN, BRITISH, TRANSLATED = "american", "british", "translated"
_spoken: ContextVar[str] = ContextVar("names", default="")


def speak(names: str) -> None:
    """From now on name crops so: american, british, translated, or empty for the catalogue's own."""
    _spoken.set(names)


def usual_names(language: str) -> str:
    """What is said in a language such as en-us or en-gb; any but English has crops in its file, by their British names."""
    if not language.lower().startswith("en"):
        return TRANSLATED
    return AMERICAN if language.lower() == "en-us" else BRITISH


def named(crop: Crop) -> Crop:
    """The crop under the name that is spoken."""
    names = _spoken.get()
    if not names:
        return crop
    name, plural = crop.american if names == AMERICAN else crop.british
    if names == TRANSLATED:
        name, plural = say(name), say(plural)
    return crop if crop.name == name else replace(crop, name=name, name_plural=plural)
