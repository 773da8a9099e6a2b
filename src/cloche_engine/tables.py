"""Tables of facts that ship with the engine: each kind of thing one row, checked when it is loaded."""

from __future__ import annotations

import csv
from collections.abc import Callable, Mapping
from importlib.resources import files
from typing import Any

from cloche_engine.errors import CoreError

Check = Callable[[str], Any]


class BadTable(CoreError):
    """A table says something that cannot be; the message names table, row and column."""

    code = "bad_table"


def text(value: str) -> str:
    """Any words but none."""
    if not value.strip():
        raise ValueError("it is empty")
    return value


def number(least: float, most: float) -> Check:
    """A number within limits.

    Parameters
    ----------
    least : float
        Least that is allowed.
    most : float
        Most that is allowed.
    """

    def check(value: str) -> float:
        number = float(value)
        if not least <= number <= most:
            raise ValueError(f"{number:g} is outside {least:g} to {most:g}")
        return number

    return check


def anything(value: str) -> str:
    """Any words, or none."""
    return value


def or_none(check: Check) -> Check:
    """The same of a cell that may be empty; empty is None.

    Parameters
    ----------
    check : Check
        Turns a cell's text into its value, or raises ValueError.
    """
    return lambda value: check(value) if value else None


def yes_or_no(value: str) -> bool:
    """Yes or no, written out."""
    return one_of("yes", "no")(value) == "yes"


def one_of(*allowed: str) -> Check:
    """One of some words; the empty word is one only if it is among them."""

    def check(value: str) -> str:
        if value not in allowed:
            raise ValueError(f"“{value}” is none of {', '.join(allowed)}")
        return value

    return check


def rows(package: str, name: str, columns: Mapping[str, Check]) -> dict[str, dict[str, Any]]:
    """A table of a package's data by its first column, `key`, in the order of the file.

    Parameters
    ----------
    package : str
        Dotted name of the package whose `data` folder holds the table.
    name : str
        File name, such as ``kinds.csv``.
    columns : mapping of str to callable
        Every column, with what turns its text into a value and raises ValueError where it is none.

    Returns
    -------
    dict[str, dict[str, Any]]
        Values by column, by key.

    Raises
    ------
    BadTable
        Where a column lacks or is unknown, a key comes twice, or a cell cannot be; the message says which.
    """
    return checked(files(package).joinpath("data", name).read_text(encoding="utf-8"), name, columns)


def checked(written: str, name: str, columns: Mapping[str, Check]) -> dict[str, dict[str, Any]]:
    """The same of a table's text.

    Parameters
    ----------
    written : str
        The table's text.
    name : str
        Name of the table, for messages.
    columns : Mapping[str, Check]
        The batch's columns: conductances, capacities, water that freezes.
    """
    reader = csv.DictReader(written.splitlines())
    if list(reader.fieldnames or ()) != list(columns):
        raise BadTable(f"{name}: the columns are to be {', '.join(columns)}.")
    rows: dict[str, dict[str, Any]] = {}
    for line in reader:
        key = line["key"]
        if key in rows:
            raise BadTable(f"{name}, row {key}: it is there twice.")
        rows[key] = {column: _cell(name, key, column, line[column], check) for column, check in columns.items()}
    return rows


def _cell(name: str, key: str, column: str, value: str | None, check: Check) -> Any:
    try:
        return check("" if value is None else value)
    except ValueError as wrong:
        raise BadTable(f"{name}, row {key}, column {column}: {wrong}.") from wrong
