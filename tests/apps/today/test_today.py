from datetime import date, timedelta
from typing import Any

import pytest
from django.core.management import CommandError, call_command
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.flows import refresh
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod
from cloche.apps.readings.models import Reading
from cloche.apps.records.management.commands.load_demo import load
from cloche.apps.shared import clock
from tests.conftest import NOW
from tests.factories import make_place, make_reading, read_twice_daily, write_air


def today(client: Client, garden: Garden) -> str:
    return client.get(reverse("today", args=[garden.pk])).content.decode()


def test_an_empty_garden_offers_the_one_next_step(signed_in: Client, garden: Garden) -> None:
    shown = today(signed_in, garden)
    assert "Add your first place" in shown
    assert reverse("first_places", args=[garden.pk]) in shown


def test_warm_ground_is_offered_and_cold_ground_waits(signed_in: Client, garden: Garden) -> None:
    write_air(garden, date(2026, 3, 20), 34, low_c=6, high_c=17)
    warm, cold = make_place(garden, "Frame", kind="frame"), make_place(garden, "Shady bed", kind="mulched")
    read_twice_daily(warm, 8, NOW, 13.0, 20.0)
    read_twice_daily(cold, 8, NOW, -2.0, -1.0)
    for place in (warm, cold):
        refresh(place)
    shown = today(signed_in, garden)
    assert "can be sown or planted in Frame now; Shady bed waits." in shown
    assert "16.5°" in shown
    assert "measured" in shown


def test_still_to_read_is_named(signed_in: Client, garden: Garden) -> None:
    read, unread = make_place(garden, "Read bed"), make_place(garden, "Other bed")
    make_reading(read, NOW - timedelta(hours=1))
    shown = today(signed_in, garden)
    assert "1 of 2 read" in shown
    assert f"{reverse('place', args=[garden.pk, unread.pk])}#desk" in shown


@pytest.mark.whole_season
def test_the_southern_half_in_november_sows_like_april(
    signed_in: Client, garden: Garden, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(clock, "now", lambda: NOW.replace(month=11))
    Garden.objects.filter(pk=garden.pk).update(latitude_deg=-41.0, longitude_deg=173.0, timezone_name="Pacific/Auckland")
    garden.refresh_from_db()
    place = make_place(garden)
    forecast = refresh(place)
    assert forecast.ground.far_mid_c[60] > forecast.ground.far_mid_c[220] + 5


@pytest.mark.django_db
def test_the_demo_loads_once_and_only_into_the_demo(settings: Any, monkeypatch: pytest.MonkeyPatch, now: object) -> None:
    with pytest.raises(CommandError, match="demo only"):
        call_command("load_demo")
    settings.CLOCHE_DEMO = True
    monkeypatch.setattr("cloche.apps.forecasts.flows.refresh_stale", lambda: 0)
    call_command("load_demo", seed=7)
    first = set(Reading.objects.values_list("pk", flat=True))
    assert 8000 < len(first) < 40_000
    assert Garden.objects.count() == 2
    call_command("load_demo", seed=7)
    assert set(Reading.objects.values_list("pk", flat=True)) == first
    load(8)
    assert not Reading.objects.filter(pk__in=first).exists()


def test_a_cover_of_these_days_is_drawn_and_one_of_the_coming_days_as_coming(signed_in: Client, garden: Garden) -> None:
    bed = make_place(garden, "North bed")
    read_twice_daily(bed, 3, NOW, 7.0, 12.0)
    refresh(bed)
    bare = today(signed_in, garden)
    assert 'class="line coming"' not in bare
    on = NOW.date() + timedelta(days=3)
    tunnel = CoverPeriod.objects.create(place=bed, cover="film_tunnel", first=on)
    coming = today(signed_in, garden)
    assert coming.count('class="line coming"') == 1
    assert "open bed, hooped tunnel of clear film from 25 Apr" in coming
    assert coming.count('class="film"') == bare.count('class="film"')
    CoverPeriod.objects.filter(pk=tunnel.pk).update(first=NOW.date() - timedelta(days=3))
    there = today(signed_in, garden)
    assert 'class="line coming"' not in there
    assert "open bed, hooped tunnel of clear film<" in there
    assert there.count('class="film"') == bare.count('class="film"') + 1
    for gone in ({"last": NOW.date() - timedelta(days=1)}, {"first": NOW.date() + timedelta(days=30), "last": None}):
        CoverPeriod.objects.filter(pk=tunnel.pk).update(**gone)
        assert "hooped tunnel" not in today(signed_in, garden)[: coming.index("Jobs, in the order")]
