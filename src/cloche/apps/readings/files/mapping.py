"""Column mapping of an imported file, and parsing its rows into readings or daily weather."""

from __future__ import annotations

import re
from collections.abc import Callable, Collection
from dataclasses import dataclass, field
from datetime import UTC, date, datetime, time, timedelta
from typing import Any, Literal
from zoneinfo import ZoneInfo

from django.utils.translation import gettext as _

from cloche.apps.readings.files.tables import Table, as_meant
from cloche.apps.shared.clock import NoSuchTime, at_offset, instant
from cloche.apps.shared.words import lazy
from cloche.apps.weather.models import DailyWeather
from cloche.bridge.values import border
from cloche.bridge.values.units import (
    LengthUnit,
    NotANumber,
    TemperatureUnit,
    Units,
    parse_air,
    parse_depth,
    parse_rain,
    parse_snow,
    parse_soil,
    parse_wind,
)
from cloche_engine.errors import OutOfRange

Clock = Literal["local", "standard", "utc"]
DateOrder = Literal["iso", "dmy", "mdy"]

READING_ROLES = {
    "": lazy("ignore"),
    "datetime": lazy("date and time"),
    "date": lazy("date"),
    "time": lazy("time"),
    "temperature": lazy("soil temperature"),
}
READING_ROLES |= {"depth": lazy("depth"), "place": lazy("place"), "note": lazy("note")}
WEATHER_ROLES = {
    "": lazy("ignore"),
    "date": lazy("date"),
    "low": lazy("lowest air temperature"),
    "high": lazy("highest air temperature"),
    "rain": lazy("rain (mm)"),
}
WEATHER_ROLES |= {"sky": lazy("sky (clear, broken or overcast)"), "wind": lazy("wind (m/s)"), "snow": lazy("snow depth")}

_GUESSES: dict[str, tuple[tuple[str, str], ...]] = {
    "readings": (
        (r"date.*time|datetime|timestamp|taken|zeit.*punkt|_at\b", "datetime"),
        (r"^(date|day|datum|tag)", "date"),
        (r"^(time|uhr|zeit|hour)", "time"),
        (r"depth|tiefe|profondeur", "depth"),
        (r"temp|soil|boden|°|\[c\]|\[f\]", "temperature"),
        (r"place|bed|beet|ort\b|location|where|plot", "place"),
        (r"note|remark|comment|notiz|bemerk", "note"),
    ),
    "weather": (
        (r"date|day|datum|tag", "date"),
        (r"min|low|tief", "low"),
        (r"max|high|hoch|höchst", "high"),
        (r"rain|precip|regen|niederschlag", "rain"),
        (r"sky|himmel", "sky"),
        (r"wind", "wind"),
        (r"snow|schnee", "snow"),
    ),
}
_DATE = re.compile(r"^(\d{1,4})[-./](\d{1,2})[-./](\d{1,4})$")
_DATE_AND_TIME = re.compile(r"^\d{1,4}[-./]\d{1,2}[-./]\d{1,4}[T ]+\d{1,2}[:.h]\d{2}")
_TIME = re.compile(r"^(\d{1,2})[:.h](\d{2})(?:[:.](\d{2})(?:\.\d+)?)?\s*(am|pm)?$", re.IGNORECASE)


@dataclass(frozen=True)
class Mapping:
    """Column roles and settings for all rows of a file."""

    roles: list[str]
    temperature_unit: TemperatureUnit = "C"
    length_unit: LengthUnit = "cm"
    date_order: DateOrder = "iso"
    clock: Clock = "local"
    place_id: int | None = None
    depth_m: float | None = None

    def column(self, role: str) -> int | None:
        """Return the index of a role's column, or None."""
        return self.roles.index(role) if role in self.roles else None

    @property
    def units(self) -> Units:
        """Return the units of the file."""
        return Units(self.temperature_unit, self.length_unit)


@dataclass(frozen=True)
class BadRow:
    """A refused row with the reason."""

    line: int
    reason: str
    text: str


@dataclass
class Parsed:
    """Valid rows as (place_id, taken_at, depth_m, temperature_c, note) or (day, low, high, rain, sky, wind, snow), and refused
    ones.
    """

    good: list[tuple[Any, ...]] = field(default_factory=list)
    good_line: list[int] = field(default_factory=list)
    bad: list[BadRow] = field(default_factory=list)


@dataclass(frozen=True)
class Setting:
    """Properties of the garden that a file is imported into."""

    timezone: ZoneInfo
    standard_offset_h: float
    places: dict[str, int]
    seed_depths_m: dict[int, float]
    now: datetime


class BadCell(ValueError):
    """Raised for an unreadable cell."""


def guess_roles(kind: str, header: list[str], cells: list[list[str]], places: Collection[str]) -> list[str]:
    """Guess the role of each column from its heading and cells; each role is used at most once.

    `cells` holds sample values by column, `places` the garden's place names in lower case.
    """
    roles: list[str] = []
    for name in header:
        guesses = (role for pattern, role in _GUESSES[kind] if re.search(pattern, name.lower()) and role not in roles)
        roles.append(next(guesses, ""))
    if kind == "readings":
        for column, values in enumerate(cells):
            filled = [value.strip() for value in values if value.strip()]
            if filled and roles[column] in ("date", "") and "datetime" not in roles and all(map(_DATE_AND_TIME.match, filled)):
                roles[column] = "datetime"
            if filled and roles[column] == "" and "place" not in roles and all(value.lower() in places for value in filled):
                roles[column] = "place"
    return roles


def guess_unit(header: list[str], usual: TemperatureUnit = "C") -> TemperatureUnit:
    """Return the temperature unit named in the heading, or else the person's own."""
    said = " ".join(header).lower()
    if re.search(r"°\s?f\b|\[f\]|_f\b|fahrenheit", said):
        return "F"
    return "C" if re.search(r"°\s?c\b|\[°?c\]|_c\b|celsius", said) else usual


def guess_length(header: list[str], usual: LengthUnit = "cm") -> LengthUnit:
    """Return the length unit named in the heading, or else the person's own."""
    said = " ".join(header).lower()
    if re.search(r"\[in\]|_in\b|inch", said):
        return "in"
    return "cm" if re.search(r"\[cm\]|_cm\b|centim", said) else usual


def guess_order(samples: list[str]) -> DateOrder:
    """Return ISO if a year comes first, otherwise day first unless a second number exceeds 12."""
    parts = [match.groups() for text in samples if (match := _DATE.match(text.strip().split(" ")[0].split("T")[0]))]
    if any(len(first) == 4 for first, _unused, _unused in parts):
        return "iso"
    return "mdy" if any(int(second) > 12 for _unused, second, _unused in parts) else "dmy"


def missing_roles(kind: str, mapping: Mapping) -> list[str]:
    """Return what is still missing before rows can be read, as messages."""
    given = set(mapping.roles)
    lacking = []
    if kind == "weather":
        lacking += [
            _("Choose the {weather_roles} column.").format(weather_roles=WEATHER_ROLES[role])
            for role in ("date", "low", "high")
            if role not in given
        ]
    else:
        if "datetime" not in given and not {"date", "time"} <= given:
            lacking.append(_("Choose the column with date and time, or one column for each."))
        if "temperature" not in given:
            lacking.append(_("Choose the soil temperature column."))
        if "place" not in given and mapping.place_id is None:
            lacking.append(_("Choose the place of these readings."))
    doubled = {role for role in mapping.roles if role and mapping.roles.count(role) > 1}
    return lacking + [
        _("Two columns are marked as {value}.").format(value=READING_ROLES.get(r) or WEATHER_ROLES[r]) for r in sorted(doubled)
    ]


def parse(kind: str, table: Table, mapping: Mapping, setting: Setting) -> Parsed:
    """Parse every row; a bad row never stops the others."""
    read: Callable[[list[str], Mapping, Setting], tuple[Any, ...]] = _weather if kind == "weather" else _reading
    parsed = Parsed()
    seen: dict[tuple[Any, ...], int] = {}
    for row, line in zip(table.rows, table.line, strict=True):
        try:
            values = read(row, mapping, setting)
        except (BadCell, NotANumber, OutOfRange, NoSuchTime) as refusal:
            parsed.bad.append(BadRow(line, str(refusal), " · ".join(row)[:120]))
            continue
        key = values[:1] if kind == "weather" else values[:3]
        if key in seen:
            parsed.bad.append(BadRow(line, _("Same as line {seen}.").format(seen=seen[key]), " · ".join(row)[:120]))
            continue
        seen[key] = line
        parsed.good.append(values)
        parsed.good_line.append(line)
    return parsed


def _cell(row: list[str], column: int | None) -> str:
    return as_meant(row[column].strip()) if column is not None and column < len(row) else ""


def _reading(row: list[str], mapping: Mapping, setting: Setting) -> tuple[int, datetime, float, float, str]:
    text = _cell(row, mapping.column("temperature"))
    if not text:
        raise BadCell(_("The temperature is missing."))
    temperature_c = parse_soil(text, mapping.units)
    place_id = _place(row, mapping, setting)
    taken_at = _taken_at(row, mapping, setting)
    if taken_at > setting.now + timedelta(minutes=5):
        raise BadCell(_("The time is in the future."))
    depth = _cell(row, mapping.column("depth"))
    if depth:
        depth_m = parse_depth(depth, mapping.units)
    else:
        depth_m = mapping.depth_m if mapping.depth_m is not None else setting.seed_depths_m[place_id]
    return place_id, taken_at, round(depth_m, 4), temperature_c, border.one_line(_cell(row, mapping.column("note")))[:200]


def _place(row: list[str], mapping: Mapping, setting: Setting) -> int:
    column = mapping.column("place")
    if column is None:
        assert mapping.place_id is not None  # missing_roles has asked
        return mapping.place_id
    name = _cell(row, column)
    if name.lower() not in setting.places:
        raise BadCell(
            _("No place in this garden is called “{name}”.").format(name=name) if name else _("The place is missing.")
        )
    return setting.places[name.lower()]


def _taken_at(row: list[str], mapping: Mapping, setting: Setting) -> datetime:
    column = mapping.column("datetime")
    if column is not None:
        text = _cell(row, column)
        zoned = _zoned(text)
        if zoned:
            return zoned
        day_text, _unused, time_text = text.replace("T", " ").partition(" ")
    else:
        day_text, time_text = _cell(row, mapping.column("date")), _cell(row, mapping.column("time"))
    day, at = parse_day(day_text, mapping.date_order), parse_time(time_text.strip())
    if mapping.clock == "utc":
        return at_offset(day, at, 0.0)
    if mapping.clock == "standard":
        return at_offset(day, at, setting.standard_offset_h)
    return instant(day, at, setting.timezone)


def _zoned(text: str) -> datetime | None:
    """Return an ISO time that carries its UTC offset, or None."""
    if not re.search(r"\d{2}:\d{2}(:\d{2})?(\.\d+)?(Z|[+-]\d{2}:?\d{2})$", text):
        return None
    try:
        return border.instant(datetime.fromisoformat(text)).astimezone(UTC)
    except border.NotAllowed as refusal:
        raise BadCell(str(refusal)) from refusal
    except ValueError:
        return None


def _weather(row: list[str], mapping: Mapping, setting: Setting) -> tuple[Any, ...]:
    day = parse_day(_cell(row, mapping.column("date")).replace("T", " ").split(" ")[0], mapping.date_order)
    low_c, high_c = (_air(row, mapping, role) for role in ("low", "high"))
    if low_c > high_c:
        raise BadCell(_("The low is above the high."))
    rain, sky, wind, snow = (_cell(row, mapping.column(role)) for role in ("rain", "sky", "wind", "snow"))
    if sky and sky.lower() not in DailyWeather.Sky.values:
        raise BadCell(_("“{sky}” is not a known sky. Use clear, broken or overcast.").format(sky=sky))
    rain_mm, wind_m_s = (parse(text) if text else None for parse, text in ((parse_rain, rain), (parse_wind, wind)))
    snow_m = parse_snow(snow, mapping.units) if snow else None
    return day, low_c, high_c, rain_mm, sky.lower(), wind_m_s, snow_m


def _air(row: list[str], mapping: Mapping, role: str) -> float:
    text = _cell(row, mapping.column(role))
    if not text:
        raise BadCell(_("The {weather_roles} is missing.").format(weather_roles=WEATHER_ROLES[role]))
    return parse_air(text, mapping.units)


def parse_day(text: str, order: DateOrder) -> date:
    """Parse a date in the given order. Raises BadCell."""
    match = _DATE.match(text.strip())
    if not match:
        raise BadCell(_("“{strip}” is not a date.").format(strip=text.strip()) if text.strip() else _("The date is missing."))
    first, second, third = (int(part) for part in match.groups())
    year, month, day = {"iso": (first, second, third), "dmy": (third, second, first), "mdy": (third, first, second)}[order]
    try:
        return border.day(date(year + 2000 if year < 100 else year, month, day))
    except border.NotAllowed as refusal:
        raise BadCell(str(refusal)) from refusal
    except ValueError:
        raise BadCell(_("“{strip}” is not a date in that order of day and month.").format(strip=text.strip())) from None


def parse_time(text: str) -> time:
    """Parse a time such as 07:30, 7.30 or 7:30 pm. Raises BadCell."""
    match = _TIME.match(text)
    if not match:
        raise BadCell(_("“{text}” is not a time of day.").format(text=text) if text else _("The time of day is missing."))
    hour, minute, second, half = int(match[1]), int(match[2]), int(match[3] or 0), (match[4] or "").lower()
    if half:
        hour = hour % 12 + (12 if half == "pm" else 0)
    try:
        return time(hour, minute, second)
    except ValueError:
        raise BadCell(_("“{text}” is not a time of day.").format(text=text)) from None
