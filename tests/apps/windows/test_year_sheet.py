"""The year sheet: what falls into which month, next spring too, and on which days."""

import re
from datetime import date

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.flows import refresh
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.windows.pages.place import in_families
from cloche.apps.windows.pages.year_sheet import Month, Task, year_sheet_page
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units
from tests.factories import make_place

TODAY = date(2026, 4, 22)


def cell(months: list[Month], name: str, task: Task) -> str:
    month_cell = next(month for month in months if month.name == name)
    return ", ".join(month_cell.cells[list(Task).index(task)][1])


@pytest.fixture
def bed(garden: Garden) -> Place:
    Garden.objects.filter(pk=garden.pk).update(crops=["pea", "tomato", "garlic"])
    garden.refresh_from_db()
    place = make_place(garden, "North bed")
    refresh(place)
    return place


@pytest.mark.whole_season
def test_next_spring_is_on_the_sheet_and_what_stands_the_winter_with_its_crop(garden: Garden, bed: Place) -> None:
    CoverPeriod.objects.create(place=bed, cover="fleece", first=date(2027, 3, 10))
    months = year_sheet_page(garden, TODAY, Units()).months
    assert [months[0].name, months[-1].name] == ["April 2026", "March 2027"]
    assert "Pea 22–30" in cell(months, "April 2026", Task.SOW)
    assert "Pea" in cell(months, "March 2027", Task.SOW)
    assert "Pea" in cell(months, "July 2026", Task.HARVEST)
    assert "Tomato" in cell(months, "June 2026", Task.PLANT)
    assert "Tomato" in cell(months, "April 2026", Task.INDOORS)
    assert "Garlic, autumn" in cell(months, "October 2026", Task.SOW)
    assert cell(months, "March 2027", Task.COVER) == "North bed: fleece 17 g/m² on 10"


@pytest.mark.whole_season
def test_the_table_and_the_reasons_have_the_same_days(garden: Garden, bed: Place) -> None:
    """A way of sowing that waits for the ideal range opens a window later than the first sure day: the table follows it."""
    months = year_sheet_page(garden, TODAY, Units()).months
    row = CropOutlook.objects.get(place=bed, crop_key="garlic_autumn")
    first = row.windows[0].earliest
    begins = [month.name for month in months if "Garlic, autumn" in cell(months, month.name, Task.SOW)]
    assert begins[0] == f"{first:%B %Y}"
    assert f"Garlic, autumn-planted {first.day}–" in cell(months, begins[0], Task.SOW)


def test_the_page_says_the_frosts_and_why(signed_in: Client, garden: Garden, bed: Place, now: object) -> None:
    page = signed_in.get(reverse("year_sheet", args=[garden.pk])).content.decode()
    assert "what to do when, April 2026 to March 2027" in page
    assert "The last spring frost comes about" in page
    assert "Pea, North bed: " in page
    assert page.count('<th scope="row">') == 12


def test_a_garden_without_a_forecast_has_an_empty_sheet(signed_in: Client, garden: Garden, now: object) -> None:
    page = signed_in.get(reverse("year_sheet", args=[garden.pk]))
    assert page.status_code == 200
    assert "<li>" not in page.content.decode().split("</table>")[1].split("<footer")[0]


def test_winter_kinds_come_with_their_crop() -> None:
    assert crops.winter_kinds_of("spinach") == ("spinach_winter",)
    assert crops.winter_kinds_of("onion") == ("onion_autumn",)
    assert crops.winter_kinds_of("tomato") == ()
    assert crops.with_winter_kinds(["spinach", "spinach_winter"]) == ("spinach", "spinach_winter")
    assert "garlic_autumn" in crops.with_winter_kinds(["garlic"])


def test_what_stands_the_winter_is_the_second_window_of_its_crop() -> None:
    assert crops.usual_of("spinach_winter") == "spinach"
    assert crops.usual_of("sweet_corn") == "sweet_corn"
    keys = ["lettuce", "spinach_winter", "pea", "spinach", "lettuce_winter"]
    assert in_families(keys, str) == [["lettuce", "lettuce_winter"], ["spinach_winter", "spinach"], ["pea"]]


ROW = re.compile(r'<a class="ribbon-row( follows)?" href="[^"]*/crops/([a-z0-9_]+)/"')


@pytest.mark.whole_season
def test_windows_list_a_crop_once_with_both_its_seasons(signed_in: Client, garden: Garden, bed: Place) -> None:
    """Common practice, no source: garlic is planted in autumn, and in spring where that was missed."""
    for address in (reverse("windows", args=[garden.pk]), reverse("place", args=[garden.pk, bed.pk])):
        rows = [(key, bool(follows)) for follows, key in ROW.findall(signed_in.get(address).content.decode())]
        at = [number for number, (key, _) in enumerate(rows) if key in ("garlic", "garlic_autumn")]
        assert at[1] == at[0] + 1, address
        assert [rows[number][1] for number in at] == [False, True], address
