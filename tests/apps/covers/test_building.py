"""Building a cover: what a grower types, and what is said of it."""

from __future__ import annotations

import re
from datetime import timedelta

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.inputs import cover_description
from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.models import Cover
from cloche.apps.plan.courses import room_under
from cloche.apps.plants.models import BedShape
from cloche.apps.weather.models import DailyWeather
from cloche_engine.forecast.places import kind_of
from cloche_engine.inputs import CoverSpan
from tests.conftest import NOW
from tests.factories import make_place

TODAY = NOW.date()


def built(client: Client, garden: Garden, **typed: str) -> str:
    return client.get(reverse("build_cover", args=[garden.pk]), typed).content.decode()


def test_asked_without_anything_it_shows_a_usual_one(signed_in: Client, garden: Garden) -> None:
    text = built(signed_in, garden)
    assert "Set the edges of a sheet" in text
    assert "Add one like it to my covers" in text


def test_a_sheet_of_26_inches_over_18_in_the_growers_own_unit(signed_in: Client, garden: Garden, person: User) -> None:
    # Common practice, no source: about eight inches high.
    text = built(signed_in, garden, sheet="26 in", spread="18 in", plants="4 in")
    assert "It will be 20 cm high" in text
    User.objects.filter(pk=person.pk).update(length_unit="in")
    assert re.search(r"It will be (7\.9|8) in high", built(signed_in, garden, sheet="26", spread="18", plants="4"))


def test_where_it_cannot_be_it_is_said_what_would_do(signed_in: Client, garden: Garden) -> None:
    text = built(signed_in, garden, sheet="66", strip="40", plants="30")
    assert "leaves no room for plants 30 cm tall over 40 cm" in text
    wider = re.search(r"It needs a sheet (\d+) cm wide", text)
    assert wider
    assert "Set the edges" in built(signed_in, garden, sheet=wider[1], strip="40", plants="30")
    tall = re.search(r"can grow (\d+) cm tall", text)
    assert tall
    assert "Set the edges" in built(signed_in, garden, sheet="66", strip="40", plants=tall[1])


@pytest.mark.parametrize(
    ("typed", "refusal"),
    [
        ({"sheet": "fifty"}, "number"),
        ({"sheet": "20", "spread": "30"}, "nearer to each other"),
        ({"plants": "9000"}, "Enter a value from"),
        ({"kind": "glass_frame", "low": "50", "high": "20"}, "at least as high"),
        ({"kind": "house"}, "Select a valid choice"),
    ],
)
def test_what_does_not_fit_is_said_and_nothing_typed_is_lost(
    signed_in: Client, garden: Garden, typed: dict[str, str], refusal: str
) -> None:
    text = built(signed_in, garden, **typed)
    assert refusal in text
    assert all(f'value="{value}"' in text for name, value in typed.items() if name != "kind")


def test_a_lid_faces_the_sun_of_its_half_of_the_earth(signed_in: Client, garden: Garden) -> None:
    north = built(signed_in, garden, kind="glass_frame", low="20", high="50")
    assert "times the direct sun of a level lid" in north
    Garden.objects.filter(pk=garden.pk).update(latitude_deg=-garden.latitude_deg)
    said = re.compile(r"At noon in midwinter[^<]*")
    south = built(signed_in, garden, kind="glass_frame", low="20", high="50")
    assert said.search(south)[0][:60] == said.search(north)[0][:60]  # type: ignore[index]
    away = built(signed_in, garden, kind="glass_frame", low="20", high="50", faces="180")
    assert "no more noon sun" in away


def test_props_are_told_in_what_growers_have_at_hand(signed_in: Client, garden: Garden) -> None:
    shares = [
        int(re.search(r"it is open to (\d+)%", built(signed_in, garden, kind="glass_frame", prop=prop))[1])  # type: ignore[index]
        for prop in ("0.015", "0.065", "0.2")
    ]
    assert shares == sorted(shares)
    assert "it is open to" not in built(signed_in, garden, kind="glass_frame")


def test_one_like_it_goes_on_the_list_with_its_sizes(signed_in: Client, garden: Garden) -> None:
    text = built(signed_in, garden, kind="glass_frame", depth="80", low="20", high="30")
    link = re.search(r'href="([^"]*covers/mine/\?[^"]*)"', text)
    assert link
    form = signed_in.get(link[1].replace("&amp;", "&")).content.decode()
    for name, value in (("width", "80"), ("low", "20"), ("high", "30")):
        assert re.search(rf'name="{name}"[^>]*value="{value}"', form)
    typed = {"kind": "glass_frame", "name": "Box", "length": "120", "width": "80", "low": "20"}
    url = reverse("own_covers", args=[garden.pk])
    assert "or neither" in signed_in.post(url, typed).content.decode()
    assert (
        "20 cm high at the front and 30 cm at the back"
        in signed_in.post(url, typed | {"high": "30"}, follow=True).content.decode()
    )


def test_own_heights_reach_the_engine_and_the_plan(garden: Garden) -> None:
    own = Cover.objects.create(garden=garden, kind="glass_frame", name="Box", width_m=0.8, low_m=0.1, high_m=0.2)
    made = kind_of(CoverSpan("glass_frame", **cover_description(own, TODAY)))  # type: ignore[arg-type]
    assert made.gap_m == pytest.approx(0.15)
    place = make_place(garden)
    room = room_under("glass_frame", own, BedShape(place=place, width_m=0.8))
    assert room is not None
    assert (room.side_m, room.middle_m) == (0.1, 0.2)


@pytest.mark.parametrize("query", ["kind=nonsense", "width_m=abc", "low_m=99", "kind=glass_frame&width_m=-1"])
def test_an_odd_address_begins_an_empty_form(signed_in: Client, garden: Garden, query: str) -> None:
    assert signed_in.get(reverse("own_covers", args=[garden.pk]) + "?" + query).status_code == 200


def test_what_a_storm_did_is_kept_with_its_wind(signed_in: Client, garden: Garden) -> None:
    own = Cover.objects.create(garden=garden, kind="film_tunnel", name="Long tunnel")
    DailyWeather.objects.create(garden=garden, day=TODAY - timedelta(days=2), low_c=2.0, high_c=8.0, wind_m_s=14.0)
    note, page = (reverse(name, args=[garden.pk, own.pk]) for name in ("note_damage", "edit_own"))
    typed = {"on": (TODAY - timedelta(days=2)).isoformat(), "what": "torn", "cause": "wind", "note": "two stakes out"}
    text = signed_in.post(note, typed, follow=True).content.decode()
    assert "torn by wind, in an average wind of 14" in text
    assert "two stakes out" in text
    ahead = signed_in.post(note, typed | {"on": (TODAY + timedelta(days=1)).isoformat()})
    assert ahead.status_code == 422
    assert "in the future" in ahead.content.decode()
    assert own.damage.count() == 1
    struck = reverse("remove_damage", args=[garden.pk, own.pk, own.damage.get().pk])
    signed_in.post(struck)
    assert "two stakes out" not in signed_in.get(page).content.decode()
    assert signed_in.post(struck).status_code == 404
