"""The packet's own word against the table's."""

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden, PacketWord, Place, User
from cloche.apps.windows.flows.refresh import refresh
from cloche.bridge.crops import Packet, by_packet, chosen, crop
from tests.conftest import NOW
from tests.factories import make_place, read_twice_daily


@pytest.fixture
def bed(garden: Garden) -> Place:
    """A bed at about 10 °C, worked out."""
    place = make_place(garden)
    read_twice_daily(place, 5, NOW, 8.0, 12.0)
    refresh(place)
    return place


def say(client: Client, place: Place, key: str = "carrot", **typed: str) -> object:
    return client.post(reverse("packet", args=[place.garden_id, place.pk, key]), typed, follow=True)


def test_a_packet_decides_what_is_comfortable(signed_in: Client, garden: Garden, bed: Place) -> None:
    wakes = reverse("what_wakes", args=[garden.pk])
    before = signed_in.get(wakes).content.decode().split("At their bare minimum")[0]
    assert ">Carrot</a>" in before
    response = say(signed_in, bed, minimum="7", ideal_from="16", ideal_to="29")
    page = response.content.decode()  # type: ignore[attr-defined]
    assert "Carrot goes by its packet" in page
    assert "your packet, where it says so" in page
    assert ">Carrot</a>" not in signed_in.get(wakes).content.decode().split("At their bare minimum")[0]


def test_leaving_all_empty_gives_the_table_its_word_back(signed_in: Client, bed: Place) -> None:
    say(signed_in, bed, minimum="7")
    response = say(signed_in, bed)
    assert "goes by the table again" in response.content.decode()  # type: ignore[attr-defined]
    assert not PacketWord.objects.exists()


def test_degrees_of_the_other_scale_are_asked_about_not_refused(signed_in: Client, bed: Place) -> None:
    """45 °F typed where °C are meant."""
    response = say(signed_in, bed, minimum="45", ideal_from="45", ideal_to="45")
    page = response.content.decode()  # type: ignore[attr-defined]
    assert response.status_code == 422  # type: ignore[attr-defined]
    assert "Was it in °F?" in page
    assert 'value="45"' in page
    say(signed_in, bed, minimum="45", ideal_from="45", ideal_to="45", meant="on")
    assert PacketWord.objects.get().minimum_c == 45


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ({"minimum": "12", "ideal_from": "10"}, "The ideal begins below the minimum"),
        ({"ideal_from": "20", "ideal_to": "15"}, "The ideal ends before it begins"),
        ({"minimum": "warm"}, "is not a number"),
    ],
)
def test_what_cannot_be_is_refused(signed_in: Client, bed: Place, typed: dict[str, str], said: str) -> None:
    assert said in say(signed_in, bed, **typed).content.decode()  # type: ignore[attr-defined]
    assert not PacketWord.objects.exists()


def test_fahrenheit_is_kept_as_it_was_meant(signed_in: Client, bed: Place, person: User) -> None:
    User.objects.filter(pk=person.pk).update(temperature_unit="F")
    page = say(signed_in, bed, minimum="45", ideal_from="60", ideal_to="85").content.decode()  # type: ignore[attr-defined]
    assert PacketWord.objects.get().minimum_c == pytest.approx(7.222, abs=0.001)
    assert 'value="45.0"' in page


def test_a_packet_is_its_garden_s_and_speed_stays_the_table_s() -> None:
    told = by_packet(crop("carrot"), Packet(minimum_c=9.0))
    assert (told.minimum_c, told.optimum_from_c, told.rate) == (9.0, crop("carrot").optimum_from_c, crop("carrot").rate)
    assert by_packet(crop("pea"), None) is crop("pea")
    assert chosen(["carrot"], {"carrot": Packet(9.0)})[0].minimum_c == 9.0
    assert chosen(["carrot"])[0].minimum_c != 9.0
