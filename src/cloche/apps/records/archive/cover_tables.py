"""Archive tables of covers and trials."""

from __future__ import annotations

from cloche.apps.covers.models import CoverTrial
from cloche.apps.places.models import Cover, CoverDamage, CoverPeriod, Hotbed
from cloche.apps.places.models.covers import COVERED_M
from cloche.apps.records.archive.columns import Column
from cloche.apps.records.archive.table import Table, crop_keys, place_column, texts
from cloche.apps.shared.fields import MOST_MONEY
from cloche.apps.sowings.models import Intention
from cloche.apps.trials.models import MOST_SEEDS, WARMTH_C, GerminationTrial, TrialBatch, TrialCount
from cloche.bridge.services import hotbeds, offered
from cloche_engine.quantities import AIR_C, DEPTH_M

COVERS = tuple(key for key, _ in offered.cover_names())

COVER_TABLES = (
    Table(
        "own_covers",
        "Covers that the garden owns.",
        Cover,
        (
            Column("number", "integer", "Number of the cover in this file."),
            Column("kind", "string", "Its kind.", one_of=COVERS),
            Column("name", "string", "What its people call it.", most=60),
            Column("length_m", "number", "Length along the bed.", "m", within=(0.1, 60)),
            Column("width_m", "number", "Width of the sheet, or across the frame.", "m", within=(0.1, 12)),
            Column("spread_m", "number", "How far apart a bent sheet's edges are set.", "m", optional=True, within=(0.1, 12)),
            Column("low_m", "number", "Height of a frame at its front.", "m", optional=True, within=(0.03, 3), later=True),
            Column("high_m", "number", "Height of a frame at its back.", "m", optional=True, within=(0.03, 3), later=True),
            Column("purchase_year", "integer", "Year in which it was bought.", optional=True, within=(1950, 2200)),
            Column("dirty", "boolean", "Whether it is dirty or clouded."),
            Column("price", "number", "What it cost.", optional=True, within=(0, MOST_MONEY)),
            Column("weight_kg", "number", "Its weight.", "kg", optional=True, within=(0, 500)),
        ),
        ("name", "id"),
        number="number",
    ),
    Table(
        "cover_damage",
        "What happened to covers.",
        CoverDamage,
        (
            Column("cover", "integer", "Number of the cover in own_covers.csv."),
            Column("on", "date", "Day."),
            Column("what", "string", "What it was.", one_of=texts(CoverDamage.What.choices)),
            Column("cause", "string", "What did it.", one_of=texts(CoverDamage.Cause.choices)),
            Column("note", "string", "In words.", most=200),
        ),
        ("cover__name", "on", "id"),
        refers={"cover": "own_covers"},
        only={"cover__removed_at__isnull": True},
        later=True,
    ),
    Table(
        "covers",
        "Covers over places, from one day to another.",
        CoverPeriod,
        (
            place_column(),
            Column("item", "integer", "Number of the garden's own cover in own_covers.csv.", optional=True),
            Column("cover", "string", "Its kind.", one_of=COVERS),
            Column("first", "date", "First day on."),
            Column("last", "date", "Last day on; empty while it is on.", optional=True),
            Column("ends_capped", "boolean", "Whether its ends are closed."),
            Column("opens", "string", "How it is aired.", one_of=texts(CoverPeriod.Opens.choices)),
            Column("above_c", "number", "Opened to stay below this air.", "°C", within=AIR_C),
            Column("from_h", "integer", "Opened from this hour.", "h", within=(0, 23)),
            Column("to_h", "integer", "Opened until this hour.", "h", within=(0, 24)),
            Column("opening", "number", "How far it is opened at most, 0 to 1.", within=(0, 1)),
            Column("blanket", "boolean", "Whether a blanket lies over it at night."),
            Column(
                "covered_m",
                "number",
                "How much of the bed's length lies beneath it; empty: all of it.",
                "m",
                optional=True,
                within=COVERED_M,
                later=True,
            ),
        ),
        ("place__walking_order", "place__name", "first", "cover", "last"),
        refers={"place": "places", "item": "own_covers"},
    ),
    Table(
        "hotbeds",
        "What hotbeds are built of.",
        Hotbed,
        (
            place_column(),
            Column("material", "string", "Material.", one_of=texts(hotbeds.materials())),
            Column("depth_m", "number", "Depth of the material.", "m", within=(0.2, 2)),
            Column("length_m", "number", "Length.", "m", within=(0.3, 50)),
            Column("width_m", "number", "Width.", "m", within=(0.3, 10)),
            Column("moist", "string", "How moist it was filled.", one_of=texts(hotbeds.moistures())),
            Column("trodden", "string", "How firmly it was trodden.", one_of=texts(hotbeds.treads())),
            Column("insulated", "boolean", "Whether its edges are insulated."),
            Column("soil_m", "number", "Earth on top.", "m", within=(0, 0.5)),
            Column("filled_on", "date", "Day on which it was filled."),
            Column("topped_up_on", "date", "Day on which it was topped up.", optional=True),
            Column("matted_until", "date", "A mat lies over it until that day.", optional=True, later=True),
        ),
        ("place__walking_order", "place__name"),
        refers={"place": "places"},
    ),
    Table(
        "trials",
        "Covered places against bare ones; their pairs are readings of both.",
        CoverTrial,
        (
            Column("covered", "integer", "Number of the covered place in places.csv."),
            Column("bare", "integer", "Number of the bare place in places.csv."),
            Column("depth_m", "number", "Depth of both readings.", "m", within=DEPTH_M),
            Column("begun_on", "date", "First day."),
            Column("ended_on", "date", "Last day; empty while it runs.", optional=True),
            Column("alike", "array", "What was seen to: keys."),
        ),
        ("covered__walking_order", "bare__walking_order", "begun_on", "id"),
        refers={"covered": "places", "bare": "places"},
        only={"covered__removed_at__isnull": True, "bare__removed_at__isnull": True},
    ),
)
MEANT_TABLES = (
    Table(
        "intentions",
        "Sowings that are meant to be made.",
        Intention,
        (
            place_column(),
            Column("crop_key", "string", "Crop.", one_of=crop_keys),
            Column("sow_on", "date", "Day."),
            Column("made", "integer", "Number of the sowing that came of it.", optional=True),
        ),
        ("place__walking_order", "place__name", "sow_on", "crop_key", "id"),
        refers={"place": "places", "made": "sowings"},
        only={"dropped_at__isnull": True},
    ),
)


GERMINATION_TABLES = (
    Table(
        "germination_trials",
        "Trials of seed in several warmths.",
        GerminationTrial,
        (
            Column("number", "integer", "Number of the trial in this file."),
            Column("name", "string", "What is tried.", most=60),
            Column("begun_on", "date", "Laid out on."),
            Column("ended_on", "date", "Ended on.", optional=True),
        ),
        ("begun_on", "name", "id"),
        number="number",
        later=True,
    ),
    Table(
        "trial_batches",
        "Seeds of one crop in one warmth.",
        TrialBatch,
        (
            Column("number", "integer", "Number of the batch in this file."),
            Column("trial", "integer", "Number of the trial in germination_trials.csv."),
            Column("crop_key", "string", "Key of the crop.", one_of=crop_keys),
            Column("packet", "integer", "Number of the packet in packets.csv.", optional=True),
            Column("place", "integer", "Number of the place in places.csv.", optional=True),
            Column("warmth_c", "number", "Held at.", "°C", optional=True, within=WARMTH_C),
            Column("seeds", "integer", "Seeds laid out.", within=(1, MOST_SEEDS)),
        ),
        ("trial__begun_on", "trial__name", "trial_id", "crop_key", "warmth_c", "id"),
        number="number",
        refers={"trial": "germination_trials", "packet": "packets", "place": "places"},
        later=True,
    ),
    Table(
        "trial_counts",
        "How many of a batch were up.",
        TrialCount,
        (
            Column("batch", "integer", "Number of the batch in trial_batches.csv."),
            Column("on", "date", "Day."),
            Column("up", "integer", "How many were up.", within=(0, MOST_SEEDS)),
        ),
        ("batch__trial__begun_on", "batch__trial__name", "batch_id", "on"),
        refers={"batch": "trial_batches"},
        later=True,
    ),
)
