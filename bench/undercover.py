"""Whether the band under a cover holds: made-up gardens whose truth is drawn from the priors, or lies outside them."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date

import numpy as np
from numpy.typing import NDArray

from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.calibrate import learn
from cloche_engine.soil.physical import run
from cloche_engine.soil.place import AnnualWave, Place
from cloche_engine.soil.readings import AuxiliaryObservations, Readings, What
from cloche_engine.soil.simulate import Trajectory, simulate
from cloche_engine.weather.hourly import hours_of
from cloche_engine.weather.normals import guess_from_latitude
from cloche_engine.weather.record import DailyRecord, HourlyWeather, Site

Array = NDArray[np.float64]

SITE, FIRST = Site(48.0, 10.0, 400.0, 1.0), date(2026, 4, 1)
DAYS, KNOWN_D, READ_D, MEMBERS = 34, 20, 7, 40
AHEAD = slice(KNOWN_D, DAYS)
KINDS = ("glass_frame", "film_tunnel", "fleece", "bell")
DRAWN_SD = {"sun": 0.2, "convection": 0.3, "evaporation": 0.7, "supply": 0.8, "conduction": 0.3, "surface_resistance": 0.4}
DRAWN_SD |= {"light": 0.10, "exchange": 0.70, "loss": 0.20}
OUTSIDE = ({"exchange": 6.0}, {"exchange": 0.15}, {"light": 0.70}, {"loss": 1.6}, {"light": 0.75, "exchange": 5.0, "loss": 1.4})
"""Covers beyond two standard deviations of the prior in leakage, light or loss; and one that lets rain through, below."""


@dataclass(frozen=True)
class Held:
    """Of daily soil at 5 cm and of the hourly inside air in the fortnight ahead: share within the 80 % band, half its width
    [K], and how far the middle lies off, root mean square [K]."""

    inside: float
    half_k: float
    error_k: float
    air_inside: float
    air_half_k: float
    air_error_k: float


def weather(rng: np.random.Generator) -> HourlyWeather:
    """A spring month: dull and bright days, rain on the dull ones."""
    sun = rng.uniform(0.2, 0.95, (DAYS, 1))
    low = 4 + np.cumsum(rng.normal(0, 1.0, (DAYS, 1)), axis=0) * 0.5 + rng.normal(0, 1.5, (DAYS, 1))
    rain = np.where(sun < 0.45, rng.uniform(1, 8, (DAYS, 1)), 0.0)
    columns = (low, low + 4 + 9 * sun, sun, rain, rng.uniform(1, 3.5, (DAYS, 1)), np.zeros((DAYS, 1)))
    return hours_of(DailyRecord(FIRST, *columns), SITE)


def garden(seed: int, key: str, beyond: dict[str, float] | None = None, permeable: float | None = None) -> tuple[Held, Held]:
    """One: its band without any reading, and with a week of soil and air read under the cover. beyond: factors of the cover set
    there; permeable: of its rain, what it lets through."""
    rng = np.random.default_rng(seed)
    sky = weather(rng)
    wave = AnnualWave.of_months(guess_from_latitude(SITE.latitude_deg, SITE.elevation_m).mean_c)
    place = Place(Bed(), wave, (CoverPeriod(kind(key), 0.0, 1e6),))
    own = {name: np.array([np.exp(np.clip(sd * rng.standard_normal(), -2 * sd, 2 * sd))]) for name, sd in DRAWN_SD.items()}
    own |= {name: np.array([value]) for name, value in (beyond or {}).items()}
    real = kind(key) if permeable is None else replace(kind(key), permeable=permeable)
    there = replace(place, covers=(CoverPeriod(real, 0.0, 1e6),))
    truth = simulate([there.case(sky, replace(Parameters.typical(1), **own))], [0.05])[0]
    soil, air = _read(truth, rng)
    nothing = Readings(*(np.empty(0) for _ in range(3)))
    learned = (learn(place, sky, nothing), learn(place, sky, soil, air))
    unread, read = (_held(run(place, parameters, sky, [0.05], MEMBERS, seed), truth) for parameters in learned)
    return unread, read


def _read(truth: Trajectory, rng: np.random.Generator) -> tuple[Readings, AuxiliaryObservations]:
    days = range(KNOWN_D - READ_D, KNOWN_D)
    hour = np.array([day * 24 + h for day in days for h in (7.5, 16.5)])
    value = np.interp(hour, np.arange(DAYS * 24) + 0.5, truth.at(0.05)[:, 0].astype(float)) + rng.normal(0, 0.4, len(hour))
    inside = truth.air_c[:, 0].astype(float)
    rows = [(What.AIR, day * 24 + 14.0, day * 24 + 14.0, 0.0, inside[day * 24 + 14] + rng.normal(0, 1.0)) for day in days]
    for day in days:
        span = inside[day * 24 : day * 24 + 18]
        rows.append((What.LOWEST, day * 24 + 18.0, day * 24.0, 0.0, span.min() + rng.normal(0, 0.7)))
    return Readings(hour, np.full(len(hour), 0.05), value), AuxiliaryObservations.of(rows)


def _held(predicted: Trajectory, truth: Trajectory) -> Held:
    daily, real = (
        trajectory.at(0.05).astype(float).reshape(DAYS, 24, -1).mean(axis=1)[AHEAD] for trajectory in (predicted, truth)
    )
    hours = slice(KNOWN_D * 24, DAYS * 24)
    return Held(
        *_scored(daily, real[:, 0]), *_scored(predicted.air_c[hours].astype(float), truth.air_c[hours, 0].astype(float))
    )


def _scored(members: Array, real: Array) -> tuple[float, float, float]:
    low, middle, high = np.quantile(members, [0.1, 0.5, 0.9], axis=1)
    inside = float(((real >= low) & (real <= high)).mean())
    return inside, float((high - low).mean() / 2), float(np.sqrt(np.mean((middle - real) ** 2)))


def mean(rows: list[Held]) -> Held:
    """Of many gardens."""
    return Held(*np.mean([list(vars(row).values()) for row in rows], axis=0).tolist())


def table(gardens: int = 10) -> None:
    """Print it."""
    print("Gardens | read | soil in band | ± K | off by K | air in band | ± K | off by K")
    drawn = [garden(seed, key) for key in KINDS for seed in range(gardens)]
    beyond = [garden(100 + i, key, factors) for key in KINDS for i, factors in enumerate(OUTSIDE)]
    beyond += [garden(200 + i, key, permeable=1.0) for key in KINDS for i in range(2)]
    for name, rows in (("drawn from the priors", drawn), ("outside the priors", beyond)):
        for read, part in (
            ("nothing", mean([unread for unread, _ in rows])),
            ("a week", mean([read for _, read in rows])),
        ):
            soil = f"{part.inside:.0%} | {part.half_k:.1f} | {part.error_k:.1f}"
            print(f"{name} | {read} | {soil} | {part.air_inside:.0%} | {part.air_half_k:.1f} | {part.air_error_k:.1f}")
