"""What pages share and is read once: done before a web takes its first caller, who would wait for it."""

from __future__ import annotations

from datetime import date
from pathlib import Path

from django.conf import settings
from django.template import engines
from django.urls import reverse
from django.utils import translation

from cloche.apps.shared import words
from cloche.bridge.services import crops


def read_ahead() -> int:
    """Addresses and their views, every language's words and dates, the catalogue of crops, every template; returns how many
    templates. Raises TemplateSyntaxError."""
    for code, _name in settings.LANGUAGES:
        with translation.override(code):
            reverse("welcome")
            words.day(date.min)
    crops.crops()
    names = [path.relative_to(folder).as_posix() for folder in folders() for path in folder.rglob("*.html")]
    for name in names:
        engines.all()[0].get_template(name)
    return len(names)


def folders() -> list[Path]:
    """Where our own templates lie."""
    return [Path(folder) for engine in engines.all() for folder in engine.dirs]
