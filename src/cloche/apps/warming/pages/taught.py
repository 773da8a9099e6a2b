"""What the garden's covers have shown of themselves, in sentences: by kind, and where it is hard to believe."""

from __future__ import annotations

from typing import Any

from cloche.apps.gardens import words
from cloche.apps.gardens.models import Garden, Place
from cloche.apps.windows.taught import taught_in
from cloche.bridge import covers, pooling

SAID = {
    "light": ("let through more light than usual", "let through less light than usual"),
    "exchange": ("leak more than usual", "are tighter than usual"),
    "loss": ("keep less warmth at night than usual", "keep more warmth at night than usual"),
}
ASKED = {
    "light": "Is it dirtier, older or more shaded than is written down?",
    "exchange": "Is it shut and opened as is written down, with its ends closed?",
    "loss": "Is it the kind that is written down, and does the thermometer hang among the plants, out of the sun?",
}


def taught_lines(garden: Garden) -> list[str]:
    """Kinds that are clearly unlike the usual here, then places that are asked about."""
    found = taught_in(garden)
    lines = [_of_kind(one) for one in pooling.of_kinds([told for _, told in found])]
    return lines + [line for place, told in found for line in _asked(place, told)]


def _of_kind(one: pooling.OfKind) -> str:
    more, less = SAID[one.name]
    places = words.count(one.places, "place")
    tell = "tells" if one.places == 1 else "tell"
    times = f"{one.middle:.1f} times, between {one.low:.1f} and {one.high:.1f}"
    return (
        f"Your covers of the kind “{covers.name_of(one.key)}” {more if one.middle > 1 else less} ({times}): {places} {tell} so."
    )


def _asked(place: Place, told: dict[str, Any]) -> list[str]:
    """Of what is further from the usual than can well be."""
    name = covers.name_of(told["key"])
    odd = pooling.beyond_belief(told)
    where = f"In {place.name} the {name} would have to be unlike any other"
    return [f"{where}; that is not believed, and counts for as much as can be. {ASKED[factor]}" for factor in odd]
