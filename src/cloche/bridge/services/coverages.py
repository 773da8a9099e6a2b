"""Weather out of coverages: what a service of environmental data [OGC-EDR] answers as CoverageJSON [CovJSON], its parameters
named by the CF conventions [CF] and their units by UCUM [UCUM], as days of a site."""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from enum import StrEnum
from itertools import pairwise
from statistics import fmean, median
from typing import Any
from zoneinfo import ZoneInfo

import numpy as np
from covjson_pydantic.coverage import Coverage, CoverageCollection
from covjson_pydantic.domain import CompactAxis
from covjson_pydantic.ndarray import NdArrayFloat, NdArrayInt
from numpy.typing import NDArray

from cloche.bridge.values.texts import say
from cloche_engine.weather.stations import WIND_AT_2_M, sky_of

Array = NDArray[np.float64]


class Quantity(StrEnum):
    """Weather quantities that a forecast can use."""

    AIR = "air"
    LOW = "low"
    HIGH = "high"
    RAIN = "rain"
    WIND = "wind"
    CLOUD = "cloud"


BY_NAME = {
    "air_temperature": Quantity.AIR,
    "precipitation_amount": Quantity.RAIN,
    "lwe_thickness_of_precipitation_amount": Quantity.RAIN,
    "thickness_of_rainfall_amount": Quantity.RAIN,
    "wind_speed": Quantity.WIND,
    "cloud_area_fraction": Quantity.CLOUD,
}
"""CF standard names."""
EXTREMES = {"minimum": Quantity.LOW, "maximum": Quantity.HIGH}
_TEMPERATURE = {"Cel": (1.0, 0.0), "K": (1.0, -273.15), "[degF]": (5 / 9, -160 / 9)}
_DEPTH = {"mm": 1.0, "kg/m2": 1.0, "kg.m-2": 1.0, "cm": 10.0, "m": 1000.0, "[in_i]": 25.4}
_SPEED = {"m/s": 1.0, "m.s-1": 1.0, "km/h": 1 / 3.6, "km.h-1": 1 / 3.6, "[kn_i]": 0.514444, "[mi_i]/h": 0.44704}
_SHARE = {"%": 0.01, "1": 1.0}
UNITS: dict[Quantity, dict[str, tuple[float, float]]] = {
    **dict.fromkeys((Quantity.AIR, Quantity.LOW, Quantity.HIGH), _TEMPERATURE),
    Quantity.RAIN: {unit: (factor, 0.0) for unit, factor in _DEPTH.items()},
    Quantity.WIND: {unit: (factor, 0.0) for unit, factor in _SPEED.items()},
    Quantity.CLOUD: {unit: (factor, 0.0) for unit, factor in _SHARE.items()},
}
"""Factor and offset to °C, mm, m/s and a share, by UCUM's codes."""
WHOLE_DAY = 0.8
"""A day is known when so much of its hours is."""
A_DAY = timedelta(days=1)
DAILY = 0.9


class NotUnderstood(ValueError):
    """Raised for a document that is not CoverageJSON or holds no usable data; the message gives the reason."""


@dataclass(frozen=True)
class Meant:
    """Interpretation of a parameter: its quantity, and the factor and offset that convert it to canonical units."""

    quantity: Quantity
    factor: float
    offset: float


Series = dict[Quantity, dict[datetime, float]]
"""Values in the house's units, by the instant."""
RUNS = ("realization", "number", "member", "ensemble", "ensemble_member")
"""What an axis of an ensemble's runs is called: by CF, and as services do."""


def meant(parameter: dict[str, Any], key: str) -> Meant | None:
    """Return the interpretation of a parameter described in EDR or CoverageJSON, or None for an unused quantity or unknown
    unit.
    """
    meaning = next((BY_NAME[name] for name in _names(parameter, key) if name in BY_NAME), None)
    if meaning is None:
        return None
    kind = parameter.get("measurementType") or {}
    if meaning is Quantity.AIR:
        meaning = EXTREMES.get(str(kind.get("method", "")).lower(), meaning)
    unit = _unit(parameter.get("unit") or {})
    return Meant(meaning, *UNITS[meaning][unit]) if unit in UNITS[meaning] else None


def _names(parameter: dict[str, Any], key: str) -> Iterable[str]:
    """Yield the names a parameter may go by: the end of its property's URI, its label and its key."""
    observed = parameter.get("observedProperty") or {}
    for text in (observed.get("id"), observed.get("label"), parameter.get("id"), parameter.get("label"), key):
        words = next(iter(text.values()), "") if isinstance(text, dict) else text
        if words:
            yield str(words).rstrip("/").rsplit("/", 1)[-1].strip().lower().replace(" ", "_")


def _unit(unit: dict[str, Any]) -> str:
    symbol = unit.get("symbol")
    return str(symbol.get("value", "") if isinstance(symbol, dict) else symbol or "").replace(" ", ".")


def series_of(document: Any, latitude_deg: float, longitude_deg: float, known: dict[str, Any] | None = None) -> list[Series]:
    """Return the time series of a CoverageJSON document at a site, one for each ensemble member.

    Values given once apply to every member.

    known: parameters as the collection describes them, for those that the document names only. Raises NotUnderstood.
    """
    try:
        _made_plain(document)
        # As text once more: of plain values the models take no name of a kind of domain in a collection.
        if isinstance(document, dict) and document.get("type") == "CoverageCollection":
            collection = CoverageCollection.model_validate_json(json.dumps(document))
            coverages, shared = collection.coverages, document.get("parameters") or {}
        else:
            coverages, shared = [Coverage.model_validate_json(json.dumps(document))], {}
    except (AttributeError, RecursionError, TypeError, ValueError) as odd:
        raise NotUnderstood(say("This is not valid CoverageJSON.")) from odd
    series: dict[Quantity, dict[datetime, Array]] = {}
    for coverage, is_another_run in _nearest(coverages, latitude_deg, longitude_deg):
        described = (known or {}) | shared | (coverage.parameters.model_dump() if coverage.parameters else {})
        for quantity, values_at in _stated(coverage, described, latitude_deg, longitude_deg).items():
            before = series.setdefault(quantity, {})
            for at, values in values_at.items():
                before[at] = np.concatenate([before[at], values]) if is_another_run and at in before else values
    if not any(series.values()):
        raise NotUnderstood(say("It contains no air temperature, rain, wind or cloud in a known unit."))
    return _by_run(series)


def _nearest(coverages: Iterable[Coverage], latitude: float, longitude: float) -> Iterable[tuple[Coverage, bool]]:
    """Yield coverages with whether they repeat an earlier one: of single-point coverages those nearest the site, and all
    others.

    An ensemble may arrive as one coverage per member.
    """
    coverages = list(coverages)
    away = [_away(coverage, latitude, longitude) for coverage in coverages]
    least = min((distance for distance in away if distance is not None), default=None)
    seen: set[str] = set()
    for coverage, distance in zip(coverages, away, strict=True):
        if distance is None or distance == least:
            tells = f"{sorted(coverage.ranges)} {coverage.domain.model_dump_json()}"
            yield coverage, tells in seen
            seen.add(tells)


def _away(coverage: Coverage, latitude: float, longitude: float) -> float | None:
    """Return the squared distance of a single-point coverage from a site; None where it has several points or none."""
    axes = coverage.domain.axes
    if axes.x is None or axes.y is None:
        return None
    x, y = _places(axes.x), _places(axes.y)
    return float((x[0] - longitude) ** 2 + (y[0] - latitude) ** 2) if len(x) == len(y) == 1 else None


def _by_run(series: dict[Quantity, dict[datetime, Array]]) -> list[Series]:
    """Split series by ensemble member.

    Times missing from any member are dropped; values given once go to every member.
    """
    counts = {quantity: max(map(len, values_at.values()), default=0) for quantity, values_at in series.items()}
    runs = max(counts.values())
    return [
        {
            quantity: {at: float(v[min(run, len(v) - 1)]) for at, v in values_at.items() if len(v) == counts[quantity]}
            for quantity, values_at in series.items()
            if counts[quantity] in (1, runs)
        }
        for run in range(runs)
    ]


def _made_plain(document: Any) -> None:
    """Normalise times and axis names of a document before it is parsed.

    A time without a zone is UTC [CovJSON], and axes may have any name.
    """
    if not isinstance(document, dict):
        return
    for coverage in [document, *(document.get("coverages") or [])]:
        axes = (coverage.get("domain") or {}).get("axes") or {}
        for name in RUNS:
            axes.pop(name, None)
        times = axes.get("t") or {}
        if isinstance(times.get("values"), list):
            at = (datetime.fromisoformat(text) for text in times["values"])
            times["values"] = [(each if each.tzinfo else each.replace(tzinfo=UTC)).isoformat() for each in at]


def _stated(
    coverage: Coverage, described: dict[str, Any], latitude_deg: float, longitude_deg: float
) -> dict[Quantity, dict[datetime, Array]]:
    """Return the members of each time by quantity, as a coverage gives them for a site."""
    stated: dict[Quantity, dict[datetime, Array]] = {}
    axes = coverage.domain.axes
    if axes.t is None:
        return stated
    times = list(axes.t.values)
    for key, values in coverage.ranges.items():
        what = meant(described.get(key) or {}, key)
        if what is None or not isinstance(values, NdArrayFloat | NdArrayInt):
            continue
        block = np.array([np.nan if value is None else value for value in values.values], dtype=np.float64)
        rows = _at_site(block, values, axes, latitude_deg, longitude_deg, len(times))
        values_at = stated.setdefault(what.quantity, {})
        for at, runs in zip(times, rows.T, strict=True):
            if np.isfinite(runs).all():
                values_at[at] = runs * what.factor + what.offset
    return stated


def _at_site(
    block: Array, values: NdArrayFloat | NdArrayInt, axes: Any, latitude: float, longitude: float, times: int
) -> Array:
    """Return the values over time, shape (members, times), of the grid cell nearest the site that has any."""
    names, shape = list(values.axisNames or ["t"]), values.shape or [len(block)]
    if "t" not in names or len(block) != int(np.prod(shape)):
        raise NotUnderstood(say("Its number of values does not match its times."))
    block = block.reshape(shape)
    run = next((name for name in names if name in RUNS), None)
    if run is None:
        block, names, run = block[np.newaxis], [RUNS[0], *names], RUNS[0]
    block = np.moveaxis(block, (names.index(run), names.index("t")), (0, -1))
    if block.shape[-1] != times:
        raise NotUnderstood(say("Its number of values does not match its times."))
    others = [name for name in names if name not in (run, "t")]
    away = np.zeros(block.shape[1:-1])
    for number, name in enumerate(others):
        site = {"x": longitude, "y": latitude}.get(name)
        if site is not None:
            along = np.abs(_places(getattr(axes, name)) - site)
            away = away + along.reshape([-1 if i == number else 1 for i in range(len(others))]) ** 2
    away = np.where(np.isfinite(block).any(axis=(0, -1)), away, np.inf)
    cells = block.reshape(len(block), -1, times)
    return np.asarray(cells[:, int(np.argmin(away))])


def _places(axis: Any) -> Any:
    return np.linspace(axis.start, axis.stop, axis.num) if isinstance(axis, CompactAxis) else np.array(axis.values, dtype=float)


def days_of(series: Series, zone: ZoneInfo) -> dict[date, dict[str, Any]]:
    """Return low_c and high_c of each complete day, with rain_mm, wind_m_s and sky where given.

    Hourly values are gathered by the site's own days: an amount of rain fell before the instant at which it stands. A daily
    value is of the date that it bears.
    """
    air = _gathered(series.get(Quantity.AIR, {}), zone)
    low = {day: min(values) for day, values in air.items()} | _daily(series.get(Quantity.LOW, {}), zone, min)
    high = {day: max(values) for day, values in air.items()} | _daily(series.get(Quantity.HIGH, {}), zone, max)
    rain = _totals(series.get(Quantity.RAIN, {}), zone)
    wind, cloud = (_means(series.get(quantity, {}), zone) for quantity in (Quantity.WIND, Quantity.CLOUD))
    return {
        day: {
            "low_c": round(low[day], 2),
            "high_c": round(high[day], 2),
            "rain_mm": round(rain[day], 2) if day in rain else None,
            "wind_m_s": round(wind[day] * WIND_AT_2_M, 2) if day in wind else None,
            "sky": sky_of(cloud[day]) if day in cloud else None,
        }
        for day in sorted(low.keys() & high.keys())
    }


def days_of_runs(runs: list[Series], zone: ZoneInfo) -> dict[date, dict[str, Any]]:
    """Return the days that all ensemble members cover: mean values, the most frequent sky, and each member's low, high and
    rain.
    """
    if len(runs) == 1:
        return days_of(runs[0], zone)
    by_run = [days_of(run, zone) for run in runs]
    days = {}
    for day in sorted(set.intersection(*(set(days) for days in by_run))):
        rows = [days[day] for days in by_run]
        mean: dict[str, float | None] = {name: round(fmean(row[name] for row in rows), 2) for name in ("low_c", "high_c")}
        for name in ("rain_mm", "wind_m_s"):
            values = [row[name] for row in rows if row[name] is not None]
            mean |= {name: round(fmean(values), 2) if values else None}
        skies = Counter(row["sky"] for row in rows)
        days[day] = mean | {
            "sky": skies.most_common(1)[0][0],
            "runs": [[row["low_c"], row["high_c"], row["rain_mm"]] for row in rows],
        }
    return days


def _step(values_at: dict[datetime, float]) -> timedelta:
    """Return the usual interval between two values."""
    times = sorted(values_at)
    gaps = [(b - a).total_seconds() for a, b in pairwise(times)]
    return timedelta(seconds=median(gaps)) if gaps else A_DAY


def _gathered(values_at: dict[datetime, float], zone: ZoneInfo, shift: timedelta = timedelta(0)) -> dict[date, list[float]]:
    """Return the values of each local day with enough data; a daily value belongs to the date it carries."""
    if not values_at:
        return {}
    step = _step(values_at)
    if step >= A_DAY * DAILY:
        return {at.date(): [value] for at, value in values_at.items()}
    days: dict[date, list[float]] = {}
    for at, value in values_at.items():
        days.setdefault((at - shift).astimezone(zone).date(), []).append(value)
    return {day: values for day, values in days.items() if len(values) * step >= WHOLE_DAY * A_DAY}


def _daily(values_at: dict[datetime, float], zone: ZoneInfo, pick: Any) -> dict[date, float]:
    return {day: pick(values) for day, values in _gathered(values_at, zone).items()}


def _means(values_at: dict[datetime, float], zone: ZoneInfo) -> dict[date, float]:
    return {day: sum(values) / len(values) for day, values in _gathered(values_at, zone).items()}


def _totals(values_at: dict[datetime, float], zone: ZoneInfo) -> dict[date, float]:
    return {day: sum(values) for day, values in _gathered(values_at, zone, _step(values_at) / 2).items()}


def air_at(runs: list[Series], now: datetime, within: timedelta) -> float | None:
    """Return the latest air temperature given for a time, no older than `within`, or None.

    The mean of all members for an ensemble.
    """
    past = [at for at in runs[0].get(Quantity.AIR, {}) if now - within <= at <= now]
    return round(fmean(run[Quantity.AIR][max(past)] for run in runs), 2) if past else None
