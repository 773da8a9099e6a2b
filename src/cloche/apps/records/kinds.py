"""How the history describes each kind of record."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from django.db.models import Model
from django.utils.translation import gettext as _

from cloche.apps.covers.models import CoverTrial
from cloche.apps.gardens.models import Garden
from cloche.apps.places import pages
from cloche.apps.places.flows import note_change_at, note_change_in
from cloche.apps.places.models import (
    Cover,
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
)
from cloche.apps.places.pages import work_name
from cloche.apps.plants.models import BedShape, PlantEvent, Planting
from cloche.apps.readings.models import Reading, Visit
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.apps.sowings.models import Count, Intention, Sowing, Step
from cloche.apps.trials.models import GerminationTrial, TrialBatch, TrialCount
from cloche.apps.weather.models import DailyWeather
from cloche.apps.years.models import Sign
from cloche.bridge.services import crops
from cloche.bridge.values.clocks import spans_text
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units

Show = Callable[[Any, Units], str]


@dataclass(frozen=True)
class Kind:
    """One kind of record in the history.

    `key` is used in URLs, `inside` is the lookup from its history to the garden, `what` its noun, `fields` label and format
    by field name, and `changed` is called to recalculate what depends on it.
    """

    key: str
    model: type[Model]
    inside: str
    what: Callable[[Any, Units], str]
    fields: Mapping[str, tuple[str, Show]]
    changed: Callable[[Any], None]


def at_place(row: Any) -> None:
    place = Place.everything.filter(pk=row.place_id).first()
    if place is not None:
        note_change_at(place)


def temperature(value: float | None, units: Units) -> str:
    return _("none") if value is None else units.temperature_text(value)


def length(value: float | None, units: Units) -> str:
    return _("none") if value is None else units.length_text(value)


def plain(value: Any, units: Units) -> str:
    return _("none") if value in (None, "") else number_text(f"{value:g}") if isinstance(value, float) else str(value)


def day(value: Any, units: Units) -> str:
    return words.day(value) if value else _("none")


def yes(value: Any, units: Units) -> str:
    return _("yes") if value else _("no")


def instant(row: Any, at: Any) -> str:
    local = at.astimezone(row.place.garden.timezone)
    return f"{words.day(local.date())} {words.clock(local)}"


def crop(row: Any) -> str:
    return crops.crop(row.crop_key).name


REMOVED: dict[str, tuple[str, Show]] = {"removed_at": (lazy("removed"), yes)}


def _planted(row: Any) -> str:
    return crop(row) if row.crop_key else _("space kept for later")


PLANT_KINDS = (
    Kind(
        "planting",
        Planting,
        "place__garden",
        lambda row, units: _("{crop} planted in {name}").format(crop=_planted(row), name=row.place.name),
        {
            "planned_on": (lazy("planned for"), day),
            "planted_on": (lazy("date done"), day),
            "ended_on": (lazy("finished on"), day),
            "number": (lazy("plants"), plain),
            "x_m": (lazy("distance from the left end"), length),
            "y_m": (lazy("distance from the upper edge"), length),
            "length_m": (lazy("length"), length),
            "width_m": (lazy("width"), length),
            "layout": (lazy("layout"), plain),
            "note": (lazy("note"), plain),
        }
        | REMOVED,
        at_place,
    ),
    Kind(
        "plant_event",
        PlantEvent,
        "planting__place__garden",
        lambda row, units: _("{what}: {crop} in {name}, {day}").format(
            what=words.sentence(str(PlantEvent.Kind(row.kind).label)),
            crop=_planted(row.planting),
            name=row.planting.place.name,
            day=words.day(row.on),
        ),
        {
            "on": (lazy("date"), day),
            "number": (lazy("plants"), plain),
            "weight_kg": (lazy("weight (kg)"), plain),
            "height_m": (lazy("height"), length),
        },
        lambda row: at_place(row.planting),
    ),
    Kind(
        "sign",
        Sign,
        "garden",
        lambda row, units: _("Phase of {name}").format(name=row.name),
        {"name": (lazy("name"), plain), "on": (lazy("date"), day)},
        lambda row: None,
    ),
    Kind(
        "germination_trial",
        GerminationTrial,
        "garden",
        lambda row, units: _("Germination trial {name}").format(name=row.name),
        {"name": (lazy("name"), plain), "begun_on": (lazy("first day"), day), "ended_on": (lazy("last day"), day)},
        lambda row: None,
    ),
    Kind(
        "trial_batch",
        TrialBatch,
        "trial__garden",
        lambda row, units: _("{crop} in the trial {name}").format(crop=crop(row), name=row.trial.name),
        {"seeds": (lazy("seeds"), plain), "warmth_c": (lazy("set-point"), temperature)},
        lambda row: None,
    ),
    Kind(
        "trial_count",
        TrialCount,
        "batch__trial__garden",
        lambda row, units: _("Count of {crop} in {name}, {day}").format(
            crop=crop(row.batch), name=row.batch.trial.name, day=words.day(row.on)
        ),
        {"up": (lazy("seedlings up"), plain)},
        lambda row: None,
    ),
    Kind(
        "bed_shape",
        BedShape,
        "place__garden",
        lambda row, units: _("Size of {name}").format(name=row.place.name),
        {
            "length_m": (lazy("length"), length),
            "width_m": (lazy("width"), length),
            "square_m": (lazy("squares"), length),
            "runs_deg": (lazy("direction (°)"), plain),
        },
        lambda row: None,
    ),
)


def _reading(row: Any, units: Units) -> str:
    return _("Reading in {name}, {length}, {instant}").format(
        name=row.place.name, length=units.length_text(row.depth_m), instant=instant(row, row.taken_at)
    )


KINDS = {
    kind.key: kind
    for kind in (
        Kind(
            "reading",
            Reading,
            "place__garden",
            _reading,
            {
                "temperature_c": (lazy("temperature"), temperature),
                "depth_m": (lazy("depth"), length),
                "taken_at": (lazy("time"), lambda v, u: _("{v} UTC").format(v=f"{v:%Y-%m-%d %H:%M}")),
                "note": (lazy("note"), plain),
                "review": (lazy("answer"), plain),
            }
            | REMOVED,
            at_place,
        ),
        Kind(
            "weather",
            DailyWeather,
            "garden",
            lambda row, units: _("Weather of {day}").format(day=words.day(row.day)),
            {
                "low_c": (lazy("low"), temperature),
                "high_c": (lazy("high"), temperature),
                "rain_mm": (lazy("rain"), lambda v, u: "" if v is None else u.rain_text(v)),
                "sky": (lazy("sky"), plain),
                "wind_m_s": (lazy("wind"), lambda v, u: "" if v is None else u.wind_text(v)),
                "snow_m": (lazy("snow"), length),
            },
            lambda row: note_change_in(Garden.objects.get(pk=row.garden_id)),
        ),
        Kind(
            "place",
            Place,
            "garden",
            lambda row, units: row.name,
            {
                "name": (lazy("name"), plain),
                "kind": (lazy("kind"), plain),
                "seed_depth_m": (lazy("seed depth"), length),
                "texture": (lazy("soil"), plain),
                "slope_deg": ("slope, °", plain),
                "aspect_deg": (lazy("slope faces (°)"), plain),
                "shaded_from_h": (lazy("shaded from"), plain),
                "shaded_to_h": (lazy("shaded to"), plain),
                "width_m": (lazy("width (m)"), plain),
                "within": (lazy("house"), plain),
                "window_aspect_deg": (lazy("window faces (°)"), plain),
                "window_shade": (lazy("shade on the window"), plain),
                "window_away_m": (lazy("distance from the window"), length),
            }
            | REMOVED,
            lambda row: note_change_at(Place.everything.get(pk=row.pk)),
        ),
        Kind(
            "cover",
            CoverPeriod,
            "place__garden",
            lambda row, units: _("{sentence} over {name}").format(
                sentence=words.sentence(pages.cover_name(row.cover)), name=row.place.name
            ),
            {
                "first": (lazy("first day"), day),
                "last": (lazy("last day"), day),
                "opens": (lazy("airing"), plain),
                "above_c": (lazy("opened above"), temperature),
                "from_h": (lazy("opened from"), plain),
                "to_h": (lazy("opened to"), plain),
                "opening": (lazy("opening"), plain),
                "ends_capped": (lazy("ends closed"), yes),
                "blanket": (lazy("night blanket"), yes),
                "covered_m": (lazy("length covered"), length),
            },
            at_place,
        ),
        Kind(
            "own_cover",
            Cover,
            "garden",
            lambda row, units: _("Cover {name}").format(name=row.name),
            {
                "name": (lazy("name"), plain),
                "length_m": (lazy("length"), length),
                "width_m": (lazy("width"), length),
                "spread_m": (lazy("distance between edges"), length),
                "low_m": (lazy("height at the front"), length),
                "high_m": (lazy("height at the back"), length),
                "purchase_year": (lazy("year bought"), plain),
                "dirty": (lazy("dirty or clouded"), yes),
                "price": (lazy("price"), plain),
            }
            | REMOVED,
            lambda row: note_change_in(Garden.objects.get(pk=row.garden_id)),
        ),
        Kind(
            "hotbed",
            Hotbed,
            "place__garden",
            lambda row, units: _("Materials of the hotbed {name}").format(name=row.place.name),
            {
                "material": (lazy("materials"), plain),
                "depth_m": (lazy("depth"), length),
                "moist": (lazy("moisture"), plain),
                "trodden": (lazy("firmness"), plain),
                "insulated": (lazy("edges insulated"), yes),
                "filled_on": (lazy("filled"), day),
                "topped_up_on": (lazy("topped up on"), day),
                "matted_until": (lazy("mat on until"), day),
            },
            at_place,
        ),
        Kind(
            "hotbed_tray",
            HotbedTray,
            "place__garden",
            lambda row, units: _("{name} on the hotbed {hotbed}").format(name=row.place.name, hotbed=row.hotbed.name),
            {"first": (lazy("first day"), day), "last": (lazy("last day"), day)},
            at_place,
        ),
        Kind(
            "trial",
            CoverTrial,
            "covered__garden",
            lambda row, units: _("Trial of {name} against {name2}").format(name=row.covered.name, name2=row.bare.name),
            {"begun_on": (lazy("since"), day), "ended_on": (lazy("last day"), day), "depth_m": (lazy("depth"), length)},
            lambda row: None,
        ),
        Kind(
            "intention",
            Intention,
            "place__garden",
            lambda row, units: _("{crop} planned for {name}").format(crop=crop(row), name=row.place.name),
            {"sow_on": (lazy("date"), day), "dropped_at": (lazy("ended"), yes)},
            lambda row: None,
        ),
        Kind(
            "operation",
            Operation,
            "place__garden",
            lambda row, units: f"{words.sentence(work_name(row.work))}, {row.place.name}, {instant(row, row.at)}",
            {"work": (lazy("work"), plain), "amount": (lazy("amount"), plain)},
            at_place,
        ),
        Kind(
            "visit",
            Visit,
            "place__garden",
            lambda row, units: _("Visit to {name}, {instant}").format(name=row.place.name, instant=instant(row, row.at)),
            {
                "air_c": (lazy("air"), temperature),
                "air_low_c": (lazy("lowest air temperature"), temperature),
                "air_high_c": (lazy("highest air temperature"), temperature),
                "moisture": (lazy("moisture by feel"), plain),
                "snow_m": (lazy("snow"), length),
                "losses": (lazy("survivors and losses"), plain),
                "note": (lazy("note"), plain),
            }
            | REMOVED,
            at_place,
        ),
        Kind(
            "sowing",
            Sowing,
            "place__garden",
            lambda row, units: _("{crop} sown in {name}, {day}").format(
                crop=crop(row), name=row.place.name, day=words.day(row.sown_on)
            ),
            {
                "sown_on": (lazy("sown on"), day),
                "seeds": (lazy("seeds"), plain),
                "depth_m": (lazy("depth"), length),
                "finished": (lazy("closed"), yes),
                "heat_off_rule": (lazy("rule for taking it off the heat"), plain),
            }
            | REMOVED,
            at_place,
        ),
        Kind(
            "step",
            Step,
            "sowing__place__garden",
            lambda row, units: _("{what}: {crop} in {name}, {day}").format(
                what=words.sentence(str(Step.Kind(row.kind).label)),
                crop=crop(row.sowing),
                name=row.sowing.place.name,
                day=words.day(row.on),
            ),
            {"on": (lazy("date"), day), "cell_m": (lazy("cell width"), length)},
            lambda row: at_place(row.sowing),
        ),
        Kind(
            "heat",
            HeatPeriod,
            "place__garden",
            lambda row, units: _("{source} in {name}").format(
                source=words.sentence(str(HeatPeriod.Kind(row.source).label)), name=row.place.name
            ),
            {
                "first": (lazy("first day"), day),
                "last": (lazy("last day"), day),
                "watts": (lazy("watts"), plain),
                "control": (lazy("control"), plain),
                "start_c": (lazy("on below"), temperature),
                "stop_c": (lazy("off above"), temperature),
                "probe": (lazy("position of the probe"), plain),
                "lift_k": (lazy("lift (K)"), plain),
            },
            at_place,
        ),
        Kind(
            "fill",
            HotbedFill,
            "place__garden",
            lambda row, units: _("Filling of the hotbed {name}, {day}").format(name=row.place.name, day=words.day(row.on)),
            {"on": (lazy("date"), day), "material": (lazy("materials"), plain), "depth_m": (lazy("depth"), length)},
            at_place,
        ),
        Kind(
            "hotbed_note",
            HotbedNote,
            "place__garden",
            lambda row, units: _("Diary entry for the hotbed {name}, {day}").format(name=row.place.name, day=words.day(row.on)),
            {
                "core_c": (lazy("core temperature"), temperature),
                "height_m": (lazy("height"), length),
                "note": (lazy("note"), plain),
            },
            lambda row: None,
        ),
        Kind(
            "heat_test",
            HeatTest,
            "place__garden",
            lambda row, units: _("Test of the heater in {name}, {day}").format(name=row.place.name, day=words.day(row.on)),
            {"minutes": (lazy("minutes to the set-point"), plain)},
            lambda row: None,
        ),
        Kind(
            "lamp",
            Lamp,
            "place__garden",
            lambda row, units: _("Lamp over {name}").format(name=row.place.name),
            {
                "first": (lazy("first day"), day),
                "last": (lazy("last day"), day),
                "watts": (lazy("watts"), plain),
                "away_m": (lazy("height"), length),
                "spans": (lazy("hours of light"), lambda v, u: spans_text(v)),
            },
            at_place,
        ),
        Kind(
            "room",
            Room,
            "garden",
            lambda row, units: _("Room {name}").format(name=row.name),
            {
                "name": (lazy("name"), plain),
                "kind": (lazy("kind"), plain),
                "night_c": (lazy("night temperature"), temperature),
                "day_c": (lazy("daytime temperature"), temperature),
            }
            | REMOVED,
            lambda row: note_change_in(Garden.objects.get(pk=row.garden_id)),
        ),
        Kind(
            "room_air",
            RoomAir,
            "room__garden",
            lambda row, units: _("Air temperature in {name}, {day}").format(
                name=row.room.name, day=words.day(row.at.astimezone(row.room.garden.timezone).date())
            ),
            {"temperature_c": (lazy("temperature"), temperature), "what": (lazy("kind"), plain)},
            lambda row: note_change_in(Garden.objects.get(pk=row.room.garden_id)),
        ),
        *PLANT_KINDS,
        Kind(
            "count",
            Count,
            "sowing__place__garden",
            lambda row, units: _("Count of {crop} in {name}, {day}").format(
                crop=crop(row.sowing), name=row.sowing.place.name, day=words.day(row.on)
            ),
            {"up": (lazy("seedlings up"), plain)},
            lambda row: at_place(row.sowing),
        ),
    )
}
