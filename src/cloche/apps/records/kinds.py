"""The kinds of record whose history is kept, and how each is told and brought back."""

from __future__ import annotations

from typing import Any

from django.utils.translation import gettext as _

from cloche.apps.covers.models import CoverTrial
from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows.revision import note_change_at, note_change_in
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
from cloche.apps.places.pages import place_log
from cloche.apps.places.texts import work_name
from cloche.apps.readings.models import Reading, Visit
from cloche.apps.records import shown
from cloche.apps.records.plant_kinds import PLANT_KINDS
from cloche.apps.shared import words
from cloche.apps.shared.i18n import lazy
from cloche.apps.sowings.models import Count, Intention, Sowing, Step
from cloche.apps.weather.models import DailyWeather
from cloche.bridge.values.spans import spans_text
from cloche.bridge.values.units import Units


def _reading(row: Any, units: Units) -> str:
    return _("Reading in {name}, {length}, {instant}").format(
        name=row.place.name, length=units.length_text(row.depth_m), instant=shown.instant(row, row.taken_at)
    )


KINDS = {
    kind.key: kind
    for kind in (
        shown.Kind(
            "reading",
            Reading,
            "place__garden",
            _reading,
            {
                "temperature_c": ("temperature", shown.temperature),
                "depth_m": ("depth", shown.length),
                "taken_at": ("time", lambda v, u: _("{v} UTC").format(v=f"{v:%Y-%m-%d %H:%M}")),
                "note": ("note", shown.plain),
                "review": ("review", shown.plain),
            }
            | shown.REMOVED,
            shown.at_place,
        ),
        shown.Kind(
            "weather",
            DailyWeather,
            "garden",
            lambda row, units: _("Weather of {day}").format(day=words.day(row.day)),
            {
                "low_c": ("low", shown.temperature),
                "high_c": ("high", shown.temperature),
                "rain_mm": (lazy("rain"), lambda v, u: "" if v is None else u.rain_text(v)),
                "sky": ("sky", shown.plain),
                "wind_m_s": (lazy("wind"), lambda v, u: "" if v is None else u.wind_text(v)),
                "snow_m": ("snow", shown.length),
            },
            lambda row: note_change_in(Garden.objects.get(pk=row.garden_id)),
        ),
        shown.Kind(
            "place",
            Place,
            "garden",
            lambda row, units: row.name,
            {
                "name": ("name", shown.plain),
                "kind": ("kind", shown.plain),
                "seed_depth_m": (lazy("seed depth"), shown.length),
                "texture": ("soil", shown.plain),
                "slope_deg": ("slope, °", shown.plain),
                "aspect_deg": (lazy("slopes to, °"), shown.plain),
                "shaded_from_h": (lazy("shaded from"), shown.plain),
                "shaded_to_h": (lazy("shaded to"), shown.plain),
                "width_m": (lazy("width, m"), shown.plain),
                "within": (lazy("stands in"), shown.plain),
                "window_aspect_deg": (lazy("window to, °"), shown.plain),
                "window_shade": (lazy("window shaded"), shown.plain),
                "window_away_m": (lazy("from the window"), shown.length),
            }
            | shown.REMOVED,
            lambda row: note_change_at(Place.everything.get(pk=row.pk)),
        ),
        shown.Kind(
            "cover",
            CoverPeriod,
            "place__garden",
            lambda row, units: _("{sentence} over {name}").format(
                sentence=words.sentence(place_log.cover_name(row.cover)), name=row.place.name
            ),
            {
                "first": ("from", shown.day),
                "last": ("to", shown.day),
                "opens": ("airing", shown.plain),
                "above_c": (lazy("opened above"), shown.temperature),
                "from_h": (lazy("opened from"), shown.plain),
                "to_h": (lazy("opened to"), shown.plain),
                "opening": (lazy("how far"), shown.plain),
                "ends_capped": (lazy("ends closed"), shown.yes),
                "blanket": ("blanket", shown.yes),
                "covered_m": (lazy("length covered"), shown.length),
            },
            shown.at_place,
        ),
        shown.Kind(
            "own_cover",
            Cover,
            "garden",
            lambda row, units: _("Your cover {name}").format(name=row.name),
            {
                "name": ("name", shown.plain),
                "length_m": ("length", shown.length),
                "width_m": ("width", shown.length),
                "spread_m": (lazy("edges apart"), shown.length),
                "low_m": (lazy("height in front"), shown.length),
                "high_m": (lazy("height at the back"), shown.length),
                "purchase_year": (lazy("bought in"), shown.plain),
                "dirty": ("dirty", shown.yes),
                "price": ("price", shown.plain),
            }
            | shown.REMOVED,
            lambda row: note_change_in(Garden.objects.get(pk=row.garden_id)),
        ),
        shown.Kind(
            "hotbed",
            Hotbed,
            "place__garden",
            lambda row, units: _("What the hotbed {name} is built of").format(name=row.place.name),
            {
                "material": (lazy("made of"), shown.plain),
                "depth_m": ("depth", shown.length),
                "moist": ("moisture", shown.plain),
                "trodden": ("trodden", shown.plain),
                "insulated": ("insulated", shown.yes),
                "filled_on": ("filled", shown.day),
                "topped_up_on": (lazy("topped up"), shown.day),
                "matted_until": (lazy("under a mat until"), shown.day),
            },
            shown.at_place,
        ),
        shown.Kind(
            "hotbed_tray",
            HotbedTray,
            "place__garden",
            lambda row, units: _("{name} on the hotbed {hotbed}").format(name=row.place.name, hotbed=row.hotbed.name),
            {"first": ("from", shown.day), "last": ("to", shown.day)},
            shown.at_place,
        ),
        shown.Kind(
            "trial",
            CoverTrial,
            "covered__garden",
            lambda row, units: _("Trial of {name} against {name2}").format(name=row.covered.name, name2=row.bare.name),
            {"begun_on": ("since", shown.day), "ended_on": ("to", shown.day), "depth_m": ("depth", shown.length)},
            lambda row: None,
        ),
        shown.Kind(
            "intention",
            Intention,
            "place__garden",
            lambda row, units: _("{crop} meant for {name}").format(crop=shown.crop(row), name=row.place.name),
            {"sow_on": ("on", shown.day), "dropped_at": (lazy("given up"), shown.yes)},
            lambda row: None,
        ),
        shown.Kind(
            "operation",
            Operation,
            "place__garden",
            lambda row, units: f"{words.sentence(work_name(row.work))}, {row.place.name}, {shown.instant(row, row.at)}",
            {"work": ("what", shown.plain), "amount": ("amount", shown.plain)},
            shown.at_place,
        ),
        shown.Kind(
            "visit",
            Visit,
            "place__garden",
            lambda row, units: _("Visit to {name}, {instant}").format(name=row.place.name, instant=shown.instant(row, row.at)),
            {
                "air_c": ("air", shown.temperature),
                "air_low_c": (lazy("lowest air"), shown.temperature),
                "air_high_c": (lazy("highest air"), shown.temperature),
                "moisture": (lazy("by feel"), shown.plain),
                "snow_m": ("snow", shown.length),
                "losses": (lazy("what stood, what died"), shown.plain),
                "note": ("note", shown.plain),
            }
            | shown.REMOVED,
            shown.at_place,
        ),
        shown.Kind(
            "sowing",
            Sowing,
            "place__garden",
            lambda row, units: _("{crop} sown in {name}, {day}").format(
                crop=shown.crop(row), name=row.place.name, day=words.day(row.sown_on)
            ),
            {
                "sown_on": (lazy("sown on"), shown.day),
                "seeds": ("seeds", shown.plain),
                "depth_m": ("depth", shown.length),
                "finished": ("finished", shown.yes),
            }
            | shown.REMOVED,
            shown.at_place,
        ),
        shown.Kind(
            "step",
            Step,
            "sowing__place__garden",
            lambda row, units: _("{what}: {crop} in {name}, {day}").format(
                what=words.sentence(str(Step.Kind(row.kind).label)),
                crop=shown.crop(row.sowing),
                name=row.sowing.place.name,
                day=words.day(row.on),
            ),
            {"on": ("on", shown.day), "cell_m": (lazy("into cells of"), shown.length)},
            lambda row: shown.at_place(row.sowing),
        ),
        shown.Kind(
            "heat",
            HeatPeriod,
            "place__garden",
            lambda row, units: _("{source} in {name}").format(
                source=words.sentence(str(HeatPeriod.Kind(row.source).label)), name=row.place.name
            ),
            {
                "first": ("from", shown.day),
                "last": ("to", shown.day),
                "watts": (lazy("watts"), shown.plain),
                "control": (lazy("switched by"), shown.plain),
                "start_c": (lazy("on below"), shown.temperature),
                "stop_c": (lazy("off above"), shown.temperature),
                "probe": (lazy("its probe"), shown.plain),
                "lift_k": (lazy("lifts, K"), shown.plain),
            },
            shown.at_place,
        ),
        shown.Kind(
            "fill",
            HotbedFill,
            "place__garden",
            lambda row, units: _("Fill of the hotbed {name}, {day}").format(name=row.place.name, day=words.day(row.on)),
            {"on": ("on", shown.day), "material": (lazy("made of"), shown.plain), "depth_m": ("depth", shown.length)},
            shown.at_place,
        ),
        shown.Kind(
            "hotbed_note",
            HotbedNote,
            "place__garden",
            lambda row, units: _("Diary of the hotbed {name}, {day}").format(name=row.place.name, day=words.day(row.on)),
            {
                "core_c": (lazy("core"), shown.temperature),
                "height_m": (lazy("height"), shown.length),
                "note": ("note", shown.plain),
            },
            lambda row: None,
        ),
        shown.Kind(
            "heat_test",
            HeatTest,
            "place__garden",
            lambda row, units: _("Test of the heater in {name}, {day}").format(name=row.place.name, day=words.day(row.on)),
            {"minutes": (lazy("minutes"), shown.plain)},
            lambda row: None,
        ),
        shown.Kind(
            "lamp",
            Lamp,
            "place__garden",
            lambda row, units: _("Lamp over {name}").format(name=row.place.name),
            {
                "first": ("from", shown.day),
                "last": ("to", shown.day),
                "watts": (lazy("watts"), shown.plain),
                "away_m": (lazy("height"), shown.length),
                "spans": (lazy("lit"), lambda v, u: spans_text(v)),
            },
            shown.at_place,
        ),
        shown.Kind(
            "room",
            Room,
            "garden",
            lambda row, units: _("Room {name}").format(name=row.name),
            {
                "name": ("name", shown.plain),
                "kind": ("kind", shown.plain),
                "night_c": (lazy("its nights"), shown.temperature),
                "day_c": (lazy("its days"), shown.temperature),
            }
            | shown.REMOVED,
            lambda row: note_change_in(Garden.objects.get(pk=row.garden_id)),
        ),
        shown.Kind(
            "room_air",
            RoomAir,
            "room__garden",
            lambda row, units: _("Air in {name}, {day}").format(
                name=row.room.name, day=words.day(row.at.astimezone(row.room.garden.timezone).date())
            ),
            {"temperature_c": ("temperature", shown.temperature), "what": (lazy("what"), shown.plain)},
            lambda row: note_change_in(Garden.objects.get(pk=row.room.garden_id)),
        ),
        *PLANT_KINDS,
        shown.Kind(
            "count",
            Count,
            "sowing__place__garden",
            lambda row, units: _("Count of {crop} in {name}, {day}").format(
                crop=shown.crop(row.sowing), name=row.sowing.place.name, day=words.day(row.on)
            ),
            {"up": ("up", shown.plain)},
            lambda row: shown.at_place(row.sowing),
        ),
    )
}
