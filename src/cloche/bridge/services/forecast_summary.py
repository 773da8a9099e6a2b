"""What the pages draw of a run: bands, fields, what was learned and how earlier readings were met."""

from __future__ import annotations

import numpy as np

from cloche.bridge.services.bench import around_c, heat_outlook, kwh_behind, light_outlook
from cloche.bridge.services.forecast_steps import PAST_D, KnownWeather, Observed, Run, midnight
from cloche.bridge.values.inputs import ForecastInputs
from cloche.bridge.values.layout import FIELD_STEP_H, MEMBERS, NEAR_PAST_D, PROFILE_M
from cloche.bridge.values.packing import short
from cloche.bridge.values.stored import PlaceForecast, Triple
from cloche.core.soil import verify
from cloche.core.soil.learned import Learned

NEAR_D = 14
BAND = (0.1, 0.5, 0.9)
BAND_AT_D = (1, 3, 7, 14)
PROBED_M = 0.10
LIGHT = 1.15
"""A reading whose variance is taken larger than this, against an ordinary one, is told to weigh less."""


def summary(inputs: ForecastInputs, run: Run, weather: KnownWeather, observed: Observed) -> PlaceForecast:
    """Of a run, as it is stored and drawn."""
    numbers, learned = observed.numbers, run.learned
    first, last = (run.run_up_d - NEAR_PAST_D) * 24, (run.run_up_d + NEAR_D) * 24
    soil = run.soil_c(inputs.seed_depth_m)
    near = np.quantile(soil[first:last], BAND, axis=1)
    daily = soil.reshape(-1, 24, soil.shape[1]).mean(axis=1)
    far = np.quantile(daily[run.run_up_d :], BAND, axis=1)
    width = (far[2] - far[0]) / 2
    # Yesterday's weather is known: where the members differ there, it is the place that is not.
    yesterday = slice((run.run_up_d - 1) * 24, run.run_up_d * 24)
    outside, inside = _air(run, first, last)
    deep = _spread_depths(inputs, run)
    return PlaceForecast(
        day=inputs.today,
        start=midnight(inputs, NEAR_PAST_D),
        depth_m=inputs.seed_depth_m,
        near_low_c=short(near[0]),
        near_mid_c=short(near[1]),
        near_high_c=short(near[2]),
        field_depths_m=_field_depths(run),
        field_c=_field(run, first, last),
        outside_c=outside,
        inside_low_c=inside[0],
        inside_mid_c=inside[1],
        inside_high_c=inside[2],
        far_low_c=short(far[0]),
        far_mid_c=short(far[1]),
        far_high_c=short(far[2]),
        band_k={days: float(width[days]) for days in BAND_AT_D},
        readings_used=len(observed.readings),
        strange={numbers[learned.used[i]]: round(k, 2) for i, k in verify.strange(learned).items()},
        weights={numbers[learned.used[i]]: round(1 / float(s), 2) for i, s in enumerate(learned.drift.scatter) if s > LIGHT},
        checks=[(c.lead_d, c.count, round(c.error_k, 2), round(c.inside, 2)) for c in verify.record(learned)],
        parameters=_parameters(learned),
        weather_days=int(np.isfinite(weather.known.record.low_c[PAST_D - 14 : PAST_D + 1]).sum()),
        normals_source=weather.normals.source,
        normals_years=weather.normals.years,
        replayed_years=len(weather.known.past.years) if weather.known.past else 0,
        spread_start=midnight(inputs, 1),
        spread_depths_m=deep,
        spread_k=[short(run.soil_c(d)[yesterday].std(axis=1)) for d in deep],
        around_c=around_c(run),
        heat=heat_outlook(inputs, run),
        light=light_outlook(inputs, run),
        kwh_behind=kwh_behind(inputs, run),
    )


def _spread_depths(inputs: ForecastInputs, run: Run) -> list[float]:
    """Where a probe goes: to seed depth, and a bit deeper for transplants, as far as there is soil."""
    volume = run.situation.place.bed.volume
    also = [PROBED_M] if volume is None and inputs.seed_depth_m < PROBED_M else []
    return [inputs.seed_depth_m, *also]


def _parameters(learned: Learned) -> dict[str, Triple]:
    factors = {name: learned.factor(name) for name in learned.names} | {"wetter": learned.lately_wetter()}
    return {name: (round(low, 3), round(middle, 3), round(high, 3)) for name, (low, middle, high) in factors.items()}


def _air(run: Run, first: int, last: int) -> tuple[list[float], list[list[float]]]:
    """Hourly air outside, and where something stands over the place the air inside with its band."""
    outside = np.broadcast_to(run.outside.air_c[first:last], (last - first, MEMBERS))
    inside: list[list[float]] = [[], [], []]
    if run.is_sheltered:
        inside = [short(side) for side in np.quantile(run.trajectory.air_c[first:last], BAND, axis=1)]
    return short(np.median(outside, axis=1)), inside


def _field_depths(run: Run) -> list[float]:
    """As deep as there is soil: a tray ends where it ends."""
    volume = run.situation.place.bed.volume
    return [depth for depth in PROFILE_M if volume is None or depth <= volume.depth_m]


def _field(run: Run, first: int, last: int) -> list[list[float]]:
    """Mean soil by depth and every two hours around today: rows are depths."""
    rows = []
    for depth_m in _field_depths(run):
        mean_c = run.soil_c(depth_m)[first:last].mean(axis=1)
        rows.append(short(mean_c.reshape(-1, FIELD_STEP_H).mean(axis=1)))
    return rows
