"""The demo as a visitor finds it: every room of both gardens, in both scales, with everything in it."""

from datetime import date
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from cloche.apps.forecasts.flows import refresh_stale
from cloche.apps.gardens.models import Garden
from cloche.apps.records.management.commands.load_demo import load
from cloche.demo.day import demo_day

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def demo(on: Any) -> Garden:
    day = demo_day("", date(2026, 11, 24))
    on(day.year, day.month, day.day, 8)
    load(7)
    assert refresh_stale() == 17
    return Garden.objects.get(name="Halde farm")


def sign_in(page: Page, url: str, name: str) -> None:
    page.goto(url)
    page.get_by_label("Name or email address").fill(name)
    page.get_by_label("Password").fill("demo-garden")
    page.get_by_role("button", name="Sign in", exact=True).click()


def test_a_visitor_walks_through_every_room_and_carries_the_record_home(page: Page, live_server: Any, demo: Garden) -> None:
    sign_in(page, live_server.url, "demo")
    heading = page.get_by_role("heading", level=1)
    expect(heading).to_contain_text("more jobs below")
    expect(page.locator(".sow")).to_contain_text("can be sown or planted")
    expect(page.locator(".cut > li")).to_have_count(13)
    for room, said in (
        ("Soil", "13 places"),
        ("Germination", "comfortably in North bed"),
        ("Covers", "warms the soil most"),
        ("Bench", "off the heat"),
        ("Weather", "with a forecast for a week"),
        ("Files", "Your records are yours"),
        ("Garden", "Halde farm has 13 places"),
    ):
        page.get_by_role("link", name=room, exact=True).click()
        expect(heading).to_contain_text(said)
    page.get_by_role("link", name="Today", exact=True).click()
    page.locator(".cut a", has_text="North bed").click()
    expect(page.locator("circle.mark-strange")).not_to_have_count(0)
    expect(page.get_by_text("far from the rest (ringed)")).to_be_visible()
    _carried_home(page)
    page.get_by_role("link", name="Switch to Creek paddock").click()
    expect(heading).to_be_visible()
    expect(page.locator(".cut > li")).to_have_count(4)
    page.get_by_role("button", name="Sign out").click()
    page.wait_for_url("**/sign-in/**")
    sign_in(page, live_server.url, "southern")
    expect(page.locator(".sub").first).to_contain_text("°F")
    expect(page.get_by_role("link", name="Switch to Halde farm")).to_have_count(0)
    assert page.request.get(f"{live_server.url}/g/{demo.pk}/").status == 404


def _carried_home(page: Page) -> None:
    """Every reading, as a file that anything opens."""
    page.get_by_role("link", name="Files", exact=True).click()
    with page.expect_download() as waiting:
        page.get_by_role("link", name="Soil readings as CSV").click()
    lines = waiting.value.path().read_text(encoding="utf-8").splitlines()
    assert lines[0] == "place,taken_at,depth [cm],soil temperature [°C],source,note"
    assert len(lines) > 8000
