"""Loading of shared data before a web process serves its first request."""

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
    """Load URLs, views, languages, crops and templates; return the number of templates.

    Raises TemplateSyntaxError.
    """
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
    """Return the folders with our templates."""
    return [Path(folder) for engine in engines.all() for folder in engine.dirs]
