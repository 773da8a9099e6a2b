"""Forecasts are made whole, once, and never in the way of a reading."""

import threading
from datetime import date, timedelta
from typing import Any

import pytest
from django.db import connection, connections
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts import flows as flow
from cloche.apps.forecasts import selectors
from cloche.apps.forecasts.models import CropOutlook, Forecast
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.readings.flows.record import Measured, record_reading
from cloche_engine.places.kinds import place_kinds
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place, read_twice_daily, write_air


@pytest.mark.django_db(transaction=True)
def test_two_keepers_share_the_work_and_a_reading_does_not_wait(now: object, monkeypatch: pytest.MonkeyPatch) -> None:
    place = make_place(make_garden(make_person("rowan")))
    entered, go_on, done = threading.Event(), threading.Event(), []
    real = flow.refresh

    def slow(target: Place) -> Forecast:
        entered.set()
        assert go_on.wait(20)
        return real(target)

    monkeypatch.setattr(flow, "refresh", slow)

    def keeper() -> None:
        done.append(flow.refresh_stale())
        connections.close_all()

    first = threading.Thread(target=keeper)
    first.start()
    assert entered.wait(20)
    assert flow.refresh_stale() == 0  # the place is in other hands
    record_reading(place, Measured(NOW - timedelta(hours=1), 0.05, 9.0), None)  # and this does not block
    go_on.set()
    first.join(30)
    assert done == [1]
    place.refresh_from_db()
    assert Forecast.objects.get(place=place).input_revision == place.input_revision - 1  # overtaken while it was made
    monkeypatch.setattr(flow, "refresh", real)
    assert flow.refresh_stale() == 1
    connection.close()


def test_a_second_run_replaces_the_first_whole(garden: Garden) -> None:
    place = make_place(garden)
    flow.refresh(place)
    before = set(CropOutlook.objects.values_list("pk", flat=True))
    flow.refresh(place)
    after = set(CropOutlook.objects.values_list("pk", flat=True))
    assert len(after) == len(before)
    assert not before & after
    assert Forecast.objects.count() == 1


def test_a_run_that_fails_leaves_the_last_one_standing(garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    place = make_place(garden)
    kept = flow.refresh(place).made_at

    def broken(*args: object) -> None:
        raise RuntimeError("no more")

    monkeypatch.setattr(CropOutlook.objects, "bulk_create", broken)
    with pytest.raises(RuntimeError):
        flow.refresh(place)
    assert Forecast.objects.get(place=place).made_at == kept
    assert CropOutlook.objects.filter(place=place).exists()


def test_typed_normals_and_weather_reach_the_forecast(garden: Garden) -> None:
    place = make_place(garden)
    Garden.objects.filter(pk=garden.pk).update(normal_lows_c=[20.0] * 12, normal_highs_c=[30.0] * 12)
    place = Place.objects.get(pk=place.pk)
    write_air(garden, date(2026, 4, 1), 22, low_c=20, high_c=30)
    ground = flow.refresh(place).ground
    assert ground.normals_source == "typed"
    assert ground.weather_days == 15
    assert ground.far_mid_c[60] > 20


def test_the_ground_answers_for_any_moment(garden: Garden) -> None:
    place = make_place(garden)
    read_twice_daily(place, 8, NOW, 9.0, 13.0)
    flow.refresh(place)
    ground = selectors.ground_of(place)
    assert ground is not None
    assert 4 < ground.day_mean(NOW) < 18
    assert ground.soil_at(NOW - timedelta(days=400)) == ground.data.near_mid_c[0]
    assert ground.soil_at(NOW + timedelta(days=400)) == ground.data.near_mid_c[-1]
    assert len(ground.profile_at(NOW)) == len(ground.data.field_depths_m)
    assert not ground.stale(date(2026, 4, 22))
    assert ground.stale(date(2026, 4, 23))


def test_a_removed_place_is_not_worked_out(garden: Garden) -> None:
    make_place(garden, removed_at=NOW)
    assert flow.refresh_stale() == 0


@pytest.mark.parametrize("kind", list(place_kinds()))
def test_every_kind_of_place_has_a_forecast_and_a_page(signed_in: Client, garden: Garden, kind: str) -> None:
    place = make_place(garden, kind=kind)
    flow.refresh(place)
    page = signed_in.get(reverse("place", args=[garden.pk, place.pk])).content.decode()
    assert "is at" in page
    if kind in ("frame", "tunnel", "arch", "bell"):
        assert "A closed cover in the sun kills plants" in page
    if kind in ("mat", "cable"):
        assert "residual-current" in page
        assert "licensed electrician" in page
    if kind == "hotbed":
        assert "food-safety rules" in page


def test_how_many_crops_there_are_costs_no_question_of_the_database(garden: Garden, django_assert_max_num_queries: Any) -> None:
    place = make_place(garden)
    flow.refresh(place)
    assert place.outlooks.filter(better=True).count() > 20
    with django_assert_max_num_queries(45):
        flow.refresh(place)
