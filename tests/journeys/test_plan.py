"""The bed's plan worked in by mouse, finger and keyboard: all three do the same."""

from __future__ import annotations

from typing import Any

import pytest
from playwright.sync_api import Page, expect

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.plants.models import BedShape, Planting
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def bed(on: Any) -> Place:
    on(2026, 4, 22)
    garden: Garden = make_garden(make_person("rowan"))
    place = make_place(garden)
    BedShape.objects.create(place=place, length_m=3.0, width_m=1.2, square_m=0.3)
    return place


def patch(bed: Place, **values: Any) -> Planting:
    usual = {"crop_key": "kale", "origin": "raised", "planned_on": NOW.date(), "length_m": 0.6, "width_m": 0.3}
    return Planting.objects.create(place=bed, **usual | {"x_m": 0.0, "y_m": 0.0} | values)


def open_plan(page: Page, live_server: Any, bed: Place) -> None:
    page.goto(live_server.url)
    page.get_by_label("Name or email address").fill("rowan")
    page.get_by_label("Password").fill("a-long-password")
    page.get_by_role("button", name="Sign in", exact=True).click()
    page.wait_for_url("**/g/**")
    page.goto(f"{live_server.url}/g/{bed.garden_id}/plan/{bed.pk}/")


def corner(planting: Planting) -> tuple[float | None, float | None, float, float]:
    planting.refresh_from_db()
    return planting.x_m, planting.y_m, planting.length_m, planting.width_m


def middle(page: Page, planting: Planting, part: str = ".ground") -> tuple[float, float]:
    box = page.locator(f"#patch-{planting.pk} {part}").bounding_box()
    assert box
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def square_px(page: Page) -> float:
    box = page.locator("#bed-plan .boards").bounding_box()
    assert box
    return box["width"] / 10


def drag(page: Page, start: tuple[float, float], by: tuple[float, float]) -> None:
    page.mouse.move(*start)
    page.mouse.down()
    for step in range(1, 6):
        page.mouse.move(start[0] + by[0] * step / 5, start[1] + by[1] * step / 5)
    page.mouse.up()


def test_a_patch_is_dragged_to_another_square_and_made_larger(page: Page, live_server: Any, bed: Place) -> None:
    ground = patch(bed)
    open_plan(page, live_server, bed)
    side = square_px(page)
    with page.expect_response(lambda answer: "/lay/" in answer.url):
        drag(page, middle(page, ground), (2.1 * side, 0.9 * side))
    expect(page.locator(f"#patch-{ground.pk}")).to_have_attribute("data-at", "60.0 30.0 60.0 30.0")
    assert corner(ground) == (0.6, 0.3, 0.6, 0.3)
    with page.expect_response(lambda answer: "/lay/" in answer.url):
        drag(page, middle(page, ground, ".handle"), (side, side))
    expect(page.locator(f"#patch-{ground.pk}")).to_have_attribute("data-at", "60.0 30.0 90.0 60.0")
    assert corner(ground) == (0.6, 0.3, 0.9, 0.6)


def test_a_click_opens_the_planting(page: Page, live_server: Any, bed: Place) -> None:
    ground = patch(bed)
    open_plan(page, live_server, bed)
    page.mouse.click(*middle(page, ground))
    page.wait_for_url(f"**/plants/{ground.pk}/")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Kale in North bed")


def test_arrow_keys_do_what_the_mouse_does(page: Page, live_server: Any, bed: Place) -> None:
    ground = patch(bed)
    open_plan(page, live_server, bed)
    there = page.get_by_role("link", name="Kale, 2: planned for 22 April").or_(page.locator(f"#patch-{ground.pk}")).first
    there.focus()
    for key, at in (
        ("ArrowRight", "30.0 0.0 60.0 30.0"),
        ("ArrowDown", "30.0 30.0 60.0 30.0"),
        ("Shift+ArrowRight", "30.0 30.0 90.0 30.0"),
    ):
        with page.expect_response(lambda answer: "/lay/" in answer.url):
            page.keyboard.press(key)
        expect(page.locator(f"#patch-{ground.pk}")).to_have_attribute("data-at", at)
        expect(page.locator(f"#patch-{ground.pk}")).to_be_focused()
    page.keyboard.press("Enter")
    page.wait_for_url(f"**/plants/{ground.pk}/")
    assert corner(ground) == (0.3, 0.3, 0.9, 0.3)


def test_without_signal_a_patch_lies_where_it_lay_and_that_is_said(page: Page, live_server: Any, bed: Place) -> None:
    ground = patch(bed)
    open_plan(page, live_server, bed)
    page.evaluate("() => { window.fetch = () => Promise.reject(new TypeError('no signal')); }")
    drag(page, middle(page, ground), (2 * square_px(page), 0))
    expect(page.locator("#said")).to_contain_text("The patch is back where it was.")
    expect(page.locator(f"#patch-{ground.pk}")).not_to_have_attribute("transform", "translate(60 0)")
    assert corner(ground)[0] == 0.0


def test_from_an_empty_bed_to_a_planting_by_forms_alone(page: Page, live_server: Any, bed: Place) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    open_plan(page, live_server, bed)
    expect(page.get_by_role("heading", level=1)).to_have_text("North bed is empty.")
    page.get_by_role("link", name="Add to the plan").click()
    page.get_by_label("Crop", exact=True).select_option("radish")
    page.get_by_label("Date done").fill("2026-04-21")
    page.get_by_role("button", name="Save planting").click()
    expect(page.locator(".patch.standing")).to_have_count(1)
    assert Planting.objects.get().sowing is not None
