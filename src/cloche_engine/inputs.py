"""All that a place's forecast rests on, in plain values."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Any
from zoneinfo import ZoneInfo

from cloche_engine.covers.periods import NOT_KNOWN, Known
from cloche_engine.germination.pooling import STAND_LOG_SD
from cloche_engine.germination.steady import FIELD_FACTOR, FIELD_LOG_SD
from cloche_engine.heat.hotbed import Build
from cloche_engine.results import SowingOutlook


@dataclass(frozen=True)
class Day:
    """A day's weather: air [°C], rain [mm], sky as clear, broken or overcast, wind at two metres [m/s], snow lying in the
    morning [m]; None: not noted. lead_d: days ahead it was foretold, 0 where it was measured; runs: low, high and rain of each
    of a forecast's ensemble, none where it gives one value."""

    day: date
    low_c: float
    high_c: float
    rain_mm: float | None = None
    sky: str | None = None
    lead_d: int = 0
    wind_m_s: float | None = None
    snow_m: float | None = None
    runs: tuple[tuple[float, float, float | None], ...] = ()


@dataclass(frozen=True)
class CoverSpan:
    """A cover from one local day to another (None: still on, or always there).

    opens: "closed", "above" (as far as needed to stay below above_c) or "hours" (from_h to to_h of standard time); opening:
    how far at most, 0-1. blanket: a night blanket lies on it from 18 to 8. age_y, dirty: what the years and the dirt take of
    its light; length_m: of the bed that it covers, None: long; sheet_m, spread_m: of a bent sheet whose edges are set so far
    apart, None: as is usual; low_m, high_m: of a frame, at its front and back. item: which of the garden's own it is, None:
    not told; known: as in the engine's CoverPeriod, by what other beds tell."""

    key: str
    first: date | None = None
    last: date | None = None
    ends_capped: bool = True
    opens: str = "closed"
    above_c: float = 25.0
    from_h: float = 10.0
    to_h: float = 16.0
    opening: float = 0.5
    blanket: bool = False
    age_y: float = 0.0
    dirty: bool = False
    length_m: float | None = None
    sheet_m: float | None = None
    spread_m: float | None = None
    low_m: float | None = None
    high_m: float | None = None
    item: int | None = None
    known: Known = NOT_KNOWN


@dataclass(frozen=True)
class HeatSpan:
    """A heat source at a place from one local day to another (None: always there, still there).

    source: mat, base, cable, wire or house; watts: of all of it, over area_m2; lift_k: measured over the room instead.
    control: always, timer (spans of the day) or thermostat (start_c, stop_c, its probe at probe: roots, bottom or air).
    over_m, under_m: of a cable, its spreading layer of filling, wet or dry.
    """

    source: str
    first: date | None = None
    last: date | None = None
    watts: float | None = None
    area_m2: float = 0.25
    lift_k: float | None = None
    control: str = "always"
    spans: tuple[tuple[float, float], ...] = ()
    start_c: float = 18.0
    stop_c: float = 21.0
    probe: str = "roots"
    over_m: float = 0.0
    under_m: float = 0.0
    filling: str = "sharp_sand"
    filling_wet: bool = True


@dataclass(frozen=True)
class RoomAir:
    """The room in which a place stands. kind: key of places.rooms.ROOMS; night_c, day_c: as told, None: as is usual."""

    kind: str
    night_c: float | None = None
    day_c: float | None = None


@dataclass(frozen=True)
class LampSpan:
    """A lamp over a place from one local day to another. Else as cloche_engine.light.lamp.Lamp."""

    spans: tuple[tuple[float, float], ...]
    first: date | None = None
    last: date | None = None
    watts: float = 0.0
    kind: str = "led"
    area_m2: float = 0.3
    away_m: float = 0.15
    ppfd: float | None = None


@dataclass(frozen=True)
class WindowPane:
    """A window by which a place stands: see cloche_engine.light.window.Window."""

    aspect_deg: float
    shade: float = 0.0
    away_m: float = 0.1


@dataclass(frozen=True)
class Under:
    """Something seen under a cover besides its soil, or in a room. what: air, lowest, highest, room, room_low, room_high [°C]
    or gain [K] over a bare bed at depth_m; since: when an extreme's thermometer was set back."""

    what: str
    at: datetime
    since: datetime
    value: float
    depth_m: float = 0.0


@dataclass(frozen=True)
class Operation:
    """Something done to a place. work: as in the engine's Work; amount: mm of water or m of mulch, 0 for the usual."""

    work: str
    at: datetime
    amount: float = 0.0


@dataclass(frozen=True)
class SownBatch:
    """A sowing that was made. values: what its packet says of the crop; rate: share of the lot taken to be alive; counts: how
    many were up on a day. over: nothing more is expected to come up; outlook: the last that was
    expected of it. before: hourly soil [°C] of places that it has left, each up to midday of a day."""

    number: int
    crop_key: str
    sown_on: date
    depth_m: float
    seeds: int | None
    rate: float
    values: dict[str, float] = field(default_factory=dict)
    counts: tuple[tuple[date, int], ...] = ()
    over: bool = False
    outlook: SowingOutlook | None = None
    before: tuple[tuple[date, tuple[float, ...]], ...] = ()


@dataclass(frozen=True)
class SetOut:
    """Plants that were set out in a place or stand there. height_m: when they were set out, or as measured last on measured_on;
    grown: whether they have stood there long."""

    crop_key: str
    planted_on: date
    height_m: float = 0.0
    measured_on: date | None = None
    grown: bool = False


@dataclass(frozen=True)
class Description:
    """How a place lies. aspect_deg: the way it slopes, from north through east; shaded: hours of standard time kept from the
    sun's beam; width_m: of the cover or the raised bed."""

    texture: str = "loam"
    slope_deg: float = 0.0
    aspect_deg: float = 180.0
    shaded: tuple[float, float] | None = None
    width_m: float = 1.2
    within: str = ""


@dataclass(frozen=True)
class OnHotbed:
    """Days on which a tray stands on a hotbed, without a last one for good; hotbed: as it is described; factors: what its
    readings have taught of its make-up, by name, where there are any."""

    hotbed: ForecastInputs
    factors: dict[str, float]
    first: date
    last: date | None = None


@dataclass(frozen=True)
class ForecastInputs:
    """All of it. Temperatures [°C], depths [m], instants aware, days local.

    readings: (number, taken at, depth, temperature). weather: one line a day, of earlier years too, where they are known.
    crops: keys of those the garden grows, none for the usual; values: what it says of them instead of the catalogue; ways:
    direct or transplanted, where it overrules what is derived. own: crops of its own making
    (see cloche_engine.crops.grown). sowing_rule: by which rule it sows, empty: on every sensible day;
    sowing_rules: of crops that it sows by another. field_factor: middle and log SD of how much slower its soil is than the
    laboratory's; stand: of how much more comes through there than elsewhere. watered: whether seed beds are kept moist; where
    not, dry soil stops seed. hotbed: what it is built of, when it was filled and topped up. away: local hours of the day in
    which nobody is there. under: what was seen under its covers. set_out: plants
    that nobody sowed there. matted_until: a mat of straw or sacking lies over the hotbed until then. below: when a tray
    stood on a hotbed. limits: cold that grown plants of a crop are taken to stand there, where it differs from the
    catalogue's [°C]. record_is_simulated: the site's past days come from a simulated weather service."""

    kind: str
    seed_depth_m: float
    latitude_deg: float
    longitude_deg: float
    elevation_m: float
    timezone: ZoneInfo
    today: date
    readings: list[tuple[int, datetime, float, float]]
    weather: list[Day]
    typed_normals: tuple[list[float], list[float]] | None
    seed: int
    description: Description = Description()
    covers: list[CoverSpan] = field(default_factory=list)
    operations: list[Operation] = field(default_factory=list)
    crops: tuple[str, ...] = ()
    values: dict[str, dict[str, float]] = field(default_factory=dict)
    methods: dict[str, str] = field(default_factory=dict)
    own: dict[str, dict[str, Any]] = field(default_factory=dict)
    sowing_rule: str = ""
    sowing_rules: dict[str, str] = field(default_factory=dict)
    field_factor: tuple[float, float] = (FIELD_FACTOR, FIELD_LOG_SD)
    stand: tuple[float, float] = (1.0, STAND_LOG_SD)
    watered: bool = True
    sown: tuple[SownBatch, ...] = ()
    hotbed: tuple[Build, date, date | None] | None = None
    away: tuple[int, int] | None = None
    under: tuple[Under, ...] = ()
    heat: tuple[HeatSpan, ...] = ()
    room: RoomAir | None = None
    pane: WindowPane | None = None
    lamps: tuple[LampSpan, ...] = ()
    bring_in_c: float = -3.0
    fills: tuple[tuple[Build, date], ...] = ()
    matted_until: date | None = None
    below: tuple[OnHotbed, ...] = ()
    set_out: tuple[SetOut, ...] = ()
    limits: dict[str, float] = field(default_factory=dict)
    record_is_simulated: bool = False
