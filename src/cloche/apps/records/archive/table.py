"""Tables of the archive and how each selects a garden's rows."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from django.db.models import Model, QuerySet

from cloche.apps.covers.models import CoverTrial
from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.models import Device, LoggedHour, MessageMapping, Probe
from cloche.apps.places.models import (
    BenchCheck,
    Cover,
    CoverDamage,
    CoverPeriod,
    HeatPeriod,
    HeatTest,
    Hotbed,
    HotbedFill,
    HotbedNote,
    HotbedTray,
    Lamp,
    Operation,
    Place,
    Room,
    RoomAir,
    TuberTray,
)
from cloche.apps.plants.models import BedShape, PlantEvent, Planting, SavedSeed
from cloche.apps.readings.models import Reading, Visit
from cloche.apps.records.archive.columns import Column
from cloche.apps.seed.models import CropChoice, Packet
from cloche.apps.sowings.models import Count, Intention, Sowing, Step
from cloche.apps.trials.models import GerminationTrial, TrialBatch, TrialCount
from cloche.apps.weather.models import DailyWeather
from cloche.apps.years.models import Sign
from cloche.bridge.services import crops


@dataclass(frozen=True)
class Table:
    """One table of the archive.

    `name` is its file name, `number` the column that numbers its rows for references, `refers` maps columns to tables
    through the foreign key of that name, `order` sorts its rows independently of primary keys, `only` filters the garden's
    rows, and `later` marks a table added after 0.1.0 that older archives lack.
    """

    name: str
    description: str
    model: type[Model]
    columns: tuple[Column, ...]
    order: tuple[str, ...]
    number: str = ""
    refers: dict[str, str] = field(default_factory=dict)
    only: dict[str, Any] = field(default_factory=dict)
    later: bool = False

    def rows(self, garden: Garden) -> QuerySet[Any]:
        """Return the garden's rows in archive order."""
        return self.current(garden).order_by(*self.order)

    def current(self, garden: Garden) -> QuerySet[Any]:
        """Return the garden's rows that have not been removed."""
        objects = self.model._default_manager
        names = {f.name for f in self.model._meta.get_fields()}
        way = INSIDE[self.model]
        rows = objects.filter(**{way: garden.pk}, **self.only)
        if "removed_at" in names:
            rows = rows.filter(removed_at__isnull=True)
        # Where it led to may be gone, and still it was led there.
        own_place = "place" in names and not self.model._meta.get_field("place").null
        return rows.filter(place__removed_at__isnull=True) if own_place else rows


INSIDE: dict[type[Model], str] = {
    Place: "garden",
    Packet: "garden",
    CropChoice: "garden",
    DailyWeather: "garden",
    Device: "garden",
    CoverDamage: "cover__garden",
    CoverPeriod: "place__garden",
    Operation: "place__garden",
    Visit: "place__garden",
    Reading: "place__garden",
    Sowing: "place__garden",
    Probe: "device__garden",
    MessageMapping: "device__garden",
    Count: "sowing__place__garden",
    Step: "sowing__place__garden",
    Room: "garden",
    RoomAir: "room__garden",
    HeatPeriod: "place__garden",
    Lamp: "place__garden",
    HeatTest: "place__garden",
    BenchCheck: "place__garden",
    TuberTray: "place__garden",
    HotbedFill: "place__garden",
    HotbedNote: "place__garden",
    HotbedTray: "place__garden",
    LoggedHour: "probe__device__garden",
    Visit.operations.through: "visit__place__garden",
    Cover: "garden",
    Hotbed: "place__garden",
    Intention: "place__garden",
    CoverTrial: "covered__garden",
    BedShape: "place__garden",
    Sign: "garden",
    GerminationTrial: "garden",
    TrialBatch: "trial__garden",
    TrialCount: "batch__trial__garden",
    Planting: "place__garden",
    SavedSeed: "packet__garden",
    PlantEvent: "planting__place__garden",
}


def crop_keys() -> tuple[str, ...]:
    """Return keys of the catalogue's crops."""
    # Asked late: the catalogue's curves are heavy, and only a file on its way in needs them.
    return tuple(crop.key for crop in crops.crops())


def texts(choices: Any) -> tuple[str, ...]:
    """Return keys of a field's choices."""
    return tuple(str(value) for value, _ in choices)


def place_column(optional: bool = False) -> Column:
    """Return the column that refers to a row's place."""
    return Column("place", "integer", "Number of the place in places.csv.", optional=optional)
