"""After a frost: the page, Today's job, and until when sowing again is sensible."""

from datetime import date, timedelta
from typing import Any

import pytest
from django.test import Client
from django.urls import reverse

from bench.earlier import HIGHS_48, LOWS_48
from cloche.apps.forecasts.flows import refresh
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.sowings.models import Count, Sowing
from cloche.apps.today.pages.ahead import after_page
from cloche.bridge.values.units import Units
from tests.conftest import NOW
from tests.factories import make_place, write_air

TODAY = NOW.date()


def sowing(place: Place, key: str, up: int, finished: bool = False) -> Sowing:
    made = Sowing.objects.create(
        place=place, crop_key=key, sown_on=TODAY - timedelta(days=24), seeds=50, depth_m=0.03, finished=finished
    )
    Count.objects.create(sowing=made, on=TODAY - timedelta(days=5), up=up)
    return made


@pytest.fixture
def frosted(garden: Garden, now: object) -> Place:
    """A bed of beans and peas that are up, after a night of six degrees of frost."""
    garden.normal_lows_c, garden.normal_highs_c = LOWS_48, HIGHS_48
    garden.save(update_fields=["normal_lows_c", "normal_highs_c"])
    write_air(garden, TODAY - timedelta(days=30), 29, low_c=6, high_c=16)
    write_air(garden, TODAY - timedelta(days=1), 2, low_c=-6, high_c=9)
    place = make_place(garden, "Long bed")
    sowing(place, "snap_bean", 40)
    sowing(place, "pea", 45, finished=True)
    refresh(place)
    return place


def lines(garden: Garden) -> dict[str, Any]:
    return {line.name: line for line in after_page(garden, Units(), TODAY).lines}


@pytest.mark.whole_season
def test_beans_are_lost_and_peas_live_though_their_count_is_closed(garden: Garden, frosted: Place) -> None:
    sentences = lines(garden)
    assert sentences["dwarf French beans"].harm == "lost"
    assert sentences["peas"].harm in ("marked", "unhurt", "regrows")
    assert "survive" in sentences["dwarf French beans"].text
    assert "It makes sense to sow it again" in sentences["dwarf French beans"].again
    assert "until" in sentences["dwarf French beans"].again


def test_the_page_and_today_say_the_same(signed_in: Client, garden: Garden, frosted: Place) -> None:
    page = signed_in.get(reverse("after_frost", args=[garden.pk])).content.decode()
    assert after_page(garden, Units(), TODAY).headline in page
    assert lines(garden)["dwarf French beans"].text in page
    today = signed_in.get(reverse("today", args=[garden.pk])).content.decode()
    assert "Check dwarf French beans in Long bed" in today
    assert lines(garden)["dwarf French beans"].text in today
    assert reverse("after_frost", args=[garden.pk]) in today


def test_without_frost_there_is_nothing_to_look_over(signed_in: Client, garden: Garden, now: object) -> None:
    write_air(garden, TODAY - timedelta(days=30), 32, low_c=8, high_c=18)
    place = make_place(garden, "Long bed")
    sowing(place, "snap_bean", 40)
    refresh(place)
    page = signed_in.get(reverse("after_frost", args=[garden.pk])).content.decode()
    assert "No seedlings or plants were reached by frost" in page
    assert "after the frost" not in signed_in.get(reverse("today", args=[garden.pk])).content.decode()


def test_a_frost_of_last_week_is_no_longer_told(garden: Garden, frosted: Place) -> None:
    later = TODAY + timedelta(days=5)
    assert after_page(garden, Units(), later).lines == []
    assert isinstance(later, date)
