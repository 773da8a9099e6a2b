"""The main job on real input: a measured station brought in through the screens.

Hourly record of spring 2025 (example data of soil_heat 0.1.3, MIT), reduced to readings at 07:30 and 16:30 and to daily air
lows and highs, as a grower would have them. Stamps stand in standard time all year.
"""

from pathlib import Path
from typing import Any

import pandas as pd
import pytest
from playwright.sync_api import Page, expect

from bench import accuracy
from bench.__main__ import STATION
from cloche.apps.forecasts.flows import refresh_stale
from cloche.apps.forecasts.models import CropOutlook, Forecast
from cloche.apps.gardens.models import Garden, Membership
from cloche.apps.places.models import Place
from cloche.bridge.services.crops import of_garden
from tests.factories import make_person

pytestmark = [pytest.mark.django_db(transaction=True), pytest.mark.whole_season]


@pytest.fixture
def files(tmp_path: Path) -> tuple[Path, Path]:
    """Fifteen days of two readings, and daily air from 1 to 29 March."""
    column, _ = accuracy.DEPTHS["5 cm"]
    fold = accuracy.folds(STATION, column, pd.DatetimeIndex(["2025-03-29"]))[0]
    soil, air = tmp_path / "soil.csv", tmp_path / "air.csv"
    readings = fold.readings.rename_axis("date and time").rename(columns={"T": "soil temperature [°C]"})
    readings.to_csv(soil, date_format="%Y-%m-%d %H:%M")
    weather = fold.weather[:"2025-03-29"].rename(columns={"TMIN": "low", "TMAX": "high"}).rename_axis("date")
    weather.round(1).to_csv(air)
    return soil, air


def bring_in(page: Page, kind: str, file: Path, **said: str) -> None:
    page.get_by_role("link", name="Files").click()
    page.get_by_label(kind).check()
    page.get_by_label("File (CSV").set_input_files(file)
    page.get_by_role("button", name="Open").click()
    for label, option in said.items():
        page.get_by_label(label.replace("_", " ")).select_option(label=option)
    page.get_by_role("button", name="Check the rows").click()
    page.get_by_role("button", name="Import").click()
    expect(page.get_by_role("status").first).to_contain_text("Imported")


def test_two_files_become_a_forecast_and_windows_for_every_crop(
    page: Page, live_server: Any, on: Any, files: tuple[Path, Path]
) -> None:
    on(2025, 3, 29, 14)
    owner = make_person("rowan")
    garden = Garden.objects.create(
        name="Station", latitude_deg=39.0, longitude_deg=-110.5, elevation_m=1500, timezone_name="America/Denver"
    )
    Membership.objects.create(garden=garden, user=owner, role="owner")
    place = Place.objects.create(garden=garden, name="Measured bed")
    page.goto(live_server.url)
    page.get_by_label("Name or email address").fill("rowan")
    page.get_by_label("Password").fill("a-long-password")
    page.get_by_role("button", name="Sign in", exact=True).click()
    bring_in(page, "soil readings", files[0], Time_zone_of_times="standard time all year")
    bring_in(page, "daily weather", files[1])
    assert place.readings.count() == 28
    assert place.readings.order_by("taken_at").first().taken_at.hour == 14  # type: ignore[union-attr]  # 07:30 at UTC-7
    refresh_stale()
    assert Forecast.objects.get(place=place).ground.readings_used == 28
    assert CropOutlook.objects.filter(place=place, better=True).count() == len(of_garden([]))
    page.goto(f"{live_server.url}/g/{garden.pk}/places/{place.pk}/")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Measured bed is at")
    expect(page.locator("a.ribbon-row")).to_have_count(len(of_garden([])))
    page.get_by_role("link", name="Spinach", exact=False).first.click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Spinach in Measured bed")
