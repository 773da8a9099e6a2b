"""Names of crops as a garden's people say them: set once for a request or a task, heard by all that names crops in it."""

from __future__ import annotations

from contextvars import ContextVar
from dataclasses import replace

from cloche.bridge.values.texts import say
from cloche.core.crops.catalogue import Crop

AMERICAN, BRITISH = "american", "british"
_spoken: ContextVar[str] = ContextVar("names", default="")


def speak(names: str) -> None:
    """From now on name crops so: american, british, or empty for the catalogue's own."""
    _spoken.set(names)


def usual_names(language: str) -> str:
    """What is said in a language such as en-us or en-gb; any other language's file has them by their British names."""
    return AMERICAN if language.lower() == "en-us" else BRITISH


def named(crop: Crop) -> Crop:
    """The crop under the name that is spoken."""
    names = _spoken.get()
    if not names:
        return crop
    name, plural = (say(one) for one in (crop.american if names == AMERICAN else crop.british))
    return crop if crop.name == name else replace(crop, name=name, name_plural=plural)
