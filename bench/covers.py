"""What a what-if costs: one bed, eight covers, with the bed already known to the process and not."""

from __future__ import annotations

import statistics
import time
from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

from cloche_engine.api import forecast, what_if
from cloche_engine.forecast import whatif
from cloche_engine.inputs import CoverSpan, Day, ForecastInputs
from cloche_engine.queries import WhatIfQuery

TODAY = date(2026, 4, 22)
KEYS = ("glass_frame", "film_tunnel", "bent_sheet", "fleece", "bell", "twin_wall_arch", "film_on_soil", "bin")
EIGHT = tuple(CoverSpan(key, opens="closed" if key in ("fleece", "film_on_soil") else "above") for key in KEYS)
TIMES = 5


def inputs() -> ForecastInputs:
    """A bed read twice a day for three weeks."""
    readings = []
    for back in range(21, 0, -1):
        day = datetime(2026, 4, 22, tzinfo=UTC) - timedelta(days=back)
        readings += [(2 * back, day + timedelta(hours=5.5), 0.05, 9.0), (2 * back + 1, day + timedelta(hours=14.5), 0.05, 14.0)]
    weather = [Day(TODAY - timedelta(days=back), 4.0, 15.0) for back in range(60, -1, -1)]
    site = {"latitude_deg": 48.0, "longitude_deg": 15.0, "elevation_m": 300.0, "timezone": ZoneInfo("Europe/Vienna")}
    given = {"kind": "open", "seed_depth_m": 0.05, "today": TODAY, "typed_normals": None, "seed": 1}
    return ForecastInputs(readings=readings, weather=weather, **site, **given)  # type: ignore[arg-type]


def print_table() -> None:
    """Seconds, the middle of a few."""
    given = inputs()
    kept = forecast(given).snapshot
    print(f"kept of a place: {len(kept) / 1000:.0f} kB")
    for words, query in (
        ("today, one crop", WhatIfQuery(0, 14, EIGHT, ("carrot",))),
        ("today, six crops", WhatIfQuery(0, 14, EIGHT, ("carrot", "beet", "lettuce", "pea", "squash", "radish"))),
        ("in 40 days, one crop", WhatIfQuery(40, 14, EIGHT, ("carrot",))),
        ("in 330 days, one crop", WhatIfQuery(330, 14, EIGHT, ("carrot",))),
    ):
        what_if(kept, given, query)
        known = [_timed(kept, given, query) for _ in range(TIMES)]
        fresh = []
        for _ in range(TIMES):
            whatif._today.cache_clear()
            whatif._later.cache_clear()
            fresh.append(_timed(kept, given, query))
        again, first = statistics.median(known), statistics.median(fresh)
        print(f"one bed, eight covers, {words}: {again:.2f} s, {first:.2f} s at the first look")


def _timed(kept: bytes, given: ForecastInputs, query: WhatIfQuery) -> float:
    began = time.perf_counter()
    what_if(kept, given, query)
    return time.perf_counter() - began
