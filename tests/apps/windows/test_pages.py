"""Pages over a finished forecast: what they say, and that they do not grow with the readings."""

from datetime import date, timedelta

import pytest
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.urls import reverse

from cloche.apps.forecasts.flows import refresh, refresh_stale, stale_places
from cloche.apps.forecasts.models import CropOutlook, Forecast
from cloche.apps.forecasts.selectors import ground_of, grounds_in
from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.flows import note_change_at
from cloche.apps.places.models import Place
from cloche.apps.windows.pages.ground import Figure, warmth_in
from cloche.bridge.services.crops import of_garden
from tests.conftest import NOW
from tests.factories import make_place, make_reading, read_twice_daily, write_air


@pytest.fixture
def bed(garden: Garden) -> Place:
    """A bed read twice a day for a week at a mean of 15.5 °C, worked out."""
    place = make_place(garden)
    write_air(garden, date(2026, 3, 20), 34, low_c=7, high_c=18)
    read_twice_daily(place, 8, NOW, 12.0, 19.0)
    refresh(place)
    return place


def page(client: Client, name: str, *args: object, **query: str) -> str:
    response = client.get(reverse(name, args=args), query)
    assert response.status_code == 200
    return response.content.decode()


def test_a_week_of_readings_gives_a_forecast_and_windows_for_every_crop(bed: Place) -> None:
    keys = set(CropOutlook.objects.filter(place=bed, better=True).values_list("crop_key", flat=True))
    assert keys == {crop.key for crop in of_garden([])}
    assert Forecast.objects.get(place=bed).ground.readings_used == 16


def test_the_place_answers_first_and_shows_its_evidence(signed_in: Client, bed: Place) -> None:
    shown = page(signed_in, "place", bed.garden_id, bed.pk)
    assert "North bed is at" in shown
    assert shown.count('class="mark-read"') == 16
    assert "Eight times in ten" in shown
    assert "16 readings" in shown


def test_what_wakes_lists_the_trade_s_five_and_neither_melon_nor_okra(signed_in: Client, bed: Place) -> None:
    """Common practice, no source: at a measured 60 °F pea, beet, carrot, turnip and radish can be sown direct."""
    shown = page(signed_in, "what_wakes", bed.garden_id)
    comfortable, minimum = shown.split("Comfortable to sow in place")[1].split("Just at their minimum")
    assert "15.5°" in shown
    for crop in ("Pea", "Beetroot", "Carrot", "Turnip", "Radish"):
        assert f">{crop}</a>" in comfortable
    for crop in ("Melon", "Okra"):
        assert f">{crop}</a>" not in comfortable
        assert f">{crop}</a>" in minimum
    assert "days later" in minimum


def test_a_crop_in_a_place_says_when_and_why(signed_in: Client, bed: Place) -> None:
    shown = page(signed_in, "crop_in_place", bed.garden_id, bed.pk, "carrot")
    assert "Carrots in North bed: sow" in shown
    assert "of viable seed in the end" in shown
    assert "Harrington" in shown
    assert "Bierhuizen" in shown


def test_the_slider_gets_its_piece_alone(signed_in: Client, bed: Place) -> None:
    url = reverse("crop_in_place", args=[bed.garden_id, bed.pk, "carrot"])
    piece = signed_in.get(url, {"in": "30"}, headers={"HX-Request": "true"}).content.decode()
    assert "<html" not in piece
    assert "22 May" in piece


def test_a_date_in_the_address_is_shown(signed_in: Client, bed: Place) -> None:
    assert "Sown on 2 May" in page(signed_in, "crop_in_place", bed.garden_id, bed.pk, "carrot", sow="2026-05-02")
    assert "Sown" in page(signed_in, "crop_in_place", bed.garden_id, bed.pk, "carrot", sow="nonsense")


def test_a_crop_that_is_none_does_not_exist(signed_in: Client, bed: Place) -> None:
    assert signed_in.get(reverse("crop_in_place", args=[bed.garden_id, bed.pk, "triffid"])).status_code == 404


def test_before_the_first_forecast_every_page_says_so(signed_in: Client, garden: Garden) -> None:
    place = make_place(garden)
    assert "Working out the first forecast for" in page(signed_in, "place", garden.pk, place.pk)
    assert "is being calculated" in page(signed_in, "crop_in_place", garden.pk, place.pk, "carrot")
    assert "being calculated" in page(signed_in, "today", garden.pk)
    assert page(signed_in, "what_wakes", garden.pk)
    assert page(signed_in, "ground", garden.pk)


def test_an_old_forecast_is_shown_and_asked_for_again(signed_in: Client, bed: Place) -> None:
    assert "every 1s" not in page(signed_in, "place", bed.garden_id, bed.pk)
    note_change_at(bed)
    shown = page(signed_in, "place", bed.garden_id, bed.pk)
    assert "being updated" in shown
    assert "every 1s" in shown


def test_only_what_is_old_is_worked_out_again(bed: Place) -> None:
    fresh = make_place(bed.garden, "New bed")
    assert refresh_stale() == 1
    assert Forecast.objects.filter(place=fresh).exists()
    assert refresh_stale() == 0
    note_change_at(bed)
    assert stale_places() == [bed.pk]
    assert refresh_stale() == 1
    assert stale_places() == []


def test_a_new_day_makes_every_forecast_old(bed: Place, monkeypatch: pytest.MonkeyPatch) -> None:
    from cloche.apps.shared import clock

    monkeypatch.setattr(clock, "now", lambda: NOW + timedelta(days=1))
    assert refresh_stale() == 1


def test_fahrenheit_and_inches_reach_every_page(signed_in: Client, bed: Place, person: User) -> None:
    User.objects.filter(pk=person.pk).update(temperature_unit="F", length_unit="in")
    shown = page(signed_in, "place", bed.garden_id, bed.pk)
    assert "2 in" in shown
    assert "59." in shown
    assert "°F" in page(signed_in, "today", bed.garden_id)
    assert "60°" in page(signed_in, "what_wakes", bed.garden_id)


NAMES = ["today", "ground", "what_wakes"]


@pytest.mark.parametrize("name", [*NAMES, "place"])
def test_queries_do_not_grow_with_readings(signed_in: Client, bed: Place, name: str) -> None:
    args = [bed.garden_id, bed.pk] if name == "place" else [bed.garden_id]

    def queries() -> int:
        with CaptureQueriesContext(
            connection,
        ) as captured:
            assert "North bed" in page(signed_in, name, *args)
        return len(captured)

    page(signed_in, name, *args)
    few = queries()
    for minute in range(60):
        make_reading(bed, NOW - timedelta(hours=30, minutes=minute), 15.0)
    assert queries() == few


@pytest.mark.parametrize("name", NAMES)
def test_queries_do_not_grow_with_places(signed_in: Client, bed: Place, name: str) -> None:
    def queries() -> int:
        with CaptureQueriesContext(connection) as captured:
            page(signed_in, name, bed.garden_id)
        return len(captured)

    queries()
    count = queries()
    for number in range(3):
        refresh(make_place(bed.garden, f"Bed {number}"))
    # What is stored anew is read once, all of it together, and then remembered.
    assert queries() <= count + 2
    assert queries() <= count


def test_thousands_of_points_are_thinned(signed_in: Client, bed: Place) -> None:
    from cloche.apps.readings.models import Reading

    Reading.objects.bulk_create(
        Reading(place=bed, taken_at=NOW - timedelta(minutes=3 * i), depth_m=0.1, temperature_c=12) for i in range(1, 9000)
    )
    shown = page(signed_in, "place", bed.garden_id, bed.pk)
    assert shown.count("<title>") <= 402


def test_seed_for_a_row_follows_the_form(signed_in: Client, bed: Place, person: User) -> None:
    shown = page(signed_in, "crop_in_place", bed.garden_id, bed.pk, "pea")
    assert "101 seeds: 101 stations 5 cm apart in rows 60 cm apart." in shown
    assert "101 stations 5 cm apart" not in page(signed_in, "crop_in_place", bed.garden_id, bed.pk, "pea", much="2")
    assert "in each, thinned to one" in page(signed_in, "crop_in_place", bed.garden_id, bed.pk, "pea", rate="40")
    by_plants = page(signed_in, "crop_in_place", bed.garden_id, bed.pk, "pea", much="60", of="plants")
    assert "About 60 plants would be left" in by_plants
    User.objects.filter(pk=person.pk).update(length_unit="in")
    assert "feet of row" in page(signed_in, "crop_in_place", bed.garden_id, bed.pk, "pea")


@pytest.mark.parametrize(
    ("typed", "said"),
    [({"much": "lots"}, "is not a number"), ({"much": "0"}, "from 0 to"), ({"rate": "140"}, "from 0 to 100%")],
)
def test_seed_for_nonsense_is_refused_and_kept(signed_in: Client, bed: Place, typed: dict[str, str], said: str) -> None:
    shown = page(signed_in, "crop_in_place", bed.garden_id, bed.pk, "pea", **typed)
    assert said in shown
    assert all(f'value="{value}"' in shown for value in typed.values())


def test_a_lone_morning_reading_is_moved_to_its_day_by_the_place_s_own_curve(garden: Garden, now: object) -> None:
    """Common practice, no source: one early reading alone stands below the day's mean."""
    lone = make_place(garden, "Lone bed")
    make_reading(lone, NOW - timedelta(minutes=30), 7.0)
    refresh_stale()
    (current,) = warmth_in(garden, grounds_in(garden), NOW)
    ground = ground_of(lone)
    assert ground is not None
    at = NOW - timedelta(minutes=30)
    assert current.figure is Figure.MORNING
    assert current.day_c == pytest.approx(7.0 + ground.day_mean(at) - ground.soil_at(at))
    assert current.day_c > 7.0
