"""Write every sentence of the interface on one page for proofreading: `./run sentences FILE.html`."""

from __future__ import annotations

from collections import defaultdict
from html import escape
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser
from django.utils.translation import gettext, ngettext, override

from cloche.apps.upkeep.management.commands.catalogue import Message, messages

COUNTS = (0, 1, 2, 5)
"""None, one, two, many: as a sentence that counts is read."""
HEAD = "<!doctype html><meta charset='utf-8'><title>Sentences</title><style>td{vertical-align:top;padding:.3em .6em}</style>"


class Command(BaseCommand):
    """Write the page of sentences by file, in every language, with all plural forms."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        rows = by_file()
        options["file"].write_text(page(rows), encoding="utf-8")
        self.stdout.write(f"{sum(map(len, rows.values()))} sentences of {len(rows)} files: {options['file']}")


def by_file() -> dict[str, list[Message]]:
    """Return each sentence once a file, in file order."""
    gathered: dict[str, dict[Message, None]] = defaultdict(dict)
    for message in messages():
        gathered[message[1]][message] = None
    return {where: list(gathered[where]) for where in sorted(gathered)}


def page(rows: dict[str, list[Message]]) -> str:
    """Return an HTML table for each file."""
    languages = [code for code, _name in settings.LANGUAGES]
    heads = "".join(f"<th>{code}" for code in languages)
    tables = []
    for where, listed in rows.items():
        lines = "".join(_row(sentence, languages) for sentence, _where in listed)
        tables.append(f"<h2>{escape(where)}</h2><table><tr>{heads}{lines}</table>")
    return f"{HEAD}<h1>{len(rows)} files</h1>{''.join(tables)}"


def _row(sentence: str | tuple[str, ...], languages: list[str]) -> str:
    cells = []
    for language in languages:
        with override(language):
            if isinstance(sentence, str):
                cells.append(escape(gettext(sentence)))
            else:
                cells.append("<br>".join(f"{n}: {escape(ngettext(sentence[0], sentence[1], n))}" for n in COUNTS))
    return "<tr>" + "".join(f"<td>{cell}" for cell in cells)
