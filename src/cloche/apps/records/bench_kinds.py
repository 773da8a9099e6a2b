"""How the history describes records of heat, lamps, hotbeds and rooms."""

from __future__ import annotations

from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows import note_change_in
from cloche.apps.places.models import BenchCheck, HeatPeriod, HeatTest, HotbedFill, HotbedNote, Lamp, Room, RoomAir, TuberTray
from cloche.apps.records.kind import REMOVED, Kind, at_place, crop, day, length, plain, temperature
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.bridge.values.clocks import spans_text

BENCH_KINDS = (
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
        at_place,
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
        "bench_check",
        BenchCheck,
        "place__garden",
        lambda row, units: _("Check of the heater in {name}: {item}").format(name=row.place.name, item=row.get_item_display()),
        {"on": (lazy("date"), day)},
        lambda row: None,
    ),
    Kind(
        "tuber_tray",
        TuberTray,
        "place__garden",
        lambda row, units: _("{crop} set out to sprout in {name}, {day}").format(
            crop=crop(row), name=row.place.name, day=words.day(row.set_out_on)
        ),
        {
            "variety": (lazy("variety"), plain),
            "tubers": (lazy("seed potatoes"), plain),
            "plant_on": (lazy("planting date"), day),
            "planted_on": (lazy("planted on"), day),
        }
        | REMOVED,
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
)
