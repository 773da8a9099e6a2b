"""A job of the day: facts. `today.texts` says what is to be done and why."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from enum import StrEnum

from cloche.apps.bench.life import Life
from cloche.apps.covers.watched import Watched
from cloche.apps.today.after import Frosted
from cloche_engine.results import HeatAlarm, WeatherWarning
from cloche_engine.soil.bed import Work
from cloche_engine.windows.limits import Limit
from cloche_engine.windows.raised_life import Due

MORNING_H, DAY_H, EVENING_H = 6.5, 12.0, 17.5
"""Where jobs without an hour of their own stand in the day."""
UNCOVER = "uncover"
"""What a tick writes into the record besides an operation: the cover came off."""


class JobKind(StrEnum):
    """What is asked for."""

    OPEN = "open"
    DOORS = "doors"
    NIGHT = "night"
    WATER = "water"
    WEATHER = "weather"
    UNCOVER = "off"
    COVER = "cover"
    PUT_ON = "put_on"
    TAKE_OFF = "take_off"
    SOW = "sow"
    WARM = "warm"
    OVERDUE = "overdue"
    COUNT = "count"
    LAST_DAY = "last"
    AFTER_FROST = "after_frost"
    TRIAL = "trial"
    TOP_UP = "top_up"
    RAISE = "raise"
    HEAT = "heat"
    PLANT = "plant"


@dataclass(frozen=True)
class CoverFacts:
    """About a place's coming days: which of them; hour: of today, by the sun's clock; free: covers that stand nowhere."""

    watched: Watched
    number: int = 0
    hour: float = 0.0
    warning: WeatherWarning | None = None
    free: tuple[str, ...] = ()


@dataclass(frozen=True)
class PeriodFacts:
    """About a cover that was said to go on or come off: which period of it, and its name."""

    period_id: int
    cover: str


@dataclass(frozen=True)
class SowFacts:
    """About a sowing that was meant. half_d, share: if sown today, None where that is not worked out; opens: when its window
    does; limit: what stands in the way till then; chance: of success, sown today."""

    sow_on: date
    half_d: float | None = None
    share: float = 0.0
    is_open: bool = False
    opens: date | None = None
    limit: Limit | None = None
    chance: float | None = None


@dataclass(frozen=True)
class WarmFacts:
    """About a bed that will be too cold, bare, for a sowing that is meant [°C]."""

    sow_on: date
    bare_c: float
    wanted_c: float
    free: tuple[str, ...]
    warm_d: int


@dataclass(frozen=True)
class UpFacts:
    """About a sowing that should show: since when."""

    since: date


@dataclass(frozen=True)
class LastDayFacts:
    """About a crop's last sensible day anywhere; again: the next window's first day and the place's name."""

    day: date
    again: tuple[date, str] | None


@dataclass(frozen=True)
class FrostedFacts:
    """What a night has hurt, the worst first."""

    hurt: tuple[Frosted, ...]


@dataclass(frozen=True)
class TrialFacts:
    """About a running trial: its number, and the bare place's name."""

    trial_id: int
    bare: str


@dataclass(frozen=True)
class HotbedFacts:
    """About a hotbed that fades on a day."""

    fades: date


@dataclass(frozen=True)
class RaisedFacts:
    """About a raised sowing: what is due and since when; step: what a tick writes into its life, empty: only that it was
    done."""

    life: Life
    due: Due
    on: date
    step: str = ""


@dataclass(frozen=True)
class AlarmFacts:
    """About a heater that does not do what it should."""

    alarm: HeatAlarm


@dataclass(frozen=True)
class PlantFacts:
    """About a planting of the plan whose day has come: its number, its day, how many of what, whether it is sown, and the
    chance that it fails if done today, None where that is not worked out."""

    planting_id: int
    planned_on: date
    what: str
    sown: bool
    fails: float | None


Facts = (
    CoverFacts
    | PeriodFacts
    | SowFacts
    | WarmFacts
    | UpFacts
    | LastDayFacts
    | FrostedFacts
    | TrialFacts
    | HotbedFacts
    | RaisedFacts
    | AlarmFacts
    | PlantFacts
)


@dataclass(frozen=True)
class Job:
    """subject: what of its kind it is about; at_h: its hour, which orders the day; at: where a clock time is told; works: what
    a tick writes into the record, None: only that it was done; amount: how much of it. urgent: harm comes of leaving it."""

    kind: JobKind
    subject: str
    garden_id: int
    place: str
    place_pk: int
    at_h: float
    facts: Facts
    crop_key: str = ""
    at: datetime | None = None
    works: Work | str | None = None
    amount: float = 0.0
    urgent: bool = False

    @property
    def key(self) -> str:
        """Which job of which thing, without its day."""
        return f"{self.kind}:{self.subject}"

    @property
    def is_guessed(self) -> bool:
        """Whether it rests on no reading at all: then it is no order, but something to look at. A gale needs no thermometer."""
        asks = self.kind is not JobKind.WEATHER and isinstance(self.facts, CoverFacts)
        return asks and self.facts.watched.guessed  # type: ignore[union-attr]

    @property
    def is_tomorrow(self) -> bool:
        """Whether it is of the next day."""
        return isinstance(self.facts, CoverFacts) and self.facts.number > 0

    def of_day(self, today: date) -> str:
        """Its key on a day: answered today it may come again tomorrow."""
        return f"{self.key}:{today.isoformat()}"
