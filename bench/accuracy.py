"""Fourteen-day soil forecasts against a measured station, beside two baselines.

The station file (hourly, spring and summer 2025, example data of the soil_heat 0.1.3 source distribution, MIT) is not
shipped: give its path. Rule: calibrate on two readings a day (07:30 and 16:30, to 0.1 °C) over fourteen days and on the air,
variant A hourly with shortwave, variant B by daily lows and highs; then forecast fourteen days with no further reading.
"""

from __future__ import annotations

import os
import warnings
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from multiprocessing import get_context
from pathlib import Path

import numpy as np
import pandas as pd

from bench import station

LAT, LON, UTC_H, ELEVATION_M = 39.0, -110.5, -7, 1500
CALIBRATION_D, FORECAST_D = 14, 14
DEPTHS = {"5 cm": ("soil_05cm_c", 0.05), "10 cm": ("soil_10cm_c", 0.10)}
FOLDS = {
    "bare": pd.date_range("2025-03-15", "2025-03-26", freq="2D"),
    "all": pd.date_range("2025-03-16", "2025-05-18", freq="7D"),
}
SEASON = pd.date_range("2025-03-15", "2025-09-15", freq="14D")
"""Starts from which the band is judged through irrigation, canopy and harvest."""
VARIANTS = ("A", "B")


@dataclass(frozen=True)
class Fold:
    """One forecast: what may be known, and the truth to score against."""

    weather: pd.DataFrame
    readings: pd.DataFrame
    truth: pd.Series


def weather_of(data: pd.DataFrame, variant: str) -> pd.DataFrame:
    """What the grower has of the weather."""
    if variant == "A":
        weather = pd.DataFrame({"TA": data.air_c, "SW_IN": data.shortwave_derived_w_m2})
    else:
        weather = pd.DataFrame({"TMIN": data.air_c.resample("D").min(), "TMAX": data.air_c.resample("D").max()})
    weather.attrs = {"elev": ELEVATION_M, "utc": UTC_H}
    return weather


def folds(path: Path, column: str, starts: pd.DatetimeIndex, variant: str = "B") -> list[Fold]:
    """Cut the station file into forecasts; readings end before each start."""
    data = pd.read_csv(path, parse_dates=[0], index_col=0)
    weather = weather_of(data, variant)
    return [_fold(data[column], weather, start) for start in starts]


def _fold(soil: pd.Series, weather: pd.DataFrame, start: pd.Timestamp) -> Fold:
    days = pd.date_range(start - pd.Timedelta(days=CALIBRATION_D), periods=CALIBRATION_D)
    times = days.repeat(2) + pd.to_timedelta([7.5, 16.5] * CALIBRATION_D, unit="h")
    at_times = soil.reindex(soil.index.union(times)).interpolate("time")[times].round(1)
    end = start + pd.Timedelta(days=FORECAST_D)
    # The stamps of this file are the centres of the averaged hours.
    return Fold(_until(weather, end), pd.DataFrame({"T": at_times}).dropna(), soil[start : end - pd.Timedelta(hours=1)])


def _until(weather: pd.DataFrame, end: pd.Timestamp) -> pd.DataFrame:
    part = weather[: end - pd.Timedelta(minutes=30)]
    part.attrs = weather.attrs
    return part


def persistence(fold: Fold) -> np.ndarray:
    """Baseline: the mean of the readings, for ever."""
    return np.full(len(fold.truth), fold.readings["T"].mean())


def running_mean(fold: Fold) -> np.ndarray:
    """Baseline: running mean of daily air with fitted offset, gain and length; flat through the day."""
    hourly = "TA" in fold.weather
    air = fold.weather["TA"].resample("D").mean() if hourly else fold.weather[["TMIN", "TMAX"]].mean(axis=1)
    measured = fold.readings["T"].resample("D").mean()
    fits = []
    for days in (1, 2, 3, 4, 5, 7, 10):
        smooth = air.rolling(days, min_periods=1).mean()
        gain, offset = np.polyfit(smooth[measured.index], measured, 1)
        misfit = float(((gain * smooth[measured.index] + offset - measured) ** 2).sum())
        fits.append((misfit, days, gain * smooth + offset))
    best = min(fits, key=lambda fit: fit[:2])[2]
    return best.reindex(pd.DatetimeIndex(fold.truth.index).floor("D")).to_numpy()


def cloche_members(fold: Fold, depth_m: float) -> np.ndarray:
    """The product's engine, all members."""
    index = pd.DatetimeIndex(fold.truth.index)
    return station.members(fold.weather, fold.readings, index, depth_m, LAT, LON)


def errors(fold: Fold, predicted: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Hourly errors and errors of daily means [K]."""
    error = pd.Series(predicted, index=fold.truth.index) - fold.truth
    return error.to_numpy(), error.resample("D").mean().to_numpy()


def rmse(parts: list[np.ndarray]) -> float:
    """Root mean square over all folds."""
    return float(np.sqrt(np.nanmean(np.square(np.concatenate(parts)))))


@dataclass(frozen=True)
class Run:
    """One fold forecast: variant, depth, start, members (hours, members), and the fold."""

    variant: str
    depth: str
    start: pd.Timestamp
    members: np.ndarray
    fold: Fold


def _run_station(job: tuple[Path, str, str, pd.Timestamp]) -> Run:
    warnings.simplefilter("ignore")
    path, variant, depth, start = job
    column, depth_m = DEPTHS[depth]
    fold = folds(path, column, pd.DatetimeIndex([start]), variant)[0]
    return Run(variant, depth, start, cloche_members(fold, depth_m), fold)


def run_all(path: Path, starts: pd.DatetimeIndex, variants: tuple[str, ...], depths: list[str]) -> list[Run]:
    """Every fold, one process a core."""
    jobs = [(path, variant, depth, start) for variant in variants for depth in depths for start in starts]
    os.environ["OPENBLAS_NUM_THREADS"] = "1"
    with ProcessPoolExecutor(os.cpu_count(), mp_context=get_context("spawn")) as pool:
        return list(pool.map(_run_station, jobs))


def score(path: Path) -> dict[str, dict[str, tuple[float, float]]]:
    """RMSE hourly and of daily means [K] by method and by depth and folds."""
    starts = pd.DatetimeIndex(sorted({*FOLDS["bare"], *FOLDS["all"]}))
    runs = {(r.variant, r.depth, r.start): r for r in run_all(path, starts, VARIANTS, list(DEPTHS))}
    table: dict[str, dict[str, tuple[float, float]]] = {}
    for depth in DEPTHS:
        for name in FOLDS:
            columns = {variant: [runs[variant, depth, start] for start in FOLDS[name]] for variant in VARIANTS}
            methods = {
                "persistence of the readings' mean": [errors(r.fold, persistence(r.fold)) for r in columns["B"]],
                "fitted running mean of daily air": [errors(r.fold, running_mean(r.fold)) for r in columns["B"]],
                **{f"Cloche, variant {v}": [errors(r.fold, r.members.mean(axis=1)) for r in columns[v]] for v in VARIANTS},
            }
            for method, pairs in methods.items():
                both = rmse([p[0] for p in pairs]), rmse([p[1] for p in pairs])
                table.setdefault(method, {})[f"{depth} {name}"] = both
    return table


def coverage(path: Path, variant: str = "B") -> dict[str, float]:
    """Share of hourly measurements inside the 80 % band at 5 cm, March to September, by lead time."""
    inside = []
    for score in run_all(path, SEASON, (variant,), ["5 cm"]):
        low, high = np.quantile(score.members, [0.1, 0.9], axis=1)
        truth = score.fold.truth.to_numpy()
        held = np.where(np.isnan(truth), np.nan, (truth >= low) & (truth <= high))
        inside.append(np.resize(held, FORECAST_D * 24).reshape(FORECAST_D, 24))
    days = np.stack(inside)
    parts = {"days 1-3": days[:, :3], "days 4-7": days[:, 3:7], "days 8-14": days[:, 7:]}
    return {name: float(np.nanmean(part)) for name, part in parts.items()}


def print_tables(path: Path) -> None:
    """Both tables as Markdown."""
    table = score(path)
    columns = list(next(iter(table.values())))
    print("| RMSE hourly / daily mean, K | " + " | ".join(columns) + " |")
    print("|---" * (len(columns) + 1) + "|")
    for method, cells in table.items():
        print(f"| {method} | " + " | ".join(f"{h:.2f} / {d:.2f}" for h, d in cells.values()) + " |")
    print("\nHourly measurements inside the 80 % band, 5 cm, March to September:")
    for variant in VARIANTS:
        print(f"variant {variant}: " + ", ".join(f"{name} {share:.0%}" for name, share in coverage(path, variant).items()))
