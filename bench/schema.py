"""What a fresh database begins with, as SQL: `./run schema` writes it anew from all migrations."""

from __future__ import annotations

import re
import subprocess
from pathlib import Path
from typing import Any

SCHEMA = Path(__file__).parents[1] / "src" / "cloche" / "apps" / "upkeep" / "schema.sql"
HEAD = "-- All migrations in one, for a database in which there is nothing yet. Written by `./run schema`; not to be edited.\n"
FORM = ("--inserts", "--no-owner", "--no-privileges", "--no-comments")
UNWANTED = re.compile(r"--|SET (?!default_table)|\\|SELECT pg_catalog\.set_config|$")
"""Lines of a dump that are remarks, settings of the session or commands to psql."""
APPLIED = re.compile(r"(INSERT INTO public\.django_migrations VALUES \(.*, )'[^']+'\);")


def schema_of(programs: Path, settings: dict[str, Any]) -> str:
    """A database's tables and rows as one script that any later PostgreSQL takes.

    programs: folder of pg_dump; settings: how Django reaches the database.
    """
    dumped = subprocess.run(  # noqa: S603 - our own words
        [
            programs / "pg_dump",
            *FORM,
            *("-h", settings["HOST"], "-p", str(settings["PORT"]), "-U", settings["USER"], settings["NAME"]),
        ],
        env={"PGPASSWORD": settings["PASSWORD"]},
        capture_output=True,
        text=True,
        check=True,
    ).stdout
    lines = [line for line in dumped.splitlines() if not UNWANTED.match(line)]
    return HEAD + "\n".join(APPLIED.sub(r"\1now());", line) for line in lines) + "\n"


def main() -> int:
    """Write it."""
    import django

    django.setup()
    from django.db import connection

    made = connection.creation.create_test_db(verbosity=0, autoclobber=True, serialize=False)
    programs = sorted(Path("/usr/lib/postgresql").glob("*/bin"))[-1]
    SCHEMA.write_text(schema_of(programs, connection.settings_dict), encoding="utf-8")
    connection.creation.destroy_test_db(connection.settings_dict["NAME"], verbosity=0)
    print(f"{made}: {len(SCHEMA.read_text(encoding='utf-8').splitlines())} lines")
    return 0
