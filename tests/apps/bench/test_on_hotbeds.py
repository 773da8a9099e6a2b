"""Trays set on hotbeds, and what heat cost where something was cut."""

from __future__ import annotations

from datetime import timedelta

import pytest
from django.core.exceptions import ValidationError
from django.test import Client
from django.urls import reverse

from cloche.apps.bench.pages.bench import bench_page
from cloche.apps.bench.worth import heated_since, worth_text
from cloche.apps.forecasts.flows import inputs_of, keep_days, refresh_if_stale
from cloche.apps.forecasts.models import Forecast
from cloche.apps.forecasts.selectors import kwh_between
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import HeatPeriod, Hotbed, HotbedTray, Place
from cloche.apps.plants.models import Planting
from cloche.bridge.values.units import Units
from tests.apps.bench.benches import TODAY, make_tray, store
from tests.conftest import NOW
from tests.factories import make_place

WEEK = timedelta(days=7)


@pytest.fixture
def heap(garden: Garden) -> Place:
    place = make_place(garden, "Long heap", kind="hotbed", seed_depth_m=0.05)
    Hotbed.objects.create(place=place, filled_on=TODAY - 2 * WEEK)
    return place


def test_a_tray_is_set_on_a_hotbed_and_taken_off(signed_in: Client, garden: Garden, heap: Place) -> None:
    tray = make_tray(garden)
    root = [garden.pk, tray.pk]
    before = tray.input_revision
    signed_in.post(reverse("set_on_hotbed", args=root), {"hotbed": heap.pk, "first": TODAY - WEEK, "last": ""})
    stay = HotbedTray.objects.get(place=tray)
    tray.refresh_from_db()
    assert (stay.hotbed, stay.last) == (heap, None)
    assert tray.input_revision > before
    page = signed_in.get(reverse("tray", args=root)).content.decode()
    assert "On Long heap" in page
    assert "Save stay on the hotbed" not in page
    assert [room.name for room in bench_page(garden, Units(), NOW).rooms] == ["On Long heap", "Outdoors"]
    # It stands on one at a time.
    again = signed_in.post(reverse("set_on_hotbed", args=root), {"hotbed": heap.pk, "first": TODAY, "last": ""})
    assert again.status_code == 422
    assert "The tray is already on a hotbed then" in again.content.decode()
    signed_in.post(reverse("off_hotbed", args=[*root, stay.pk]))
    stay.refresh_from_db()
    assert stay.last == TODAY - timedelta(days=1)
    assert "On Long heap" not in [room.name for room in bench_page(garden, Units(), NOW).rooms]
    signed_in.post(reverse("remove_hotbed_stay", args=[*root, stay.pk]))
    assert not HotbedTray.objects.exists()
    assert signed_in.post(reverse("off_hotbed", args=[*root, stay.pk])).status_code == 404


def test_only_trays_are_set_on_hotbeds_of_their_own_garden(signed_in: Client, garden: Garden, heap: Place) -> None:
    bed = make_place(garden, "Open bed")
    url = reverse("set_on_hotbed", args=[garden.pk, bed.pk])
    assert signed_in.post(url, {"hotbed": heap.pk, "first": TODAY, "last": ""}).status_code == 422
    tray = make_tray(garden)
    url = reverse("set_on_hotbed", args=[garden.pk, tray.pk])
    assert signed_in.post(url, {"hotbed": bed.pk, "first": TODAY, "last": ""}).status_code == 422
    assert signed_in.post(url, {"hotbed": heap.pk, "first": TODAY, "last": TODAY - WEEK}).status_code == 422
    assert not HotbedTray.objects.exists()


def test_a_trays_forecast_rests_on_what_its_hotbed_has_taught(garden: Garden, heap: Place) -> None:
    tray = make_place(garden, "Shelf", kind="cells", seed_depth_m=0.02)
    HotbedTray.objects.create(place=tray, hotbed=heap, first=TODAY - WEEK)
    (below,) = inputs_of(tray).below
    assert (below.hotbed.kind, below.factors, below.first) == ("hotbed", {}, TODAY - WEEK)
    store(heap, 24.0, parameters={"heat": (0.8, 1.25, 1.5), "sun": (0.9, 1.0, 1.1)})
    assert inputs_of(tray).below[0].factors == {"heat": 1.25}
    # Once the hotbed itself is worked out anew, so are the trays on it.
    Forecast.objects.all().delete()
    before = tray.input_revision
    assert refresh_if_stale(heap.pk)
    tray.refresh_from_db()
    assert tray.input_revision == before + 1
    heap.removed_at = NOW
    heap.save()
    assert inputs_of(tray).below == ()


def test_a_tray_that_became_a_hotbed_stands_on_none(garden: Garden, heap: Place) -> None:
    other = make_place(garden, "Other heap", kind="hotbed", seed_depth_m=0.05)
    for place, below in ((heap, other), (other, heap)):
        stay = HotbedTray.objects.create(place=place, hotbed=below, first=TODAY)
        with pytest.raises(ValidationError):
            stay.clean()
    assert inputs_of(heap).below == ()


def test_on_a_bed_that_is_still_rising_one_is_told_to_lift_the_tray(signed_in: Client, garden: Garden, heap: Place) -> None:
    tray = make_tray(garden)
    HotbedTray.objects.create(place=tray, hotbed=heap, first=TODAY)
    store(heap, 24.0)
    forecast = Forecast.objects.get(place=heap)
    forecast.ground.far_mid_c[3:9] = [33.0] * 6
    forecast.save()
    page = signed_in.get(reverse("tray", args=[garden.pk, tray.pk])).content.decode()
    assert "Long heap will be at 33" in page
    assert "Lift trays on laths" in page


def test_what_was_cut_stands_against_its_energy(garden: Garden) -> None:
    place = make_tray(garden, kind="cable")
    assert worth_text(place, Units(), TODAY) == ""
    place.heat_periods.create(source="cable", first=TODAY - 3 * WEEK, last=TODAY - WEEK)
    place.heat_periods.create(source="cable", first=TODAY - WEEK + timedelta(days=1))
    place.heat_periods.create(source="mat", first=TODAY - 40 * WEEK, last=TODAY - 30 * WEEK)
    assert heated_since(place, TODAY) == TODAY - 3 * WEEK
    keep_days(place, 0.02, {}, kwh={TODAY - timedelta(days=back): 0.5 for back in range(1, 40)})
    assert kwh_between(place, TODAY - 3 * WEEK, TODAY) == pytest.approx(10.5)
    assert "has used 10 kWh. No harvest has been recorded" in worth_text(place, Units(), TODAY)
    planting = Planting.objects.create(place=place, crop_key="lettuce", planted_on=TODAY - 6 * WEEK)
    planting.events.create(kind="harvested", on=TODAY - 4 * WEEK, weight_kg=5.0)
    planting.events.create(kind="harvested", on=TODAY - WEEK, number=4)
    assert "Since then 4 pieces have been cut here: 2.6 kWh each." in worth_text(place, Units(), TODAY)
    planting.events.create(kind="harvested", on=TODAY, weight_kg=2.1)
    assert "Since then 2.1 kg has been cut here: 5.0 kWh per kg." in worth_text(place, Units(), TODAY)
    garden.price_kwh = 0.3
    garden.save()
    place.refresh_from_db()
    assert "10 kWh, costing 3.15. Since then 2.1 kg has been cut here: 1.50 of heat per kg." in worth_text(
        place, Units(), TODAY
    )
    assert "of heat per lb" in worth_text(place, Units(length="in"), TODAY)


def test_a_heater_of_the_house_is_no_heat_of_a_bed(garden: Garden) -> None:
    place = make_tray(garden, kind="tray")
    place.heat_periods.create(source=HeatPeriod.Kind.HOUSE, first=TODAY - WEEK)
    assert heated_since(place, TODAY) is None


def test_energy_is_kept_across_the_turn_of_the_year(garden: Garden) -> None:
    place = make_tray(garden)
    new_year = TODAY.replace(month=1, day=1)
    days = [new_year + timedelta(days=offset) for offset in range(-3, 3)]
    keep_days(place, 0.02, {}, kwh=dict.fromkeys(days, 1.0))
    keep_days(place, 0.02, {days[0]: 9.0}, kwh={days[0]: 2.0})
    assert kwh_between(place, days[0], days[-1]) == pytest.approx(6.0)
