"""Days of weather stations as national services hand them out, known by their shape and written as a plain table.

The layouts are known from memory; a file that does not fit one is read like any other sheet.
"""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from datetime import date

from cloche_engine.weather.stations import WIND_AT_2_M, sky_of

HEADING = ("date", "low [°C]", "high [°C]", "rain [mm]", "sky", "wind [m/s]", "snow [cm]")


@dataclass
class Station:
    """One day of a weather station: °C, mm of rain, cloud fraction, m/s at 10 m, and cm of snow."""

    values: dict[str, float] = field(default_factory=dict)

    def row(self, day: date) -> list[str]:
        """Return the day as a row of the plain table."""
        cloud, wind = self.values.get("cloud"), self.values.get("wind")
        sky = "" if cloud is None else sky_of(cloud)
        blows = "" if wind is None else f"{wind * WIND_AT_2_M:.1f}"
        low, high, rain, snow = (self._text(name) for name in ("low", "high", "rain", "snow"))
        return [day.isoformat(), low, high, rain, sky, blows, snow]

    def _text(self, name: str) -> str:
        return f"{self.values[name]:.1f}" if name in self.values else ""


Days = dict[date, Station]


def station_text(text: str) -> str | None:
    """Convert a station file of a known format to a plain table; None for other files."""
    for looks, read in SHAPES:
        if looks(text):
            days = read(text)
            known = {day: row for day, row in days.items() if {"low", "high"} <= row.values.keys()}
            return _plain(known) if known else None
    return None


def _plain(days: Days) -> str:
    out = io.StringIO()
    csv.writer(out).writerows([HEADING, *(days[day].row(day) for day in sorted(days))])
    return out.getvalue()


def _put(days: Days, day: str, values: Iterable[tuple[str, float | None]]) -> None:
    """Add values of a day given as 20260422."""
    try:
        on = date(int(day[:4]), int(day[4:6]), int(day[6:8]))
    except ValueError:
        return
    known = days.setdefault(on, Station()).values
    known.update({name: value for name, value in values if value is not None})


def _number(text: str, factor: float, missing: float) -> float | None:
    """Parse a cell; None if it is empty, not a number or the service's code for missing."""
    try:
        value = float(text)
    except ValueError:
        return None
    return None if value == missing else value * factor


_MONTH = re.compile(r"^[A-Z]{2}[A-Z0-9_]{9}\d{6}[A-Z]{4}[ \d-]{5}")
_ELEMENTS = {"TMIN": ("low", 0.1), "TMAX": ("high", 0.1), "PRCP": ("rain", 0.1), "AWND": ("wind", 0.1), "SNWD": ("snow", 0.1)}
MONTHS_MISSING, MONTHS_FIRST, MONTHS_WIDE = -9999.0, 21, 8


def _is_months(text: str) -> bool:
    return bool(_MONTH.match(text))


def _months(text: str) -> Days:
    """Parse fixed-width lines of one month and element: station, year, month, element, and 31 times value and three flags.

    The second flag marks a failed quality check [GHCNDaily].
    """
    days: Days = {}
    for line in text.splitlines():
        name, factor = _ELEMENTS.get(line[17:21], ("", 0.0))
        for number in range(31) if name else ():
            start = MONTHS_FIRST + MONTHS_WIDE * number
            cell = line[start : start + MONTHS_WIDE]
            if cell[6:7].strip() == "":
                _put(days, f"{line[11:17]}{number + 1:02}", [(name, _number(cell[:5], factor, MONTHS_MISSING))])
    return days


_KL = (
    ("low", "TNK", 1.0),
    ("high", "TXK", 1.0),
    ("rain", "RSK", 1.0),
    ("wind", "FM", 1.0),
    ("snow", "SHK_TAG", 1.0),
    ("cloud", "NM", 1 / 8),
)
KL_MISSING = -999.0


def _is_climate_days(text: str) -> bool:
    first = text.split("\n", 1)[0]
    return "MESS_DATUM" in first and "TNK" in first and "TXK" in first


def _climate_days(text: str) -> Days:
    """Parse semicolon-separated daily rows with named columns, -999 for missing [DWD-KL]."""
    reader = csv.reader(io.StringIO(text), delimiter=";")
    at = {name.strip(): i for i, name in enumerate(next(reader))}
    days: Days = {}
    for row in reader:
        if len(row) >= len(at):
            known = ((name, _number(row[at[key]], factor, KL_MISSING)) for name, key, factor in _KL if key in at)
            _put(days, row[at["MESS_DATUM"]].strip(), known)
    return days


_TENTHS = ("low", "TN", 0.1), ("high", "TX", 0.1), ("rain", "RH", 0.1), ("wind", "FG", 0.1), ("cloud", "NG", 1 / 8)
_HEADED = re.compile(r"^#?\s*STN\s*,\s*YYYYMMDD\s*,", re.MULTILINE)


def _is_tenths(text: str) -> bool:
    return bool(_HEADED.search(text[:20_000]))


def _tenths(text: str) -> Days:
    """Parse comma-separated daily rows below a commented heading, in tenths of °C, mm and m/s.

    Rain of -1 means less than 0.05 mm [KNMI-daily].
    """
    begin = _HEADED.search(text)
    assert begin is not None  # noqa: S101 - asked before
    reader = csv.reader(io.StringIO(text[begin.start() :]))
    at = {name.strip().lstrip("# "): i for i, name in enumerate(next(reader))}
    days: Days = {}
    for row in reader:
        if len(row) >= len(at):
            known = {name: _number(row[at[key]], factor, float("nan")) for name, key, factor in _TENTHS if key in at}
            rain = known.get("rain")
            _put(days, row[at["YYYYMMDD"]].strip(), (known | {"rain": None if rain is None else max(rain, 0.0)}).items())
    return days


SHAPES: tuple[tuple[Callable[[str], bool], Callable[[str], Days]], ...] = (
    (_is_months, _months),
    (_is_climate_days, _climate_days),
    (_is_tenths, _tenths),
)
