"""Warmth from below in the browser: a bench from its plan to its test run, a hotbed from filling to sowing, a grid of
germination, and a winter house with and without cable."""

from __future__ import annotations

from typing import Any

import pytest
from playwright.sync_api import Page, expect

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import BenchCheck
from tests.apps.bench.benches import TODAY, heated, make_tray
from tests.factories import make_garden, make_person, make_place

pytestmark = pytest.mark.django_db(transaction=True)
PHONE = {"width": 390, "height": 844}


@pytest.fixture
def base(page: Page, live_server: Any, on: Any) -> str:
    """The address of a garden that the browser is signed in to, on a phone."""
    on(TODAY.year, TODAY.month, TODAY.day)
    garden = make_garden(make_person("rowan"))
    page.set_viewport_size(PHONE)
    page.goto(f"{live_server.url}/sign-in/")
    page.get_by_label("Name").fill("rowan")
    page.get_by_label("Password").fill("a-long-password")
    page.get_by_role("button", name="Sign in", exact=True).click()
    page.wait_for_url("**/g/**")
    return f"{live_server.url}/g/{garden.pk}"


def fits(page: Page) -> None:
    assert page.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]


def test_a_bench_from_its_plan_to_its_test_run(page: Page, base: str) -> None:
    page.goto(f"{base}/bench/build/")
    page.get_by_label("Length of cable (m)").fill("9")
    page.get_by_label("Direction of the cable").select_option(label="across the bench")
    expect(page.locator("#built")).to_contain_text("90 W")
    page.get_by_text("Add this bench to the garden").click()
    page.get_by_label("Name").fill("Sand bench")
    fits(page)
    page.get_by_role("button", name="Add bench").click()
    expect(page.get_by_role("status").first).to_contain_text("Sand bench added, with its cable.")
    expect(page.locator(".source.on")).to_contain_text("Soil-warming cable, 90 W, on below 17°, off above 19°")
    tick = page.get_by_role("checkbox", name="The residual-current device")
    tick.click()
    expect(page.get_by_text("1 of 9 checks are done for this season.")).to_be_visible()
    expect(tick).to_be_checked()
    assert BenchCheck.objects.get().item == "breaker"
    page.reload()
    expect(tick).to_be_checked()
    page.get_by_role("link", name="Enter a test run").click()
    page.get_by_label("Minutes to the set-point").fill("95")
    page.get_by_label("Spot 1").fill("18")
    page.get_by_label("Spot 9").fill("25")
    page.get_by_role("button", name="Save test").click()
    expect(page.locator(".tested")).to_contain_text("The warmest and coldest spots differ by 7°")
    fits(page)


def test_a_hotbed_from_filling_to_sowing(page: Page, base: str) -> None:
    heap = make_place(Garden.objects.get(), "Heap", kind="hotbed", seed_depth_m=0.03)
    page.goto(f"{base}/places/{heap.pk}/hotbed/")
    page.get_by_label("Filled on").fill("2026-04-16")
    page.get_by_label("How it was trodden").select_option(label="trodden firm in layers")
    page.get_by_role("button", name="Save").click()
    page.get_by_role("link", name="Diary").click()
    page.get_by_label("Core temperature").fill("57")
    page.get_by_role("button", name="Save entry").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("in its first hot phase, with 57° at the core")
    page.goto(f"{base}/sowings/new/")
    page.get_by_label("Place").select_option(label="Heap")
    page.get_by_label("Crop").select_option(label="Lettuce")
    page.get_by_role("button", name="Save sowing").click()
    expect(page.get_by_text("seed in it would die")).to_be_visible()
    fits(page)
    page.get_by_label("Sow into it all the same").check()
    page.get_by_role("button", name="Save sowing").click()
    expect(page.get_by_role("status").first).to_contain_text("Lettuce in Heap saved.")


def test_a_grid_of_germination_is_laid_out_and_counted(page: Page, base: str) -> None:
    page.goto(f"{base}/germination/")
    page.get_by_label("Title").fill("Cold to warm")
    page.get_by_label("Start date").fill("2026-04-01")
    page.get_by_role("button", name="Start trial").click()
    page.get_by_label("Crops").select_option(label=["Carrot", "Pea"])
    page.get_by_label("Temperatures").fill("10 15 20")
    page.get_by_label("Seeds of each").first.fill("25")
    page.get_by_role("button", name="Lay out batches").click()
    expect(page.get_by_role("status").first).to_contain_text("6 batches laid out.")
    for label, up in (("Carrot, 10.0°", "6"), ("Carrot, 20.0°", "21"), ("Pea, 15.0°", "20")):
        page.get_by_role("textbox", name=label).fill(up)
    page.get_by_role("button", name="Save counts").click()
    expect(page.locator(".response").first).to_be_visible()
    expect(page.get_by_text("Carrots: at 20° and above, at least half as many came up")).to_be_visible()
    fits(page)


def test_a_winter_house_with_and_without_cable(page: Page, base: str) -> None:
    garden = Garden.objects.get()
    bed = make_tray(garden, "Winter bed", 13.0, kind="cable", heat=heated(without_c=6.0), around_c=8.0, within="greenhouse")
    bed.heat_periods.create(source="cable", first=TODAY, cable_m=12, cable_w_m=10, length_m=3, width_m=1)
    make_tray(garden, "Cold bed", 6.0, kind="open", around_c=8.0, within="greenhouse")
    page.goto(f"{base}/bench/{bed.pk}/")
    page.get_by_role("link", name="Effect of heat").last.click()
    page.get_by_label("Crop").select_option(label="lettuces")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Lettuces in Winter bed grow as much as in")
    expect(page.get_by_role("cell", name="Winter bed, without heat")).to_be_visible()
    expect(page.get_by_role("cell", name="Cold bed")).to_be_visible()
    fits(page)
