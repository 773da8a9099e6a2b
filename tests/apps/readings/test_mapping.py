"""Reading rows under a mapping, without a database: nothing a file can hold stops the others."""

from datetime import UTC, date, datetime, time
from typing import Any
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche.apps.readings.files import mapping as maps
from cloche.apps.readings.files.tables import Table, UnreadableFile, decode, read_table

SETTING = maps.Setting(ZoneInfo("Europe/Vienna"), 1.0, {"north bed": 1}, {1: 0.05}, datetime(2026, 4, 22, 6, tzinfo=UTC))
MAPPING = maps.Mapping(["date", "time", "temperature"], place_id=1)


def parse(*rows: list[str], mapping: maps.Mapping = MAPPING, kind: str = "readings") -> maps.Parsed:
    return maps.parse(kind, Table(["a"] * len(rows[0]), list(rows), list(range(2, 2 + len(rows)))), mapping, SETTING)


@pytest.mark.parametrize(
    ("text", "order", "day"),
    [
        ("2026-04-09", "iso", date(2026, 4, 9)),
        ("2026/4/9", "iso", date(2026, 4, 9)),
        ("9.4.2026", "dmy", date(2026, 4, 9)),
        ("09/04/26", "dmy", date(2026, 4, 9)),
        ("4/9/2026", "mdy", date(2026, 4, 9)),
        ("2028-02-29", "iso", date(2028, 2, 29)),
    ],
)
def test_dates_in_their_orders(text: str, order: maps.DateOrder, day: date) -> None:
    assert maps.parse_day(text, order) == day


@pytest.mark.parametrize(("text", "order"), [("2027-02-29", "iso"), ("13/13/2026", "mdy"), ("yesterday", "iso"), ("", "iso")])
def test_dates_that_are_none(text: str, order: maps.DateOrder) -> None:
    with pytest.raises(maps.BadCell, match="date"):
        maps.parse_day(text, order)


@pytest.mark.parametrize(
    ("text", "at"),
    [
        ("7:30", time(7, 30)),
        ("07.30", time(7, 30)),
        ("16h45", time(16, 45)),
        ("12:15 am", time(0, 15)),
        ("4:30 PM", time(16, 30)),
    ],
)
def test_times_as_people_and_loggers_write_them(text: str, at: time) -> None:
    assert maps.parse_time(text) == at


@pytest.mark.parametrize("text", ["25:00", "7", "noon", "", "07:61"])
def test_times_that_are_none(text: str) -> None:
    with pytest.raises(maps.BadCell, match="time of day"):
        maps.parse_time(text)


@pytest.mark.parametrize(
    ("kind", "header", "roles"),
    [
        ("readings", ["date", "time", "soil temp"], ["date", "time", "temperature"]),
        ("readings", ["Timestamp", "T [°C]", "Battery"], ["datetime", "temperature", ""]),
        ("readings", ["place", "taken_at", "depth [cm]", "soil temperature [°C]", "source", "note"],
         ["place", "datetime", "depth", "temperature", "", "note"]),
        ("weather", ["Day", "Tmin", "Tmax", "Precipitation"], ["date", "low", "high", "rain"]),
        ("weather", ["date", "air low [°F]", "highest air temperature [°F]", "rain [mm]"], ["date", "low", "high", "rain"]),
    ],
)  # fmt: skip
def test_headings_are_guessed(kind: str, header: list[str], roles: list[str]) -> None:
    assert maps.guess_roles(kind, header, [[] for _ in header], set()) == roles


@pytest.mark.parametrize(
    ("header", "cells", "roles"),
    [
        (["Date", "Soil"], [["2026-04-20 07:30", "21.4.2026 7:30"], ["6", "7"]], ["datetime", "temperature"]),
        (["Date", "Time", "Soil"], [["2026-04-20"], ["07:30"], ["6"]], ["date", "time", "temperature"]),
        (["when", "what", "Soil"], [["2026-04-20T07:30"], ["North bed"], ["6"]], ["datetime", "place", "temperature"]),
        (["Name", "Date", "Soil"], [["north bed", "South bed"], [""], ["6"]], ["place", "date", "temperature"]),
        (["Name", "Soil"], [["north bed", "Elsewhere"], ["6"]], ["", "temperature"]),
    ],
)
def test_what_stands_in_a_column_says_what_its_heading_does_not(
    header: list[str], cells: list[list[str]], roles: list[str]
) -> None:
    assert maps.guess_roles("readings", header, cells, {"north bed", "south bed"}) == roles


@pytest.mark.parametrize(
    ("header", "usual", "unit"),
    [("soil [°C]", "F", "C"), ("soil °F", "C", "F"), ("soil", "F", "F"), ("soil", "C", "C"), ("temp_c", "F", "C")],
)
def test_a_file_without_a_unit_is_in_that_of_who_brings_it(header: str, usual: Any, unit: str) -> None:
    assert maps.guess_unit(["date", header], usual) == unit


def test_lengths_go_the_same_way() -> None:
    assert maps.guess_length(["depth [cm]"], "in") == "cm"
    assert maps.guess_length(["depth"], "in") == "in"
    assert maps.guess_length(["depth_in"]) == "in"


@pytest.mark.parametrize(
    ("samples", "order"),
    [(["2026-04-09"], "iso"), (["9.4.2026"], "dmy"), (["4/9/2026", "4/22/2026"], "mdy"), (["4/9/2026"], "dmy"), ([], "dmy")],
)
def test_the_order_of_day_and_month_is_guessed_from_what_is_there(samples: list[str], order: str) -> None:
    assert maps.guess_order(samples) == order


def test_short_rows_are_bad_rows_not_crashes() -> None:
    parsed = parse(["2026-04-20", "07:30"], ["2026-04-20", "07:30", "6.4", "too", "many"])
    assert [row.reason for row in parsed.bad] == ["The temperature is missing."]
    assert len(parsed.good) == 1


def test_zoned_instants_are_taken_at_their_word() -> None:
    mapping = maps.Mapping(["datetime", "temperature"], place_id=1)
    parsed = parse(["2026-04-20T07:30:00+02:00", "6"], ["2026-04-20T07:30:00Z", "6"], mapping=mapping)
    assert [row[1].astimezone(UTC).hour for row in parsed.good] == [5, 7]


def test_rain_beyond_belief_is_refused() -> None:
    mapping = maps.Mapping(["date", "low", "high", "rain"])
    parsed = parse(["2026-04-20", "1", "9", "5000"], ["2026-04-21", "1", "9", ""], mapping=mapping, kind="weather")
    assert "5000 mm" in parsed.bad[0].reason
    assert parsed.good == [(date(2026, 4, 21), 1.0, 9.0, None, "", None, None)]


def test_two_columns_of_one_meaning_are_asked_about() -> None:
    doubled = maps.Mapping(["temperature", "temperature", "datetime"], place_id=1)
    assert maps.missing_roles("readings", doubled) == ["Two columns are marked as soil temperature."]


@given(st.lists(st.lists(st.text(max_size=20), min_size=1, max_size=5), min_size=1, max_size=20))
def test_whatever_the_cells_hold_every_row_is_good_or_bad(rows: list[list[str]]) -> None:
    parsed = parse(*rows)
    assert len(parsed.good) + len(parsed.bad) == len(rows)
    assert all(row.reason for row in parsed.bad)


@given(st.binary(max_size=2000))
def test_whatever_bytes_a_file_holds_it_is_read_or_refused_in_words(data: bytes) -> None:
    try:
        table = read_table(decode(data))
    except UnreadableFile:
        return
    assert table.header
    assert len(table.rows) == len(table.line) > 0
