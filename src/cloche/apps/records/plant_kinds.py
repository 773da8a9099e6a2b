"""How plantings, trials of seed and signs are shown in the history."""

from __future__ import annotations

from typing import Any

from django.utils.translation import gettext as _

from cloche.apps.plants.models import BedShape, PlantEvent, Planting
from cloche.apps.records import shown
from cloche.apps.shared import words
from cloche.apps.shared.i18n import lazy
from cloche.apps.trials.models import GerminationTrial, TrialBatch, TrialCount
from cloche.apps.years.models import Sign


def _planted(row: Any) -> str:
    return shown.crop(row) if row.crop_key else _("ground left for later")


PLANT_KINDS = (
    shown.Kind(
        "planting",
        Planting,
        "place__garden",
        lambda row, units: _("{crop} planted in {name}").format(crop=_planted(row), name=row.place.name),
        {
            "planned_on": (lazy("meant for"), shown.day),
            "planted_on": (lazy("done on"), shown.day),
            "ended_on": (lazy("gone on"), shown.day),
            "number": (lazy("plants"), shown.plain),
            "x_m": (lazy("from the left end"), shown.length),
            "y_m": (lazy("from the upper edge"), shown.length),
            "length_m": (lazy("length"), shown.length),
            "width_m": (lazy("width"), shown.length),
            "layout": (lazy("laid out"), shown.plain),
            "note": ("note", shown.plain),
        }
        | shown.REMOVED,
        shown.at_place,
    ),
    shown.Kind(
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
            "on": ("on", shown.day),
            "number": (lazy("plants"), shown.plain),
            "weight_kg": (lazy("weight, kg"), shown.plain),
            "height_m": (lazy("height"), shown.length),
        },
        lambda row: shown.at_place(row.planting),
    ),
    shown.Kind(
        "sign",
        Sign,
        "garden",
        lambda row, units: _("{name} seen").format(name=row.name),
        {"name": ("name", shown.plain), "on": ("on", shown.day)},
        lambda row: None,
    ),
    shown.Kind(
        "germination_trial",
        GerminationTrial,
        "garden",
        lambda row, units: _("Germination trial {name}").format(name=row.name),
        {"name": ("name", shown.plain), "begun_on": ("from", shown.day), "ended_on": ("to", shown.day)},
        lambda row: None,
    ),
    shown.Kind(
        "trial_batch",
        TrialBatch,
        "trial__garden",
        lambda row, units: _("{crop} in the trial {name}").format(crop=shown.crop(row), name=row.trial.name),
        {"seeds": (lazy("seeds"), shown.plain), "warmth_c": (lazy("held at"), shown.temperature)},
        lambda row: None,
    ),
    shown.Kind(
        "trial_count",
        TrialCount,
        "batch__trial__garden",
        lambda row, units: _("Count of {crop} in {name}, {day}").format(
            crop=shown.crop(row.batch), name=row.batch.trial.name, day=words.day(row.on)
        ),
        {"up": ("up", shown.plain)},
        lambda row: None,
    ),
    shown.Kind(
        "bed_shape",
        BedShape,
        "place__garden",
        lambda row, units: _("Size of {name}").format(name=row.place.name),
        {
            "length_m": (lazy("length"), shown.length),
            "width_m": (lazy("width"), shown.length),
            "square_m": (lazy("squares"), shown.length),
            "runs_deg": (lazy("runs to, °"), shown.plain),
        },
        lambda row: None,
    ),
)
