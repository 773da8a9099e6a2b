"""Heaters tried before the season: minutes, a small map of nine spots, and what a layer would even out."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.bench.selectors import heat_on
from cloche.apps.places.models import HeatTest, Place
from cloche.apps.shared import words
from cloche.bridge.services.evenness import EVEN_K, layer_for, spread_k
from cloche.bridge.values.units import Units
from cloche.drawing import scale

SHOWN = 3


@dataclass(frozen=True)
class Spot:
    """A spot of the map: its number, colour and the ink upon it."""

    text: str
    colour: str
    ink: str


@dataclass(frozen=True)
class TestLine:
    """A test, told and drawn: rows of three spots."""

    pk: int
    when: str
    text: str
    rows: list[list[Spot]]


def test_lines(place: Place, units: Units, today: date) -> list[TestLine]:
    """The latest of a place."""
    return [
        TestLine(heat_test.pk, words.day(heat_test.on, today), _text(heat_test, place, units, today), _rows(heat_test, units))
        for heat_test in place.heat_tests.all()[:SHOWN]
    ]


def _rows(heat_test: HeatTest, units: Units) -> list[list[Spot]]:
    spots = [
        Spot("–", "none", "currentColor")
        if value is None
        else Spot(units.temperature_text(value, 0), scale.colour(value), scale.ink_on(value))
        for value in heat_test.spots
    ]
    return [spots[i : i + 3] for i in (0, 3, 6)]


def _text(heat_test: HeatTest, place: Place, units: Units, today: date) -> str:
    parts = []
    if heat_test.minutes is not None:
        parts.append(
            _("It reached its set-point after {minutes}.").format(minutes=words.count(heat_test.minutes, "minute", "minutes"))
        )
    spread = spread_k(heat_test.spots)
    if spread is not None:
        parts.append(_("From its coldest to its warmest spot are {spread}.").format(spread=units.difference_text(spread, 0)))
        if spread > EVEN_K:
            period = heat_on(place, today)
            layer = layer_for(spread) if period is None or not period.cable_m else layer_for(spread, _spacing(period))
            text = _("About {layer} more of moist sand or vermiculite over the heat would bring that down to {even}.")
            parts.append(text.format(layer=units.length_text(layer), even=units.difference_text(EVEN_K, 0)))
        else:
            parts.append(_("That is even enough."))
    return " ".join(parts)


def _spacing(period: object) -> float:
    """Area over length: how far apart its runs lie."""
    return period.area_m2 / period.cable_m  # type: ignore[attr-defined, no-any-return]
