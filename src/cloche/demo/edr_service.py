"""The stand-in's weather by the open standard: OGC API – Environmental Data Retrieval [OGC-EDR], CoverageJSON [CovJSON].

    /edr/                                       what there is
    /edr/collections/hours/position?coords=POINT(14.4 48.3)&datetime=…   by the hour, three days back and seven ahead
    /edr/collections/days/position?…                                     by the day, thirty years back
    /edr/collections/hours/cube?bbox=14.2,48.1,14.6,48.5                 four sites of a grid
    /edr/collections/runs/position?…                                     the coming days by the hour, each run of an ensemble

The same sky as the plain answer's; the hours swing between a day's low and high. A run strays from it as its forecasts do.
"""

from __future__ import annotations

import math
import re
from datetime import UTC, date, datetime, timedelta
from typing import Any

from cloche.demo import sky
from cloche_engine.weather.stations import WIND_AT_2_M

HOURS_BACK_D, YEARS = 3, 30
CONFORMS = [
    f"http://www.opengis.net/spec/ogcapi-edr-1/1.1/conf/{part}" for part in ("core", "collections", "json", "covjson", "oas31")
]
CF = "https://vocab.nerc.ac.uk/standard_name/"
CRS84 = "http://www.opengis.net/def/crs/OGC/1.3/CRS84"
GREGORIAN = {"type": "TemporalRS", "calendar": "Gregorian"}
GEOGRAPHIC = {"type": "GeographicCRS", "id": CRS84}
HOURS, DAYS, RUNS = "hours", "days", "runs"
RUN, MANY = "realization", 20
"""The axis of the ensemble, as CF calls it, and how many runs it has."""
POINT = re.compile(r"POINT ?\(\s*(-?[\d.]+)\s+(-?[\d.]+)\s*\)")
LOWEST_H, HIGHEST_H = 3, 15
KELVIN = 273.15


class Unasked(ValueError):
    """Raised for a query that the standard does not define; the message tells what is wrong."""


def answer(path: str, words: dict[str, str], root: str, now: datetime, seed: int) -> dict[str, Any]:
    """Answer a path below the root. Raises Unasked, or LookupError for what does not exist."""
    parts = [part for part in path.split("/") if part]
    match parts:
        case []:
            return {"title": "Made-up weather", "links": _links(root)}
        case ["conformance"]:
            return {"conformsTo": CONFORMS}
        case ["collections"]:
            return {"links": _links(root), "collections": [collection(name, root, now) for name in (HOURS, DAYS, RUNS)]}
        case ["collections", (("hours" | "days" | "runs") as name)]:
            return collection(name, root, now)
        case ["collections", (("hours" | "days" | "runs") as name), "position"]:
            longitude, latitude = _point(words.get("coords", ""))
            return _coverage(name, [longitude], [latitude], words, now, seed)
        case ["collections", (("hours" | "days" | "runs") as name), "cube"]:
            west, south, east, north = _box(words.get("bbox", ""))
            return _coverage(name, [west, east], [south, north], words, now, seed)
    raise LookupError(path)


def _links(root: str) -> list[dict[str, str]]:
    """Return the links that the standard requires."""
    at = {"self": "/", "conformance": "/conformance", "data": "/collections"}
    return [{"href": f"{root}{path}", "rel": rel, "type": "application/json"} for rel, path in at.items()]


def collection(name: str, root: str, now: datetime) -> dict[str, Any]:
    """Describe a collection."""
    first, last = _extent(name, now)
    queries = {}
    one_of = {"custom": [{"id": RUN, "interval": [[1, MANY]], "values": [f"R{MANY}/1/1"], "reference": f"{CF}{RUN}/"}]}
    for kind in ("position", "cube"):
        about = {"query_type": kind, "output_formats": ["CoverageJSON"], "default_output_format": "CoverageJSON"}
        if kind == "cube":
            about["height_units"] = ["m"]
        queries[kind] = {"link": {"href": f"{root}/collections/{name}/{kind}", "rel": "data", "variables": about}}
    step = "P1D" if name == DAYS else "PT1H"
    return {
        "id": name,
        "title": f"Weather by the {name.removesuffix('s')}",
        "keywords": ["simulated"],
        "links": [{"href": f"{root}/collections/{name}", "rel": "self", "type": "application/json"}],
        "extent": {
            "spatial": {"bbox": [[-180.0, -66.0, 180.0, 66.0]], "crs": CRS84},
            "temporal": {"interval": [[_text(first), _text(last)]], "values": [f"R/{_text(first)}/{step}"], "trs": "Gregorian"},
        }
        | (one_of if name == RUNS else {}),
        "data_queries": queries,
        "crs": [CRS84],
        "output_formats": ["CoverageJSON"],
        "parameter_names": parameters(name),
    }


def parameters(name: str) -> dict[str, dict[str, Any]]:
    """Describe a collection's parameters with CF names and UCUM units."""
    if name != DAYS:
        return {
            "air_temperature": _parameter("air_temperature", "Air temperature", "K", ("point", "PT0H")),
            "precipitation_amount": _parameter("precipitation_amount", "Precipitation", "kg/m2", ("sum", "PT1H")),
            "wind_speed": _parameter("wind_speed", "Wind at ten metres", "m/s", ("mean", "PT1H")),
            "cloud_area_fraction": _parameter("cloud_area_fraction", "Cloud", "%", ("mean", "PT1H")),
        }
    return {
        "lowest": _parameter("air_temperature", "Lowest air temperature", "Cel", ("minimum", "P1D")),
        "highest": _parameter("air_temperature", "Highest air temperature", "Cel", ("maximum", "P1D")),
        "rain": _parameter("precipitation_amount", "Precipitation", "mm", ("sum", "P1D")),
    }


def _parameter(cf: str, label: str, unit: str, measured: tuple[str, str]) -> dict[str, Any]:
    symbol = {"value": unit, "type": "http://www.opengis.net/def/uom/UCUM/"}
    return {
        "type": "Parameter",
        "description": label,
        "observedProperty": {"id": f"{CF}{cf}/", "label": label},
        "unit": {"label": unit, "symbol": symbol},
        "measurementType": dict(zip(("method", "duration"), measured, strict=True)),
    }


def _extent(name: str, now: datetime) -> tuple[datetime, datetime]:
    from cloche.demo.weather_service import FORECAST_D

    midnight = now.astimezone(UTC).replace(hour=0, minute=0, second=0, microsecond=0)
    if name != DAYS:
        return midnight - timedelta(days=HOURS_BACK_D * (name == HOURS)), midnight + timedelta(days=FORECAST_D + 1)
    return datetime(now.year - YEARS, 1, 1, tzinfo=UTC), midnight - timedelta(days=1)


def _coverage(name: str, xs: list[float], ys: list[float], words: dict[str, str], now: datetime, seed: int) -> dict[str, Any]:
    times, wanted = _times(name, words, now), _wanted(name, words)
    runs = range(MANY if name == RUNS else 1)
    sites = [_values(name, times, x, y, now, seed, run) for run in runs for y in ys for x in xs]
    grid = len(ys) * len(xs) > 1
    names, shape = (["y", "x", "t"], [len(ys), len(xs), len(times)]) if grid else (["t"], [len(times)])
    referencing = [
        {"coordinates": ["x", "y"], "system": GEOGRAPHIC},
        {"coordinates": ["t"], "system": GREGORIAN},
    ]
    axes: dict[str, Any] = {"x": {"values": xs}, "y": {"values": ys}, "t": {"values": [_text(at) for at in times]}}
    domain: dict[str, Any] = {"type": "Domain", "domainType": "Grid" if grid else "PointSeries", "axes": axes}
    if name == RUNS:  # a type of domain knows its own axes and no other
        names, shape, axes[RUN] = [RUN, *names], [MANY, *shape], {"values": [run + 1 for run in runs]}
        del domain["domainType"]
    ranges = {
        key: {
            "type": "NdArray",
            "dataType": "float",
            "axisNames": names,
            "shape": shape,
            "values": [value for site in sites for value in site[key]],
        }
        for key in wanted
    }
    described = {
        key: {n: value for n, value in row.items() if n != "description"}
        | {"observedProperty": row["observedProperty"] | {"label": {"en": row["observedProperty"]["label"]}}}
        | {"unit": row["unit"] | {"label": {"en": row["unit"]["label"]}}}
        for key, row in parameters(name).items()
        if key in wanted
    }
    return {
        "type": "Coverage",
        "domain": domain | {"referencing": referencing},
        "parameters": described,
        "ranges": ranges,
    }


def _values(name: str, times: list[datetime], x: float, y: float, now: datetime, seed: int, run: int) -> dict[str, list[float]]:
    from cloche.demo.weather_service import FORECAST_D, days_ahead, of_run

    if not (-66 <= y <= 66 and -180 <= x <= 180):
        raise Unasked("The grid ends at 66 degrees.")
    today = now.astimezone(UTC).date()
    truth = sky.history(y, x, sky.climate_at(y, x, 0.0), today + timedelta(days=FORECAST_D + 1), seed)
    ahead = days_ahead(truth, today, of_run(seed, run))

    def day_of(on: date) -> tuple[float, float, float, float]:
        if on in ahead:
            return ahead[on]
        row = (on - sky.BEGINS).days
        return tuple(float(v[row]) for v in (truth.low_c, truth.high_c, truth.rain_mm, truth.wind_m_s))  # type: ignore[return-value]

    # Rain stands at the end of the hour in which it fell.
    fell = [(at - timedelta(hours=1)).date() for at in times]
    days = {on: day_of(on) for on in {at.date() for at in times} | set(fell)}
    if name == DAYS:
        keys = ("lowest", "highest", "rain")
        return {key: [round(days[at.date()][i], 2) for at in times] for i, key in enumerate(keys)}
    rows = [days[at.date()] for at in times]
    clouds = {on: 0.9 if rain > 2 else 0.5 if high - low < 9 else 0.1 for on, (low, high, rain, _wind) in days.items()}
    air = [_hour(row[0], row[1], at.hour) for at, row in zip(times, rows, strict=True)]
    return {
        "air_temperature": [round(value + KELVIN, 2) for value in air],
        "precipitation_amount": [round(days[on][2] / 24, 4) for on in fell],
        "wind_speed": [round(wind / WIND_AT_2_M, 2) for *_others, wind in rows],
        "cloud_area_fraction": [100 * clouds[at.date()] for at in times],
    }


def _hour(low: float, high: float, hour: int) -> float:
    """Interpolate between the early low and the afternoon high."""
    turn = (hour - LOWEST_H) / (HIGHEST_H - LOWEST_H)
    return low + (high - low) * (1 - math.cos(math.pi * turn)) / 2


def _times(name: str, words: dict[str, str], now: datetime) -> list[datetime]:
    begin, end = _extent(name, now)
    try:
        first, last = (datetime.fromisoformat(text) for text in words["datetime"].split("/"))
    except KeyError:
        first, last = begin, end
    except ValueError as wrong:
        raise Unasked("datetime is two instants with a / between them.") from wrong
    step = timedelta(days=1) if name == DAYS else timedelta(hours=1)
    count = int((end - begin) / step) + 1
    times = [begin + i * step for i in range(count) if first <= begin + i * step <= last]
    if not times:
        raise Unasked("There is nothing at that time.")
    return times


def _wanted(name: str, words: dict[str, str]) -> list[str]:
    known = list(parameters(name))
    wanted = [key for key in words.get("parameter-name", "").split(",") if key] or known
    if not set(wanted) <= set(known):
        raise Unasked(f"parameter-name is of {', '.join(known)}.")
    return wanted


def _point(text: str) -> tuple[float, float]:
    match = POINT.fullmatch(text.strip())
    if match is None:
        raise Unasked("coords is POINT(longitude latitude).")
    return float(match[1]), float(match[2])


def _box(text: str) -> tuple[float, float, float, float]:
    try:
        west, south, east, north = (float(edge) for edge in text.split(","))
    except ValueError as wrong:
        raise Unasked("bbox is west,south,east,north.") from wrong
    return west, south, east, north


def _text(at: datetime) -> str:
    return at.astimezone(UTC).strftime("%Y-%m-%dT%H:%M:%SZ")
