"""A newcomer alone: from nothing to an answer for one's own ground, without a network, at the desk and on a phone."""

from __future__ import annotations

from typing import Any

import pytest
from playwright.sync_api import Browser, Page, Route, expect

from cloche.apps.forecasts.flows import refresh_stale
from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.models import Place

pytestmark = pytest.mark.django_db(transaction=True)
DESK, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
MOST_TOUCHES = 40


class Hands:
    """Counts what hands do: a touch for each tap, one for each field that is typed into."""

    def __init__(self, page: Page) -> None:
        self.page, self.touches = page, 0

    def tap(self, what: Any) -> None:
        self.touches += 1
        what.click()

    def type(self, what: Any, text: str) -> None:
        self.touches += 1
        what.press_sequentially(text)


@pytest.mark.parametrize(
    ("size", "locale", "town", "shown", "units"),
    [
        (DESK, "en-GB", "krems", "Krems an der Donau, Austria", ("C", "cm")),
        (PHONE, "en-US", "portland, or", "Portland, Oregon, United States", ("F", "in")),
    ],
    ids=["desk", "phone"],
)
def test_from_nothing_to_windows_in_few_touches(
    browser: Browser, live_server: Any, on: Any, size: Any, locale: str, town: str, shown: str, units: tuple[str, str]
) -> None:
    on(2026, 4, 22, 9)
    context = browser.new_context(viewport=size, locale=locale, has_touch=size == PHONE, reduced_motion="reduce")
    page = context.new_page()
    hands = Hands(page)
    page.goto(live_server.url)
    hands.type(page.get_by_label("Your name"), "Rowan Ash")
    hands.type(page.get_by_label("Password", exact=True), "spade-and-fork")
    hands.tap(page.get_by_role("button", name="Continue to the garden"))
    hands.type(page.get_by_label("Town or village"), town)
    hands.tap(page.get_by_role("link", name=shown))
    expect(page.get_by_role("heading", level=1)).to_have_text(f"Your garden is in {shown}.")
    expect(page.locator(".big")).to_contain_text("last spring frost is usually about")
    hands.tap(page.get_by_role("button", name="Continue to the beds"))
    for kind, count in (("Open bed", 4), ("Cold frame", 1), ("Low tunnel", 1)):
        for _each in range(count):
            hands.tap(page.get_by_role("button", name=f"One more: {kind}"))
    hands.tap(page.get_by_role("button", name="Continue to Today"))
    page.wait_for_url("**/g/*/")
    expect(page.locator(".steps li")).to_have_count(3)
    assert Place.objects.count() == 6
    person = User.objects.get()
    assert (person.temperature_unit, person.length_unit) == units
    refresh_stale()
    page.reload()
    expect(page.locator(".cut > li")).to_have_count(6)
    expect(page.locator(".big.sow")).to_contain_text("can be sown or planted")
    if size == PHONE:
        hands.tap(page.get_by_role("button", name="Plan ahead"))
    hands.tap(page.get_by_role("link", name="Windows", exact=True))
    expect(page.get_by_role("heading", level=1)).not_to_contain_text("worked out")
    expect(page.locator(".ribbon-row").nth(3)).to_be_visible()
    assert hands.touches <= MOST_TOUCHES
    assert page.evaluate("document.documentElement.scrollWidth") <= size["width"]
    context.close()


def test_a_point_on_the_map_is_a_point_on_earth(page: Page, live_server: Any, on: Any) -> None:
    on(2026, 4, 22, 9)
    page.goto(live_server.url)
    page.get_by_label("Your name").fill("rowan")
    page.get_by_label("Password", exact=True).fill("spade-and-fork")
    page.get_by_label("Show password").check()
    expect(page.get_by_label("Password", exact=True)).to_have_attribute("type", "text")
    page.get_by_role("button", name="Continue to the garden").click()
    earth = page.locator("[data-map]")
    box = earth.bounding_box()
    assert box is not None
    # Melbourne: 37.8 south, 145 east, on a map from 78 north to 56 south.
    earth.click(position={"x": (145 + 180) / 360 * box["width"], "y": (78 + 37.8) / (78 + 56) * box["height"]})
    page.wait_for_url("**latitude_deg=**")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Victoria, Australia")
    expect(page.locator(".sub")).to_contain_text("Australia/Melbourne")
    page.get_by_text("Set the point more exactly").click()
    near = page.locator("[data-map]")
    box = near.bounding_box()
    assert box is not None
    before = page.url
    near.click(position={"x": box["width"] / 2, "y": box["height"] / 3})
    page.wait_for_url(lambda url: url != before)
    expect(page.locator(".sub")).to_contain_text("Australia/Melbourne")
    page.get_by_label("Height above sea level").fill("120 m")
    page.get_by_role("button", name="Continue to the beds").click()
    page.wait_for_url("**/places/first/")
    garden = Garden.objects.get()
    assert garden.elevation_m == 120.0
    assert -40 < garden.latitude_deg < -34


def test_a_town_typed_before_the_scripts_have_come_is_searched(browser: Browser, live_server: Any, on: Any) -> None:
    on(2026, 4, 22, 9)
    # Without the worker, so that the scripts come over the line and can be held up there.
    context = browser.new_context(locale="en-GB", service_workers="block")
    page = context.new_page()
    page.goto(live_server.url)
    page.get_by_label("Your name").fill("rowan")
    page.get_by_label("Password", exact=True).fill("spade-and-fork")
    page.get_by_role("button", name="Continue to the garden").click()
    page.wait_for_url("**/gardens/new/")
    held: list[Route] = []
    page.route("**/htmx.min*.js", lambda route: held.append(route))
    with page.expect_request("**/htmx.min*.js"):
        page.reload(wait_until="commit")
    page.get_by_label("Town or village").fill("krems")
    page.wait_for_timeout(1)
    assert len(held) == 1
    held[0].continue_()
    expect(page.get_by_role("link", name="Krems an der Donau, Austria")).to_be_visible()
    context.close()
