"""Collect every translatable sentence and update the language files: `./run languages`."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from io import BytesIO
from pathlib import Path
from typing import Any

from babel.messages.catalog import Catalog
from babel.messages.extract import extract
from babel.messages.mofile import write_mo
from babel.messages.pofile import read_po, write_po
from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.utils.translation import to_locale
from django.utils.translation.template import templatize

from cloche.bridge.services.offered import named_in_tables

PACKAGE = Path(settings.PACKAGE)
KEYWORDS: dict[str, Any] = {
    "_": None,
    "gettext": None,
    "lazy": None,
    "noop": None,
    "say": None,
    "ngettext": (1, 2),
    "count": (2, 3),
}
"""Functions whose first words are sentences, and those whose two are one and many of a thing."""
Message = tuple[str | tuple[str, ...], str]


class Command(BaseCommand):
    """Update locale/*/LC_MESSAGES/django.po, which translators edit, and compile django.mo."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--check", action="store_true", help="change nothing; fail where a file is out of date")

    def handle(self, *args: Any, **options: Any) -> None:
        templates = template_catalogue()
        for code, _ in settings.LANGUAGES:
            folder = PACKAGE / "locale" / to_locale(code) / "LC_MESSAGES"
            if code != settings.LANGUAGE_CODE:
                if not options["check"]:
                    write(folder, brought_up_to_date(folder, templates))
                elif {message.id for message in read(folder)} != {message.id for message in templates}:
                    raise CommandError(f"{code} lacks a sentence or has one too many: ./run languages.")
                self.stdout.write(f"{code}: {differing(read(folder))} of {len(templates)} sentences differ.")


def template_catalogue() -> Catalog:
    """Return the catalogue of all sentences with their locations."""
    catalogue = Catalog(project="Cloche", charset="utf-8", fuzzy=False)
    for message, where in sorted(messages(), key=lambda row: (row[1], str(row[0]))):
        catalogue.add(message, locations=[(where, 0)])
    return catalogue


@cache
def messages() -> tuple[Message, ...]:
    """Return each sentence with its file; a plural as (one, many)."""
    return tuple(_said())


def _said() -> Iterator[Message]:
    for file in sorted(PACKAGE.rglob("*.py")):
        if "migrations" not in file.parts:
            yield from _extracted(file, file.read_text(encoding="utf-8"))
    for file in sorted((PACKAGE / "templates").rglob("*.*")):
        if file.suffix in (".html", ".txt"):
            yield from _extracted(file, templatize(file.read_text(encoding="utf-8")))
    yield from named_in_tables()


def _extracted(file: Path, text: str) -> Iterator[Message]:
    where = file.relative_to(PACKAGE).as_posix()
    for _, message, _, _ in extract("python", BytesIO(text.encode()), KEYWORDS, options={"encoding": "utf-8"}):
        yield (message if isinstance(message, str) else tuple(message)), where


def read(folder: Path) -> Catalog:
    """Read a language's catalogue, empty if new."""
    file = folder / "django.po"
    if not file.exists():
        return Catalog(locale=folder.parent.name, project="Cloche", charset="utf-8", fuzzy=False)
    with file.open("rb") as written:
        return read_po(written)


def brought_up_to_date(folder: Path, gathered: Catalog) -> Catalog:
    """Return a catalogue with new sentences added and obsolete ones removed."""
    catalogue = read(folder)
    catalogue.update(gathered, no_fuzzy_matching=True, keep_user_comments=True, update_creation_date=False)
    catalogue.obsolete.clear()
    return catalogue


def differing(catalogue: Catalog) -> int:
    """Return how many sentences a language translates differently."""
    return sum(any(m.string) if isinstance(m.string, tuple) else bool(m.string) for m in catalogue if m.id)


def write(folder: Path, catalogue: Catalog) -> None:
    """Write the .po and the .mo file."""
    folder.mkdir(parents=True, exist_ok=True)
    with (folder / "django.po").open("wb") as file:
        write_po(file, catalogue, width=110, sort_output=True, include_lineno=False)
    with (folder / "django.mo").open("wb") as file:
        write_mo(file, catalogue)
