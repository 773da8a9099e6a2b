"""The days of a bed's cover, with nights that are made up and warm by a kelvin in five days."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.covers import flows
from cloche.apps.covers.models import SeasonAnswer
from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Cover, CoverPeriod, Place
from cloche.apps.plan.pages.timetable import Kind, TimetablePage, timetable_page
from cloche.apps.plants.models import BedShape, Planting
from cloche.apps.sowings.models import Sowing
from cloche.bridge.services.covers import nights_wanted
from cloche.bridge.values.units import Units
from cloche_engine.results import CandidateDays, CropSeason, NightsAhead, RibbonDays
from tests.apps.bench.benches import store
from tests.conftest import NOW
from tests.factories import make_place, make_window

TODAY = NOW.date()
NIGHTS = [-2.0 + 0.2 * i for i in range(120)]


@pytest.fixture
def bed(garden: Garden) -> Place:
    return with_nights(make_place(garden))


def with_nights(place: Place) -> Place:
    BedShape.objects.create(place=place, length_m=3.0, width_m=1.2, square_m=0.3)
    store(place, 14.0)
    forecast = Forecast.objects.get(place=place)
    forecast.day, forecast.nights = TODAY, NightsAhead(NIGHTS)
    forecast.save()
    return place


def cover(bed: Place, kind: str = "film_tunnel", **values: Any) -> CoverPeriod:
    return CoverPeriod.objects.create(place=bed, cover=kind, **{"first": TODAY - timedelta(days=30)} | values)


def planted(bed: Place, crop_key: str = "snap_bean", **values: Any) -> Planting:
    return Planting.objects.create(place=bed, crop_key=crop_key, **{"origin": "raised", "planted_on": TODAY} | values)


def bare(bed: Place, crop_key: str, earliest: date) -> None:
    """A bare sowing of it is sure from that day on."""
    window = make_window(earliest.isoformat(), (earliest + timedelta(days=60)).isoformat())
    rows = [CropSeason(crop_key, False, [window], None)]
    place = Place.objects.select_related("forecast", "garden").get(pk=bed.pk)
    SeasonAnswer.objects.update_or_create(
        place=place, cover="", defaults={"question": flows.question_of(place, TODAY), "answer": rows}
    )


def page_of(bed: Place, wanted: str = "") -> TimetablePage:
    place = Place.objects.select_related("forecast", "garden").get(pk=bed.pk)
    return timetable_page(place, wanted, Units(), TODAY)


def days_of(page: TimetablePage, number: int = 0) -> dict[Kind, date]:
    return {step.kind: step.on for step in page.rows[number].steps}


def first_night(wanted_c: float) -> date:
    return TODAY + timedelta(days=next(i for i, low in enumerate(NIGHTS) if low >= wanted_c))


def test_it_is_on_then_open_then_off_by_the_nights(bed: Place) -> None:
    cover(bed)
    planted(bed)
    ends_c, off_c = nights_wanted("snap_bean")
    days = days_of(page_of(bed))
    assert days[Kind.ON] == TODAY - timedelta(days=30)
    assert (days[Kind.ENDS], days[Kind.OFF]) == (first_night(ends_c), first_night(off_c))


def test_never_later_than_a_bare_sowing(bed: Place) -> None:
    cover(bed)
    planted(bed)
    assert page_of(bed).waiting
    bare(bed, "snap_bean", TODAY + timedelta(days=12))
    page = page_of(bed)
    assert not page.waiting
    assert days_of(page)[Kind.OFF] == TODAY + timedelta(days=12)
    assert "an uncovered sowing" in page.rows[0].steps[-1].advice


def test_a_rule_of_the_garden_sets_the_day(bed: Place) -> None:
    cover(bed, "bent_sheet")
    planted(bed, "kale")
    Garden.objects.filter(pk=bed.garden_id).update(uncover_rule="height")
    days = days_of(page_of(bed))
    assert days[Kind.OFF] == days[Kind.TOUCHES]


def test_where_the_roof_is_too_low_for_long_it_is_said(bed: Place) -> None:
    low = Cover.objects.create(garden=bed.garden, kind="glass_frame", name="Low box", width_m=1.2, low_m=0.1, high_m=0.14)
    cover(bed, "glass_frame", item=low)
    planted(bed, "tomato")
    row = page_of(bed).rows[0]
    assert Kind.TOUCHES in {step.kind for step in row.steps}
    assert "too low for its last" in row.caution
    Cover.objects.filter(pk=low.pk).update(low_m=1.2, high_m=1.6)
    assert page_of(bed).rows[0].caution == ""


def test_sowings_that_are_not_on_the_plan_count_too(bed: Place) -> None:
    cover(bed)
    Sowing.objects.create(place=bed, crop_key="lettuce", sown_on=TODAY - timedelta(days=3), depth_m=0.005)
    page = page_of(bed)
    assert [row.name for row in page.rows] == ["Lettuce"]
    assert days_of(page)[Kind.IN] == TODAY - timedelta(days=3)
    assert days_of(page)[Kind.UP] > TODAY


def test_a_cover_is_tried_on_a_bare_bed_and_goes_on_a_fortnight_before(bed: Place) -> None:
    planted(bed, "tomato", planted_on=None, planned_on=TODAY + timedelta(days=25))
    page = page_of(bed, "film_tunnel")
    assert (page.tried, page.sub[:5]) == ("film_tunnel", "As if")
    assert days_of(page)[Kind.ON] == TODAY + timedelta(days=11)


def test_what_needs_none_is_told_so(bed: Place) -> None:
    planted(bed, "pea", planted_on=None, planned_on=TODAY + timedelta(days=100))
    row = page_of(bed, "film_tunnel").rows[0]
    assert row.picture is None
    assert "needs no cover" in row.caution


def test_the_next_bed_is_one_that_is_planted_before_it_could_be_bare(bed: Place, garden: Garden) -> None:
    cover(bed)
    planted(bed, "kale")
    free = days_of(page_of(bed))[Kind.OFF]
    assert "free for another bed" in page_of(bed).after
    other = with_nights(make_place(garden, "South bed"))
    other.outlooks.create(
        crop_key="snap_bean",
        method="direct",
        sow_now=False,
        windows=[make_window("2026-09-01", "2026-09-09")],
        ribbon=RibbonDays([], [], []),
        days=CandidateDays([], [], [], "", "", "", [], ""),
    )
    planted(other, "snap_bean", origin="sown", planted_on=None, planned_on=free + timedelta(days=3))
    assert "South bed needs a cover" in page_of(bed).after


def test_the_page_draws_it_and_its_headline_says_what_comes_next(signed_in: Client, bed: Place) -> None:
    cover(bed)
    planted(bed)
    url = reverse("cover_timetable", args=[bed.garden_id, bed.pk])
    text = signed_in.get(url).content.decode()
    assert "leave the ends of the cover open from" in text
    assert text.count('class="mark-number"') == len(page_of(bed).rows[0].steps)
    part = signed_in.get(url, headers={"HX-Request": "true"}).content.decode()
    assert "<html" not in part


@pytest.mark.parametrize("wanted", ["", "own-999999", "nonsense", "fleece"])
def test_an_empty_bed_and_odd_covers_are_borne(signed_in: Client, bed: Place, wanted: str) -> None:
    url = reverse("cover_timetable", args=[bed.garden_id, bed.pk])
    assert "Nothing is growing in" in signed_in.get(url, {"cover": wanted}).content.decode()


def test_without_a_forecast_it_is_said(signed_in: Client, garden: Garden) -> None:
    place = make_place(garden)
    text = signed_in.get(reverse("cover_timetable", args=[garden.pk, place.pk])).content.decode()
    assert "has no forecast yet" in text
