"""Planting out, benches, sowing rules, hedges, what wakes ahead of time: the pages."""

from datetime import date, timedelta

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.flows import refresh
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.plan.advice import of_plantings
from cloche.apps.plants.models import Planting
from cloche.apps.seed.models import CropChoice, Packet
from cloche.apps.shared import words
from cloche.apps.windows.prospects import for_harvest_by, prospect_on
from cloche_engine.results import RuleChoice
from cloche_engine.windows.limits import Limit
from cloche_engine.windows.rules import SowingRule
from tests.conftest import NOW
from tests.factories import make_place, read_twice_daily, write_air

pytestmark = pytest.mark.whole_season
TODAY = date(2026, 4, 22)
CROPS = ["tomato", "carrot", "cabbage", "okra", "garlic_autumn"]


@pytest.fixture
def bed(garden: Garden) -> Place:
    """A bed of a mild garden, worked out over the whole season for a few crops."""
    garden.crops = CROPS
    garden.latitude_deg = 45.0
    garden.save()
    place = make_place(garden)
    write_air(garden, TODAY - timedelta(days=40), 41, 6.0, 18.0)
    read_twice_daily(place, 5, NOW, 9.0, 15.0)
    refresh(place)
    return place


def page(client: Client, place: Place, key: str, **query: str) -> str:
    return client.get(reverse("crop_in_place", args=[place.garden_id, place.pk, key]), query).content.decode()


def test_tomatoes_are_planted_out_and_counted_back_to_the_bench(signed_in: Client, bed: Place) -> None:
    text = page(signed_in, bed, "tomato")
    assert "plant out from" in text
    assert "sow on the bench" in text
    assert "start hardening off" in text
    assert "I have sown it" not in text
    outlook = CropOutlook.objects.get(place=bed, crop_key="tomato")
    assert (outlook.method, outlook.better) == ("transplanted", True)


def test_a_colder_bench_is_sown_earlier_and_a_cold_one_cannot_raise_them(signed_in: Client, garden: Garden, bed: Place) -> None:
    mat = make_place(garden, "Mat", kind="mat", seed_depth_m=0.02)
    refresh(mat)
    room, warm = page(signed_in, bed, "tomato", bench="room"), page(signed_in, bed, "tomato", bench=str(mat.pk))
    assert "a tray at 18°" in room
    assert "sow it on Mat" in warm


def test_both_ways_of_a_cabbage_can_be_looked_at_and_one_chosen(signed_in: Client, garden: Garden, bed: Place) -> None:
    assert CropOutlook.objects.filter(place=bed, crop_key="cabbage").count() == 2
    sown, planted = page(signed_in, bed, "cabbage", method="direct"), page(signed_in, bed, "cabbage", method="transplanted")
    assert "metres of row" in sown
    assert "start hardening off" in planted
    other = CropOutlook.objects.get(place=bed, crop_key="cabbage", better=False).method
    CropChoice.objects.create(garden=garden, crop_key="cabbage", method=other)
    refresh(Place.objects.get(pk=bed.pk))
    assert CropOutlook.objects.get(place=bed, crop_key="cabbage", better=True).method == other


def test_a_way_that_a_crop_does_not_know_does_not_hide_it(garden: Garden, bed: Place) -> None:
    CropChoice.objects.create(garden=garden, crop_key="carrot", method="transplanted")
    refresh(Place.objects.get(pk=bed.pk))
    assert CropOutlook.objects.get(place=bed, crop_key="carrot").better


def test_the_three_sowing_rules_stand_side_by_side_and_the_garden_s_own_is_named(
    signed_in: Client, garden: Garden, bed: Place
) -> None:
    Garden.objects.filter(pk=garden.pk).update(sowing_rule="calendar")
    text = page(signed_in, bed, "carrot")
    assert "Three rules for choosing the date" in text
    assert "All three rules choose" in text
    outlook = CropOutlook.objects.get(place=bed, crop_key="carrot")
    assert {choice.sowing_rule for choice in outlook.sowing_rules} == {"minimum", "comfortable", "calendar"}


def test_a_price_turns_lost_packets_into_money(signed_in: Client, garden: Garden, bed: Place) -> None:
    outlook = CropOutlook.objects.get(place=bed, crop_key="okra", method="direct")
    costly = {"fails": 0.5, "soil_c": 16.0, "half_d": 20.0, "share": 0.8, "lost_d": 3.0, "limit": Limit.COLD}
    outlook.sowing_rules = [
        RuleChoice(SowingRule.MINIMUM, date(2026, 5, 20), **costly),
        RuleChoice(SowingRule.COMFORTABLE, date(2026, 6, 2), **costly),
        RuleChoice(SowingRule.CALENDAR, None),
    ]
    outlook.save()
    assert "0.5 packets lost on average" in page(signed_in, bed, "okra", method="direct")
    Packet.objects.create(garden=garden, crop_key="okra", price=4.0)
    text = page(signed_in, bed, "okra", method="direct")
    assert "2.00 of seed lost on average" in text
    assert "Its date is beyond the end of the forecast" in text


def test_a_packet_is_split_for_a_wanted_chance_by_a_date(signed_in: Client, bed: Place) -> None:
    url = reverse("hedge", args=[bed.garden_id, bed.pk, "carrot"])
    text = signed_in.get(url, {"chance": "95", "by": "2026-09-01"}, HTTP_HX_REQUEST="true").content.decode()
    assert "a crop by 1 September" in text
    assert "in North bed" in text
    none = signed_in.get(url, {"chance": "95", "by": "2026-04-30"}, HTTP_HX_REQUEST="true").content.decode()
    assert "No sowing in any place gives a crop by 30 April" in none
    wrong = signed_in.get(url, {"by": "soon"}, HTTP_HX_REQUEST="true").content.decode()
    assert "Enter the date as year-month-day" in wrong
    assert signed_in.get(url, {"chance": "95"}).status_code == 302


def test_garlic_of_autumn_says_why_it_waits(signed_in: Client, bed: Place) -> None:
    text = page(signed_in, bed, "garlic_autumn")
    assert "survives the winter" in text
    assert "Snow, which shelters" not in text  # what roots carry through lies in the soil, under its snow


def test_a_crop_that_nobody_sows_so_far_north_says_so(signed_in: Client, garden: Garden) -> None:
    Garden.objects.filter(pk=garden.pk).update(latitude_deg=64.0, crops=["okra"], elevation_m=300.0)
    place = make_place(Garden.objects.get(pk=garden.pk))
    refresh(place)
    text = page(signed_in, place, "okra")
    assert "would hardly ever succeed" in text
    assert "64° north" in text


def test_windows_name_the_frost_dates_and_the_sowing_indoors(signed_in: Client, garden: Garden, bed: Place) -> None:
    text = signed_in.get(reverse("windows", args=[garden.pk])).content.decode()
    assert "The last spring frost comes about" in text
    assert "the usual climate of the region" in text
    assert "Tomato, plants" in text
    assert "indoors" in text
    rows = b"".join(signed_in.get(reverse("windows_csv", args=[garden.pk])).streaming_content).decode()  # type: ignore[attr-defined]
    assert "Tomato,North bed,transplanted" in rows
    assert "Carrot,North bed,direct" in rows


def test_trays_do_not_stand_among_the_windows(signed_in: Client, garden: Garden, bed: Place) -> None:
    refresh(make_place(garden, "Sill", kind="tray", seed_depth_m=0.02))
    assert (
        "Sill"
        not in signed_in.get(reverse("windows", args=[garden.pk])).content.decode().split("calendar")[0].split("<main")[1]
    )
    assert set(CropOutlook.objects.filter(place__name="Sill").values_list("method", flat=True)) == {"direct"}


@pytest.mark.parametrize(("ahead", "said"), [("0", "now."), ("7", "in a week."), ("12", "in 12 days."), ("99", "in a month.")])
def test_what_wakes_can_be_asked_ahead(signed_in: Client, garden: Garden, bed: Place, ahead: str, said: str) -> None:
    response = signed_in.get(reverse("what_wakes", args=[garden.pk]), {"in": ahead}, HTTP_HX_REQUEST="true")
    text = response.content.decode()
    assert f"in North bed {said}" in text.split("</h1>")[0]
    assert "<html" not in text


def test_what_wakes_can_be_kept_to_some_crops(signed_in: Client, garden: Garden, bed: Place) -> None:
    url = reverse("what_wakes", args=[garden.pk])
    warm = signed_in.get(url, {"only": "warm"}).content.decode()
    assert ">Okra</text>" in warm
    assert ">Carrot</text>" not in warm
    assert ">Carrot</text>" in signed_in.get(url, {"only": "nonsense"}).content.decode()


def test_a_zone_is_explained_and_a_wrong_one_refused(signed_in: Client, garden: Garden) -> None:
    url = reverse("garden", args=[garden.pk])
    site = {
        "name": "Test plot",
        "latitude_deg": "48",
        "longitude_deg": "15",
        "height": "300",
        "timezone_name": "Europe/Vienna",
    }
    site |= {"sowing_rule": "comfortable", "uncover_rule": "nights", "watered": "on"}
    signed_in.post(url, site | {"zone": "7A"})
    text = signed_in.get(url).content.decode()
    assert "between −18° and −15°" in text
    assert "no window depends on it" in text
    wrong = signed_in.post(url, site | {"zone": "99"})
    assert wrong.status_code == 422
    assert "is no hardiness zone" in wrong.content.decode()


def test_a_crop_s_page_draws_it_in_the_other_places_too(signed_in: Client, garden: Garden, bed: Place) -> None:
    second, sill = make_place(garden, "Second bed"), make_place(garden, "Sill", kind="tray", seed_depth_m=0.02)
    for each in (second, sill):
        refresh(each)
    text = page(signed_in, bed, "carrot")
    part = text.split("In other places")[1].split("Splitting the packet")[0]
    assert "Second bed" in part
    assert "Sill" not in part
    assert f"ribbon-{second.pk}-carrot" in part


def test_the_plan_warns_of_a_day_as_the_crops_own_page_has_it_and_names_a_better_one(bed: Place) -> None:
    outlook = CropOutlook.objects.get(place=bed, crop_key="okra", method="direct")
    early, late = date(2026, 4, 25), date(2026, 6, 10)
    prospects = {on: prospect_on(outlook, on, TODAY) for on in (early, late)}
    assert prospects[early].is_risky
    assert not prospects[late].is_risky
    planned = [Planting(place=bed, crop_key="okra", planned_on=on) for on in (early, late)]
    (line,) = of_plantings(planned, TODAY)
    assert line.startswith("Okra sown on 25 April would fail")
    assert "would be better: it succeeds" in line


def test_no_harvest_is_told_where_most_runs_bring_none(bed: Place) -> None:
    outlook = CropOutlook.objects.get(place=bed, crop_key="okra", method="direct")
    for offset in range(0, 150, 3):
        prospect = prospect_on(outlook, TODAY + timedelta(days=offset), TODAY)
        if prospect is not None and prospect.is_risky:
            assert prospect.harvest_on is None


def test_a_wanted_harvest_is_counted_back_to_the_last_day_that_brings_it(signed_in: Client, bed: Place) -> None:
    outlook = CropOutlook.objects.get(place=bed, crop_key="carrot", method="direct")
    middle = prospect_on(outlook, TODAY + timedelta(days=20), TODAY)
    assert middle is not None
    by = middle.harvest_on
    assert by is not None
    best = for_harvest_by(outlook, by, TODAY)
    assert best is not None
    assert best.harvest_on is not None
    assert best.harvest_on <= by
    assert best.on >= middle.on
    later = prospect_on(outlook, best.on + timedelta(days=6), TODAY)
    assert later is None or later.harvest_on is None or later.is_risky or later.harvest_on > by
    address = reverse("crop_in_place", args=[bed.garden_id, bed.pk, "carrot"])
    text = signed_in.get(address, {"harvest_by": by.isoformat()}).content.decode()
    assert f"For a harvest by {words.day(by, TODAY)}, sow by" in text
    soon = signed_in.get(address, {"harvest_by": (TODAY + timedelta(days=5)).isoformat()}).content.decode()
    assert "It is too late for a harvest by 27 April. The earliest is about" in soon
    wrong = signed_in.get(address, {"harvest_by": "soon"})
    assert wrong.status_code == 200
    assert "Enter a valid date" in wrong.content.decode()
