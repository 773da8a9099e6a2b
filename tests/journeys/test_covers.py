"""From an empty garden to a cover planned and carrots meant, and the day's jobs answered: in a browser, as one does it."""

from datetime import date, timedelta
from typing import Any

from playwright.sync_api import Page, expect

from cloche.apps.forecasts.flows import refresh_stale
from cloche.apps.places.models import Cover, CoverPeriod
from cloche.apps.sowings.models import Intention
from cloche.apps.today.models import Answer
from tests.factories import make_person

SATURDAY = date(2026, 4, 25)


def sign_in(page: Page, root: str) -> None:
    page.goto(f"{root}/sign-in/")
    page.get_by_label("Name").fill("rowan")
    page.get_by_label("Password").fill("a-long-password")
    page.keyboard.press("Enter")


def test_from_an_empty_garden_to_a_cover_from_saturday_and_carrots_a_fortnight_later(
    page: Page, live_server: Any, on: Any
) -> None:
    on(2026, 4, 22)
    make_person("rowan")
    sign_in(page, live_server.url)
    page.wait_for_url("**/gardens/new/")
    page.goto(f"{live_server.url}/gardens/new/?latitude_deg=48&longitude_deg=15")
    page.get_by_label("Garden name").fill("Plot")
    page.get_by_role("button", name="Continue to the beds").click()
    page.goto(page.url.replace("first", "new"))
    page.get_by_label("Name", exact=True).fill("North bed")
    page.get_by_role("button", name="Save place").click()
    page.wait_for_url("**/places/**")
    refresh_stale()

    page.get_by_role("link", name="Covers").click()
    page.get_by_role("link", name="My covers").click()
    page.get_by_label("Kind").select_option("glass_frame")
    page.get_by_label("Name").fill("Old frame")
    page.get_by_role("button", name="Add cover").click()

    page.get_by_role("link", name="Compare covers").click()
    expect(page.locator("#buys .bought").first).to_be_visible(timeout=90_000)
    page.get_by_label("Crop").select_option("carrot")
    page.get_by_label("Date put on").fill(SATURDAY.isoformat())
    expect(page.locator("#buys .sub")).to_contain_text("a sowing from 9 May", timeout=90_000)
    own = page.locator(".bought", has=page.get_by_role("heading", name="Old frame"))
    expect(own).to_contain_text("Half of the seedlings are up in")
    own.get_by_role("link", name="Put on").click()
    expect(page.get_by_label("Crop to sow")).to_have_value("carrot")
    page.get_by_role("button", name="Put on").click()
    page.wait_for_url("**/places/**")

    period, meant = CoverPeriod.objects.get(), Intention.objects.get()
    assert (period.first, period.item) == (SATURDAY, Cover.objects.get())
    assert (meant.crop_key, meant.sow_on) == ("carrot", SATURDAY + timedelta(days=14))

    on(2026, 4, 25)
    refresh_stale()
    page.goto(f"{live_server.url}/g/{period.place.garden_id}/")
    job = page.locator(".jobs li", has_text="Put Old frame on.")
    job.get_by_role("button", name="Done").click()
    expect(page.locator(".answered")).to_contain_text("North bed: Put Old frame on.")
    expect(page.locator(".jobs li", has_text="Put Old frame on.")).to_have_count(0)
    assert Answer.objects.get().choice == "done"
    page.get_by_role("button", name="Undo: North bed: Put Old frame on.").click()
    expect(page.locator(".jobs li", has_text="Put Old frame on.")).to_have_count(1)


def test_the_sandbox_follows_its_sliders(page: Page, live_server: Any, on: Any, garden: Any) -> None:
    on(2026, 4, 22)
    sign_in(page, live_server.url)
    page.wait_for_url("**/g/**")
    page.goto(f"{live_server.url}/g/{garden.pk}/covers/sandbox/")
    before = page.locator("#sandbox h1").inner_text()
    slider = page.get_by_label("Sunshine (share of a clear day)")
    slider.focus()
    for _ in range(10):
        page.keyboard.press("ArrowDown")
    expect(page.locator("output[for=id_sun]")).to_have_text("65 %")
    expect(page.locator("#sandbox h1")).not_to_have_text(before, timeout=60_000)
