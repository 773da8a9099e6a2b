"""A fresh database begins as all migrations would have made it."""

from __future__ import annotations

import re
from pathlib import Path

import psycopg
from django.db import connection

from bench.running import rests_on
from bench.schema import SCHEMA, schema_of
from tests.template import _keeper

PROGRAMS = sorted(Path("/usr/lib/postgresql").glob("*/bin"))[-1]
FRESH = "cloche_from_schema"


def test_the_script_makes_what_all_migrations_make(db: None) -> None:
    """`./run schema` writes it anew."""
    settings = connection.settings_dict
    migrated = schema_of(PROGRAMS, settings | {"NAME": f"cloche_template_{rests_on()}"})
    with _keeper(settings) as keeper:
        keeper.execute(f'DROP DATABASE IF EXISTS "{FRESH}"')
        keeper.execute(f'CREATE DATABASE "{FRESH}"')
        try:
            address = {"host": settings["HOST"], "port": settings["PORT"], "user": settings["USER"]}
            with psycopg.connect(**address, password=settings["PASSWORD"], dbname=FRESH) as fresh:
                fresh.execute(SCHEMA.read_text(encoding="utf-8"))
            begun = schema_of(PROGRAMS, settings | {"NAME": FRESH})
        finally:
            keeper.execute(f'DROP DATABASE "{FRESH}" WITH (FORCE)')
    assert _written_alike(begun) == _written_alike(migrated)


def _written_alike(script: str) -> list[str]:
    """PostgreSQL writes the casts of a list one way when it is first declared and another when its dump is read back."""
    return [re.sub(r"::(text|character varying)(\[\])?|[()]", "", line) for line in script.splitlines()]
