"""How far one or two readings a day lie from the day's true mean, as they are and less what the engine has for their hours.

Station and readings as in `accuracy`; each fortnight from mid-March to mid-September is looked at by itself, the engine knowing
daily lows and highs and that fortnight's readings.
"""

from __future__ import annotations

import warnings
from concurrent.futures import ProcessPoolExecutor
from multiprocessing import get_context
from pathlib import Path

import numpy as np
import pandas as pd

from bench import station
from bench.accuracy import CALIBRATION_D, DEPTHS, LAT, LON, SEASON, Fold, folds

HOUR = pd.Timedelta(hours=1)
TAKEN = {"mean of 07:30 and 16:30": (0, 1), "16:30 alone": (1,)}


def _days(job: tuple[Path, str, str, pd.Timestamp]) -> pd.DataFrame:
    """Days of a fortnight: their readings' mean and the engine's, less the true mean [K]."""
    warnings.simplefilter("ignore")
    path, depth, taken, start = job
    column, depth_m = DEPTHS[depth]
    fold = folds(path, column, pd.DatetimeIndex([start]))[0]
    truth = pd.read_csv(path, parse_dates=[0], index_col=0)[column]
    kept = fold.readings[[int(t.hour > 12) in TAKEN[taken] for t in pd.DatetimeIndex(fold.readings.index)]]
    hours = pd.date_range(start - pd.Timedelta(days=CALIBRATION_D), periods=CALIBRATION_D * 24, freq="h")
    true_mean = truth.reindex(hours).resample("D").mean()
    as_read = kept["T"].resample("D").mean().reindex(true_mean.index)
    return pd.DataFrame(
        {"as read": as_read - true_mean, "with the engine": as_read - _shape(fold, kept, hours, depth_m) - true_mean}
    )


def _shape(fold: Fold, kept: pd.DataFrame, hours: pd.DatetimeIndex, depth_m: float) -> pd.Series:
    """How far above the day's mean the engine has the hours of the readings [K], by day."""
    trajectory = pd.Series(station.members(fold.weather, kept, hours, depth_m, LAT, LON).mean(axis=1), hours)
    at = pd.DatetimeIndex(kept.index)
    then = pd.Series(np.interp((at - hours[0]) / HOUR, (hours - hours[0]) / HOUR, trajectory), at)
    return then.resample("D").mean() - trajectory.resample("D").mean()


def print_table(path: Path) -> None:
    """As Markdown: mean and root mean square of the days' errors."""
    jobs = [(path, depth, taken, start) for depth in DEPTHS for taken in TAKEN for start in SEASON]
    with ProcessPoolExecutor(mp_context=get_context("spawn")) as pool:
        days = list(pool.map(_days, jobs))
    print("\n| less the true daily mean: mean / RMS, K | 5 cm | 10 cm |")
    print("|---|---|---|")
    for taken in TAKEN:
        for how in ("as read", "with the engine"):
            cells = []
            for depth in DEPTHS:
                parts = [d[how] for job, d in zip(jobs, days, strict=True) if job[1:3] == (depth, taken)]
                away = pd.concat(parts).to_numpy(float)
                cells.append(f"{np.nanmean(away):+.2f} / {np.sqrt(np.nanmean(away**2)):.2f}")
            print(f"| {taken}, {how} | {' | '.join(cells)} |")
