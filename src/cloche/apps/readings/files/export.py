"""Export of records as CSV with units in the headings, streamed, and readable by the import."""

from __future__ import annotations

import csv
from collections.abc import Iterable, Iterator

from cloche.apps.gardens.models import Garden
from cloche.apps.readings.files.tables import inert
from cloche.apps.readings.flows.record import TEXTS
from cloche.apps.readings.models import Reading
from cloche.apps.weather.models import DailyWeather
from cloche.bridge.values.units import Units


class _Line:
    """File object that passes each line of the csv writer on at once."""

    def write(self, text: str) -> str:
        return text


def stream(rows: Iterable[list[str]]) -> Iterator[str]:
    """Yield rows as CSV lines in which no cell is a spreadsheet formula."""
    writer = csv.writer(_Line())
    for row in rows:
        yield writer.writerow([inert(cell) for cell in row])


def readings_csv(garden: Garden, units: Units) -> Iterator[str]:
    """Yield all readings, oldest first, in local time with UTC offset."""
    return stream(_reading_rows(garden, units))


def _reading_rows(garden: Garden, units: Units) -> Iterator[list[str]]:
    yield ["place", "taken_at", f"depth [{units.length}]", f"soil temperature [{units.degree}]", "source", *TEXTS]
    current = Reading.objects.current().filter(place__in=garden.places.all())
    rows = current.select_related("place").order_by("taken_at", "place_id")
    for reading in rows.iterator(chunk_size=2000):
        yield [
            reading.place.name,
            reading.taken_at.astimezone(garden.timezone).isoformat(timespec="seconds"),
            f"{units.length_from_m(reading.depth_m):.4g}",
            f"{units.temperature_from_c(reading.temperature_c):.2f}",
            reading.source,
            *(getattr(reading, name) for name in TEXTS),
        ]


def weather_csv(garden: Garden, units: Units) -> Iterator[str]:
    """Yield all daily weather records, oldest first."""
    return stream(_weather_rows(garden, units))


def _weather_rows(garden: Garden, units: Units) -> Iterator[list[str]]:
    yield ["date", f"air low [{units.degree}]", f"air high [{units.degree}]", "rain [mm]", "sky", "wind [m/s]", _snow(units)]
    for line in DailyWeather.objects.filter(garden=garden).order_by("day").iterator(chunk_size=2000):
        low, high = units.temperature_from_c(line.low_c), units.temperature_from_c(line.high_c)
        snow = None if line.snow_m is None else units.length_from_m(line.snow_m)
        yield [
            line.day.isoformat(),
            f"{low:.2f}",
            f"{high:.2f}",
            _or_empty(line.rain_mm),
            line.sky,
            _or_empty(line.wind_m_s),
            _or_empty(snow),
        ]


def _snow(units: Units) -> str:
    return f"snow [{units.length}]"


def _or_empty(value: float | None) -> str:
    return "" if value is None else f"{value:.4g}"
