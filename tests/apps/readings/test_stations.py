"""Files of weather stations by their shape. The layouts are from memory (see docs/sources.md); the values are made up."""

from __future__ import annotations

import io
from datetime import date

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden, User
from cloche.apps.readings.files.stations import HEADING, station_text
from cloche.apps.readings.files.tables import read_table
from cloche.apps.readings.flows.bring_in import preview, receive

CLIMATE_DAYS = """STATIONS_ID;MESS_DATUM;QN_3;  FX;  FM;QN_4; RSK;RSKF; SDK;SHK_TAG;  NM; VPM;  PM; TMK; UPM; TXK; TNK; TGK;eor
9999;20260420;   10;   8.1;   4.0;    3;   2.4;   6;   3.1;   0;   7.6;   8.0;  960.0;   8.1;  78.0;  13.2;   3.1;   1.2;eor
9999;20260421;   10;   8.1;-999;    3;-999;   6;   3.1;-999;   1.0;   8.0;  960.0;   8.1;  78.0;  15.0;  -0.4;   1.2;eor
9999;20260422;   10;   8.1;   4.0;    3;   2.4;   6;   3.1;   0;   7.6;   8.0;  960.0;   8.1;  78.0;-999;   3.1;   1.2;eor
"""
TENTHS = """# DAILY VALUES OF A STATION
# TN = minimum in 0.1 degrees; RH = precipitation in 0.1 mm, -1 for less than 0.05 mm
# STN,YYYYMMDD,   FG,   TN,   TX,   RH,   NG
  999,20260420,   50,   31,  132,   24,    8
  999,20260421,   20,   -4,  150,   -1,    1
"""


def month(element: str, values: dict[int, tuple[int, str]]) -> str:
    """A line of fixed columns."""
    cells = (values.get(day, (-9999, " ")) for day in range(1, 32))
    return f"XX000099999202604{element}" + "".join(f"{value:5d} {flag}S" for value, flag in cells)


def rows(text: str | None) -> list[list[str]]:
    assert text is not None
    table = read_table(text)
    assert table.header == list(HEADING)
    return table.rows


def test_days_with_columns_by_name() -> None:
    assert rows(station_text(CLIMATE_DAYS)) == [
        ["2026-04-20", "3.1", "13.2", "2.4", "overcast", "3.0", "0.0"],
        ["2026-04-21", "-0.4", "15.0", "", "clear", "", ""],
    ]


def test_tenths_below_remarks() -> None:
    assert rows(station_text(TENTHS)) == [
        ["2026-04-20", "3.1", "13.2", "2.4", "overcast", "3.7", ""],
        ["2026-04-21", "-0.4", "15.0", "0.0", "clear", "1.5", ""],
    ]


def test_a_month_and_element_a_line() -> None:
    lines = [
        month("TMAX", {20: (132, " "), 21: (150, " "), 22: (999, "X")}),
        month("TMIN", {20: (31, " "), 21: (-4, " "), 22: (31, " ")}),
        month("PRCP", {20: (24, " ")}),
        month("WT01", {20: (1, " ")}),
    ]
    # What failed the service's own checks is left out, and with it a day without a high.
    assert rows(station_text("\n".join(lines))) == [
        ["2026-04-20", "3.1", "13.2", "2.4", "", "", ""],
        ["2026-04-21", "-0.4", "15.0", "", "", "", ""],
    ]


def test_any_other_file_is_left_as_it_is() -> None:
    assert station_text("date,low,high\n2026-04-20,3,13\n") is None
    assert station_text("") is None
    assert station_text(CLIMATE_DAYS.replace("13.2", "-999").replace("15.0", "-999")) is None


def test_it_is_brought_in_without_a_question(garden: Garden, person: User) -> None:
    given = SimpleUploadedFile("produkt_klima_tag.txt", CLIMATE_DAYS.replace("\n", "\r\n").encode("latin-1"))
    incoming = receive(garden, person, "weather", given)
    previewed = preview(incoming)
    assert not previewed.refused
    days = {row[0]: row[1:] for row in previewed.fresh}
    assert days[date(2026, 4, 20)][:3] == (3.1, 13.2, 2.4)
    assert len(days) == 2


def test_through_the_page(signed_in: Client, garden: Garden) -> None:
    given = io.BytesIO(TENTHS.encode())
    given.name = "etmgeg.txt"
    answer = signed_in.post(reverse("files", args=[garden.pk]), {"kind": "weather", "file": given}, follow=True)
    assert answer.status_code == 200
    assert "2026" in answer.content.decode()
