"""Stored results of a forecast: their types and their format number."""

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
MODEL_VERSION = "column-19"
"""Changes whenever the results of the engine change; forecasts of another version are recomputed."""
Triple = tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class HeatAlarm:
    """A heater that does not work as it should.

    `at` is the time of the latest reading. `seen_c` is what it showed, `expected_c` what was expected and `without_c` what
    would be expected without heat [°C].
    """

    fault: Fault
    at: datetime
    seen_c: float
    expected_c: float
    without_c: float


@dataclass(frozen=True, slots=True)
class HeatOutlook:
    """Operation of a heat source by day over the coming fortnight.

    `duty` is the band of the fraction of the day for which it is on, `kwh` its daily energy, `watts` the power at the plug
    while it is on. `ruled` holds the thermostat limits [°C], `holds` the fraction of days on which the roots reach their
    range, and `without_c` the daily mean at the roots without it.
    """

    duty: list[Triple]
    kwh: list[float]
    watts: float
    ruled: tuple[float, float] | None
    holds: float
    without_c: list[float]


@dataclass(frozen=True, slots=True)
class LightOutlook:
    """Daily light integral at the plants of a place [mol/m²].

    `window` is the band of daylight through window, house or frame and `lamp` the light of lamps, by day; `weeks` the median
    daylight by week. `ten_d` counts the days until days have ten hours, 0 while they do.
    """

    window: list[Triple]
    lamp: list[float]
    weeks: list[float] = field(default_factory=list)
    ten_d: int = 0


@dataclass(frozen=True, slots=True)
class PlaceForecast:
    """Soil and air of a place, past and future.

    The series `near` are hourly at seed depth around today, `field` two-hourly by depth, `far` daily means, `outside` and
    `inside` hourly air around today (inside only under a cover). `around_c` is the daily mean air of the room or house over
    the coming fortnight, empty in the open.

    `strange` and `weights` give by reading its distance from all others [K] and its weight relative to an ordinary one.
    `checks` holds the accuracy of earlier predictions: days ahead, number, error [K], fraction within the band. `parameters`
    are the learned factors or offsets [K] as low, median and high; `wetter` among them is the wetness added recently.

    `band_k` is half the width of the band by days ahead, `spread_k` the standard deviation between members by depth and hour
    from the day before [K]. `heat`, `light` and `alarm` exist where there is such equipment; `kwh_behind` is the energy of
    past days, oldest first.
    """

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
    """Last spring and first autumn frost of the season around the next midsummer, at 10, 50 and 90 % of years.

    They are None where there is no frost. `lowest_c` is the coldest night of the winter; `years` counts the site's own years
    behind the dates, 0 for the typical climate.

    `source` carries the most weight: "record" of the site, "typed" normals, or "region"; it is empty if stored by an earlier
    release. `before` are the dates by the source used until `since`, None if it never changed. `own_usual` and
    `typical_usual` are the median spring and autumn dates by the site's own years alone and without them; `typical_source`
    belongs to the latter.
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
    """For each night, the median of the lowest outdoor temperature in the week that begins with it [°C]."""

    even_low_c: list[float]


@dataclass(frozen=True, slots=True)
class CoverEvidence:
    """What the readings of a place show about its cover.

    `key` is its kind and `item` its number; `factors` gives mean and standard deviation of each factor's logarithm.
    """

    key: str
    item: int | None
    factors: dict[str, tuple[float, float]]


@dataclass(frozen=True, slots=True)
class Window:
    """One span of suitable days; `best_from` and `best_to` lie within it.

    `opens_after` and `closes_before` are the reasons that prevent success outside it.
    """

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
    """The day on which a sowing rule would sow, and its result (see windows.sowing_rules.Choice).

    `day` is None if it would not sow, `half_d` None if half never emerge.
    """

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
    """Success and soil temperature on every second candidate day, counted from the day of the forecast."""

    day: list[int]
    success: list[float]
    soil_c: list[float]


@dataclass(frozen=True, slots=True)
class CandidateDays:
    """All candidate days.

    Texts are packed (see cloche_engine.packing and cloche_engine.outlook_days). `days_to` and `share` are empty for
    plantings.
    """

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
    """Outlook of one crop by one method, sown in place or planted out.

    `better` says whether this is the method that suits the place. `half_d`, `share` and `fails_now` are for a sowing today,
    with shares 0-1 and None for never. `hopeless` marks crops nobody grows that way there. `members` holds the days to half
    emergence in each successful member, (days, members) packed as DAYS.
    """

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
    """Predicted emergence of a sowing; dates are None for never.

    `up` is the band by day of 100 sown; `first`, `half` and `most` are bands of dates. After `overdue`, silence means
    failure. `rate` is the band of the seed's germination rate; `pace` and `stand` hold mean and standard deviation of their
    logarithm after the counts and before them.
    """

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
    """A crop in a place and its stage."""

    crop_key: str
    stage: Stage


@dataclass(frozen=True, slots=True)
class NightPlan:
    """The choice for a night, see cloche_engine.hazards.frost.NightPlan."""

    way: NightWay | None
    risk: float
    risk_left: float
    coldest_c: tuple[float, float]
    coldest_left_c: tuple[float, float]
    holds: bool


@dataclass(frozen=True, slots=True)
class AwayChoice:
    """One opening for all hours without anybody there, and the probability that plants freeze."""

    plan: Plan
    freezes: float


@dataclass(frozen=True, slots=True)
class OpeningDay:
    """A coming day under a cover.

    `pick` is the hour to open it for picking and the air inside then; `away` the plan for a day away from home, and
    `choices` the other openings.
    """

    plan: Plan
    pick: tuple[float, float] | None = None
    away: Plan | None = None
    choices: list[AwayChoice] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Uncovering:
    """When each rule would remove a cover.

    The rule by nights gives days (None for not in sight) for nights of `night_c`; the others hold now or not yet.
    """

    nights: int | None
    night_c: float
    established: bool
    heat: bool
    height: bool


@dataclass(frozen=True, slots=True)
class WeatherWarning:
    """Damaging weather on a day: gale [m/s], snow [m] or rain [mm]."""

    day: date
    what: str
    value: float


@dataclass(frozen=True, slots=True)
class FrostedSowing:
    """Damage from a night to the sowing with this number.

    `felt_c` is the band of the temperature of the plants, `limit_c` what they survive.
    """

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
    """The coming days under a cover: hourly air outside, and bands inside when kept closed and when opened by the plan."""

    outside_c: list[float]
    shut_c: list[list[float]]
    planned_c: list[list[float]]
    days: list[OpeningDay]
    off: Uncovering


@dataclass(frozen=True, slots=True)
class Watch:
    """The coming three days of a place outdoors.

    `cover` is the key of its cover, `growing` its crops. `water_d` and `on_d` are the days until it needs water or a cover,
    None if not in sight. `frosted` lists damage of the last nights, `doors` the plans for the house it stands in.
    """

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
    """Convert a record, or a list of records, to JSON values with the format number."""
    return {"format": FORMAT, "data": _adapter(kind).dump_python(record, mode="json")}


def load(text: str | bytes, kind: Any) -> Any:
    """Read a record from its JSON text, None if it was stored in another format.

    Raises pydantic's ValidationError if the text claims this format but does not match it.
    """
    if kind == list[Window]:
        return list(_windows(text))
    return _read(text, kind)


@lru_cache(maxsize=8192)
def _windows(text: str | bytes) -> tuple[Window, ...]:
    """Read windows once per text, because many pages read hundreds of them and they change only with a forecast."""
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
    """Windows of one crop on a bed under some cover.

    `limit` prevents success where there is no window. `open_since` is the first day of a window that was already open when
    it was computed and therefore begins with that day.
    """

    crop_key: str
    sown: bool
    windows: list[Window]
    limit: Limit | None
    open_since: date | None = None

    @property
    def opens(self) -> date | None:
        """First day of the first window, even if it is in the past."""
        return self.open_since or (self.windows[0].earliest if self.windows else None)


@dataclass(frozen=True, slots=True)
class BedGain:
    """Effect of a cover on a bed: warmth [K], and the days by which each crop could be sown earlier."""

    gain_k: float
    gained: list[tuple[str, int]]


@dataclass(frozen=True)
class ForecastResult:
    """Everything computed for a place.

    `sown` is keyed by the number of the sowing. `snapshot` allows the place to be simulated again (see
    cloche_engine.forecast.snapshots). `watch` is None indoors, `cover_evidence` None where nothing was learned about a
    cover.
    """

    ground: PlaceForecast
    frosts: FrostDates
    cover_evidence: CoverEvidence | None
    crops: list[CropDays]
    sown: dict[int, SowingOutlook]
    watch: Watch | None
    snapshot: bytes
    nights: NightsAhead
