"""Inputs of a forecast, in plain values."""

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
    """Weather of one day.

    Attributes
    ----------
    day : date
        Local day.
    low_c, high_c : float
        Lowest and highest air temperature [°C].
    rain_mm : float or None
        Rain [mm]; None where it was not entered.
    sky : str or None
        "clear", "broken" or "overcast"; None where it was not entered.
    lead_d : int
        Days ahead at which the values were forecast; 0 where they were measured.
    wind_m_s : float or None
        Mean wind speed at 2 m [m/s]; None where it was not entered.
    snow_m : float or None
        Snow depth in the morning [m]; None where it was not entered.
    runs : tuple of (low, high, rain)
        Members of the provider's ensemble [°C, °C, mm]; empty where it gives a single value.
    """

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
    """A cover over a place from one local day to another.

    Attributes
    ----------
    key : str
        Key of the kind of cover.
    first, last : date or None
        First and last day; None where it has always been there or is still on.
    ends_capped : bool
        Whether the ends of a tunnel are closed.
    opens : str
        "closed", "above" (opened as far as needed to stay below `above_c`) or "hours" (opened from `from_h` to `to_h`).
    above_c : float
        Air temperature to stay below [°C].
    from_h, to_h : float
        Hours of local standard time between which the cover is open.
    opening : float
        Largest opening, 0 to 1.
    blanket : bool
        Whether a blanket lies on the cover at night, from 18 to 8.
    age_y : float
        Age of the cover [years].
    dirty : bool
        Whether it is dirty, so that less light passes.
    length_m : float or None
        Length of the bed under the cover [m]; None for a long bed.
    sheet_m, spread_m : float or None
        Width of a bent sheet and distance between its edges [m]; None for the usual ones.
    low_m, high_m : float or None
        Height of a frame at its front and at its back [m].
    item : int or None
        Number of the garden's own cover, if it is one.
    known : Known
        Light, air exchange and heat loss as other places have found them, see `covers.periods.CoverPeriod`.
    """

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
    """A heat source at a place from one local day to another.

    Attributes
    ----------
    source : str
        "mat", "base", "cable", "wire" or "house".
    first, last : date or None
        First and last day; None where it has always been there or is still there.
    watts : float or None
        Power of the whole source [W]; None for the usual power of its size.
    area_m2 : float
        Heated area [m²].
    lift_k : float or None
        Measured lift over the room [K], used instead of `watts`.
    control : str
        "always", "timer" (on during `spans`), "thermostat" (on below `start_c`, off above `stop_c`) or "self"
        (self-regulating, it gives less the warmer it is).
    spans : tuple of (from, to)
        Hours of local standard time at which a timer is on.
    start_c, stop_c : float
        Set-points of the thermostat [°C].
    probe : str
        Position of the thermostat's probe: "roots", "bottom" or "air".
    over_m, under_m : float
        Thickness of the material above and below a cable [m].
    filling : str
        Key of that material.
    filling_wet : bool
        Whether the material is kept wet.
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
    """Air of the room in which a place is.

    Attributes
    ----------
    kind : str
        Key of `places.rooms.ROOMS`.
    night_c, day_c : float or None
        Night and daytime air temperature as entered [°C]; None for the usual ones of the kind.
    """

    kind: str
    night_c: float | None = None
    day_c: float | None = None


@dataclass(frozen=True)
class LampSpan:
    """A lamp over a place from one local day to another; see `light.lamp.Lamp`.

    Attributes
    ----------
    spans : tuple of (from, to)
        Hours of local standard time at which the lamp is on.
    first, last : date or None
        First and last day; None where it has always been there or is still there.
    watts : float
        Power at the plug [W].
    kind : str
        Kind of lamp.
    area_m2 : float
        Area lit [m²].
    away_m : float
        Height above the leaves [m].
    ppfd : float or None
        Measured photosynthetic photon flux density at the leaves [µmol/m²s], used instead of `watts`.
    """

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
    """A window by which a place is; see `light.window.Window`.

    Attributes
    ----------
    aspect_deg : float
        Direction that the window faces, from north through east [°].
    shade : float
        Share of its light lost to shade outside, 0 to 1.
    away_m : float
        Distance from the window [m].
    """

    aspect_deg: float
    shade: float = 0.0
    away_m: float = 0.1


@dataclass(frozen=True)
class Under:
    """An observation other than soil temperature: air under a cover or in a room, or a gain over a bare bed.

    Attributes
    ----------
    what : str
        "air", "lowest", "highest", "room", "room_low", "room_high" [°C], or "gain" [K].
    at : datetime
        Time of the observation.
    since : datetime
        Time at which a minimum–maximum thermometer was last reset.
    value : float
        The value observed [°C or K].
    depth_m : float
        Depth of a gain [m].
    """

    what: str
    at: datetime
    since: datetime
    value: float
    depth_m: float = 0.0


@dataclass(frozen=True)
class Operation:
    """Work done at a place.

    Attributes
    ----------
    work : str
        Kind of work, see `soil.bed.Work`.
    at : datetime
        When it was done.
    amount : float
        Water [mm] or mulch [m]; 0 for the usual amount.
    """

    work: str
    at: datetime
    amount: float = 0.0


@dataclass(frozen=True)
class SownBatch:
    """A sowing.

    Attributes
    ----------
    number : int
        Number of the sowing.
    crop_key : str
        Key of the crop.
    sown_on : date
        Local day of sowing.
    depth_m : float
        Sowing depth [m].
    seeds : int or None
        Number of seeds; None where they were not counted.
    rate : float
        Expected share of viable seed, 0 to 1.
    values : dict
        Values of the packet that replace the catalogue's.
    counts : tuple of (date, int)
        Seedlings up on each day of counting.
    over : bool
        Whether no more seedlings are expected.
    outlook : SowingOutlook or None
        The previous outlook, if there is one.
    before : tuple of (date, temperatures)
        Hourly soil temperature [°C] of each place that the sowing has left, until noon of the day.
    """

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
    """Plants of one crop in a place.

    Attributes
    ----------
    crop_key : str
        Key of the crop.
    planted_on : date
        Day of planting out.
    height_m : float
        Height when planted out, or as last measured [m].
    measured_on : date or None
        Day of that measurement.
    grown : bool
        Whether they are full-grown plants of an earlier season.
    """

    crop_key: str
    planted_on: date
    height_m: float = 0.0
    measured_on: date | None = None
    grown: bool = False


@dataclass(frozen=True)
class Description:
    """The site of a place.

    Attributes
    ----------
    texture : str
        Key of the soil texture.
    slope_deg, aspect_deg : float
        Slope, and the direction that it faces from north through east [°].
    shaded : (from, to) or None
        Hours of local standard time without direct sun.
    width_m : float
        Width of the cover or the raised bed [m].
    within : str
        Key of the house in which the place is; empty in the open.
    """

    texture: str = "loam"
    slope_deg: float = 0.0
    aspect_deg: float = 180.0
    shaded: tuple[float, float] | None = None
    width_m: float = 1.2
    within: str = ""


@dataclass(frozen=True)
class OnHotbed:
    """A tray's stay on a hotbed.

    Attributes
    ----------
    hotbed : ForecastInputs
        Inputs of the hotbed itself.
    factors : dict
        Parameters that the readings of the hotbed have taught, by name.
    first, last : date or None
        First and last day; None where it is still there.
    """

    hotbed: ForecastInputs
    factors: dict[str, float]
    first: date
    last: date | None = None


@dataclass(frozen=True)
class ForecastInputs:
    """Everything a forecast of one place is based on.

    Temperatures are in °C, depths in metres, instants are aware and days local.

    Attributes
    ----------
    kind : str
        Kind of place.
    seed_depth_m : float
        Depth of seed and probe [m].
    latitude_deg, longitude_deg, elevation_m : float
        Position of the site [°, °, m].
    timezone : ZoneInfo
        Time zone of the site.
    today : date
        Day of the forecast.
    readings : list of (number, taken at, depth, temperature)
        Soil temperatures.
    weather : list of Day
        One entry per day, earlier years included.
    typed_normals : (lows, highs) or None
        Twelve monthly means each, January first, where they were entered.
    seed : int
        Seed of the random numbers.
    description : Description
        Soil and site.
    covers, operations, heat, lamps : sequences
        Covers, work, heat sources and lamps by date.
    crops : tuple of str
        Keys of the crops that the garden grows; empty for the usual ones.
    values, methods : dict
        By crop: values that replace the catalogue's, and the method that was chosen.
    own : dict
        Crops that the garden has added, see `crops.grown`.
    sowing_rule : str
        Sowing rule of the garden; empty for every sensible day.
    sowing_rules : dict
        Sowing rules of single crops.
    field_factor : (median, log SD)
        How much longer seedlings take in this soil than in the laboratory.
    stand : (median, log SD)
        How many more seedlings emerge here than elsewhere.
    watered : bool
        Whether seedbeds are kept moist; dry soil stops seed where they are not.
    sown : tuple of SownBatch
        Sowings in the place.
    hotbed : (build, filled, topped up) or None
        Materials and dates of a hotbed.
    away : (from, to) or None
        Local hours in which nobody is there.
    under : tuple of Under
        Other observations.
    room, pane : RoomAir, WindowPane or None
        Room and window of a place indoors.
    bring_in_c : float
        Night temperature below which trays are brought in [°C].
    fills : tuple of (build, date)
        Further fills of a hotbed.
    matted_until : date or None
        Last day of a mat of straw or sacking over a hotbed.
    below : tuple of OnHotbed
        Stays of a tray on hotbeds.
    set_out : tuple of SetOut
        Plants that were not sown in the place.
    limits : dict
        Lowest temperature that full-grown plants of a crop survive here, where it differs from the catalogue [°C].
    record_is_simulated : bool
        Whether past weather comes from a simulated service.
    """

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
