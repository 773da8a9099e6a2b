"""Archive tables of the bench: rooms, air, heat, lamps and the steps of sowings."""

from __future__ import annotations

from typing import Any

from django.core.exceptions import ValidationError

from cloche.apps.places.models import (
    BenchCheck,
    HeatPeriod,
    HeatTest,
    HotbedFill,
    HotbedNote,
    HotbedTray,
    Lamp,
    Room,
    RoomAir,
    TuberTray,
)
from cloche.apps.places.models.bench import MOST_WATTS, sane_spots
from cloche.apps.records.archive.columns import Column
from cloche.apps.records.archive.table import Table, crop_keys, place_column, texts
from cloche.apps.sowings.models import Step
from cloche.bridge.services import hotbeds
from cloche.bridge.values.clocks import check_spans


def _spots(spots: Any) -> None:
    try:
        sane_spots(spots)
    except ValidationError as refusal:
        raise ValueError(refusal.messages[0]) from refusal


SIDE_M, SET_C = (0.05, 20), (-5, 42)
ROOM_TABLES = (
    Table(
        "rooms",
        "Rooms in which trays stand.",
        Room,
        (
            Column("number", "integer", "Number of the room in this file."),
            Column("name", "string", "What its people call it.", most=60),
            Column("kind", "string", "What it is.", one_of=texts(Room.Kind.choices)),
            Column("night_c", "number", "Coldest of its nights.", "°C", optional=True, within=(-20, 40)),
            Column("day_c", "number", "Warmest of its days.", "°C", optional=True, within=(-20, 45)),
        ),
        ("name", "id"),
        number="number",
        later=True,
    ),
)
BENCH_TABLES = (
    Table(
        "room_air",
        "Air that was read in rooms.",
        RoomAir,
        (
            Column("room", "integer", "Number of the room in rooms.csv."),
            Column("what", "string", "Now, lowest or highest.", one_of=texts(RoomAir.What.choices)),
            Column("at", "datetime", "When it was read."),
            Column("since", "datetime", "When an extreme's thermometer was set back.", optional=True),
            Column("temperature_c", "number", "Air.", "°C", within=(-40, 60)),
        ),
        ("room__name", "at", "what"),
        refers={"room": "rooms"},
        only={"room__removed_at__isnull": True},
        later=True,
    ),
    Table(
        "heat",
        "What warmed places, from one day to another.",
        HeatPeriod,
        (
            place_column(),
            Column("source", "string", "What it is.", one_of=texts(HeatPeriod.Kind.choices)),
            Column("first", "date", "First day."),
            Column("last", "date", "Last day; empty while it is there.", optional=True),
            Column("watts", "number", "Power of all of it.", "W", optional=True, within=(0.5, MOST_WATTS)),
            Column("cable_m", "number", "Length of its cable.", "m", optional=True, within=(0.5, 500)),
            Column("cable_w_m", "number", "Power of a metre of it.", "W/m", optional=True, within=(0.5, 60)),
            Column("length_m", "number", "Length of what it heats.", "m", within=SIDE_M),
            Column("width_m", "number", "Width of what it heats.", "m", within=SIDE_M),
            Column("lift_k", "number", "Measured over the room.", "K", optional=True, within=(0.5, 30)),
            Column("control", "string", "What switches it.", one_of=texts(HeatPeriod.Control.choices)),
            Column("spans", "array", "Hours of its timer: pairs of from and to.", check=check_spans),
            Column("start_c", "number", "On below.", "°C", within=SET_C),
            Column("stop_c", "number", "Off above.", "°C", within=SET_C),
            Column("probe", "string", "Where its probe is.", one_of=texts(HeatPeriod.Probe.choices)),
            Column("over_m", "number", "Layer above a cable.", "m", within=(0, 0.4)),
            Column("under_m", "number", "Layer below a cable.", "m", within=(0, 0.3)),
            Column("filling", "string", "Of what that layer is.", one_of=texts(HeatPeriod.Filling.choices)),
            Column("filling_wet", "boolean", "Whether it is kept moist."),
        ),
        ("place__walking_order", "place__name", "first", "id"),
        refers={"place": "places"},
        later=True,
    ),
    Table(
        "lamps",
        "Lamps over places, from one day to another.",
        Lamp,
        (
            place_column(),
            Column("kind", "string", "What it is.", one_of=texts(Lamp.Kind.choices)),
            Column("first", "date", "First day."),
            Column("last", "date", "Last day; empty while it is there.", optional=True),
            Column("watts", "number", "Power at the plug.", "W", within=(1, MOST_WATTS)),
            Column("ppfd", "number", "Light at the leaves, measured.", "µmol/m²s", optional=True, within=(1, 2500)),
            Column("length_m", "number", "Length of what it lights.", "m", within=SIDE_M),
            Column("width_m", "number", "Width of what it lights.", "m", within=SIDE_M),
            Column("away_m", "number", "Height above the leaves.", "m", within=(0.02, 3)),
            Column("spans", "array", "Hours in which it is lit: pairs of from and to.", check=check_spans),
        ),
        ("place__walking_order", "place__name", "first", "id"),
        refers={"place": "places"},
        later=True,
    ),
)
DIARY_TABLES = (
    Table(
        "hotbed_fills",
        "What hotbeds were filled with again.",
        HotbedFill,
        (
            place_column(),
            Column("on", "date", "Day."),
            Column("material", "string", "Material.", one_of=texts(hotbeds.materials())),
            Column("depth_m", "number", "Depth of the material.", "m", within=(0.05, 2)),
            Column("moist", "string", "How moist it was filled.", one_of=texts(hotbeds.moistures())),
            Column("trodden", "string", "How firmly it was trodden.", one_of=texts(hotbeds.treads())),
        ),
        ("place__walking_order", "place__name", "on", "id"),
        refers={"place": "places"},
        later=True,
    ),
    Table(
        "hotbed_trays",
        "Trays that stood on hotbeds.",
        HotbedTray,
        (
            place_column(),
            Column("hotbed", "integer", "Number of the hotbed in places.csv."),
            Column("first", "date", "First day."),
            Column("last", "date", "Last day; empty while it is there.", optional=True),
        ),
        ("place__walking_order", "place__name", "first", "id"),
        refers={"place": "places", "hotbed": "places"},
        only={"hotbed__removed_at__isnull": True},
        later=True,
    ),
    Table(
        "hotbed_notes",
        "Diaries of hotbeds.",
        HotbedNote,
        (
            place_column(),
            Column("on", "date", "Day."),
            Column("core_c", "number", "Its core.", "°C", optional=True, within=(-10, 90)),
            Column("height_m", "number", "How high the heap still stands.", "m", optional=True, within=(0, 2.5)),
            Column("note", "string", "In words.", most=200),
        ),
        ("place__walking_order", "place__name", "on", "id"),
        refers={"place": "places"},
        later=True,
    ),
    Table(
        "heat_tests",
        "Heaters that were tried before the season.",
        HeatTest,
        (
            place_column(),
            Column("on", "date", "Day."),
            Column("minutes", "integer", "From switching on to the set-point.", "min", optional=True, within=(0, 10_000)),
            Column("spots", "array", "Read at nine spots, row by row, in °C; null where nobody read.", check=_spots),
        ),
        ("place__walking_order", "place__name", "on", "id"),
        refers={"place": "places"},
        later=True,
    ),
    Table(
        "bench_checks",
        "Checks of heaters before the season.",
        BenchCheck,
        (
            place_column(),
            Column("item", "string", "What was checked.", one_of=texts(BenchCheck.Item.choices)),
            Column("on", "date", "Day of the latest check."),
        ),
        ("place__walking_order", "place__name", "id"),
        refers={"place": "places"},
        later=True,
    ),
    Table(
        "tuber_trays",
        "Seed potatoes that were set out to sprout.",
        TuberTray,
        (
            place_column(),
            Column("crop_key", "string", "Key of the crop.", one_of=crop_keys),
            Column("variety", "string", "Variety.", most=60),
            Column("tubers", "integer", "How many.", within=(1, 10_000)),
            Column("set_out_on", "date", "Day on which they were set out."),
            Column("plant_on", "date", "Day on which they are to be planted."),
            Column("planted_on", "date", "Day on which they were planted.", optional=True),
        ),
        ("place__walking_order", "place__name", "set_out_on", "id"),
        refers={"place": "places"},
        later=True,
    ),
)
STEP_TABLES = (
    Table(
        "steps",
        "What happened to sowings after they were sown.",
        Step,
        (
            Column("sowing", "integer", "Number of the sowing in sowings.csv."),
            Column("kind", "string", "What happened.", one_of=texts(Step.Kind.choices)),
            Column("on", "date", "Day."),
            Column("place", "integer", "Where it stood from then on.", optional=True),
            Column("left", "integer", "The place that it left.", optional=True),
            Column("cell_m", "number", "Width of its new cells or pots.", "m", optional=True, within=(0.01, 0.5)),
            Column("start_c", "number", "New temperature at which the thermostat starts.", "°C", True, (-5, 42), later=True),
            Column("start_before_c", "number", "The same before.", "°C", True, (-5, 42), later=True),
        ),
        ("sowing__place__walking_order", "sowing__sown_on", "sowing__crop_key", "sowing_id", "on", "id"),
        refers={"sowing": "sowings", "place": "places", "left": "places"},
        only={"sowing__removed_at__isnull": True, "sowing__place__removed_at__isnull": True},
        later=True,
    ),
)
