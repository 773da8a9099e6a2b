"""Random gardens for the engine: every kind of place, latitudes to 66°, every season, covers, heat and any mix of evidence, all
within what the forms accept. Prints the gardens without a usable forecast. Repeatable by its seed.

`./run bench gardens [COUNT [SEED]]`
"""

from __future__ import annotations

import random
import sys
from collections import Counter
from datetime import UTC, date, datetime, timedelta
from math import cos, pi
from multiprocessing import Pool
from typing import Any
from zoneinfo import ZoneInfo

from cloche.bridge.services import hotbeds
from cloche.bridge.services.offered import most_watts
from cloche_engine.api import forecast
from cloche_engine.covers.bend import is_roof
from cloche_engine.covers.kinds import kinds
from cloche_engine.crops.catalogue import catalogue
from cloche_engine.heat.hotbed import Build
from cloche_engine.inputs import (
    CoverSpan,
    Day,
    Description,
    ForecastInputs,
    HeatSpan,
    LampSpan,
    Operation,
    RoomAir,
    SetOut,
    SownBatch,
    Under,
    WindowPane,
)
from cloche_engine.places.kinds import place_kinds
from cloche_engine.places.rooms import ROOMS
from cloche_engine.soil.bed import AIRING, Work

COUNT, SEED, PROCESSES = 2000, 13, 2
LATITUDE_DEG = 66.0
FIRST_DAY, DAYS = date(2024, 1, 1), 1461
SHOWN = 20
CROPS = 3


def inputs_of(number: int, seed: int = SEED) -> ForecastInputs:
    """A garden's place by its number, the same every time."""
    draw = random.Random(f"{seed}-{number}")  # noqa: S311 - made up, not secret
    kind = list(place_kinds())[number % len(place_kinds())]
    today = FIRST_DAY + timedelta(days=draw.randrange(DAYS))
    latitude = draw.uniform(-LATITUDE_DEG, LATITUDE_DEG)
    indoors = place_kinds()[kind].indoors
    extreme = draw.random() < 0.1
    site = {
        "kind": kind,
        "seed_depth_m": draw.choice([0.005, 0.0127, 0.02, 0.0254, 0.05, 0.0508, 0.1, 0.3, 0.5]),
        "latitude_deg": latitude,
        "longitude_deg": draw.uniform(-180, 180),
        "elevation_m": draw.choice([0.0, 120.0, 600.0, 2400.0, -400.0, 4800.0]),
        "timezone": ZoneInfo(draw.choice(["Europe/Vienna", "Pacific/Auckland", "America/Denver", "Asia/Kolkata", "UTC"])),
        "today": today,
        "seed": number + 1,
        "description": Description(
            draw.choice(["sand", "loam", "clay", "compost"]),
            draw.choice([0.0, 0.0, 10.0, 60.0]),
            draw.choice([0.0, 90.0, 180.0, 270.0]),
            draw.choice([None, None, (8, 12), (0, 24)]),
            draw.choice([0.1, 0.6, 1.2, 5.0, 20.0]),
            draw.choice(["", "", "", "polytunnel", "greenhouse"]),
        ),
        "typed_normals": _normals(draw, latitude) if draw.random() < 0.3 else None,
        "watered": draw.random() < 0.7,
        "away": draw.choice([None, None, (8, 18)]),
        "crops": tuple(draw.sample(sorted(catalogue()), CROPS)),
    }
    evidence = {
        "readings": _readings(draw, latitude, today, extreme),
        "weather": _weather(draw, latitude, today, extreme),
        "under": _under(draw, today, indoors),
        "covers": [] if indoors or draw.random() < 0.4 else _covers(draw, today),
        "operations": _operations(draw, today),
        "heat": _heat(draw, today) if place_kinds()[kind].heat or draw.random() < 0.1 else (),
        "room": _room(draw) if indoors and draw.random() < 0.7 else None,
        "pane": WindowPane(draw.choice([0.0, 135.0, 180.0]), draw.choice([0.0, 0.85]), draw.choice([0.0, 2.0]))
        if indoors and draw.random() < 0.5
        else None,
        "lamps": (_lamp(draw, today),) if draw.random() < 0.15 else (),
        "sown": _sown(draw, today),
        "set_out": _set_out(draw, today),
    }
    return ForecastInputs(**(site | evidence | _hotbed(draw, kind, today)))  # type: ignore[arg-type]


def _usual_c(latitude: float, day: date) -> float:
    """A plain annual wave: enough to be neither absurd nor always the same."""
    middle, swing = 27.0 - 0.4 * abs(latitude), 0.25 * abs(latitude)
    warmest = 200 if latitude >= 0 else 17
    return middle + swing * cos(2 * pi * (day.timetuple().tm_yday - warmest) / 365.25)


def _normals(draw: random.Random, latitude: float) -> tuple[list[float], list[float]]:
    means = [_usual_c(latitude, date(2026, month, 15)) for month in range(1, 13)]
    spread = draw.uniform(2.0, 9.0)
    return [mean - spread for mean in means], [mean + spread for mean in means]


def _readings(draw: random.Random, latitude: float, today: date, extreme: bool) -> list[tuple[int, datetime, float, float]]:
    days = draw.choice([0, 0, 1, 7, 30, 60])
    rows: list[tuple[int, datetime, float, float]] = []
    for back in range(days):
        for hour in draw.sample(range(24), draw.choice([1, 2])):
            at = datetime(today.year, today.month, today.day, tzinfo=UTC) - timedelta(days=back) + timedelta(hours=hour - 14)
            value = draw.uniform(-30, 60) if extreme else _usual_c(latitude, today) + draw.gauss(0, 4)
            depth = draw.choice([0.0, 0.05, 0.0508, 0.1, 0.33, 2.0]) if extreme else draw.choice([0.05, 0.0508, 0.1])
            rows.append((len(rows) + 1, at, depth, min(max(value, -30.0), 60.0)))
    return rows


def _weather(draw: random.Random, latitude: float, today: date, extreme: bool) -> list[Day]:
    days = []
    for back in range(draw.choice([0, 5, 40, 400]), -draw.choice([1, 1, 7]), -1):
        if draw.random() < 0.1:
            continue
        day = today - timedelta(days=back)
        middle = draw.uniform(-50, 50) if extreme else _usual_c(latitude, day) + draw.gauss(0, 4)
        spread = draw.uniform(0, 10)
        sky, rain = (
            draw.choice([None, "clear", "broken", "overcast"]),
            draw.choice([None, 0.0, 3.0, 2000.0 if extreme else 40.0]),
        )
        wind, snow = (
            draw.choice([None, 0.0, 3.0, 60.0 if extreme else 12.0]),
            draw.choice([None, None, 0.0, 5.0 if extreme else 0.2]),
        )
        low, high = max(middle - spread, -60.0), min(middle + spread, 60.0)
        days.append(Day(day, low, high, rain, sky, max(-back, 0), wind, snow))
    return days


def _under(draw: random.Random, today: date, indoors: bool) -> tuple[Under, ...]:
    if draw.random() < 0.5:
        return ()
    whats = ["room", "room_low", "room_high"] if indoors else ["air", "lowest", "highest", "gain"]
    covers = []
    for back in range(draw.choice([1, 3, 12])):
        what = draw.choice(whats)
        at = datetime(today.year, today.month, today.day, 7, tzinfo=UTC) - timedelta(days=back)
        since = at - timedelta(days=1) if what.endswith(("low", "high", "est")) else at
        value = draw.uniform(-2, 12) if what == "gain" else draw.uniform(-10, 40)
        depth = draw.choice([0.05, 0.0508, 0.02, 0.1016]) if what == "gain" else 0.0
        covers.append(Under(what, at, since, value, depth))
    return tuple(sorted(covers, key=lambda cover: cover.at))


def _dates(draw: random.Random, today: date) -> tuple[date, date | None]:
    first = today - timedelta(days=draw.choice([0, 3, 20, 50, 300]))
    return first, draw.choice([None, None, first + timedelta(days=draw.choice([0, 10, 200]))])


def _covers(draw: random.Random, today: date) -> list[CoverSpan]:
    over = [kind for kind in kinds().values() if not kind.is_house]
    chosen = [draw.choice(over)]
    if draw.random() < 0.3:
        chosen.append(draw.choice([kind for kind in over if kind.lies_on_soil != chosen[0].lies_on_soil]))
    if draw.random() < 0.3:
        chosen.append(draw.choice([kind for kind in over if not kind.lies_on_soil and not kind.parts]))
    return [_cover(draw, kind.key, today) for kind in chosen]


def _cover(draw: random.Random, key: str, today: date) -> CoverSpan:
    first, last = _dates(draw, today)
    sheet, spread = draw.uniform(0.1, 12.0), draw.uniform(0.1, 12.0)
    shape: dict[str, Any] = {}
    if kinds()[key].bends and is_roof(sheet, spread):
        shape = {"sheet_m": sheet, "spread_m": spread}
    elif kinds()[key].is_box and draw.random() < 0.5:
        shape = {"sheet_m": sheet, "low_m": draw.uniform(0.03, 3.0), "high_m": draw.uniform(0.03, 3.0)}
    opens = draw.choice(["closed", "above", "hours"])
    from_h = draw.randrange(0, 23)
    return CoverSpan(
        key,
        first,
        last,
        ends_capped=draw.random() < 0.7,
        opens=opens,
        above_c=draw.choice([5.0, 26.0, 45.0]),
        from_h=float(from_h),
        to_h=float(draw.randrange(from_h + 1, 25)),
        opening=draw.choice([0.0, 0.4, 1.0]),
        blanket=draw.random() < 0.3,
        age_y=float(draw.choice([0, 3, 70])),
        dirty=draw.random() < 0.3,
        length_m=draw.choice([None, 0.1, 1.2, 60.0]),
        **shape,
    )


def _operations(draw: random.Random, today: date) -> list[Operation]:
    works = [work for work in Work if work != Work.FILLED]
    return [
        Operation(work, datetime(today.year, today.month, today.day, 9, tzinfo=UTC) - timedelta(days=draw.randrange(60)))
        for work in draw.sample(works, draw.choice([0, 0, 2, 4]))
        if work not in AIRING or draw.random() < 0.8
    ]


def _heat(draw: random.Random, today: date) -> tuple[HeatSpan, ...]:
    if draw.random() < 0.3:
        return ()
    first, last = _dates(draw, today)
    source, area = draw.choice(["mat", "base", "cable", "wire", "house"]), draw.choice([0.0025, 0.14, 1.0, 10.0, 400.0])
    start = draw.uniform(-5, 41)
    span: dict[str, Any] = {
        "watts": draw.choice([None, 0.5, 15.0, min(most_watts(source, area) or 5000.0, 5000.0)]),
        "lift_k": draw.choice([None, None, 0.5, 5.0, 30.0]),
        "control": draw.choice(["always", "timer", "thermostat"]),
        "spans": draw.choice([((6.0, 22.0),), ((22.0, 6.0),), ((0.0, 24.0),)]),
        "start_c": start,
        "stop_c": min(start + draw.choice([0.5, 3.0, 20.0]), 42.0),
        "probe": draw.choice(["roots", "bottom", "air"]),
        "over_m": draw.choice([0.0, 0.06, 0.4]),
        "under_m": draw.choice([0.0, 0.03, 0.3]),
        "filling": draw.choice(["sharp_sand", "grit", "vermiculite", "perlite"]),
        "filling_wet": draw.random() < 0.5,
    }
    return (HeatSpan(source, first, last, area_m2=area, **span),)


def _room(draw: random.Random) -> RoomAir:
    night = draw.choice([None, -20.0, 10.0, 40.0])
    return RoomAir(draw.choice(sorted(ROOMS)), night, None if night is None else min(night + draw.uniform(0, 20), 45.0))


def _lamp(draw: random.Random, today: date) -> LampSpan:
    return LampSpan(
        ((6.0, 20.0),), today - timedelta(days=5), None, draw.choice([1.0, 30.0, 5000.0]), away_m=draw.choice([0.02, 3.0])
    )


def _sown(draw: random.Random, today: date) -> tuple[SownBatch, ...]:
    batches = []
    for number in range(draw.choice([0, 0, 1, 2])):
        on, seeds = today - timedelta(days=draw.choice([0, 8, 45, 90])), draw.choice([None, 1, 50, 5000])
        counted = tuple(
            (on + timedelta(days=back), draw.randrange(seeds + 1)) for back in (4, 8) if seeds and back <= (today - on).days
        )
        counts = tuple(sorted(counted)) if draw.random() < 0.6 else ()
        crop = draw.choice(sorted(catalogue()))
        batches.append(
            SownBatch(number + 1, crop, on, draw.choice([0.0, 0.02, 0.1]), seeds, draw.choice([0.3, 0.85, 1.0]), counts=counts)
        )
    return tuple(batches)


def _set_out(draw: random.Random, today: date) -> tuple[SetOut, ...]:
    if draw.random() < 0.7:
        return ()
    return (
        SetOut(
            draw.choice(sorted(catalogue())), today - timedelta(days=draw.choice([0, 30, 300])), draw.choice([0.0, 0.1, 2.0])
        ),
    )


def _hotbed(draw: random.Random, kind: str, today: date) -> dict[str, Any]:
    if kind != "hotbed" or draw.random() < 0.3:
        return {}
    filled = today - timedelta(days=draw.choice([0, 5, 20, 50, 400]))
    topped = filled + timedelta(days=10) if draw.random() < 0.3 else None
    build = _build(draw, draw.choice([0.2, 0.6, 2.0]))
    fills = ((_build(draw, draw.choice([0.05, 0.3, 2.0])), filled + timedelta(days=12)),) if draw.random() < 0.3 else ()
    matted = filled + timedelta(days=7) if draw.random() < 0.3 else None
    return {"hotbed": (build, filled, topped), "fills": fills, "matted_until": matted}


def _build(draw: random.Random, depth_m: float) -> Build:
    keys = [[key for key, _ in choices] for choices in (hotbeds.materials(), hotbeds.moistures(), hotbeds.treads())]
    material, moist, trodden = (draw.choice(each) for each in keys)
    length, width = draw.choice([0.3, 2.0, 50.0]), draw.choice([0.3, 1.2, 10.0])
    return Build(material, depth_m, length, width, moist, trodden, draw.random() < 0.5, draw.choice([0.0, 0.15, 0.5]))


def fault_of(job: tuple[int, int]) -> str:
    """What is wrong with one garden's forecast; empty where it is usable."""
    try:
        forecast(inputs_of(*job))
    except Exception as fault:  # noqa: BLE001 - every fault is counted, whatever it is
        frame = fault.__traceback__
        while frame is not None and frame.tb_next is not None:
            frame = frame.tb_next
        where = f"{frame.tb_frame.f_code.co_filename.rpartition('/')[2]}:{frame.tb_lineno}" if frame else ""
        return f"{type(fault).__name__}: {str(fault)[:80]} ({where})"
    return ""


def main(count: float = COUNT, seed: float = SEED) -> int:
    """Print what failed and how often; 1 where anything did."""
    jobs = [(number, int(seed)) for number in range(int(count))]
    faults: Counter[str] = Counter()
    first: dict[str, int] = {}
    with Pool(PROCESSES) as pool:
        for number, fault in enumerate(pool.imap(fault_of, jobs, chunksize=4)):
            if fault:
                faults[fault] += 1
                first.setdefault(fault, number)
            if sys.stderr.isatty() and number % 20 == 0:
                print(f"\r{number} of {len(jobs)}", end="", file=sys.stderr)
    for fault, times in faults.most_common(SHOWN):
        print(f"{times:4d}  {fault}, first garden {first[fault]}")
    failed = sum(faults.values())
    print(f"gardens: {failed} of {len(jobs)} without a usable forecast")
    return 1 if failed else 0
