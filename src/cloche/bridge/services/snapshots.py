"""A learned place kept so that it can be run again under other covers: what its readings told and the courses of weather."""

from __future__ import annotations

import io
import json
from dataclasses import asdict, dataclass, fields
from datetime import date, timedelta

import numpy as np

from cloche.bridge.services.places import Situation, felt, situation_of
from cloche.bridge.values.clocks import midnight_of
from cloche.bridge.values.heavy import OutdatedSnapshot
from cloche.bridge.values.inputs import ForecastInputs
from cloche.bridge.values.layout import MEMBERS
from cloche.core.soil.drift import Drift, Wandering
from cloche.core.soil.learned import Learned
from cloche.core.soil.physical import Checkpoint, draw, stop
from cloche.core.weather.hourly import hours_of
from cloche.core.weather.normals import Normals
from cloche.core.weather.record import DailyRecord, HourlyWeather, Site

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
    """learned: on the clock that begins with `weather`'s first day; weather: (days, members); run_up_d: of them before today;
    normals: the site's; utc_h: of the clock."""

    learned: Learned
    weather: DailyRecord
    run_up_d: int
    normals: Normals
    utc_h: float

    @property
    def today(self) -> date:
        """The day from which it is run on."""
        return self.weather.first + timedelta(days=self.run_up_d)

    @property
    def ahead_d(self) -> int:
        """Days from then on whose weather is kept."""
        return len(self.weather) - self.run_up_d


def pack(snapshot: ModelSnapshot) -> bytes:
    """For storage. Weather in single precision: hundredths of a degree are what it was given in."""
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
    """What was packed. Raises OutdatedSnapshot where another version packed it."""
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
    """Where the garden lies."""
    return Site(inputs.latitude_deg, inputs.longitude_deg, inputs.elevation_m, utc_h)


def stand(
    snapshot: ModelSnapshot, inputs: ForecastInputs, depths_m: list[float], ahead_d: int = AHEAD_D
) -> tuple[Situation, HourlyWeather, Checkpoint]:
    """The place as it stands at today's first midnight, from which its lie's hours count; and the weather outside from then.

    inputs: its description, covers and operations are read, not its readings and weather. ahead_d: days of that weather.
    """
    situation = situation_of(inputs, snapshot.normals, midnight_of(snapshot.weather.first, snapshot.utc_h))
    days = min(snapshot.run_up_d + ahead_d, len(snapshot.weather))
    outside = hours_of(snapshot.weather.cut(0, days), site_of(inputs, snapshot.utc_h))
    drawn = draw(snapshot.learned, len(outside), MEMBERS, inputs.seed)
    checkpoint = stop(situation.place, drawn, felt(situation, outside), depths_m, snapshot.run_up_d)
    return situation, outside.cut(snapshot.run_up_d, days), checkpoint
