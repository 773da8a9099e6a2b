"""The seed box, and rows that stay silent."""

from __future__ import annotations

from datetime import timedelta

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.plan import advice
from cloche.apps.plan.pages.planting import planting_page
from cloche.apps.plants.models import Planting
from cloche.apps.plants.selectors import plantings_in
from cloche.apps.seed.models import Packet
from cloche.bridge.services.beds import came_so_far
from cloche.bridge.values.units import Units
from cloche_engine.crops.catalogue import catalogue
from cloche_engine.results import CandidateDays, FrostDates, RibbonDays
from tests.apps.bench.benches import store
from tests.conftest import NOW
from tests.factories import make_place, make_window

TODAY = NOW.date()


@pytest.fixture
def bed(garden: Garden) -> Place:
    return make_place(garden)


def test_packets_go_into_the_box_one_after_another(signed_in: Client, garden: Garden) -> None:
    url = reverse("seed_box", args=[garden.pk])
    assert "The seed box is empty." in signed_in.get(url).content.decode()
    for variety in ("Amber", "Nantes type"):
        given = signed_in.post(
            url, {"crop_key": "carrot", "variety": variety, "packed_year": "2025", "price": "2.4"}, follow=True
        )
        assert f"Carrot {variety} is in the box. Add the next one?" in given.content.decode()
    first, second = Packet.objects.order_by("pk")
    assert (first.in_use, second.in_use) == (True, False)
    assert "2 packets in the box." in given.content.decode()
    refused = signed_in.post(url, {"crop_key": "carrot", "packed_year": "1890"})
    assert refused.status_code == 422
    assert "the year the seed was packed" in refused.content.decode()


def test_old_seed_is_marked_and_what_the_plan_wants_is_to_be_bought(signed_in: Client, bed: Place) -> None:
    garden = bed.garden
    garden.packets.create(crop_key="parsnip", variety="Long", packed_year=TODAY.year - 6)
    garden.packets.create(crop_key="tomato", packed_year=TODAY.year - 1)
    for crop in ("parsnip", "radish", "tomato"):
        Planting.objects.create(place=bed, crop_key=crop, planned_on=TODAY, length_m=0.6)
    given = signed_in.get(reverse("seed_box", args=[garden.pk])).content.decode()
    assert "the plan also needs parsnip and radish" in given
    assert '<span class="warn">about' in given
    assert "the plan needs" in given


def test_a_helper_may_look_into_the_box_and_no_more(signed_in: Client, garden: Garden) -> None:
    garden.memberships.update(role="helper")
    url = reverse("seed_box", args=[garden.pk])
    assert "Add packet" not in signed_in.get(url).content.decode()
    assert signed_in.post(url, {"crop_key": "carrot"}).status_code == 403


def test_sound_seed_in_cold_ground_waits_and_in_warm_ground_is_dead(signed_in: Client, bed: Place) -> None:
    sowing = bed.sowings.create(crop_key="carrot", sown_on=TODAY - timedelta(days=20), seeds=100, depth_m=0.015)
    url = reverse("silent", args=[bed.garden_id, sowing.pk])
    assert "dig up a hand’s length" in signed_in.get(url).content.decode()
    for soil, said in ((4.0, "too cold: the seed is sound and waiting"), (24.0, "dead seed")):
        store(bed, soil)
        bed.soil_years.all().delete()
        keep(bed, soil)
        assert said in signed_in.get(url, {"sound": "8"}).content.decode()
    assert "Sow under fleece or mesh" in signed_in.get(url, {"eaten": "6"}).content.decode()
    assert signed_in.get(url, {"sound": "-3"}).status_code == 422
    assert signed_in.get(reverse("silent", args=[bed.garden_id, sowing.pk + 99])).status_code == 404


def keep(bed: Place, soil_c: float) -> None:
    from cloche.apps.forecasts.flows import keep_days

    keep_days(bed, 0.05, {TODAY - timedelta(days=ago): soil_c for ago in range(1, 40)})


def test_seed_is_as_far_on_as_the_soil_was_warm() -> None:
    assert came_so_far("carrot", []) == 0.0
    assert came_so_far("carrot", [None, None]) == 0.0
    cold, warm = (came_so_far("carrot", [value] * 10) for value in (8.0, 20.0))
    assert 0 < cold < 0.6 < warm
    assert came_so_far("carrot", [20.0, None] * 5) == pytest.approx(warm)


def test_seed_that_is_saved_becomes_a_packet_with_its_parent(signed_in: Client, garden: Garden) -> None:
    bed = make_place(garden)
    parent = Packet.objects.create(garden=garden, crop_key="lettuce", variety="Hill Green", packed_year=2024)
    planting = Planting.objects.create(
        place=bed, crop_key="lettuce", packet=parent, origin="sown", planted_on=TODAY - timedelta(days=100)
    )
    url = reverse("save_seed", args=[garden.pk, planting.pk])
    text = signed_in.post(url, {"variety": "Hill Green, ours"}, follow=True).content.decode()
    packet = Packet.objects.get(variety="Hill Green, ours")
    assert (packet.packed_year, packet.in_use, packet.saved.planting.packet) == (TODAY.year, False, parent)
    assert f"saved {TODAY.year} from Hill Green, North bed" in text
    refused = signed_in.post(url, {"variety": "x" * 99}).content.decode()
    assert "at most 60 characters" in refused
    assert "x" * 99 in refused
    meant = Planting.objects.create(place=bed, crop_key="lettuce", origin="sown", planned_on=TODAY)
    assert signed_in.post(reverse("save_seed", args=[garden.pk, meant.pk]), {"variety": ""}).status_code == 404


def test_flowers_beside_a_crop_come_with_their_days(garden: Garden) -> None:
    bed = make_place(garden)
    planting = Planting.objects.create(place=bed, crop_key="tomato", origin="raised", planted_on=TODAY)
    assert "marigolds and basil" in advice.beside(planting, TODAY)
    bed.outlooks.create(
        crop_key="marigold",
        sow_now=False,
        windows=[make_window("2026-05-16", "2026-06-30")],
        ribbon=RibbonDays([], [], []),
        days=CandidateDays([], [], [], "", "", "", [], ""),
    )
    assert "from 16 May" in advice.beside(planting, TODAY)
    assert advice.beside(Planting(place=bed, crop_key="asparagus"), TODAY) == ""
    known = set(catalogue())
    families = {each.family for each in catalogue().values()}
    assert {flower for flowers in advice.BESIDE.values() for flower in flowers} <= known
    assert set(advice.BESIDE) <= families
    assert set(advice.INDOORS) <= known


def test_before_frost_green_fruit_is_brought_in_to_ripen(garden: Garden) -> None:
    bed = make_place(garden)
    store(bed, 14.0)
    forecast = Forecast.objects.get(place=bed)
    frost = TODAY + timedelta(days=20)
    forecast.frosts = FrostDates(None, (frost, frost + timedelta(days=14), frost + timedelta(days=30)), -5.0, 0)
    forecast.save()
    planting = Planting.objects.create(place=bed, crop_key="tomato", origin="raised", planted_on=TODAY - timedelta(days=20))
    text = " ".join(planting_page(plantings_in(garden).get(pk=planting.pk), Units(), TODAY).lines)
    assert "Frost is possible from 12 May on" in text
    assert "15° to 21°" in text
    kale = Planting.objects.create(place=bed, crop_key="kale", origin="raised", planted_on=TODAY)
    assert "Frost is possible" not in " ".join(planting_page(plantings_in(garden).get(pk=kale.pk), Units(), TODAY).lines)
    forecast.frosts = FrostDates(None, None, 3.0, 0)
    forecast.save()
    assert "Frost is possible" not in " ".join(planting_page(plantings_in(garden).get(pk=planting.pk), Units(), TODAY).lines)
