"""What stands over a place: dated covers, or the one of its kind; the same for the engine and for every page."""

from __future__ import annotations

from datetime import date, timedelta

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.flows import refresh
from cloche.apps.forecasts.inputs import build_inputs
from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.places.selectors import cover_on, covers_on, roofs_from
from cloche.apps.places.selectors import covers_of as covers_of_place
from cloche_engine.forecast.places import covers_of
from cloche_engine.places.kinds import USUAL_COVER
from tests.factories import make_place

TODAY = date(2026, 4, 22)


@pytest.mark.parametrize("kind", sorted(USUAL_COVER))
def test_a_place_of_a_kind_that_is_a_cover_has_it_as_the_engine_does(garden: Garden, kind: str) -> None:
    place = make_place(garden, kind=kind)
    there = cover_on(place, TODAY)
    assert there is not None
    assert (there.key, there.period) == (USUAL_COVER[kind], None)
    assert [span.key for span in covers_of(build_inputs(place, []))] == [there.key]


def test_once_a_cover_was_noted_by_date_only_dates_count(garden: Garden) -> None:
    place = make_place(garden, kind="frame")
    place.cover_periods.create(cover="glass_frame", first=TODAY - timedelta(days=30), last=TODAY - timedelta(days=1))
    assert cover_on(place, TODAY) is None
    assert [span.key for span in covers_of(build_inputs(place, []))] == ["glass_frame"]


def test_layers_from_the_top(garden: Garden) -> None:
    place = make_place(garden)
    for cover in ("film_on_soil", "fleece"):
        place.cover_periods.create(cover=cover, first=TODAY - timedelta(days=3))
    place.cover_periods.create(cover="bell", first=TODAY + timedelta(days=3))
    assert [cover.key for cover in covers_on(place, TODAY)] == ["fleece", "film_on_soil"]
    assert [cover.key for cover in roofs_from(place, TODAY)] == ["fleece", "bell"]


@pytest.mark.parametrize("kind", ["frame", "tunnel", "arch", "bell"])
def test_its_own_cover_is_known_to_compare_covers_the_plan_and_open_and_close(
    signed_in: Client, garden: Garden, kind: str
) -> None:
    """What the count of beds in the first hour makes."""
    place: Place = make_place(garden, "Mine", kind=kind)
    refresh(place)
    usual = USUAL_COVER[kind]
    assert Forecast.objects.get().watch.cover == usual
    compared = signed_in.get(
        reverse("covers", args=[garden.pk]), {"place": place.pk, "on": "2026-04-22", "warm": "14"}
    ).context["page"]
    assert [row.what for row in compared.rows if row.busy == "here already"] == ["already on this bed"]
    timetable = signed_in.get(reverse("cover_timetable", args=[garden.pk, place.pk])).context["page"]
    assert timetable.tried == ""
    assert "is always there" in timetable.sub
    opening = signed_in.get(reverse("opening", args=[garden.pk])).context["page"]
    assert [plan.place for plan in opening.plans] == [place]


def test_which_of_two_stands_over_the_other_goes_by_their_height_and_only_while_both_are_there(garden: Garden) -> None:
    place = make_place(garden)
    place.cover_periods.create(cover="film_tunnel", first=TODAY - timedelta(days=3))
    place.cover_periods.create(cover="fleece", first=TODAY, last=TODAY + timedelta(days=9))
    tunnel, fleece = covers_of_place(place)
    assert fleece.lies_under(tunnel)
    assert not tunnel.lies_under(fleece)
    place.cover_periods.filter(cover="film_tunnel").update(last=TODAY - timedelta(days=1))
    tunnel, fleece = covers_of_place(Place.objects.get(pk=place.pk))
    assert not fleece.lies_under(tunnel)
