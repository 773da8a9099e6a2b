"""One database with all migrations, made once for as long as they stay as they are; each worker's own is a copy of it, and is
emptied of what a test committed."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

import psycopg
from django.db import connection, transaction

from bench.running import rests_on

LOCK = 0x7E57
OF_ALL = {"django_content_type", "auth_permission", "django_migrations"}
"""Filled by the migrations, and read by everything after."""


@contextmanager
def own_database(verbosity: int) -> Iterator[None]:
    """The connection leads to a fresh database; it is gone afterwards."""
    plain, settings = connection.settings_dict["NAME"], connection.settings_dict
    name = settings["TEST"]["NAME"] or f"test_{plain}"
    with _keeper(settings) as keeper:
        keeper.execute("SELECT pg_advisory_lock(%s)", [LOCK])
        template = _template(keeper, verbosity)
        keeper.execute(f'DROP DATABASE IF EXISTS "{name}" WITH (FORCE)')
        keeper.execute(f'CREATE DATABASE "{name}" TEMPLATE "{template}"')
    connection.close()
    settings["NAME"] = name
    yield
    connection.close()
    settings["NAME"] = plain
    with _keeper(settings) as keeper:
        keeper.execute(f'DROP DATABASE IF EXISTS "{name}" WITH (FORCE)')


def _template(keeper: Any, verbosity: int) -> str:
    """Its name; made if it is not there, and those of earlier migrations removed."""
    wanted = f"cloche_template_{rests_on()}"
    there = [row[0] for row in keeper.execute("SELECT datname FROM pg_database WHERE datname LIKE 'cloche_template_%'")]
    if wanted in there:
        return wanted
    for name in there:
        keeper.execute(f'DROP DATABASE "{name}" WITH (FORCE)')
    settings = connection.settings_dict
    before, settings["TEST"]["NAME"] = settings["TEST"]["NAME"], f"{wanted}_half"
    connection.creation.create_test_db(verbosity=verbosity, autoclobber=True, serialize=False)
    connection.close()
    settings["TEST"]["NAME"] = before
    keeper.execute(f'ALTER DATABASE "{wanted}_half" RENAME TO "{wanted}"')
    return wanted


@contextmanager
def _keeper(settings: dict[str, Any]) -> Iterator[Any]:
    """A connection beside the tests'."""
    address = {"host": settings["HOST"], "port": settings["PORT"], "user": settings["USER"], "password": settings["PASSWORD"]}
    with psycopg.connect(**address, dbname="postgres", autocommit=True) as keeper:
        yield keeper


def emptied(*_: object) -> None:
    """Only what has rows is touched: a test writes to a dozen tables of a hundred and forty, and to truncate one takes as long
    as to fill it. Whoever still writes is waited for, as truncating would."""
    tables = set(connection.introspection.django_table_names(only_existing=True, include_views=False)) - OF_ALL
    with connection.cursor() as cursor:
        cursor.execute(" UNION ALL ".join(f"(SELECT '{name}' FROM \"{name}\" LIMIT 1)" for name in sorted(tables)))  # noqa: S608 - our own
        filled = [f'"{name}"' for (name,) in cursor.fetchall()]
        if not filled:
            return
        with transaction.atomic():
            cursor.execute(f"LOCK TABLE {', '.join(filled)} IN EXCLUSIVE MODE")
            for name in filled:
                cursor.execute(f"DELETE FROM {name}")  # noqa: S608 - our own
