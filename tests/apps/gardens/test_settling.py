from typing import Any

import pytest
from django.test import Client
from django.urls import reverse

from cloche import __version__
from cloche.apps.gardens import flows as garden_flows
from cloche.apps.gardens.models import Garden, User
from cloche.apps.places import flows
from cloche.apps.places.models import Place
from cloche.apps.shared.checks import a_database_is_named
from tests.conftest import NOW
from tests.factories import make_place, make_reading


def text(response: object) -> str:
    return response.content.decode()  # type: ignore[attr-defined]


@pytest.mark.django_db
def test_a_new_installation_asks_for_its_first_person_then_garden_then_place(client: Client) -> None:
    assert client.get(reverse("sign_in"))["Location"] == reverse("welcome")
    american = {"Accept-Language": "en-US"}
    response = client.post(reverse("welcome"), {"username": "Rowan Ash", "password": "spade-and-fork"}, headers=american)
    assert response["Location"] == reverse("new_garden")
    person = User.objects.get()
    assert (person.username, person.temperature_unit, person.length_unit) == ("Rowan Ash", "F", "in")
    site = {"name": "Plot", "latitude_deg": "44.1", "longitude_deg": "-72.5", "height": "656 ft"}
    response = client.post(reverse("new_garden"), site | {"timezone_name": "America/New_York"})
    garden = Garden.objects.get()
    assert garden.elevation_m == pytest.approx(200.0, abs=0.1)
    assert response["Location"] == reverse("first_places", args=[garden.pk])
    response = client.post(response["Location"], {"open": "3", "frame": "1", "tunnel": ""})
    assert response["Location"] == reverse("today", args=[garden.pk])
    assert [place.name for place in garden.places.all()] == ["Open bed 1", "Open bed 2", "Open bed 3", "Cold frame"]
    assert garden.memberships.get().role == "owner"


def test_who_measures_in_metres_where_english_is_british(client: Client, db: None) -> None:
    client.post(reverse("welcome"), {"username": "rowan", "password": "spade-and-fork"}, headers={"Accept-Language": "en-GB"})
    assert (User.objects.get().temperature_unit, User.objects.get().length_unit) == ("C", "cm")


def test_a_weak_password_is_refused_at_its_field(client: Client, db: None) -> None:
    response = client.post(reverse("welcome"), {"username": "rowan", "password": "12345"})
    assert response.status_code == 422
    assert "too short" in text(response)
    assert not User.objects.exists()


def test_a_town_is_found_and_its_year_shown_before_anything_is_measured(signed_in: Client, now: object) -> None:
    page = text(signed_in.get(reverse("new_garden"), {"town": "krems"}))
    assert "Krems an der Donau, Austria" in page
    assert text(signed_in.get(reverse("towns"), {"town": "krems"})).count("<li>") >= 1
    assert "No town of 5,000" in text(signed_in.get(reverse("towns"), {"town": "qqqq"}))
    page = text(signed_in.get(reverse("new_garden"), {"latitude_deg": "48.41", "longitude_deg": "15.61"}))
    assert "Your garden is in Krems an der Donau, Austria." in page
    assert "Europe/Vienna" in page
    assert "last spring frost is usually about" in page
    assert "Estimated from the regional climate" in page


@pytest.mark.parametrize(
    ("point", "said"),
    [
        (("78.2", "15.6"), "Longyearbyen"),
        (("-37.8", "145.0"), "Melbourne"),
        (("0", "-140"), "no land is near"),
        (("29.5", "-95.5"), "Texas"),
    ],
)
def test_any_point_on_earth_has_an_answer(signed_in: Client, now: object, point: tuple[str, str], said: str) -> None:
    assert said in text(signed_in.get(reverse("new_garden"), {"latitude_deg": point[0], "longitude_deg": point[1]}))


@pytest.mark.parametrize("point", [("91", "0"), ("0", "181"), ("nan", "0"), ("north", "east"), ("", "15")])
def test_what_is_no_point_on_earth_is_said_so(signed_in: Client, point: tuple[str, str]) -> None:
    response = signed_in.get(reverse("new_garden"), {"latitude_deg": point[0], "longitude_deg": point[1]})
    assert response.status_code == 200
    assert "not a point on earth" in text(response)


def test_names_of_places_made_in_one_go_pass_those_that_are_there(signed_in: Client, garden: Garden) -> None:
    make_place(garden, "open bed 1")
    url = reverse("first_places", args=[garden.pk])
    assert "Enter how many you have of at least one kind" in text(signed_in.post(url, {"open": "0"}))
    assert signed_in.post(url, {"open": "31"}).status_code == 422
    signed_in.post(url, {"open": "2", "tub": "1"})
    assert [place.name for place in garden.places.all()] == ["open bed 1", "Open bed 2", "Open bed 3", "Pot or tub"]
    signed_in.post(url, {"tub": "1"})
    assert garden.places.filter(name="Pot or tub 1").exists()


def test_the_welcome_is_shut_once_there_is_somebody(client: Client, person: User) -> None:
    assert client.get(reverse("welcome"))["Location"] == reverse("sign_in")
    client.post(reverse("welcome"), {"username": "intruder", "password": "spade-and-fork"})
    assert User.objects.count() == 1


def test_a_wrong_password_is_said_in_words(client: Client, person: User) -> None:
    response = client.post(reverse("sign_in"), {"username": "rowan", "password": "no"})
    assert response.status_code == 422
    assert "do not match" in text(response)


@pytest.mark.parametrize(
    ("field", "value", "word"),
    [
        ("latitude_deg", "123", "80"),
        ("height", "high", "not a number"),
        ("height", "9000", "outside"),
        ("latitude_deg", "north", "number"),
        ("name", "", "required"),
    ],
)
def test_a_site_that_cannot_be_is_refused_at_its_field(
    signed_in: Client, garden: Garden, field: str, value: str, word: str
) -> None:
    site = {"name": "Plot", "latitude_deg": "48", "longitude_deg": "15", "height": "200", "timezone_name": "UTC"}
    response = signed_in.post(reverse("new_garden"), site | {field: value})
    assert response.status_code == 422
    assert word in text(response)
    assert Garden.objects.count() == 1


def test_two_places_of_one_name_are_refused(signed_in: Client, garden: Garden) -> None:
    make_place(garden, "North bed")
    response = signed_in.post(reverse("new_place", args=[garden.pk]), {"name": "north bed", "kind": "open", "seed_depth": "5"})
    assert response.status_code == 422
    assert "already has a place called north bed" in text(response)


def test_places_keep_their_walking_order(garden: Garden) -> None:
    first, _, third = (flows.save_place(Place(garden=garden, name=n)) for n in ("a", "b", "c"))
    flows.move_place(third, -1)
    assert [place.name for place in garden.places.all()] == ["a", "c", "b"]
    flows.move_place(first, -1)
    assert [place.name for place in garden.places.all()] == ["a", "c", "b"]


def test_changing_the_site_makes_every_forecast_old(garden: Garden) -> None:
    place = make_place(garden)
    garden_flows.change_site(garden)
    assert Place.objects.get(pk=place.pk).input_revision == place.input_revision + 1


def test_units_are_a_persons_own(signed_in: Client, garden: Garden, person: User) -> None:
    signed_in.post(reverse("me"), {"temperature_unit": "F", "length_unit": "in"})
    make_place(garden)
    page = text(signed_in.get(reverse("weather", args=[garden.pk])))
    assert "°F" in page
    assert User.objects.get(pk=person.pk).length_unit == "in"


def months(lows: float = 2, highs: float = 12) -> dict[str, str]:
    return {f"{side}_{i}": str(v) for side, v in (("low", lows), ("high", highs)) for i in range(12)}


def test_normals_are_typed_all_or_not_at_all(signed_in: Client, garden: Garden) -> None:
    url = reverse("normals", args=[garden.pk])
    response = signed_in.post(url, months() | {"low_3": ""})
    assert response.status_code == 422
    assert "all twelve months" in text(response)
    signed_in.post(url, months() | {"low_3": "3,5"})
    garden.refresh_from_db()
    assert garden.normal_lows_c is not None
    assert garden.normal_lows_c[3] == 3.5
    signed_in.post(url, {})
    garden.refresh_from_db()
    assert garden.normal_lows_c is None


def test_a_normal_low_above_its_high_is_refused_by_month(signed_in: Client, garden: Garden) -> None:
    response = signed_in.post(reverse("normals", args=[garden.pk]), months() | {"low_6": "20"})
    assert "Jul: the high is below the low" in text(response)


def test_a_removed_place_is_gone_from_the_pages_and_can_be_put_back(signed_in: Client, garden: Garden) -> None:
    place = make_place(garden, "Old frame")
    make_reading(place, NOW)
    signed_in.post(reverse("remove_place", args=[garden.pk, place.pk]))
    assert signed_in.get(reverse("place", args=[garden.pk, place.pk])).status_code == 404
    assert "Old frame" not in text(signed_in.get(reverse("ground", args=[garden.pk])))
    assert "restored" in text(signed_in.get(reverse("garden", args=[garden.pk])))
    signed_in.post(reverse("put_back_place", args=[garden.pk, place.pk]))
    assert garden.places.get().readings.count() == 1


def test_a_place_is_not_put_back_beside_its_namesake(signed_in: Client, garden: Garden) -> None:
    old = make_place(garden, "Frame")
    signed_in.post(reverse("remove_place", args=[garden.pk, old.pk]))
    make_place(garden, "frame")
    page = text(signed_in.post(reverse("put_back_place", args=[garden.pk, old.pk]), follow=True))
    assert "Another place is called Frame by now" in page
    assert garden.places.count() == 1


def test_without_a_database_the_start_is_refused_with_a_hint(settings: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    assert a_database_is_named(None) == []
    monkeypatch.setitem(settings.DATABASES["default"], "PORT", "")
    assert "./run" in str(a_database_is_named(None)[0].hint)


def test_the_foot_of_every_page_says_which_version_it_is(signed_in: Client, garden: Garden) -> None:
    assert f"Cloche {__version__}" in signed_in.get(reverse("today", args=[garden.pk])).content.decode()
