"""A tray's whole life on a phone: sown on the mat in January, potted, to the house, brought in twice, hardened, out under a
tunnel in April; every page along the way agrees about where it stands."""

from __future__ import annotations

from typing import Any

import pytest
from playwright.sync_api import Page, expect

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod, HeatPeriod
from cloche.apps.sowings.models import Sowing
from tests.factories import make_garden, make_person, make_place

pytestmark = pytest.mark.django_db(transaction=True)
PHONE = {"width": 390, "height": 844}


def settle(page: Page, url: str) -> Garden:
    """A mat in a back room, a bench in an unheated house, a tunnel."""
    person = make_person("rowan")
    garden = make_garden(person)
    make_place(garden, "Mat", kind="mat", seed_depth_m=0.02)
    make_place(garden, "House bench", kind="tray", seed_depth_m=0.02, within="polytunnel")
    tunnel = make_place(garden, "Tunnel bed", kind="tunnel")
    CoverPeriod.objects.create(place=tunnel, cover="film_tunnel", first="2026-03-01")
    page.goto(f"{url}/sign-in/")
    page.get_by_label("Name").fill("rowan")
    page.get_by_label("Password").fill("a-long-password")
    page.get_by_role("button", name="Sign in", exact=True).click()
    page.wait_for_url("**/g/**")
    return garden


def stands(page: Page, base: str, sowing: Sowing, where: str) -> None:
    """The life, the list of sowings and the bench or the bed say the same."""
    page.goto(f"{base}/sowings/{sowing.pk}/")
    expect(page.get_by_role("heading", level=1)).to_contain_text(f"now in {where}")
    assert page.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]
    page.goto(f"{base}/sowings/")
    expect(page.locator(".sowing h2")).to_contain_text(where)
    page.goto(f"{base}/bench/")
    trays = page.locator(".trays > li", has=page.get_by_role("link", name="tomatoes"))
    expect(trays).to_have_count(1 if where != "Tunnel bed" else 0)
    if where != "Tunnel bed":
        expect(trays).to_contain_text(where)
    assert page.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]


def take(page: Page, base: str, sowing: Sowing, what: str, place: str = "", cell: str = "") -> None:
    page.goto(f"{base}/sowings/{sowing.pk}/")
    page.get_by_label("Step", exact=True).select_option(label=what)
    if place:
        page.get_by_label("To", exact=True).select_option(label=place)
    if cell:
        page.get_by_label("Width of the new cells or pots").fill(cell)
    page.get_by_role("button", name="Save step").click()
    expect(page.get_by_role("status").first).to_contain_text("Saved.")


def test_a_tray_from_seed_to_bed(page: Page, live_server: Any, on: Any) -> None:
    page.set_viewport_size(PHONE)
    on(2026, 1, 20)
    garden = settle(page, live_server.url)
    base = f"{live_server.url}/g/{garden.pk}"
    # On the mat, with a thermostat.
    page.goto(f"{base}/bench/{garden.places.get(name='Mat').pk}/heat/new/")
    page.get_by_label("Power on the label (W)").fill("18")
    page.get_by_label("Control").select_option(label="thermostat")
    page.get_by_label("On below").fill("22")
    page.get_by_label("Off above").fill("25")
    page.get_by_role("button", name="Save").click()
    expect(page.locator(".source.on")).to_contain_text("Heat mat, 18 W, on below 22°, off above 25°")
    page.goto(f"{base}/sowings/new/")
    page.get_by_label("Place").select_option(label="Mat")
    page.get_by_label("Crop").select_option(label="Tomato")
    page.get_by_label("Number of seeds, if counted").fill("40")
    page.get_by_role("button", name="Save sowing").click()
    sowing = Sowing.objects.get()
    stands(page, base, sowing, "Mat")
    # Up, and off the heat.
    on(2026, 1, 29)
    page.goto(f"{base}/sowings/")
    page.get_by_label("Seedlings up", exact=True).fill("34")
    page.get_by_role("button", name="Save count").click()
    page.goto(f"{base}/bench/")
    expect(page.locator(".moves")).to_contain_text(
        "Take tomatoes off the heat and move them to a bright place near 17°: half of them are up."
    )
    take(page, base, sowing, "heat off")
    page.goto(f"{base}/bench/")
    expect(page.get_by_text("Take tomatoes off the heat")).to_have_count(0)
    page.goto(f"{base}/bench/{sowing.place_id}/")
    page.get_by_role("button", name="Off from today").click()
    assert HeatPeriod.objects.get().last is not None
    # Potted on, to the house; brought in and put out again, twice.
    on(2026, 2, 25)
    take(page, base, sowing, "potted on", cell="9")
    on(2026, 3, 2)
    take(page, base, sowing, "moved", "House bench")
    stands(page, base, sowing, "House bench")
    for day in (7, 14):
        on(2026, 3, day)
        take(page, base, sowing, "brought in from the cold", "Mat")
        stands(page, base, sowing, "Mat")
        on(2026, 3, day + 1)
        take(page, base, sowing, "put out again", "House bench")
        stands(page, base, sowing, "House bench")
    # Hardened, and out under the tunnel.
    on(2026, 4, 14)
    take(page, base, sowing, "hardening off started")
    on(2026, 4, 24)
    take(page, base, sowing, "planted out", "Tunnel bed")
    stands(page, base, sowing, "Tunnel bed")
    page.goto(f"{base}/sowings/{sowing.pk}/")
    lines = page.locator(".life li").all_inner_texts()
    assert lines[0].startswith("20 January")
    assert len(lines) == 11
    assert "40 seeds sown Mat" in " ".join(lines[0].split())
    assert "Planted out Tunnel bed" in " ".join(lines[-1].split())
    sowing.refresh_from_db()
    assert (sowing.place.name, sowing.sown_in.name, sowing.cell_m) == ("Tunnel bed", "Mat", 0.09)
