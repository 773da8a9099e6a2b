"""A bed over a cable is judged by growth, harvest and kilowatt-hours, beside the same bed without it and its neighbours."""

from __future__ import annotations

from datetime import timedelta

import pytest
from django.test import Client

from cloche.apps.bench.pages.heated_beds import heated_bed_page
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.places.selectors import covers_of
from cloche.bridge.values.units import Units
from tests.apps.bench.benches import TODAY, heated, make_tray
from tests.apps.bench.test_bench import get


@pytest.fixture
def bed(garden: Garden) -> Place:
    place = make_tray(garden, "Winter bed", 14.0, kind="cable", heat=heated(without_c=7.0), around_c=9.0, within="greenhouse")
    place.heat_periods.create(source="cable", first=TODAY, cable_m=12, cable_w_m=10, length_m=3, width_m=1)
    return place


def test_growth_and_harvest_stand_beside_the_bed_without_heat_and_its_neighbours(
    signed_in: Client, garden: Garden, bed: Place
) -> None:
    make_tray(garden, "Next bed", 6.0, kind="open", around_c=9.0, within="greenhouse")
    make_tray(garden, "Bed in the open", 6.0, kind="open")
    page = get(signed_in, garden, "heat_gains", place=bed.pk, crop="lettuce")
    assert "Lettuces in Winter bed grow as much as in" in page
    assert "instead of" in page
    assert "Winter bed, without heat" in page
    assert "Next bed" in page.split("<table")[1]
    assert "Bed in the open" not in page.split("<table")[1].split("</table>")[0]
    assert "Half up after" not in page


def test_each_row_tells_soil_growth_harvest_and_energy(bed: Place) -> None:
    bed.garden.price_kwh = 0.3
    warm, cold = heated_bed_page(bed, "lettuce", None, Units(), TODAY).bed_rows
    assert (warm.roots, cold.roots) == ("14°", "7°")
    assert float(warm.growth.split()[0]) > float(cold.growth.split()[0])
    assert "costing" in warm.energy
    assert cold.energy == "0"


def test_heat_that_adds_little_is_told_with_its_reason(bed: Place) -> None:
    from tests.apps.bench.benches import store

    store(bed, 14.0, 9.0, heat=heated(without_c=13.8))
    page = heated_bed_page(bed, "lettuce", None, Units(), TODAY)
    assert page.headline.startswith("The heat in Winter bed adds little now")


def test_a_bed_whose_heat_is_off_says_so_and_does_not_wait_for_ever(signed_in: Client, garden: Garden, bed: Place) -> None:
    from tests.apps.bench.benches import store

    bed.heat_periods.update(first=TODAY - timedelta(days=90), last=TODAY - timedelta(days=9))
    store(bed, 8.0, 9.0)
    page = get(signed_in, garden, "heat_gains", place=bed.pk, crop="lettuce")
    assert "The heat below Winter bed is off." in page
    assert "delay:2s" not in page
    # Its checks before the season are still of use.
    assert "checks are done" in get(signed_in, garden, "tray", bed.pk)


def test_garlic_stays_outdoors(bed: Place) -> None:
    """Common practice, no source."""
    assert "stays outdoors: it needs a cold winter" in heated_bed_page(bed, "garlic", None, Units(), TODAY).sub


def test_no_glass_frame_is_taken_to_stand_over_a_heated_bed_in_a_house(bed: Place) -> None:
    assert covers_of(bed) == []
    bed.within = ""
    assert [cover.key for cover in covers_of(bed)] == ["glass_frame"]
