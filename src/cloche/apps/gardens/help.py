"""What the help page shows: kinds of place and cover as they are drawn everywhere, and a walk through the demo."""

from __future__ import annotations

from dataclasses import dataclass

from django.conf import settings
from django.http import HttpRequest
from django.urls import reverse
from django.utils.translation import gettext as _

from cloche.apps.gardens import selectors
from cloche.apps.gardens.models import Garden
from cloche.apps.shared import words
from cloche.apps.shared.terms import TERMS
from cloche.bridge.services import covers, offered
from cloche.drawing.slice import Slice, slice_of

DEPTHS_M, SPRING_C = (0.0, 0.1, 0.2, 0.45), (14.0, 11.0, 9.5, 8.5)
"""A bed on a fair spring day, to draw kinds in."""
SEED_DEPTH_M = 0.05


@dataclass(frozen=True)
class Drawn:
    """A kind and its drawing."""

    name: str
    cut: Slice


@dataclass(frozen=True)
class Stop:
    """A page to visit, with what to look for."""

    name: str
    text: str
    url: str


def help_context(request: HttpRequest) -> dict[str, object]:
    """Return the context of gardens/help.html."""
    garden = selectors.garden_to_open(request) if settings.CLOCHE_DEMO and request.user.is_authenticated else None
    return {
        "terms": TERMS,
        "places": [_drawn(key, name) for key, name in offered.place_names()],
        "covers": [_drawn(covers.drawn_as(key), name) for key, name in covers.for_beds()],
        "walk": walk(garden) if garden else [],
    }


def _drawn(shape: str, name: str) -> Drawn:
    return Drawn(words.sentence(name), slice_of(shape, SEED_DEPTH_M, DEPTHS_M, SPRING_C))


def walk(garden: Garden) -> list[Stop]:
    """Return the pages of the demo garden in a good order for newcomers."""
    place = garden.places.first()

    def to(name: str, *more: object) -> str:
        return reverse(name, args=[garden.pk, *more])

    stops = [
        Stop(
            _("Today"),
            _(
                "Each place as a slice of ground coloured by its temperature, what you can sow now, and the "
                "day’s jobs with their reasons."
            ),
            to("today"),
        ),
        Stop(_("Round"), _("How to read the beds with a phone in one hand: number, Next, number, Next."), to("round")),
        Stop(_("Windows"), _("When each crop can be sown or planted, the best now first."), to("windows")),
        Stop(
            _("Germination"), _("All crops and the temperature of one bed. Move the slider two weeks ahead."), to("what_wakes")
        ),
        Stop(
            _("Covers"),
            _("What fleece, a tunnel or a frame would do for a bed, and when each needs opening."),
            to("covers"),
        ),
        Stop(
            _("Bench"),
            _("Your trays, their root temperatures, whether seedlings are leggy, and what a mat would do."),
            to("bench"),
        ),
        Stop(_("Sowings"), _("What has been sown, when it should be up, and what you counted."), to("sowings")),
    ]
    if place is not None:
        name = _("{place}, one of its places").format(place=place.name)
        bed = Stop(
            name, _("Past readings and the days ahead, with the likely range of the soil temperature."), to("place", place.pk)
        )
        stops.insert(1, bed)
    return stops
