"""How the history describes each kind of record."""

from __future__ import annotations

from typing import Any

from django.utils.translation import gettext as _

from cloche.apps.covers.models import CoverTrial
from cloche.apps.gardens.models import Garden
from cloche.apps.places import pages
from cloche.apps.places.flows import note_change_at, note_change_in
from cloche.apps.places.models import (
    Cover,
    CoverPeriod,
    Hotbed,
    HotbedTray,
    Operation,
    Place,
)
from cloche.apps.places.pages import work_name
from cloche.apps.plants.models import BedShape, PlantEvent, Planting
from cloche.apps.readings.models import Reading, Visit
from cloche.apps.records.bench_kinds import BENCH_KINDS
from cloche.apps.records.kind import REMOVED, Kind, at_place, crop, day, instant, length, plain, temperature, yes
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.apps.sowings.models import Count, Intention, Sowing, Step
from cloche.apps.trials.models import GerminationTrial, TrialBatch, TrialCount
from cloche.apps.weather.models import DailyWeather
from cloche.apps.years.models import Sign
from cloche.bridge.values.units import Units


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
        *BENCH_KINDS,
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
