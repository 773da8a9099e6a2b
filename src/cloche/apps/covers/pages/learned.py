"""What the garden's covers have shown of themselves, in sentences: by kind, and where it is hard to believe."""

from __future__ import annotations

from cloche.apps.forecasts.pooled import cover_evidence_in
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.bridge.services import covers, pooling
from cloche.bridge.values.stored import CoverEvidence

OF_ONE = {
    "light": ("lets through more light than usual", "lets through less light than usual"),
    "exchange": ("leaks more than usual", "is tighter than usual"),
    "loss": ("keeps less warmth at night than usual", "keeps more warmth at night than usual"),
}
OF_MANY = {
    "light": ("let through more light than usual", "let through less light than usual"),
    "exchange": ("leak more than usual", "are tighter than usual"),
    "loss": ("keep less warmth at night than usual", "keep more warmth at night than usual"),
}
WOULD = {
    "light": "let through {0:.1f} times the light that others of its kind do",
    "exchange": "leak {0:.1f} times as much as others of its kind",
    "loss": "let out {0:.1f} times the warmth that others of its kind do at night",
}
ASKED = {
    "light": "Is it dirtier, older or more shaded than is written down?",
    "exchange": "Is it shut and opened as is written down, with its ends closed?",
    "loss": "Is it the kind that is written down, and does the thermometer hang among the plants, out of the sun?",
}


def learned_lines(garden: Garden) -> list[str]:
    """Covers and kinds that are clearly unlike the usual here, then places that are asked about."""
    found = cover_evidence_in(garden)
    told = [told for _, told in found]
    names = dict(garden.covers.values_list("pk", "name"))
    lines = [_of_one(one, *found[one.number or 0], names) for one in pooling.of_each(told)]
    lines += [_of_kind(one) for one in pooling.of_kinds(told)]
    return lines + [line for place, one in found for line in _asked(place, one)]


def _of_one(one: pooling.Found, place: Place, told: CoverEvidence, names: dict[int, str]) -> str:
    who = (names.get(told.item) if told.item is not None else None) or f"The {covers.name_of(one.key)} on {place.name}"
    return f"{who} {OF_ONE[one.name][one.middle < 1]} ({_times(one)})."


def _of_kind(one: pooling.Found) -> str:
    tell = f"{words.count(one.places, 'place')} tell so"
    return (
        f"All your covers of the kind “{covers.name_of(one.key)}” {OF_MANY[one.name][one.middle < 1]} ({_times(one)}): {tell}."
    )


def _times(one: pooling.Found) -> str:
    return f"{one.middle:.1f} times, surely between {one.low:.1f} and {one.high:.1f}"


def _asked(place: Place, told: CoverEvidence) -> list[str]:
    """Of what is further from the usual than can well be."""
    name = covers.name_of(told.key)
    kept = "That is hardly possible, and counts only as far as can be believed."
    return [
        f"By the readings in {place.name} the {name} would {WOULD[factor].format(times)}. {kept} {ASKED[factor]}"
        for factor, times in pooling.beyond_belief(told)
    ]
