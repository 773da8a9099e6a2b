"""What is stored of a forecast, typed and with a format number."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date, datetime
from functools import lru_cache
from typing import Any, Generic, Literal, TypeVar

from pydantic import BaseModel, TypeAdapter, ValidationError
from pydantic_core import from_json

from cloche_engine.hazards.air_limits import Limits, Stage
from cloche_engine.hazards.frost import Harm, NightWay
from cloche_engine.hazards.ventilation import Plan
from cloche_engine.heat.faults import Fault
from cloche_engine.windows.limits import Limit
from cloche_engine.windows.rules import SowingRule

FORMAT = 1
MODEL_VERSION = "column-17"
"""Counts up with every change of what the engine answers: a forecast of another version is made anew."""
Triple = tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class HeatAlarm:
    """A heater that does not do what it should. at: of the newest reading; seen_c: what it was, expected_c: what it should be,
    without_c: what it would be without heat [°C]."""

    fault: Fault
    at: datetime
    seen_c: float
    expected_c: float
    without_c: float


@dataclass(frozen=True, slots=True)
class HeatOutlook:
    """What a place's heat source does over the coming fortnight, by the day. duty: share of the day that it is on, band;
    kwh: what it uses; watts: at the plug while it is on; ruled: start and stop of its thermostat [°C]; holds: share of the
    days on which the roots come within its band; without_c: the roots' daily mean without it."""

    duty: list[Triple]
    kwh: list[float]
    watts: float
    ruled: tuple[float, float] | None
    holds: float
    without_c: list[float]


@dataclass(frozen=True, slots=True)
class LightOutlook:
    """Light on a place's plants by the day, daily integral [mol/m²]: through its window, band, and from its lamp; weeks: mean
    of the window's, middle, by the coming week; ten_d: days until days have ten hours, 0 while they have."""

    window: list[Triple]
    lamp: list[float]
    weeks: list[float] = field(default_factory=list)
    ten_d: int = 0


@dataclass(frozen=True, slots=True)
class PlaceForecast:
    """near: hourly at seed depth around today; field: by depth every two hours; far: daily means; outside, inside: hourly air
    around today, inside where something stands over the place.

    checks: how earlier readings were met: days ahead, how many, error [K], share within the band. strange, weights: by
    reading, how far it lies from all others [K], and how much it weighs against an ordinary one. parameters: what was learned,
    as low, middle, high of a factor or of kelvin; wetter: of the wetness lately added to what the records tell, more than
    before. band_k: half the band's width, by days ahead. spread: how far apart the members lie by the hour, of the day before
    (rows are depths), as standard deviation [K]. around_c: daily mean air of the room or house in which it stands, for the
    coming fortnight, empty in the open; heat, light: of places that have any;
    alarm: what is wrong with its heater; kwh_behind: what its heat used on the days before its own, oldest first, empty where
    there was none."""

    day: date
    start: datetime
    depth_m: float
    near_low_c: list[float]
    near_mid_c: list[float]
    near_high_c: list[float]
    field_depths_m: list[float]
    field_c: list[list[float]]
    outside_c: list[float]
    inside_low_c: list[float]
    inside_mid_c: list[float]
    inside_high_c: list[float]
    far_low_c: list[float]
    far_mid_c: list[float]
    far_high_c: list[float]
    band_k: dict[int, float]
    readings_used: int
    strange: dict[int, float]
    weights: dict[int, float]
    checks: list[tuple[int, int, float, float]]
    parameters: dict[str, Triple]
    weather_days: int
    normals_source: str
    normals_years: int
    replayed_years: int
    spread_start: datetime
    spread_depths_m: list[float]
    spread_k: list[list[float]]
    around_c: list[float] = field(default_factory=list)
    heat: HeatOutlook | None = None
    light: LightOutlook | None = None
    alarm: HeatAlarm | None = None
    kwh_behind: list[float] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class FrostDates:
    """The site's last spring and first autumn frost of the season about the next midsummer: one year in ten, the usual, nine in
    ten; None where there is none. lowest_c: of the winter's nights; years: of own days they rest on, 0: typical weather.

    source: what counts most, "record" of the site's own days, "typed" normals, or "region"; empty where an earlier release
    stored them. before: the dates by the source that was used until `since`, None where it never changed. own_usual,
    typical_usual: the usual spring and autumn by the site's own years alone and without them, None where it has none;
    typical_source: of the latter.
    """

    spring: tuple[date, date, date] | None
    autumn: tuple[date, date, date] | None
    lowest_c: float
    years: int
    source: str = ""
    before: FrostDates | None = None
    since: date | None = None
    own_usual: tuple[date | None, date | None] | None = None
    typical_usual: tuple[date | None, date | None] | None = None
    typical_source: str = ""


@dataclass(frozen=True, slots=True)
class NightsAhead:
    """even_low_c: by night, the lowest outside of the week from then on that is as likely as not passed [°C]."""

    even_low_c: list[float]


@dataclass(frozen=True, slots=True)
class CoverEvidence:
    """What a place has found of the cover that stood there: its kind's key, its item's number, and by factor the middle and the
    standard deviation of the logarithm, as its readings alone tell it."""

    key: str
    item: int | None
    factors: dict[str, tuple[float, float]]


@dataclass(frozen=True, slots=True)
class Window:
    """One span of sensible days; best_* lie within it. opens_after, closes_before: what stands in the way outside."""

    earliest: date
    best_from: date
    best_to: date
    last: date
    opens_after: Limit | None
    closes_before: Limit | None
    probability: float
    open_ended: bool


@dataclass(frozen=True, slots=True)
class RuleChoice:
    """The day on which a sowing rule would sow and what comes of it (see windows.sowing_rules.Choice); day None: it would not;
    half_d None: never half up."""

    sowing_rule: SowingRule
    day: date | None
    fails: float = 1.0
    soil_c: float | None = None
    half_d: float | None = None
    share: float = 0.0
    lost_d: float | None = 0.0
    limit: Limit | None = None


@dataclass(frozen=True, slots=True)
class RibbonDays:
    """Every other candidate day, counted from the forecast's own: chance of success, and soil."""

    day: list[int]
    success: list[float]
    soil_c: list[float]


@dataclass(frozen=True, slots=True)
class CandidateDays:
    """Every candidate day; texts are packed (see cloche_engine.packing, cloche_engine.outlook_days). days_to, share: empty of
    plantings."""

    day: list[int]
    success: list[float]
    soil_c: list[float]
    growth: str
    worth: str
    harvest_d: str
    limits: list[Limit]
    failing: str
    days_to: str = ""
    share: str = ""


@dataclass(frozen=True, slots=True)
class CropDays:
    """One crop's outlook, sown in place or planted out (method); better: whether that is the method that suits the place.
    Shares 0-1, None for never. half_d, share, fails_now: if sown today. hopeless: nobody grows it that way there. members: days
    until half are up in each member in which it succeeds, (days, members) packed as DAYS."""

    crop_key: str
    method: str
    better: bool
    windows: list[Window]
    sow_now: bool
    main_limit: Limit | None
    half_d: float | None
    share: float
    fails_now: float
    hopeless: bool
    ribbon: RibbonDays
    days: CandidateDays
    members: str
    sowing_rules: list[RuleChoice]


@dataclass(frozen=True, slots=True)
class SowingOutlook:
    """What is expected of a sowing; dates None for never. up: band by day, of 100 sown; first, half, most: band of the day on
    which the first, half and most are up; overdue: the day after which silence means failure; rate: of its seed, band; pace,
    stand: mean and SD of their logarithm after the counts, and those that they began with."""

    up: list[list[float]]
    first: tuple[date | None, date | None, date | None]
    half: tuple[date | None, date | None, date | None]
    most: tuple[date | None, date | None, date | None]
    overdue: date | None
    share: float
    rate: list[float]
    pace: tuple[float, float, float, float]
    stand: tuple[float, float, float, float]


@dataclass(frozen=True, slots=True)
class CropStage:
    """A crop that stands in a place, and how far it has come."""

    crop_key: str
    stage: Stage


@dataclass(frozen=True, slots=True)
class NightPlan:
    """What a night asks for; see cloche_engine.hazards.frost_night.NightPlan."""

    way: NightWay | None
    risk: float
    risk_left: float
    coldest_c: tuple[float, float]
    coldest_left_c: tuple[float, float]
    holds: bool


@dataclass(frozen=True, slots=True)
class AwayChoice:
    """One opening for all the hours that nobody is there, and how often plants freeze so."""

    plan: Plan
    freezes: float


@dataclass(frozen=True, slots=True)
class OpeningDay:
    """A coming day under a cover: the plan; the hour to open it for picking and the air inside then; the plan for who is away
    and the other openings."""

    plan: Plan
    pick: tuple[float, float] | None = None
    away: Plan | None = None
    choices: list[AwayChoice] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Uncovering:
    """When each rule would take a cover off: nights, in days (None: not in sight), at night_c; the others now or not yet."""

    nights: int | None
    night_c: float
    established: bool
    heat: bool
    height: bool


@dataclass(frozen=True, slots=True)
class WeatherWarning:
    """A day's weather that can do harm: gale [m/s], snow [m], rain [mm]."""

    day: date
    what: str
    value: float


@dataclass(frozen=True, slots=True)
class FrostedSowing:
    """What a night did to a sowing. number: of the sowing; felt_c: band of what the plants felt; limit_c: what they stand."""

    number: int
    crop_key: str
    stage: Stage
    harm: Harm
    chance: float
    felt_c: Triple
    limit_c: float | None
    morning: date


@dataclass(frozen=True, slots=True)
class CoveredDays:
    """The coming days under a cover: hourly air outside, and inside as bands, kept shut and opened by the plan."""

    outside_c: list[float]
    shut_c: list[list[float]]
    planned_c: list[list[float]]
    days: list[OpeningDay]
    off: Uncovering


@dataclass(frozen=True, slots=True)
class Watch:
    """The coming three days of a place outdoors. cover: key of what stands there; growing: what grows; water_d, on_d: days
    until it wants water, or a cover, None: not in sight; frosted: what the last nights did; doors: of the house that it stands
    in."""

    cover: str
    growing: list[CropStage]
    limits: Limits
    nights: list[NightPlan]
    water_d: int | None
    warnings: list[WeatherWarning]
    on_d: int | None
    frosted: list[FrostedSowing]
    doors: list[Plan]
    covered: CoveredDays | None = None


T = TypeVar("T")


class _Envelope(BaseModel, Generic[T]):
    format: Literal[1]
    data: T


@lru_cache(maxsize=32)
def _envelope(kind: Any) -> type[_Envelope[Any]]:
    return _Envelope[kind]


@lru_cache(maxsize=32)
def _adapter(kind: Any) -> TypeAdapter[Any]:
    return TypeAdapter(kind)


def dump(record: Any, kind: Any) -> dict[str, Any]:
    """A record, or a list of them, as plain JSON values with the format's number."""
    return {"format": FORMAT, "data": _adapter(kind).dump_python(record, mode="json")}


def load(text: str | bytes, kind: Any) -> Any:
    """What was dumped, from its JSON text; None where it was stored in another format. Raises pydantic's ValidationError where
    it says it is of this format and is not."""
    if kind == list[Window]:
        return list(_windows(text))
    return _read(text, kind)


@lru_cache(maxsize=8192)
def _windows(text: str | bytes) -> tuple[Window, ...]:
    """Windows are read by hundreds on many pages, and change when a forecast does: each text is read once."""
    return tuple(_read(text, list[Window]) or ())


def _read(text: str | bytes, kind: Any) -> Any:
    try:
        return _envelope(kind).model_validate_json(text).data
    except ValidationError:
        envelope = from_json(text)
        if isinstance(envelope, dict) and envelope.get("format") == FORMAT:
            raise
        return None


@dataclass(frozen=True, slots=True)
class CropSeason:
    """One crop's windows on a bed under some cover; limit: what stands in the way where there is none; open_since: the first
    day of a window that was open already when it was worked out, which itself begins with that day."""

    crop_key: str
    sown: bool
    windows: list[Window]
    limit: Limit | None
    open_since: date | None = None

    @property
    def opens(self) -> date | None:
        """The first day of the first window, also where it lies back."""
        return self.open_since or (self.windows[0].earliest if self.windows else None)


@dataclass(frozen=True, slots=True)
class BedGain:
    """What a cover would do on a bed: warmth [K], and by crop the days by which it could be sown sooner."""

    gain_k: float
    gained: list[tuple[str, int]]


@dataclass(frozen=True)
class ForecastResult:
    """All that is worked out of a place. sown: by the sowing's number; snapshot: what it takes to run the place again (see
    cloche_engine.forecast.snapshots); watch: None indoors; cover_evidence: None where nothing was learned of a cover."""

    ground: PlaceForecast
    frosts: FrostDates
    cover_evidence: CoverEvidence | None
    crops: list[CropDays]
    sown: dict[int, SowingOutlook]
    watch: Watch | None
    snapshot: bytes
    nights: NightsAhead
