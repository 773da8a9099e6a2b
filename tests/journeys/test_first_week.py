"""The main job in the browser: a grower arrives, logs a week of readings and is told when to sow."""

from typing import Any

import pytest
from playwright.sync_api import Page, expect

from cloche.apps.forecasts.flows import refresh_stale
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.readings.models import Reading

pytestmark = pytest.mark.django_db(transaction=True)

DESK, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}


def settle(page: Page, url: str) -> None:
    """From nothing to the first place."""
    page.goto(url)
    page.get_by_label("Your name").fill("rowan")
    page.get_by_label("Password", exact=True).fill("spade-and-fork")
    page.get_by_role("button", name="Continue to the garden").click()
    page.get_by_label("Town or village").fill("krems")
    page.get_by_role("link", name="Krems an der Donau, Austria").click()
    page.get_by_label("Garden name").fill("Plot")
    page.get_by_role("button", name="Continue to the beds").click()
    page.goto(page.url.replace("first", "new"))
    page.get_by_label("Name").fill("North bed")
    page.get_by_role("button", name="Save place").click()


def write_down(page: Page, temperature: str, day: str, time: str) -> None:
    page.get_by_label("Soil (°C)").fill(temperature)
    page.locator("#desk").get_by_label("Date").fill(day)
    page.get_by_label("Time").fill(time)
    page.get_by_role("button", name="Save reading").click()
    expect(page.get_by_role("status").filter(has_text="saved")).to_contain_text(time)


@pytest.mark.parametrize("size", [DESK, PHONE], ids=["desk", "phone"])
def test_a_week_of_readings_ends_in_a_sowing_date(page: Page, live_server: Any, on: Any, size: Any) -> None:
    page.set_viewport_size(size)
    on(2026, 4, 22, 16)
    settle(page, live_server.url)
    expect(page.get_by_role("heading", level=1)).to_contain_text("Working out the first forecast for")
    for day in range(15, 22):
        write_down(page, "9,5", f"2026-04-{day}", "07:30")
        write_down(page, "14.5", f"2026-04-{day}", "16:30")
    assert Reading.objects.count() == 14
    refresh_stale()
    # The page shows the finished forecast by itself.
    expect(page.get_by_role("heading", level=1)).to_contain_text("North bed is at", timeout=8000)
    expect(page.locator("circle.mark-read")).to_have_count(14)
    expect(page.get_by_text("Tomorrow’s soil temperature is known")).to_be_visible()
    page.get_by_role("link", name="Carrot").first.click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Carrots in North bed: sow")
    expect(page.locator("#sowing")).to_contain_text("of viable seed in the end")
    before = page.locator("#sowing .big").inner_text()
    page.locator("#in").fill("60")
    expect(page.locator("#sowing .big")).not_to_have_text(before)
    assert page.evaluate("document.documentElement.scrollWidth") <= size["width"]


def test_a_slip_is_said_at_its_field_and_undone_without_leaving_the_page(page: Page, live_server: Any, on: Any) -> None:
    on(2026, 4, 22, 16)
    settle(page, live_server.url)
    page.get_by_label("Soil (°C)").fill("145")
    page.get_by_label("Note").fill("after rain")
    page.get_by_role("button", name="Save reading").click()
    expect(page.get_by_role("alert")).to_contain_text("Did you mean 14.5?")
    expect(page.get_by_label("Note")).to_have_value("after rain")
    expect(page.get_by_label("Soil (°C)")).to_be_focused()
    page.get_by_label("Soil (°C)").fill("14.5")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").filter(has_text="14.5°")).to_be_visible()
    page.get_by_role("link", name="Correct 14.5°").click()
    page.locator("tr form").get_by_label("Soil (°C)").fill("13.5")
    page.get_by_role("button", name="Save correction").click()
    expect(page.get_by_role("status").filter(has_text="13.5°")).to_contain_text("corrected")
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("td", has_text="14.5°")).to_be_visible()
    page.get_by_role("button", name="Remove 14.5°").click()
    expect(page.get_by_text("No readings yet.")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("td", has_text="14.5°")).to_be_visible()
    assert Reading.objects.current().get().note == "after rain"


def test_single_keys_open_rooms_and_can_be_turned_off(page: Page, live_server: Any, on: Any) -> None:
    on(2026, 4, 22)
    settle(page, live_server.url)
    place = Place.objects.get()
    page.locator("main").focus()
    page.keyboard.press("w")
    expect(page).to_have_url(f"{live_server.url}/g/{place.garden_id}/what-wakes/")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_be_visible()
    page.get_by_role("button", name="Turn off single-key shortcuts").click()
    page.get_by_role("button", name="Close").click()
    page.keyboard.press("t")
    expect(page).to_have_url(f"{live_server.url}/g/{place.garden_id}/what-wakes/")


def test_letters_typed_into_a_field_open_nothing(page: Page, live_server: Any, on: Any) -> None:
    on(2026, 4, 22)
    settle(page, live_server.url)
    here = page.url
    page.get_by_label("Note").press_sequentially("wet tag")
    assert page.url == here


def test_crops_are_found_by_letters_and_cleared_at_once(page: Page, live_server: Any, on: Any) -> None:
    on(2026, 4, 22, 16)
    settle(page, live_server.url)
    garden = Garden.objects.get()
    page.goto(f"{live_server.url}/g/{garden.pk}/garden/crops/")
    ticked = page.locator("input[name=crops]:checked")
    assert ticked.count() > 5
    page.get_by_role("button", name="Clear all").click()
    expect(ticked).to_have_count(0)
    expect(page.locator("[data-pick-count]")).to_have_text("0 crops ticked")
    find = page.get_by_label("Find a crop")
    find.fill("eggp")
    expect(page.locator("[data-pick-one]:visible")).to_have_count(1)
    find.press("Enter")
    expect(page.locator("[data-pick-count]")).to_have_text("1 crop ticked")
    expect(page.locator("[data-pick-one]:visible").nth(20)).to_be_visible()
    find.fill("no such thing")
    expect(page.locator("[data-pick-one]:visible")).to_have_count(0)
    page.get_by_role("button", name="Save my crops").click()
    page.wait_for_url("**/garden/")
    garden.refresh_from_db()
    assert garden.crops == ["eggplant"]
    # Words that open where they stand.
    page.get_by_role("button", name="Last frost").click()
    expect(page.locator("#term-frost")).to_be_visible()
    page.locator("#term-frost").get_by_role("button", name="Close").click()
    expect(page.locator("#term-frost")).to_be_hidden()
    # Time zones come when one turns to their field.
    assert page.locator("#zones option").count() == 0
    page.get_by_label("Time zone").focus()
    expect(page.locator("#zones option[value='Australia/Melbourne']")).to_be_attached()
