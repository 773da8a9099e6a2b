"""How many days sooner the ground is warm enough for crops under fleece, tunnel and frame than bare, at three sites.

By the rule that waits for the soil: the first day from which, in the middle course, a week's mean at sowing depth reaches what
the crop wants. No readings; the site's months are typed."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from functools import cache
from zoneinfo import ZoneInfo

import numpy as np
from numpy.typing import NDArray

from cloche.bridge.services.crops import crop
from cloche_engine.api import forecast
from cloche_engine.inputs import CoverSpan, ForecastInputs

LOWS_48 = [-4.0, -4.0, -1.0, 3.0, 7.0, 11.0, 12.5, 12.0, 9.0, 4.5, 0.0, -3.0]
HIGHS_48 = [2.0, 4.0, 9.0, 14.0, 18.5, 22.0, 24.0, 23.5, 19.5, 13.0, 6.5, 3.0]
LOWS_52 = [1.0, 1.0, 2.5, 4.0, 7.0, 10.0, 12.0, 12.0, 10.0, 7.0, 4.0, 2.0]
HIGHS_52 = [7.0, 7.5, 10.0, 13.0, 16.5, 19.5, 22.0, 21.5, 18.5, 14.5, 10.0, 7.5]
LOWS_41 = [-6.0, -5.0, -1.0, 4.5, 10.0, 15.0, 17.5, 17.0, 13.0, 7.0, 2.0, -3.0]
HIGHS_41 = [2.0, 4.0, 9.5, 16.5, 22.0, 27.0, 29.5, 28.5, 24.5, 18.0, 11.0, 4.5]
SITES = {
    "48° N, 560 m": (48.0, 560.0, (LOWS_48, HIGHS_48)),
    "52° N, by the sea": (52.0, 20.0, (LOWS_52, HIGHS_52)),
    "41° N, inland": (41.0, 350.0, (LOWS_41, HIGHS_41)),
}
"""Months of such places (made up, as ordinary ones are)."""
KEYS = ("fleece", "film_tunnel", "glass_frame")
CROPS = ("pea", "lettuce", "carrot", "beet", "snap_bean", "sweet_corn")
TODAY = date(2026, 2, 1)
WEEK_D = 7


@dataclass(frozen=True)
class Sooner:
    """Day on which the bare ground is warm enough for a crop, and days sooner under each cover; None: never."""

    crop_key: str
    bare: date | None
    earlier_d: dict[str, int | None]


def sooner(site: str, crops: tuple[str, ...] = CROPS, comfortable: bool = False) -> list[Sooner]:
    """One site's crops, by their minimum or their ideal range."""
    rows = []
    for name in crops:
        wanted = crop(name).optimum_from_c if comfortable else crop(name).minimum_c
        bare, *days = (_warm_enough(_weeks_c(site, key), wanted) for key in ("", *KEYS))
        earlier = {key: None if day is None or bare is None else bare - day for key, day in zip(KEYS, days, strict=True)}
        rows.append(Sooner(name, None if bare is None else TODAY + timedelta(days=bare), earlier))
    return rows


def _warm_enough(week_c: NDArray[np.float64], wanted_c: float) -> int | None:
    warm = np.flatnonzero(week_c >= wanted_c)
    return int(warm[0]) if len(warm) else None


@cache
def _weeks_c(site: str, key: str) -> NDArray[np.float64]:
    """Mean soil at 5 cm of each day and the six after, middle course; covers lie from January, aired by those who are there."""
    latitude, elevation, months = SITES[site]
    aired = {} if key in ("", "fleece") else {"opens": "above", "above_c": 26.0, "opening": 0.4}
    spans = [CoverSpan(key, first=TODAY - timedelta(days=30), **aired)] if key else []  # type: ignore[arg-type]
    given = {"kind": "open", "seed_depth_m": 0.05, "readings": [], "weather": [], "typed_normals": months, "seed": 3}
    where = {"latitude_deg": latitude, "longitude_deg": 10.0, "elevation_m": elevation, "timezone": ZoneInfo("Europe/Vienna")}
    ground = forecast(ForecastInputs(today=TODAY, covers=spans, crops=("pea",), **given, **where)).ground  # type: ignore[arg-type]
    return np.convolve(np.array(ground.far_mid_c), np.full(WEEK_D, 1 / WEEK_D), mode="valid")


def table() -> None:
    """As Markdown."""
    print("| site | crop | from | bare | fleece | tunnel | frame |\n|---|---|---|---|---|---|---|")
    for site in SITES:
        for comfortable in (False, True):
            for row in sooner(site, comfortable=comfortable):
                days = ["–" if row.earlier_d[key] is None else f"{row.earlier_d[key]} d" for key in KEYS]
                bare = "–" if row.bare is None else f"{row.bare.day} {row.bare:%B}"
                rule = "ideal" if comfortable else "minimum"
                print(f"| {site} | {crop(row.crop_key).name} | {rule} | {bare} | {' | '.join(days)} |")
