"""Tables of germination trials."""

from __future__ import annotations

from cloche.apps.records.archive.columns import Column
from cloche.apps.records.archive.table import Table, crop_keys
from cloche.apps.trials.models import MOST_SEEDS, WARMTH_C, GerminationTrial, TrialBatch, TrialCount

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
