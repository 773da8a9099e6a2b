"""Snapshots of forecasts, and the check of their numbers."""

from __future__ import annotations

import io
import json
from collections.abc import Iterable, Iterator
from dataclasses import asdict, dataclass, fields
from datetime import date, timedelta
from itertools import pairwise
from math import isfinite
from typing import Any

import numpy as np

from cloche_engine.forecast.places import Situation, local_weather, situation_of
from cloche_engine.inputs import ForecastInputs
from cloche_engine.layout import MEMBERS
from cloche_engine.local_time import midnight_of
from cloche_engine.queries import OutdatedSnapshot
from cloche_engine.results import CropDays, FrostDates, PlaceForecast
from cloche_engine.soil.drift import Drift, Wandering
from cloche_engine.soil.learned import Learned
from cloche_engine.soil.physical import Checkpoint, draw, stop
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.normals import Normals
from cloche_engine.weather.record import DailyRecord, HourlyWeather, Site

AHEAD_D = 430
"""Days ahead that are kept: a cover may be asked about on any day of the coming year, and is then looked at for some weeks."""
NEAR_D = 150
"""Days ahead that are run for a question about the next weeks: fewer are quicker."""
FORMAT = 4
"""Counts up with crops.MODEL_VERSION, by which what another version kept is made anew."""
_ARRAYS = ("mean", "spread", "slope", "used")
_DRIFT = tuple(field.name for field in fields(Drift) if field.name != "wandering")


@dataclass(frozen=True)
class ModelSnapshot:
    """What a forecast leaves for later questions.

    Attributes
    ----------
    learned : Learned
        Learned parameters, on the clock that begins with the first day of `weather`.
    weather : DailyRecord
        Daily weather, (days, members).
    run_up_d : int
        Days of it before today.
    normals : Normals
        Normals of the site.
    utc_h : float
        Offset of the clock from UTC [h].
    """

    learned: Learned
    weather: DailyRecord
    run_up_d: int
    normals: Normals
    utc_h: float

    @property
    def today(self) -> date:
        """Day from which it is simulated."""
        return self.weather.first + timedelta(days=self.run_up_d)

    @property
    def ahead_d(self) -> int:
        """Days ahead whose weather is kept."""
        return len(self.weather) - self.run_up_d


def pack(snapshot: ModelSnapshot) -> bytes:
    """Return a snapshot as bytes. Weather is stored in single precision, far finer than its hundredths of a degree."""
    learned = snapshot.learned
    arrays = {f"learned_{name}": getattr(learned, name) for name in _ARRAYS}
    arrays |= {f"drift_{name}": getattr(learned.drift, name) for name in _DRIFT}
    arrays |= {f"weather_{name}": values.astype(np.float32) for name, values in snapshot.weather.values.items()}
    arrays |= {f"normals_{name}": getattr(snapshot.normals, name) for name in ("low_c", "high_c")}
    meta = {
        "format": FORMAT,
        "names": learned.names,
        "first_h": learned.first_h,
        "covers": learned.covers,
        "wandering": asdict(learned.drift.wandering),
        "first": snapshot.weather.first.isoformat(),
        "run_up_d": snapshot.run_up_d,
        "sd_k": np.asarray(snapshot.normals.day_sd_k).tolist(),
        "night_sd_k": None if snapshot.normals.night_sd_k is None else snapshot.normals.night_sd_k.tolist(),
        "source": snapshot.normals.source,
        "off_k": snapshot.normals.off_k,
        "utc_h": snapshot.utc_h,
    }
    room = io.BytesIO()
    np.savez_compressed(room, meta=np.frombuffer(json.dumps(meta).encode(), dtype=np.uint8), **arrays)
    return room.getvalue()


def unpack(packed: bytes) -> ModelSnapshot:
    """Return a packed snapshot.

    Raises OutdatedSnapshot if another version packed it.
    """
    with np.load(io.BytesIO(packed)) as room:
        arrays = {name: room[name] for name in room.files}
    meta = json.loads(arrays.pop("meta").tobytes())
    if meta.get("format") != FORMAT:
        raise OutdatedSnapshot
    part = {kind: {n.removeprefix(kind): v for n, v in arrays.items() if n.startswith(kind)} for kind in _KINDS}
    drift = Drift(Wandering(**meta["wandering"]), **part["drift_"])
    learned = Learned(
        tuple(meta["names"]), drift=drift, first_h=meta["first_h"], covers=tuple(meta["covers"]), **part["learned_"]
    )
    weather = DailyRecord(date.fromisoformat(meta["first"]), **{n: v.astype(np.float64) for n, v in part["weather_"].items()})
    night_sd_k = None if meta["night_sd_k"] is None else np.asarray(meta["night_sd_k"])
    normals = Normals(
        **part["normals_"], day_sd_k=np.asarray(meta["sd_k"]), source=meta["source"], off_k=meta["off_k"], night_sd_k=night_sd_k
    )
    return ModelSnapshot(learned, weather, meta["run_up_d"], normals, meta["utc_h"])


_KINDS = ("learned_", "drift_", "weather_", "normals_")


def site_of(inputs: ForecastInputs, utc_h: float) -> Site:
    """Return the site of the garden."""
    return Site(inputs.latitude_deg, inputs.longitude_deg, inputs.elevation_m, utc_h)


def stand(
    snapshot: ModelSnapshot, inputs: ForecastInputs, depths_m: list[float], ahead_d: int = AHEAD_D
) -> tuple[Situation, HourlyWeather, Checkpoint]:
    """Return the place at today's first midnight, from which its hours count, and the weather outside from then on.

    inputs: its description, covers and work are used, not its readings and weather; ahead_d: days of that weather.
    """
    situation = situation_of(inputs, snapshot.normals, midnight_of(snapshot.weather.first, snapshot.utc_h))
    days = min(snapshot.run_up_d + ahead_d, len(snapshot.weather))
    outside = hours_of(snapshot.weather.cut(0, days), site_of(inputs, snapshot.utc_h))
    drawn = draw(snapshot.learned, len(outside), MEMBERS, inputs.seed)
    checkpoint = stop(situation.place, drawn, local_weather(situation, outside), depths_m, snapshot.run_up_d)
    return situation, outside.cut(snapshot.run_up_d, days), checkpoint


POSSIBLE_C = (-100.0, 110.0)
"""Between the coldest air that is taken in, colder still under a film on a clear night, and the hottest that a closed cover in
full sun could reach (assumption)."""
SLACK_K = 0.011
"""Bands are stored with two decimals: their edges may cross by one rounding step."""


class Unsound(ValueError):
    """Raised when a forecast contains something impossible; the message says what."""


def check(ground: PlaceForecast, frosts: FrostDates, crops: Iterable[CropDays]) -> None:
    """Check that a forecast is finite, physically possible and in order.

    Raises Unsound if it is not.
    """
    for name, values in _temperatures(ground):
        _refuse_impossible(name, values)
    for name in ("near", "far", "inside"):
        low, middle, high = (getattr(ground, f"{name}_{edge}_c") for edge in ("low", "mid", "high"))
        if any(not a <= b + SLACK_K or not b <= c + SLACK_K for a, b, c in zip(low, middle, high, strict=True)):
            raise Unsound(f"{name}: the edges of the band cross")
    for name, value in _numbers("", ground):
        if not isfinite(value):
            raise Unsound(f"{name.lstrip('.')} is {value}")
    for season in (frosts.spring, frosts.autumn):
        if season is not None and list(season) != sorted(season):
            raise Unsound("frost dates are not in order")
    for crop in crops:
        _check_crop(crop)


def _temperatures(ground: PlaceForecast) -> Iterator[tuple[str, list[float]]]:
    for each in fields(ground):
        if each.name.endswith("_c"):
            values = getattr(ground, each.name)
            rows = values if values and isinstance(values[0], list) else [values]
            yield from ((each.name, row) for row in rows)


def _refuse_impossible(name: str, values: list[float]) -> None:
    low, high = POSSIBLE_C
    wrong = next((value for value in values if not low <= value <= high), None)  # NaN compares false, so it is caught too
    if wrong is not None:
        raise Unsound(f"{name} is {wrong}")


def _numbers(name: str, value: Any) -> Iterator[tuple[str, float]]:
    """Yield every number in a record with its path."""
    if isinstance(value, float):
        yield name, value
    elif isinstance(value, dict):
        for key, item in value.items():
            yield from _numbers(f"{name}[{key}]", item)
    elif isinstance(value, list | tuple):
        for item in value:
            yield from _numbers(name, item)
    elif hasattr(value, "__dataclass_fields__"):
        for each in fields(value):
            yield from _numbers(f"{name}.{each.name}", getattr(value, each.name))


def _check_crop(crop: CropDays) -> None:
    for number_name in ("half_d", "share", "fails_now"):
        value = getattr(crop, number_name)
        if value is not None and not isfinite(value):
            raise Unsound(f"{crop.crop_key}: {number_name} is {value}")
    for window in crop.windows:
        days = [window.earliest, window.best_from, window.best_to, window.last]
        if days != sorted(days):
            raise Unsound(f"{crop.crop_key}: a window’s days are not in order")
    for earlier, later in pairwise(crop.windows):
        if later.earliest <= earlier.last:
            raise Unsound(f"{crop.crop_key}: windows overlap")
