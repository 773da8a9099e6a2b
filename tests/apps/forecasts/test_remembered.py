"""What each process remembers of stored forecasts is always what is stored."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext

from cloche.apps.forecasts.flows import refresh, refresh_stale
from cloche.apps.forecasts.forecast_cache import outlooks_in
from cloche.apps.forecasts.models import CropOutlook, Forecast
from cloche.apps.forecasts.selectors import ground_of, grounds_in, next_openings, open_now, sown_windows
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from tests.factories import make_place


@pytest.fixture
def beds(garden: Garden) -> list[Place]:
    """Two beds whose forecasts are stored."""
    places = [make_place(garden, "North bed"), make_place(garden, "South bed")]
    refresh_stale()
    return places


def queries_of(garden: Garden) -> int:
    with CaptureQueriesContext(connection) as queries:
        grounds_in(garden)
    return len(queries)


def test_grounds_are_read_once_and_stay_the_same(garden: Garden, beds: list[Place]) -> None:
    first, again = queries_of(garden), queries_of(garden)
    assert (first, again) == (2, 1)
    stored = Forecast.objects.get(place=beds[0])
    _place, ground = grounds_in(garden)[0]
    assert ground is not None
    assert ground.data == stored.ground
    assert ground.forecast.watch == stored.watch
    assert ground.forecast.frosts == stored.frosts


def test_what_is_stored_anew_is_seen_at_once(garden: Garden, beds: list[Place]) -> None:
    before = ground_of(beds[0])
    assert before is not None
    forecast = Forecast.objects.get(place=beds[0])
    forecast.ground = replace(forecast.ground, readings_used=77)
    forecast.save(update_fields=["ground"])
    after = ground_of(beds[0])
    assert after is not None
    assert (before.data.readings_used, after.data.readings_used) == (0, 77)
    assert grounds_in(garden)[0][1].data.readings_used == 77  # type: ignore[union-attr]


def test_of_a_forecast_without_a_name_everything_is_read_from_the_database(garden: Garden, beds: list[Place]) -> None:
    Forecast.objects.update(stored=None)
    grounds = [ground for _, ground in grounds_in(garden) if ground]
    assert [ground.data for ground in grounds] == [Forecast.objects.get(place=place).ground for place in beds]


def test_outlooks_are_those_that_are_stored(garden: Garden, beds: list[Place]) -> None:
    rows = CropOutlook.objects.filter(place__in=beds, better=True)
    for _ in range(2):
        kept = outlooks_in(garden)
        assert {(outlook.place_id, outlook.crop_key): outlook.windows for outlook in kept} == {
            (row.place_id, row.crop_key): row.windows for row in rows
        }
    CropOutlook.objects.filter(place=beds[0], crop_key="carrot").delete()
    assert ("carrot", beds[0].pk) not in {(outlook.crop_key, outlook.place_id) for outlook in outlooks_in(garden)}
    refresh(beds[0])
    assert ("carrot", beds[0].pk) in {(outlook.crop_key, outlook.place_id) for outlook in outlooks_in(garden)}


def test_questions_about_outlooks_agree_with_the_rows(garden: Garden, beds: list[Place]) -> None:
    rows = CropOutlook.objects.filter(place__garden=garden, better=True)
    now = {(row.place_id, row.crop_key) for row in rows if row.sow_now and row.half_d is not None}
    assert {(place, key) for place, keys in open_now(outlooks_in(garden)).items() for key in keys} == now
    ahead = {(row.place_id, row.crop_key) for row in rows if row.sown and not row.sow_now and row.windows}
    assert {(place, key) for _, place, key in next_openings(outlooks_in(garden))} == ahead
    sown = {(row.place_id, row.crop_key) for row in rows if row.sown and not row.hopeless}
    assert {
        (window.place.pk, key)
        for key, windows in sown_windows(garden.places.all(), outlooks_in(garden)).items()
        for window in windows
    } == sown


def test_a_removed_place_is_no_longer_among_them(garden: Garden, beds: list[Place], django_assert_num_queries: Any) -> None:
    assert len(grounds_in(garden)) == 2
    Place.objects.filter(pk=beds[1].pk).delete()
    with django_assert_num_queries(1):
        assert [place.pk for place, _ in grounds_in(garden)] == [beds[0].pk]
