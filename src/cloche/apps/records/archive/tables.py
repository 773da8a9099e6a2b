"""The tables of the archive, in the order in which they rest on each other.

Numbers in them count from 1 within the file and mean nothing outside it. What was removed, people, tokens and history stay
out.
"""

from __future__ import annotations

from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.selectors import zone_words
from cloche.apps.loggers.forms import channel_name
from cloche.apps.loggers.mapped import check_pointer
from cloche.apps.loggers.models import Device, LoggedHour, MessageMapping, Probe
from cloche.apps.loggers.selectors import STILL_THERE
from cloche.apps.places.models import Operation, Place
from cloche.apps.readings.flows.record import TEXTS
from cloche.apps.readings.models import Reading, Visit
from cloche.apps.records.archive.bench_tables import BENCH_TABLES, DIARY_TABLES, ROOM_TABLES, STEP_TABLES
from cloche.apps.records.archive.columns import Column
from cloche.apps.records.archive.cover_tables import COVER_TABLES, GERMINATION_TABLES, MEANT_TABLES
from cloche.apps.records.archive.plant_tables import PLANT_TABLES
from cloche.apps.records.archive.table import Table, crop_keys, place_column, texts
from cloche.apps.seed.models import MOST_TESTED, CropChoice, Packet
from cloche.apps.seed.own_crops import check_own
from cloche.apps.seed.values import check_values
from cloche.apps.shared.fields import MOST_MONEY
from cloche.apps.shared.sources import Source
from cloche.apps.sowings.models import Count, Sowing
from cloche.apps.weather.models import DailyWeather
from cloche.bridge.values import border
from cloche.bridge.values.units import Units
from cloche_engine.places.kinds import place_kinds
from cloche_engine.quantities import AIR_C, DEPTH_M, RAIN_MM, SNOW_M, SOIL_C, WIND_M_S
from cloche_engine.soil.bed import Work


def hardiness_zone(zone: str) -> None:
    """Check that a hardiness zone is None or valid. Raises OutOfRange."""
    if zone:
        zone_words(zone, Units())


WORKS = tuple(str(work) for work in Work)


TABLES = (
    *ROOM_TABLES,
    Table(
        "places",
        "Beds, frames, trays: ground that is measured and sown, in walking order.",
        Place,
        (
            Column("number", "integer", "Number of the place in this file."),
            Column("name", "string", "What its people call it.", most=60),
            Column("kind", "string", "What it is.", one_of=tuple(place_kinds())),
            Column("seed_depth_m", "number", "Depth at which it is read and sown.", "m", within=(0.005, 0.5)),
            Column("texture", "string", "Its soil.", one_of=texts(Place.Texture.choices)),
            Column("slope_deg", "number", "Slope.", "degree", within=(0, 60)),
            Column("aspect_deg", "number", "The way it slopes, from north through east.", "degree", within=(0, 360)),
            Column("shaded_from_h", "integer", "First hour without sun, standard time.", "h", optional=True, within=(0, 23)),
            Column("shaded_to_h", "integer", "Hour at which the sun is back.", "h", optional=True, within=(0, 24)),
            Column("width_m", "number", "Width of the cover or the raised bed.", "m", within=(0.1, 20)),
            Column("within", "string", "The house in which it stands, if any.", one_of=("", *texts(Place.House.choices))),
            Column("room", "integer", "Number of the room in rooms.csv.", optional=True, later=True),
            Column(
                "window_aspect_deg", "number", "The way its window looks.", "degree", optional=True, within=(0, 360), later=True
            ),
            Column("window_shade", "number", "Share of its light that is taken.", within=(0, 1), later=True),
            Column("window_away_m", "number", "From the window to it.", "m", within=(0, 10), later=True),
        ),
        ("walking_order", "name"),
        number="number",
        refers={"room": "rooms"},
    ),
    *COVER_TABLES,
    *BENCH_TABLES,
    *DIARY_TABLES,
    Table(
        "operations",
        "What was done to places.",
        Operation,
        (
            Column("number", "integer", "Number of the operation in this file."),
            place_column(),
            Column("work", "string", "What was done.", one_of=WORKS),
            Column("at", "datetime", "When."),
            Column(
                "amount",
                "number",
                "mm of water, m of mulch or compost, 0 to 1 of an opening; 0: the usual.",
                within=(0, 1000),
            ),
        ),
        ("place__walking_order", "place__name", "at", "work", "amount"),
        number="number",
        refers={"place": "places"},
    ),
    Table(
        "visits",
        "Stops of a round: what was seen besides the soil's temperature. A picture lies in photos/ under the visit's number.",
        Visit,
        (
            Column("number", "integer", "Number of the visit in this file."),
            place_column(),
            Column("at", "datetime", "When."),
            Column("air_c", "number", "Air in the cover at that moment.", "°C", optional=True, within=AIR_C),
            Column("air_low_c", "number", "Lowest air since reset.", "°C", optional=True, within=AIR_C),
            Column("air_high_c", "number", "Highest air since reset.", "°C", optional=True, within=AIR_C),
            Column("moisture", "string", "Soil by feel.", one_of=("", *texts(Visit.Moisture.choices))),
            Column("snow_m", "number", "Snow lying.", "m", optional=True, within=SNOW_M),
            Column("note", "string", "Note."),
            Column("losses", "string", "What stood, what died."),
        ),
        ("place__walking_order", "place__name", "at", "note", "id"),
        number="number",
        refers={"place": "places"},
    ),
    Table(
        "visit_operations",
        "Which operations were done on which visit.",
        Visit.operations.through,
        (
            Column("visit", "integer", "Number of the visit in visits.csv."),
            Column("operation", "integer", "Number of the operation in operations.csv."),
        ),
        ("visit__place__walking_order", "visit__place__name", "visit__at", "visit_id", "operation__work", "operation_id"),
        refers={"visit": "visits", "operation": "operations"},
        only={"visit__removed_at__isnull": True, "visit__place__removed_at__isnull": True},
    ),
    Table(
        "readings",
        "Settled soil temperatures that were written down or came from files.",
        Reading,
        (
            place_column(),
            Column("taken_at", "datetime", "When it was read."),
            Column("depth_m", "number", "Depth of the probe.", "m", within=DEPTH_M),
            Column("temperature_c", "number", "Soil temperature.", "°C", within=SOIL_C),
            *(Column(name, "string", text.meaning, later=text.later) for name, text in TEXTS.items()),
            Column("source", "string", "How it came.", one_of=texts(Source.choices)),
            Column("review", "string", "A grower's word on a doubtful one.", one_of=("", *texts(Reading.Review.choices))),
            Column("visit", "integer", "Number of the visit in visits.csv.", optional=True),
        ),
        ("place__walking_order", "place__name", "taken_at", "depth_m"),
        refers={"place": "places", "visit": "visits"},
    ),
    Table(
        "weather",
        "The air of local days, as written down or brought in; a day ahead is a forecast.",
        DailyWeather,
        (
            Column("day", "date", "Local day."),
            Column("low_c", "number", "Lowest air.", "°C", within=AIR_C),
            Column("high_c", "number", "Highest air.", "°C", within=AIR_C),
            Column("rain_mm", "number", "Rain.", "mm", optional=True, within=RAIN_MM),
            Column("sky", "string", "Sky.", one_of=("", *texts(DailyWeather.Sky.choices))),
            Column("wind_m_s", "number", "Wind at two metres.", "m/s", optional=True, within=WIND_M_S),
            Column("snow_m", "number", "Snow lying in the morning.", "m", optional=True, within=SNOW_M),
            Column("source", "string", "How it came.", one_of=texts(Source.choices)),
        ),
        ("day",),
    ),
    Table(
        "packets",
        "Packets of seed: variety, lot, and what they say of their crop.",
        Packet,
        (
            Column("number", "integer", "Number of the packet in this file."),
            Column("crop_key", "string", "Crop.", one_of=crop_keys),
            Column("variety", "string", "Variety.", most=60),
            Column("packed_year", "integer", "Year in which it was packed.", optional=True, within=(1950, 2200)),
            Column("tested_of", "integer", "Seeds laid out in a test.", optional=True, within=(0, MOST_TESTED)),
            Column("tested_up", "integer", "How many of them germinated.", optional=True, within=(0, MOST_TESTED)),
            Column("price", "number", "What it cost.", optional=True, within=(0, MOST_MONEY)),
            Column("values", "object", "Values by name that overrule the catalogue's.", check=check_values),
            Column("in_use", "boolean", "Whether windows go by it."),
        ),
        ("crop_key", "-in_use", "variety", "packed_year", "price", "id"),
        number="number",
    ),
    Table(
        "crop_choices",
        "How single crops are gone about, where that differs.",
        CropChoice,
        (
            Column("crop_key", "string", "Crop.", one_of=crop_keys),
            Column("sowing_rule", "string", "When to sow.", one_of=("", *texts(Garden.SowingRule.choices))),
            Column("method", "string", "Sown in place or planted out.", one_of=("", "direct", "transplanted")),
        ),
        ("crop_key",),
    ),
    Table(
        "sowings",
        "Seed that was put into places.",
        Sowing,
        (
            Column("number", "integer", "Number of the sowing in this file."),
            place_column(),
            Column("packet", "integer", "Number of the packet in packets.csv.", optional=True),
            Column("crop_key", "string", "Crop.", one_of=crop_keys),
            Column("sown_on", "date", "Day."),
            Column("seeds", "integer", "How many.", optional=True, within=(1, 1_000_000)),
            Column("depth_m", "number", "How deep.", "m", within=(0, 0.5)),
            Column("finished", "boolean", "Whether nothing more is expected of it."),
            Column("sown_in", "integer", "The place in which it was sown, if it left it.", optional=True, later=True),
            Column("cell_m", "number", "Width of its cells.", "m", optional=True, within=(0.01, 0.5), later=True),
            Column(
                "heat_off_rule",
                "string",
                "When it comes off the heat.",
                one_of=("", *texts(Garden.HeatOffRule.choices)),
                later=True,
            ),
        ),
        ("place__walking_order", "place__name", "sown_on", "crop_key", "id"),
        number="number",
        refers={"place": "places", "packet": "packets", "sown_in": "places"},
    ),
    *STEP_TABLES,
    *PLANT_TABLES,
    *GERMINATION_TABLES,
    Table(
        "counts",
        "How many were up on a day.",
        Count,
        (
            Column("sowing", "integer", "Number of the sowing in sowings.csv."),
            Column("on", "date", "Day."),
            Column("up", "integer", "How many were up.", within=(0, 1_000_000)),
        ),
        ("sowing__place__walking_order", "sowing__place__name", "sowing__sown_on", "sowing__crop_key", "sowing_id", "on"),
        refers={"sowing": "sowings"},
        only={"sowing__removed_at__isnull": True, "sowing__place__removed_at__isnull": True},
    ),
    *MEANT_TABLES,
    Table(
        "loggers",
        "Devices that read by themselves. Their tokens are not in this file; each needs a new one.",
        Device,
        (
            Column("number", "integer", "Number of the logger in this file."),
            Column("name", "string", "What its people call it.", most=60),
            Column("unit", "string", "What it measures in.", one_of=texts(Device.Unit.choices)),
        ),
        ("name", "id"),
        number="number",
    ),
    Table(
        "probes",
        "Where the channels of loggers stick, from one instant to another: in a place, or in the air of a room.",
        Probe,
        (
            Column("number", "integer", "Number of the probe in this file."),
            Column("device", "integer", "Number of the logger in loggers.csv."),
            Column("channel", "string", "Its channel.", most=40, check=channel_name),
            place_column(optional=True),
            Column("room", "integer", "Number of the room in rooms.csv.", optional=True, later=True),
            Column("depth_m", "number", "Depth.", "m", within=DEPTH_M),
            Column("in_air", "boolean", "Whether it hangs in the air among the plants."),
            Column("since", "datetime", "Since when; empty: from the first value on.", optional=True),
            Column("until", "datetime", "Until when; empty: it sticks there now.", optional=True),
            Column("last_at", "datetime", "Time of its newest sound value.", optional=True),
            Column("last_c", "number", "Its newest sound value.", "°C", optional=True, within=(-200, 200)),
            Column("every_s", "integer", "Usual time between two values.", "s", optional=True, within=(0, 100_000_000)),
        ),
        ("device__name", "device_id", "channel", "since", "id"),
        number="number",
        refers={"device": "loggers", "place": "places", "room": "rooms"},
        only=STILL_THERE,
    ),
    Table(
        "message_mappings",
        "Where in a logger's own messages over HTTP its values stand, by JSON Pointer. Topics of a broker are not here.",
        MessageMapping,
        (
            Column("device", "integer", "Number of the logger in loggers.csv."),
            Column("each", "string", "List of values.", most=120, check=check_pointer),
            Column("value", "string", "Temperature.", most=120, check=check_pointer),
            Column("at", "string", "Time.", most=120, check=check_pointer),
            Column("channel", "string", "Channel.", most=120, check=check_pointer),
        ),
        ("device__name", "device_id"),
        refers={"device": "loggers"},
        only={"topic": ""},
        later=True,
    ),
    Table(
        "words_on_hours",
        "A grower's word on hours of a logger.",
        LoggedHour,
        (
            Column("probe", "integer", "Number of the probe in probes.csv."),
            Column("hour", "datetime", "Start of the hour."),
            Column("review", "string", "The word.", one_of=texts(Reading.Review.choices)),
        ),
        ("probe__device__name", "probe__device_id", "probe__channel", "probe__since", "probe_id", "hour"),
        refers={"probe": "probes"},
        only={"review__in": texts(Reading.Review.choices), **{f"probe__{way}": at for way, at in STILL_THERE.items()}},
    ),
)
LOGGED = (
    Column("probe", "integer", "Number of the probe in probes.csv."),
    Column("at", "datetime", "Time by the device's own clock."),
    Column("temperature_c", "number", "Value as sent, turned to °C; a fault's code stays as it is.", "°C", within=(-2e6, 2e6)),
    Column("shift_s", "integer", "Seconds to add for a right clock.", "s", within=(-100_000, 100_000)),
    Column(
        "fault",
        "integer",
        "0: none; 1: no answer; 2: just switched on; 3: no soil's temperature.",
        within=(0, 3),
    ),
)
GARDEN = (
    Column("name", "string", "What its people call it.", most=80),
    Column("latitude_deg", "number", "Latitude, south negative.", "degree", within=(-80, 80)),
    Column("longitude_deg", "number", "Longitude, west negative.", "degree", within=(-180, 180)),
    Column("elevation_m", "number", "Height above the sea.", "m", within=(-430, 5000)),
    Column("timezone_name", "string", "Its clock.", most=60, check=border.zone),
    Column("sowing_rule", "string", "When its people sow.", one_of=texts(Garden.SowingRule.choices)),
    Column("watered", "boolean", "Whether seed beds are kept moist."),
    Column("uncover_rule", "string", "When its people take covers off.", one_of=texts(Garden.UncoverRule.choices)),
    Column("away_from_h", "integer", "Nobody is there from this hour.", "h", optional=True, within=(0, 23)),
    Column("away_to_h", "integer", "Nobody is there until this hour.", "h", optional=True, within=(0, 24)),
    Column(
        "names",
        "string",
        "American or British names of crops; empty: as is usual there.",
        one_of=("", *texts(Garden.Names.choices)),
    ),
    Column("zone", "string", "Winter-hardiness zone, as told.", most=4, check=hardiness_zone),
    Column("own_crops", "object", "Crops of its own making, by key.", check=check_own),
    Column("crops", "string", "Keys of the crops its people grow, a blank between them; none: the usual.", most=4000),
    Column("heat_off_rule", "string", "When heat goes off.", one_of=texts(Garden.HeatOffRule.choices), later=True),
    Column("bring_in_c", "number", "Trays outdoors come in below.", "°C", within=(-15, 15), later=True),
    Column("price_kwh", "number", "What a kilowatt hour costs.", optional=True, within=(0, MOST_MONEY), later=True),
)
NORMALS = (
    Column("month", "integer", "Month of the year.", within=(1, 12)),
    Column("low_c", "number", "Mean lowest air of a day.", "°C", within=AIR_C),
    Column("high_c", "number", "Mean highest air of a day.", "°C", within=AIR_C),
)
