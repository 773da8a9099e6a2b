"""Facts of a job; `today.texts` says what to do and why."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from enum import StrEnum

from cloche.apps.bench.life import Life
from cloche.apps.bench.tubers import Sprouting, TuberDue
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
    """Kinds of job."""

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
    TUBERS = "tubers"


@dataclass(frozen=True)
class CoverFacts:
    """Facts about a place's coming days: which of them, `hour` of today in solar time, and `free` unused covers."""

    watched: Watched
    number: int = 0
    hour: float = 0.0
    warning: WeatherWarning | None = None
    free: tuple[str, ...] = ()


@dataclass(frozen=True)
class PeriodFacts:
    """Facts about a planned cover: the number of its period and its name."""

    period_id: int
    cover: str


@dataclass(frozen=True)
class SowFacts:
    """Facts about a planned sowing.

    `half_d` and `share` for sowing today (None if not calculated), when its window `opens`, the `limit` until then, and the
    `chance` of success today.
    """

    sow_on: date
    half_d: float | None = None
    share: float = 0.0
    is_open: bool = False
    opens: date | None = None
    limit: Limit | None = None
    chance: float | None = None


@dataclass(frozen=True)
class WarmFacts:
    """Facts about a bare bed too cold for a planned sowing [°C]."""

    sow_on: date
    bare_c: float
    wanted_c: float
    free: tuple[str, ...]
    warm_d: int


@dataclass(frozen=True)
class UpFacts:
    """Facts about a sowing that should have emerged."""

    since: date


@dataclass(frozen=True)
class LastDayFacts:
    """Facts about the last day to sow a crop anywhere, with first day and place of its next window."""

    day: date
    again: tuple[date, str] | None


@dataclass(frozen=True)
class FrostedFacts:
    """Facts about frost damage, worst first."""

    hurt: tuple[Frosted, ...]


@dataclass(frozen=True)
class TrialFacts:
    """Facts about a running trial: its number and the bare place's name."""

    trial_id: int
    bare: str


@dataclass(frozen=True)
class HotbedFacts:
    """Facts about when a hotbed cools."""

    fades: date


@dataclass(frozen=True)
class RaisedFacts:
    """Facts about a raised sowing: what is due since when; `step` is recorded when it is ticked, empty for a mere tick."""

    life: Life
    due: Due
    on: date
    step: str = ""


@dataclass(frozen=True)
class TuberFacts:
    """Facts about a tray of seed potatoes: how it sprouts, and what is due."""

    sprouting: Sprouting
    due: TuberDue


@dataclass(frozen=True)
class AlarmFacts:
    """Facts about a faulty heater."""

    alarm: HeatAlarm


@dataclass(frozen=True)
class PlantFacts:
    """Facts about a planting due: its number, date, quantity and crop, whether it is sown, and the chance of failure today
    (None if not calculated).
    """

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
    | TuberFacts
)


@dataclass(frozen=True)
class Job:
    """One job of the day.

    `subject` identifies what it is about; `at_h` orders it within the day; `at` is its clock time if any; `works` is
    recorded when ticked, with `amount`, or None for a mere tick; `urgent` means that delay does harm.
    """

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
        """Return the key of the job without its day."""
        return f"{self.kind}:{self.subject}"

    @property
    def is_guessed(self) -> bool:
        """Return whether the job rests on no reading at all and should only prompt a look; a gale needs no thermometer."""
        asks = self.kind is not JobKind.WEATHER and isinstance(self.facts, CoverFacts)
        return asks and self.facts.watched.guessed  # type: ignore[union-attr]

    @property
    def is_tomorrow(self) -> bool:
        """Return whether the job is for tomorrow."""
        return isinstance(self.facts, CoverFacts) and self.facts.number > 0

    def of_day(self, today: date) -> str:
        """Return the key of the job on a day, so that it can come again tomorrow."""
        return f"{self.key}:{today.isoformat()}"
