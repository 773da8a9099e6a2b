"""Packets: their own word against the table's, their age and tests, and which one windows go by."""

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.flows import refresh
from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.models import Place
from cloche.apps.seed.models import CropChoice, Packet
from cloche.bridge.services.crops import chosen, crop
from cloche_engine.crops.grown import with_values
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place, read_twice_daily


@pytest.fixture
def bed(garden: Garden) -> Place:
    """A bed at about 10 °C, worked out."""
    place = make_place(garden)
    read_twice_daily(place, 5, NOW, 8.0, 12.0)
    refresh(place)
    return place


def say(client: Client, garden: Garden, key: str = "carrot", in_use: str = "on", **typed: str) -> object:
    return client.post(reverse("new_packet", args=[garden.pk, key]), {"in_use": in_use, **typed}, follow=True)


def test_a_packet_decides_what_is_comfortable(signed_in: Client, garden: Garden, bed: Place) -> None:
    wakes = reverse("what_wakes", args=[garden.pk])
    before = signed_in.get(wakes).content.decode().split("Just at their minimum")[0]
    assert ">Carrot</a>" in before
    page = say(signed_in, garden, minimum="7", ideal_from="16", ideal_to="29").content.decode()  # type: ignore[attr-defined]
    assert "packet saved" in page
    assert "Your values: minimum, ideal from, ideal to." in page
    assert ">Carrot</a>" not in signed_in.get(wakes).content.decode().split("Just at their minimum")[0]
    crop_page = signed_in.get(reverse("crop_in_place", args=[garden.pk, bed.pk, "carrot"])).content.decode()
    assert "your own value" in crop_page


def test_a_variety_s_days_to_harvest_move_its_window(signed_in: Client, garden: Garden, bed: Place) -> None:
    def harvest() -> str:
        refresh(Place.objects.get(pk=bed.pk))
        page = signed_in.get(reverse("crop_in_place", args=[garden.pk, bed.pk, "carrot"]), {"in": "20"}).content.decode()
        return page.split("Harvest about ")[1].split(".")[0]

    before = harvest()
    say(signed_in, garden, variety="Early Finger", days="50")
    assert harvest() != before
    assert Packet.objects.get().values == {"maturity_d": 50.0}


def test_degrees_of_the_other_scale_are_asked_about_not_refused(signed_in: Client, garden: Garden) -> None:
    """45 °F typed where °C are meant."""
    typed = {"minimum": "45", "ideal_from": "45", "ideal_to": "45"}
    response = say(signed_in, garden, **typed)
    page = response.content.decode()  # type: ignore[attr-defined]
    assert response.status_code == 422  # type: ignore[attr-defined]
    assert "Did you mean °F?" in page
    assert 'value="45"' in page
    say(signed_in, garden, **typed, meant="on")
    assert Packet.objects.get().values["minimum_c"] == 45


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ({"minimum": "12", "ideal_from": "10"}, "must not begin below the minimum"),
        ({"ideal_from": "20", "ideal_to": "15"}, "must end after it begins"),
        ({"minimum": "warm"}, "is not a number"),
        ({"days": "0"}, "from 1 to 400"),
        ({"depth": "0"}, "is outside"),
        ({"days": "380"}, "Please confirm"),
        ({"tested_of": "20"}, "Enter both numbers of a test"),
        ({"tested_of": "20", "tested_up": "21"}, "No more seeds can germinate"),
        ({"packed_year": "2031"}, "Enter a year from"),
    ],
)
def test_what_cannot_be_is_refused_and_nothing_typed_is_lost(
    signed_in: Client, garden: Garden, typed: dict[str, str], said: str
) -> None:
    page = say(signed_in, garden, variety="Amber", **typed).content.decode()  # type: ignore[attr-defined]
    assert said in page
    assert 'value="Amber"' in page
    assert not Packet.objects.exists()


def test_fahrenheit_and_inches_are_kept_as_they_were_meant(signed_in: Client, garden: Garden, person: User) -> None:
    User.objects.filter(pk=person.pk).update(temperature_unit="F", length_unit="in")
    say(signed_in, garden, minimum="45", ideal_from="60", ideal_to="85", depth="0.5")
    packet = Packet.objects.get()
    assert packet.values["minimum_c"] == pytest.approx(7.222, abs=0.001)
    assert packet.values["sowing_depth_m"] == pytest.approx(0.0127)
    page = signed_in.get(reverse("edit_packet", args=[garden.pk, "carrot", packet.pk])).content.decode()
    assert 'value="45.0"' in page
    assert 'value="0.5"' in page


def test_one_packet_is_in_use_and_putting_it_away_can_be_undone(signed_in: Client, garden: Garden) -> None:
    say(signed_in, garden, variety="Amber")
    say(signed_in, garden, variety="Blue")
    amber, blue = (Packet.objects.get(variety=name) for name in ("Amber", "Blue"))
    assert (amber.in_use, blue.in_use) == (False, True)
    signed_in.post(reverse("remove_packet", args=[garden.pk, "carrot", blue.pk]))
    amber.refresh_from_db()
    assert amber.in_use
    page = signed_in.post(reverse("put_back_packet", args=[garden.pk, "carrot", blue.pk]), follow=True).content.decode()
    assert "windows are based on Amber" in page
    signed_in.post(reverse("use_packet", args=[garden.pk, "carrot", blue.pk]))
    assert Packet.objects.get(in_use=True).variety == "Blue"


def test_old_seed_is_less_alive_and_a_test_says_more_than_age(signed_in: Client, garden: Garden) -> None:
    def alive(**typed: str) -> int:
        page = say(signed_in, garden, key="onion", **typed).content.decode()  # type: ignore[attr-defined]
        return int(page.split("about ")[1].split("% viable")[0])

    fresh, old = alive(packed_year="2026"), alive(packed_year="2020")
    tested = alive(packed_year="2020", tested_of="50", tested_up="45")
    assert fresh >= 82
    assert old < 40
    assert tested > 70


def test_a_way_and_a_rule_are_chosen_for_a_crop(signed_in: Client, garden: Garden, bed: Place) -> None:
    url = reverse("choose", args=[garden.pk, "cabbage"])
    signed_in.post(url, {"sowing_rule": "minimum", "method": "direct"})
    refresh(Place.objects.get(pk=bed.pk))
    page = signed_in.get(reverse("crop_in_place", args=[garden.pk, bed.pk, "cabbage"])).content.decode()
    assert "sown in place, which suits this place" in page
    signed_in.post(url, {"sowing_rule": "", "method": ""})
    assert not CropChoice.objects.exists()
    assert signed_in.post(url, {"sowing_rule": "by the stars", "method": ""}).status_code == 404


def test_another_garden_s_packet_does_not_exist(signed_in: Client, garden: Garden) -> None:
    other = make_garden(make_person("alder"), "Elsewhere")
    theirs = Packet.objects.create(garden=other, crop_key="carrot")
    for name in ("edit_packet", "use_packet", "remove_packet"):
        url = reverse(name, args=[garden.pk, "carrot", theirs.pk])
        assert signed_in.post(url).status_code == 404


def test_values_take_the_table_s_place_and_pace_slows_the_curve() -> None:
    carrot = crop("carrot")
    given = with_values(carrot, {"minimum_c": 9.0})
    assert (given.minimum_c, given.optimum_from_c, given.rate) == (9.0, max(carrot.optimum_from_c, 9.0), carrot.rate)
    assert with_values(crop("pea"), None) is crop("pea")
    slow = with_values(carrot, {"pace": 2.0})
    assert float(slow.rate.at(15.0)) == pytest.approx(float(carrot.rate.at(15.0)) / 2)
    assert "2 times the days" in slow.rate_source
    assert chosen(["carrot"], {"carrot": {"minimum_c": 9.0}})[0].minimum_c == 9.0
    assert chosen(["carrot"])[0].minimum_c != 9.0
