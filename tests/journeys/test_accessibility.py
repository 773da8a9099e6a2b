"""Every screen through axe, at desk and phone size, light and dark: nothing serious."""

from datetime import date, timedelta
from typing import Any

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page

from cloche.apps.covers.models import CoverTrial
from cloche.apps.forecasts.flows import refresh, refresh_stale
from cloche.apps.loggers.flows.devices import deploy, let_device_in
from cloche.apps.loggers.flows.take_in import Sent, take_in
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.plants.models import PlantEvent, Planting
from cloche.apps.readings.models import IncomingFile
from cloche.apps.sowings.models import Sowing
from tests.apps.bench import benches
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place, make_reading, read_twice_daily, write_air

pytestmark = pytest.mark.django_db(transaction=True)

SCREENS = ["", "ground/", "what-wakes/", "weather/", "files/", "garden/", "garden/normals/", "garden/places/new/"]
SCREENS += ["places/{place}/", "places/{place}/crops/carrot/", "places/{new}/", "files/in/{file}/"]
SCREENS += [
    "windows/",
    "places/{place}/crops/tomato/",
    "sowings/",
    "sowings/new/",
    "crops/carrot/",
    "crops/carrot/packets/new/",
]
SCREENS += ["round/", "loggers/", "history/", "history/?removed", "flags/", "garden/people/"]
SCREENS += ["week/", "covers/?place={place}&crop=carrot", "covers/opening/", "covers/mine/", "covers/mine/{own}/where/"]
SCREENS += ["covers/trials/", "covers/trials/{trial}/", "covers/sandbox/", "places/{place}/put-on/", "places/{hotbed}/hotbed/"]
SCREENS += ["garden/places/first/", "sowings/{sowing}/edit/", "garden/crops/", "garden/crops/own/", "covers/season/"]
SCREENS += ["covers/mine/{own}/", "garden/places/{place}/edit/", "garden/places/{place}/covers/new/", "after/"]
SCREENS += ["bench/", "bench/heat/", "bench/build/", "bench/rooms/", "bench/rooms/{room}/", "bench/potatoes/", "bench/{tray}/"]
SCREENS += ["garden/runs/", "garden/computer/", "loggers/{logger}/messages/"]
SCREENS += ["bench/{tray}/heat/new/", "bench/{tray}/lamps/new/", "bench/{tray}/test/", "bench/{hotbed}/diary/"]
SCREENS += ["sowings/{sowing}/", "plan/", "plan/{place}/", "plan/{place}/new/", "plan/{place}/shape/", "plan/bring/"]
SCREENS += ["plants/{planting}/", "years/", "plan/seed/", "sowings/{sowing}/silent/"]
SCREENS += ["germination/", "germination/{germination}/", "plan/{place}/cover/"]
SCREENS += ["covers/build/", "covers/build/?kind=glass_frame"]
ROOMS = [
    "",
    "ground/",
    "what-wakes/",
    "windows/",
    "covers/mine/",
    "covers/sandbox/",
    "sowings/",
    "weather/",
    "files/",
    "garden/",
]
ROOMS += ["garden/", "garden/crops/", "places/{place}/", "places/{place}/crops/carrot/", "round/"]
OUTSIDE = [
    "/me/",
    "/help/",
    "/gardens/new/",
    "/gardens/new/?latitude_deg=48&longitude_deg=15",
    "/gardens/bring/",
    "/no-signal/",
]
DESK: Any = {"width": 1280, "height": 800}
PHONE: Any = {"width": 390, "height": 844}


@pytest.fixture
def place(on: Any) -> Place:
    on(2026, 4, 22)
    person = make_person("rowan")
    garden = make_garden(person)
    bed = make_place(garden, kind="frame")
    write_air(garden, date(2026, 3, 20), 40)
    read_twice_daily(bed, 9, NOW, 8.0, 14.0)
    make_reading(bed, NOW - timedelta(days=3), 38.0, note="odd")
    packet = garden.packets.create(crop_key="radish", variety="Amber", packed_year=2025)
    sown = {"crop_key": "radish", "sown_on": date(2026, 4, 10), "depth_m": 0.013}
    Sowing.objects.create(place=bed, seeds=60, packet=packet, **sown).counts.create(on=date(2026, 4, 20), up=12)
    device, _ = let_device_in(garden, "Bed logger", "C", person)
    deploy(device, "1", bed, 0.1)
    take_in(device, [*(Sent("1", 9.9, NOW - timedelta(hours=h)) for h in range(9, 60)), Sent("1", -127.0, NOW)])
    refresh(bed)
    make_place(garden, "New bed")
    make_place(garden, "Hotbed", kind="hotbed")
    garden.covers.create(kind="film_tunnel", name="Long tunnel", width_m=1.6, spread_m=0.9, purchase_year=2023)
    CoverTrial.objects.create(covered=bed, bare=garden.places.get(name="New bed"), depth_m=0.05, begun_on=date(2026, 4, 10))
    IncomingFile.objects.create(
        garden=garden, user=person, kind="readings", name="soil.csv", text="date,time,temp\n2026-04-20,07:30,6\n",
        mapping={"roles": ["date", "time", "temperature"]},
    )  # fmt: skip
    room = garden.rooms.create(name="Back room")
    warm = {"heat": benches.heated(), "light": benches.lit(3.0)}
    tray = benches.make_tray(garden, "Tray", 21.5, **warm, room=room, window_aspect_deg=180.0)
    tray.heat_periods.create(source="mat", first=date(2026, 4, 1), control="thermostat")
    tray.lamps.create(first=date(2026, 4, 1), spans=[[6, 20]])
    tray.heat_tests.create(on=date(2026, 4, 2), minutes=80, spots=[20, 21, 22, 23, 24, None, 19, 20, 22])
    CoverPeriod.objects.create(place=bed, cover="glass_frame", first=date(2026, 4, 1))
    lies = {"x_m": 0.0, "length_m": 0.9, "width_m": 0.3}
    for number, crop in enumerate(("chard", "carrot", "", "tomato")):
        planted = date(2026, 4, 10) if crop == "chard" else None
        Planting.objects.create(
            place=bed,
            crop_key=crop,
            planned_on=date(2026, 4, 20),
            planted_on=planted,
            origin="raised",
            y_m=0.3 * number,
            **lies,
        )
    Planting.objects.create(place=bed, crop_key="kale", planted_on=date(2025, 4, 1), ended_on=date(2025, 9, 1))
    PlantEvent.objects.create(planting=Planting.objects.earliest("pk"), kind="measured", on=date(2026, 4, 18), height_m=0.12)
    batch = garden.germination_trials.create(name="Warm and cold", begun_on=date(2026, 4, 10)).batches.create(
        crop_key="carrot", seeds=25, warmth_c=15, packet=garden.packets.first()
    )
    batch.counts.create(on=date(2026, 4, 18), up=14)
    garden.signs.create(name="First dandelion", on=date(2026, 4, 2))
    benches.sown(tray, "tomato", 20, 10, pk=Sowing.objects.latest("pk").pk + 1)
    return bed


PARTS = 2
"""Screens are shared out, so that several workers look at them."""


# On a phone in the light all rules; then the same page at a desk in the dark, where contrast alone is another.
@pytest.mark.parametrize("part", range(PARTS))
def test_no_screen_has_a_serious_finding(page: Page, live_server: Any, place: Place, part: int) -> None:
    page.set_viewport_size(PHONE)
    page.goto(f"{live_server.url}/sign-in/")
    findings = _looked_at(page)
    page.get_by_label("Name or email address").fill("rowan")
    page.get_by_label("Password").fill("a-long-password")
    page.get_by_role("button", name="Sign in", exact=True).click()
    page.wait_for_url("**/g/**")
    for screen in _screens(live_server.url, place)[part::PARTS]:
        page.set_viewport_size(PHONE)
        page.emulate_media(color_scheme="light")
        page.goto(screen)
        findings += _looked_at(page)
    assert findings == [], "\n".join(findings)


def _screens(url: str, place: Place) -> list[str]:
    garden = place.garden
    tray = garden.places.get(name="Tray")
    known = {"place": place.pk, "new": place.pk + 1, "hotbed": place.pk + 2, "file": IncomingFile.objects.get().pk}
    known |= {"sowing": Sowing.objects.earliest("pk").pk, "tray": tray.pk, "room": tray.room_id}
    known |= {"germination": garden.germination_trials.get().pk, "planting": Planting.objects.earliest("pk").pk}
    known |= {"own": garden.covers.get().pk, "trial": CoverTrial.objects.get().pk, "logger": garden.devices.get().pk}
    return [*(f"{url}/g/{garden.pk}/{screen.format(**known)}" for screen in SCREENS), *(url + path for path in OUTSIDE)]


def _looked_at(page: Page) -> list[str]:
    """What is wrong with a screen, small and light, then large and dark."""
    axe = Axe()
    faults = _serious(axe.run(page, options={"resultTypes": ["violations"]}), page.url)
    faults += _too_wide(page, PHONE)
    faults += [f"{page.url}: {name} stands twice" for name in page.evaluate(DOUBLED)]
    faults += [f"{page.url}: {name}" for name in page.evaluate(SMALL)]
    page.set_viewport_size(DESK)
    page.emulate_media(color_scheme="dark")
    faults += _too_wide(page, DESK)
    faults += _serious(page.evaluate(AXE_AGAIN, CONTRAST), page.url)
    page.set_viewport_size(PHONE)
    wide = page.evaluate(LARGE)
    return faults + [f"{page.url}: twice as large it is {wide} px wide"] * (wide > PHONE["width"])


def _too_wide(page: Page, size: Any) -> list[str]:
    wide = page.evaluate("document.documentElement.scrollWidth")
    return [f"{page.url}: {wide} px wide at {size['width']}"] * (wide > size["width"])


AXE_AGAIN = "(options) => axe.run(options)"
"""It is in the page already."""
DOUBLED = """(() => {
  const ids = [...document.querySelectorAll("[id]")].map((node) => node.id);
  return [...new Set(ids.filter((id, at) => ids.indexOf(id) !== at))];
})()"""
SMALL = """[...document.querySelectorAll("button, summary, select, input:not([type=hidden], [type=checkbox], [type=radio])")]
  .filter((node) => node.getClientRects().length && node.getBoundingClientRect().height < 43.5)
  .map((node) => `${node.outerHTML.slice(0, 90)} is ${node.getBoundingClientRect().height} px high`)"""
"""A thumb wants 44 px; a link inside a sentence, a box and a dot are as large as their words."""
LARGE = """(() => {
  document.documentElement.style.fontSize = "200%";
  return document.documentElement.scrollWidth;
})()"""


def test_keyboard_alone_reaches_everything_and_shows_where_it_is(page: Page, live_server: Any, place: Place) -> None:
    # What is still being worked out comes again every other second, and takes the place of what has the focus.
    refresh_stale()
    page.goto(f"{live_server.url}/sign-in/")
    page.get_by_label("Name or email address").fill("rowan")
    page.keyboard.press("Tab")
    page.keyboard.type("a-long-password")
    page.keyboard.press("Enter")
    page.wait_for_url("**/g/**")
    findings = []
    for room in ROOMS:
        # A page that puts the focus somewhere as it loads may do so in the midst of a slow machine's walk: it is walked again.
        for _ in range(3):
            missed = _walked(page, f"{live_server.url}/g/{place.garden_id}/{room.format(place=place.pk)}")
            if not missed:
                break
        findings += [f"{room}: {text}" for text in missed]
    assert findings == [], "\n".join(findings)


def _walked(page: Page, address: str) -> list[str]:
    """What Tab does not reach on a page."""
    page.goto(address)
    page.evaluate(FROM_THE_TOP)
    for _ in range(MOST_TABS):
        page.keyboard.press("Tab")
        if not page.evaluate(NOTE_FOCUS):
            break
    missed: list[str] = page.evaluate(NOT_REACHED)
    return missed


MOST_TABS = 600
FROM_THE_TOP = """(() => {
  const start = Object.assign(document.createElement("span"), { tabIndex: -1 });
  document.body.prepend(start);
  start.focus();
})()"""
NOTE_FOCUS = """(() => {
  const now = document.activeElement, style = getComputedStyle(now);
  if (now === document.body) return false;
  const marked = style.outlineStyle !== "none" || style.boxShadow !== "none";
  if (now.dataset.reached !== "seen") now.dataset.reached = marked ? "seen" : "unseen";
  return true;
})()"""
NOT_REACHED = """(() => {
  const all = [...document.querySelectorAll("a[href], button, input:not([type=hidden]), select, textarea, summary")];
  const shown = all.filter((node) => !node.disabled && node.checkVisibility({ visibilityProperty: true }));
  const same = (node) => node.type === "radio" && document.querySelector(`[name="${node.name}"][data-reached=seen]`);
  return shown.filter((node) => node.dataset.reached !== "seen" && !same(node))
    .map((node) => `${node.outerHTML.slice(0, 110)} ${node.dataset.reached || "is not reached"}`);
})()"""
"""Of radio buttons with one name, Tab reaches one and the arrows the others."""


CONTRAST = {"runOnly": ["color-contrast"], "resultTypes": ["violations"]}


def _serious(results: Any, url: str) -> list[str]:
    violations = results["violations"] if isinstance(results, dict) else results.response["violations"]
    return [
        f"{url}: {violation['id']}: {violation['nodes'][0]['html'][:160]}"
        for violation in violations
        if violation["impact"] in ("serious", "critical")
    ]
