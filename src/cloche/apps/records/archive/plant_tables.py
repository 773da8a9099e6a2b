"""Archive tables of plantings and their events."""

from __future__ import annotations

from cloche.apps.plants.models import APART_M, HEIGHT_M, MOST_KG, MOST_PLANTS, SIDE_M, BedShape, PlantEvent, Planting, SavedSeed
from cloche.apps.records.archive.columns import Column
from cloche.apps.records.archive.table import Table, crop_keys, place_column, texts
from cloche.apps.years.models import Sign

SPOT_M = (0.0, 60.0)


def _crop_or_none() -> tuple[str, ...]:
    """Return the crop keys together with the empty key of reserved ground."""
    return ("", *crop_keys())


PLANT_TABLES = (
    Table(
        "bed_shapes",
        "How large beds are, for their plans.",
        BedShape,
        (
            place_column(),
            Column("length_m", "number", "Length.", "m", within=(0.2, 60)),
            Column("width_m", "number", "Width.", "m", within=(0.2, 20)),
            Column("square_m", "number", "Side of its squares.", "m", within=(0.05, 2)),
            Column("runs_deg", "number", "The way its length runs, from north through east.", "degree", within=(0, 180)),
        ),
        ("place__walking_order", "place__name"),
        refers={"place": "places"},
        later=True,
    ),
    Table(
        "plantings",
        "Plants of one crop in one place: planned, there or past.",
        Planting,
        (
            Column("number_here", "integer", "Number of the planting in this file."),
            place_column(),
            Column("packet", "integer", "Number of the packet in packets.csv.", optional=True),
            Column("sowing", "integer", "Number of the sowing in sowings.csv.", optional=True),
            Column("crop_key", "string", "Key of the crop; empty: ground left for later.", one_of=_crop_or_none),
            Column("origin", "string", "Where they come from.", one_of=texts(Planting.Origin.choices)),
            Column("planned_on", "date", "Meant for.", optional=True),
            Column("planted_on", "date", "Done on.", optional=True),
            Column("ended_on", "date", "Its last day.", optional=True),
            Column("number", "integer", "Plants, counted.", optional=True, within=(1, MOST_PLANTS)),
            Column("height_m", "number", "Height when set out.", "m", optional=True, within=HEIGHT_M),
            Column("x_m", "number", "From the left end of the bed.", "m", optional=True, within=SPOT_M),
            Column("y_m", "number", "From the upper edge of the bed.", "m", optional=True, within=SPOT_M),
            Column("length_m", "number", "Length of the patch.", "m", within=SIDE_M),
            Column("width_m", "number", "Width of the patch.", "m", within=SIDE_M),
            Column("layout", "string", "How it is laid out.", one_of=texts(Planting.Layout.choices)),
            Column("plant_m", "number", "Between plants; empty: the crop's own.", "m", optional=True, within=APART_M),
            Column("row_m", "number", "Between rows; empty: the crop's own.", "m", optional=True, within=APART_M),
            Column("per_station", "integer", "Seeds together; empty: the crop's own.", optional=True, within=(1, 20)),
            Column("thinning", "string", "What is pulled young.", one_of=texts(Planting.Thinning.choices)),
            Column("note", "string", "In words.", most=200),
        ),
        ("place__walking_order", "place__name", "y_m", "x_m", "id"),
        number="number_here",
        refers={"place": "places", "packet": "packets", "sowing": "sowings"},
        later=True,
    ),
    Table(
        "plant_events",
        "What was seen or done at plantings.",
        PlantEvent,
        (
            Column("planting", "integer", "Number of the planting in plantings.csv."),
            Column("kind", "string", "What it was.", one_of=texts(PlantEvent.Kind.choices)),
            Column("on", "date", "Day."),
            Column("number", "integer", "How many plants.", optional=True, within=(1, MOST_PLANTS)),
            Column("weight_kg", "number", "What they weighed.", "kg", optional=True, within=(0, MOST_KG)),
            Column("height_m", "number", "How tall they were.", "m", optional=True, within=HEIGHT_M),
            Column("cause", "string", "What they died of; empty: not known.", one_of=texts(PlantEvent.Cause.choices)),
            Column("lowest_c", "number", "Coldest among them in the night.", "°C", optional=True, within=(-60, 40)),
            Column("note", "string", "In words.", most=200),
        ),
        ("planting__place__walking_order", "planting__place__name", "planting_id", "on", "id"),
        refers={"planting": "plantings"},
        only={"planting__removed_at__isnull": True, "planting__place__removed_at__isnull": True},
        later=True,
    ),
    Table(
        "saved_seed",
        "Packets of seed that was saved from plantings.",
        SavedSeed,
        (
            Column("packet", "integer", "Number of the packet in packets.csv."),
            Column("planting", "integer", "Number of the planting in plantings.csv."),
        ),
        ("packet__crop_key", "packet__variety", "packet__packed_year", "packet_id"),
        refers={"packet": "packets", "planting": "plantings"},
        only={
            "packet__removed_at__isnull": True,
            "planting__removed_at__isnull": True,
            "planting__place__removed_at__isnull": True,
        },
        later=True,
    ),
    Table(
        "signs",
        "What was seen first in nature.",
        Sign,
        (Column("name", "string", "What was seen.", most=60), Column("on", "date", "Day.")),
        ("on", "name", "id"),
        later=True,
    ),
)
