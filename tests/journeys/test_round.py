"""The round in the browser: eight places on a phone, the table at the desk, and no signal at the bottom of the garden."""

import re
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, Page, Playwright, expect

from bench.running import CHROMIUM
from bench.wire import Wire
from cloche.apps.forecasts.flows import refresh_stale
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Operation
from cloche.apps.readings.models import Reading, Visit
from cloche.apps.rounds import views
from tests.factories import make_garden, make_person, make_place, make_reading
from tests.journeys.conftest import FLAGS

pytestmark = pytest.mark.django_db(transaction=True)
PHONE = {"width": 390, "height": 844}
PROMPTED = 1200
NAMES = ["North bed", "Long bed", "Wall frame", "Arch", "Low tunnel", "South bed", "Bells", "Terrace"]


@pytest.fixture
def garden(db: None) -> Garden:
    garden = make_garden(make_person("rowan"), "Plot")
    for name in NAMES:
        make_place(garden, name, kind="frame" if name == "Wall frame" else "open")
    return garden


@pytest.fixture
def phone(playwright: Playwright, tmp_path: Path, live_server: Any, garden: Garden) -> Iterator[Any]:
    """A phone whose browser can be closed and opened again with what it keeps."""
    opened: list[BrowserContext] = []

    def start(signal: bool = True) -> Page:
        context = playwright.chromium.launch_persistent_context(
            str(tmp_path / "phone"),
            executable_path=CHROMIUM,
            args=FLAGS,
            viewport=PHONE,
            has_touch=True,
            reduced_motion="reduce",
        )
        opened.append(context)
        context.set_offline(not signal)
        return context.pages[0] if context.pages else context.new_page()

    yield start
    for context in opened:
        context.close()


@pytest.fixture
def wire(live_server: Any) -> Iterator[Wire]:
    between = Wire(live_server.thread.host, live_server.thread.port)
    yield between
    between.close()


def sign_in(page: Page, url: str) -> None:
    page.goto(f"{url}/sign-in/")
    page.get_by_label("Name").fill("rowan")
    page.get_by_label("Password").fill("a-long-password")
    page.get_by_role("button", name="Sign in", exact=True).tap()
    page.wait_for_url("**/g/**")


def open_round(page: Page, url: str, garden: Garden) -> None:
    sign_in(page, url)
    worked(page)
    page.goto(f"{url}/g/{garden.pk}/round/")
    expect(page.locator(".stop.here h2")).to_have_text("North bed")
    until(page, "caches.open('cloche-pages').then((kept) => kept.keys()).then((keys) => keys.length > 0)")


def read(page: Page, digits: str) -> int:
    """Type digits and go on; returns how many touches there were besides the digits."""
    for digit in digits:
        page.locator(f'[data-digit="{digit}"]').tap()
    page.locator(".stop.here").evaluate("(stop) => { stop.dataset.left = 'yes'; }")
    page.locator("#next").tap()
    # Written on the phone, or asked about.
    until(page, "document.querySelector('[data-left]').matches('.kept, [data-asked]')")
    page.locator("[data-left]").evaluate("(stop) => { delete stop.dataset.left; }")
    return 1


def until(page: Page, true: str) -> None:
    """Ask until it is so; the strict policy allows no polling inside the page."""
    # A busy machine may take its time over installing the worker; a minute of it is no fault.
    for _ in range(PROMPTED):
        if page.evaluate(true):
            return
        page.wait_for_timeout(50)
    raise AssertionError(f"never: {true}")


def worked(page: Page) -> None:
    """The page is answered by the worker; where it never is, how far it came."""
    try:
        until(page, "navigator.serviceWorker.controller !== null")
    except AssertionError as never:
        came = page.evaluate(
            "navigator.serviceWorker.getRegistrations().then((all) => all.map((one) =>"
            " [one.installing, one.waiting, one.active].map((worker) => worker && worker.state)))"
        )
        raise AssertionError(f"{never}; registered: {came}") from None


def waiting(page: Page) -> int:
    return int(page.evaluate("clocheWaiting.all().then((all) => all.length)"))


def settled(page: Page) -> None:
    until(page, "clocheWaiting.all().then((all) => all.length === 0)")


def test_eight_places_on_a_phone_take_the_digits_and_one_touch_each(phone: Any, live_server: Any, garden: Garden) -> None:
    page = phone()
    open_round(page, live_server.url, garden)
    for name, digits in zip(NAMES, ["9.5", "8", "11.2", "10", "12", "7.5", "-0.5", "9"], strict=True):
        expect(page.locator(".stop.here h2")).to_have_text(name)
        assert read(page, digits) <= 3
    expect(page.locator("#round-summary")).to_contain_text("8 of 8 places read.")
    expect(page.locator(".keypad")).to_be_hidden()
    page.set_viewport_size({"width": 360, "height": 600})
    expect(page.locator(".keypad")).to_be_hidden()
    page.set_viewport_size(PHONE)
    settled(page)
    kept = Reading.objects.order_by("place__walking_order").values_list("temperature_c", flat=True)
    assert list(kept) == [9.5, 8.0, 11.2, 10.0, 12.0, 7.5, -0.5, 9.0]
    assert page.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]


def test_a_worker_that_is_lost_on_its_way_is_asked_for_again(
    phone: Any, live_server: Any, garden: Garden, monkeypatch: pytest.MonkeyPatch
) -> None:
    whole, query = views.worker_script, list[str]()

    def lost_at_first() -> str:
        query.append("asked")
        return "throw new Error('cut short');" if len(query) <= 2 else whole()

    monkeypatch.setattr(views, "worker_script", lost_at_first)
    page = phone()
    sign_in(page, live_server.url)
    worked(page)
    assert len(query) >= 3


def test_quick_taps_on_one_key_all_count(phone: Any, live_server: Any, garden: Garden) -> None:
    page = phone()
    open_round(page, live_server.url, garden)
    box = page.locator('[data-digit="1"]').bounding_box()
    assert box is not None
    for _ in range(5):
        page.touchscreen.tap(box["x"] + 20, box["y"] + 20)
    assert page.locator(".stop.here [data-probe]").first.input_value() == "11111"
    page.locator('[data-digit="rub"]').focus()
    page.keyboard.press("Space")
    assert page.locator(".stop.here [data-probe]").first.input_value() == "1111"


def test_every_key_is_large_enough_for_a_wet_thumb(phone: Any, live_server: Any, garden: Garden) -> None:
    page = phone()
    open_round(page, live_server.url, garden)
    for key in page.locator(".keypad button, #next, #back").all():
        box = key.bounding_box()
        assert box is not None
        assert min(box["height"], box["width"]) >= 55
    box = page.locator("#next").bounding_box()
    assert box is not None
    assert box["y"] + box["height"] <= PHONE["height"]


def test_keys_stay_under_the_thumb_whatever_is_said_meanwhile(phone: Any, live_server: Any, garden: Garden) -> None:
    page = phone()
    open_round(page, live_server.url, garden)
    page.evaluate("""() => {
        const next = document.getElementById("next"), tops = window.tops = new Set();
        const look = () => { tops.add(Math.round(next.getBoundingClientRect().top)); requestAnimationFrame(look); };
        look();
    }""")
    read(page, "9.5")
    settled(page)
    page.context.route("**/round/send/", lambda route: route.abort())
    read(page, "8")
    expect(page.locator("#round-notice")).to_contain_text("No signal")
    expect(page.locator("[data-unsent]")).to_be_visible()
    page.context.unroute("**/round/send/")
    read(page, "182")
    expect(page.locator("#waiting")).to_contain_text("outside")
    tops = page.evaluate("[...window.tops]")
    assert len(tops) == 1, tops


def test_without_signal_nothing_is_lost_and_nothing_is_doubled(phone: Any, wire: Wire, garden: Garden) -> None:
    page = phone()
    open_round(page, wire.url, garden)
    for digits in ("9.5", "8", "11"):
        read(page, digits)
    settled(page)
    assert Reading.objects.count() == 3
    # The bottom of the garden: the network is cut in the middle of the round.
    wire.cut()
    page.context.set_offline(True)
    read(page, "10")
    read(page, "12")
    page.locator('[data-digit="7"]').tap()  # half typed
    expect(page.locator("[data-unsent]")).to_have_text("2 places have not been sent yet")
    page.reload()
    expect(page.locator(".stop.here h2")).to_have_text("North bed")
    assert waiting(page) == 2
    assert page.locator('.stop[data-place] [data-probe="temperature"]').nth(5).input_value() == "7"
    page.context.close()
    # The browser is opened again, still without signal.
    page = phone(signal=False)
    page.goto(f"{wire.url}/g/{garden.pk}/round/")
    assert waiting(page) == 2
    page.goto(f"{wire.url}/g/{garden.pk}/weather/")
    expect(page.get_by_role("heading", level=1)).to_contain_text("There is no signal here")
    page.get_by_role("link", name="Round in Plot").tap()
    expect(page.locator(".stop.here")).to_be_visible()
    while page.locator(".stop.here h2").inner_text() != "South bed":
        page.locator("#next").tap()
    read(page, "")  # the half typed 7 is kept as it stands
    read(page, "6")
    assert waiting(page) == 4
    assert Reading.objects.count() == 3
    wire.mend()
    page.context.set_offline(False)
    settled(page)
    read(page, "5")
    settled(page)
    kept = Reading.objects.order_by("place__walking_order").values_list("temperature_c", flat=True)
    assert list(kept) == [9.5, 8.0, 11.0, 10.0, 12.0, 7.0, 6.0, 5.0]
    assert Visit.objects.count() == 8


def test_an_answer_that_gets_lost_is_asked_for_again_and_nothing_is_doubled(
    phone: Any, live_server: Any, garden: Garden
) -> None:
    page = phone()
    open_round(page, live_server.url, garden)

    lost = []

    def swallow(route: Any) -> None:
        route.fetch()  # the garden has it, the phone never hears of it
        route.abort()
        lost.append(route)

    page.context.route("**/round/send/", swallow)
    read(page, "9.5")
    for _ in range(PROMPTED):
        if lost:
            break
        page.wait_for_timeout(50)
    page.wait_for_timeout(100)
    assert waiting(page) == 1
    page.context.unroute("**/round/send/")
    page.evaluate("clocheWaiting.send()")
    settled(page)
    assert Reading.objects.count() == Visit.objects.count() == 1


def test_what_is_refused_stays_on_the_phone_with_its_reason(phone: Any, live_server: Any, garden: Garden) -> None:
    page = phone()
    open_round(page, live_server.url, garden)
    read(page, "182")
    expect(page.locator("#waiting")).to_contain_text("North bed, 182°")
    expect(page.locator("#waiting")).to_contain_text("outside")
    page.get_by_role("button", name="Change").tap()
    expect(page.locator(".stop.here h2")).to_have_text("North bed")
    for _ in "182":
        page.locator('[data-digit="rub"]').tap()
    read(page, "18.2")
    settled(page)
    assert Reading.objects.get().temperature_c == 18.2


def test_two_phones_that_disagree_are_shown_to_each_other(phone: Any, live_server: Any, garden: Garden) -> None:
    page = phone()
    open_round(page, live_server.url, garden)
    page.context.route("**/round/send/", lambda route: route.abort())
    read(page, "9.5")
    at = datetime.fromisoformat(page.evaluate("clocheWaiting.all().then((all) => all[0].at)"))
    theirs = make_reading(garden.places.all()[0], at.replace(second=0, microsecond=0), 7.0, entered_by=make_person("hazel"))
    page.context.unroute("**/round/send/")
    page.evaluate("clocheWaiting.send()")
    expect(page.locator("#waiting")).to_contain_text("hazel recorded 7.0°")
    assert waiting(page) == 1
    page.get_by_role("button", name="Use mine").tap()
    settled(page)
    theirs.refresh_from_db()
    assert theirs.temperature_c == 9.5
    assert Reading.objects.current().count() == 1


def test_a_strange_reading_is_asked_about_once_and_then_believed(phone: Any, live_server: Any, garden: Garden) -> None:
    refresh_stale()
    page = phone()
    open_round(page, live_server.url, garden)
    read(page, "39")
    assert waiting(page) == 0
    expect(page.locator(".stop.here .verdict")).to_contain_text("is far from the")
    expect(page.locator("#next")).to_have_text("It is correct, save it")
    assert Reading.objects.count() == 0
    page.locator("#next").tap()
    expect(page.locator("#round-notice")).to_contain_text("North bed: 39° (expected")
    settled(page)
    page.locator("#round-notice").get_by_role("button", name="Undo North bed").tap()
    expect(page.locator("#round-notice")).to_contain_text("is open again")
    assert not Reading.objects.current().exists()


def test_a_question_goes_when_the_typo_is_mended(phone: Any, live_server: Any, garden: Garden) -> None:
    refresh_stale()
    page = phone()
    open_round(page, live_server.url, garden)
    read(page, "39")
    expect(page.locator(".stop.here .verdict")).to_contain_text("is far from the")
    page.locator('[data-digit="rub"]').tap()
    expect(page.locator(".stop.here .verdict")).to_be_empty()
    expect(page.locator("#next")).to_have_text("Save, next")


def test_with_signal_again_the_round_says_no_longer_that_there_is_none_and_a_place_can_be_read_again(
    phone: Any, live_server: Any, garden: Garden
) -> None:
    page = phone()
    # However long the machine takes over it, both are read in one minute.
    page.clock.set_fixed_time(datetime.now(UTC))
    open_round(page, live_server.url, garden)
    page.context.route("**/round/send/", lambda route: route.abort())
    read(page, "9.5")
    expect(page.locator("#round-notice")).to_contain_text("No signal")
    page.reload()
    first = page.locator(".stop").first
    expect(first.locator(".waits")).to_have_count(1)
    page.context.unroute("**/round/send/")
    page.evaluate("clocheWaiting.send()")
    settled(page)
    expect(page.locator("#round-notice")).not_to_contain_text("No signal")
    expect(first.locator(".waits")).to_have_count(0)
    page.locator("#back").tap()
    first.get_by_role("button", name="Read it again").tap()
    expect(first.locator('[data-probe="temperature"]')).to_have_value("")
    read(page, "10")
    settled(page)
    assert Reading.objects.current().get().temperature_c == 10.0  # within the same minute: a correction


def test_leaving_with_something_unsent_is_said_first(phone: Any, live_server: Any, garden: Garden) -> None:
    make_garden(garden.people.get(), "Second plot")
    page = phone()
    open_round(page, live_server.url, garden)
    page.context.route("**/round/send/", lambda route: route.abort())
    read(page, "9.5")
    query: list[str] = []
    page.on("dialog", lambda dialog: (query.append(dialog.message), dialog.dismiss()))
    for count, way_out in enumerate(
        (page.get_by_role("button", name="Sign out"), page.get_by_text("Switch to Second plot")), 1
    ):
        way_out.tap()
        for _ in range(PROMPTED):
            page.wait_for_timeout(50)
            if len(query) == count:
                break
    assert len(query) == 2
    assert "1 place has not been sent yet" in query[0]
    assert "1 place of this garden" in query[1]
    assert f"/g/{garden.pk}/round/" in page.url


def test_what_was_seen_besides_goes_with_it(phone: Any, live_server: Any, garden: Garden) -> None:
    page = phone()
    open_round(page, live_server.url, garden)
    page.locator("#next").tap()
    page.locator("#next").tap()
    here = page.locator(".stop.here")
    expect(here.locator("h2")).to_have_text("Wall frame")
    here.locator("summary").tap()
    here.get_by_label("wet").check()
    here.get_by_label("watered").check()
    here.get_by_label("Lowest since reset").fill("-2")
    here.get_by_label("Highest since reset").fill("31")
    here.get_by_label("Note").fill("glass cracked")
    read(page, "11")
    settled(page)
    visit = Visit.objects.get()
    assert (visit.moisture, visit.air_low_c, visit.air_high_c, visit.note) == ("wet", -2.0, 31.0, "glass cracked")
    assert Operation.objects.get().work == "watered"


def test_the_settle_timer_counts_down_and_keeps_its_length(phone: Any, live_server: Any, garden: Garden) -> None:
    page = phone()
    open_round(page, live_server.url, garden)
    for _ in range(3):
        page.get_by_role("button", name="Shorter").tap()
    expect(page.locator("#settle-left")).to_have_text("0:30")
    page.get_by_role("button", name="Settling time").tap()
    expect(page.locator("#settle-left")).to_have_text(re.compile(r"0:[12]\d"))
    page.reload()
    expect(page.locator("#settle-left")).to_have_text("0:30")
    for _ in range(25):
        page.get_by_role("button", name="Longer").tap()
    expect(page.locator("#settle-left")).to_have_text("10:00")


def test_one_can_go_first_where_most_would_be_learned(phone: Any, live_server: Any, garden: Garden) -> None:
    refresh_stale()
    page = phone()
    open_round(page, live_server.url, garden)
    said = page.locator(".advice").inner_text()
    page.get_by_role("link", name="Go to this place").tap()
    expect(page.locator(".stop.here h2")).to_have_text(next(name for name in NAMES if f"in {name} at" in said))


def test_at_the_desk_the_round_is_digits_and_enter(page: Page, live_server: Any, garden: Garden) -> None:
    page.goto(f"{live_server.url}/sign-in/")
    page.get_by_label("Name").fill("rowan")
    page.get_by_label("Password").fill("a-long-password")
    page.keyboard.press("Enter")
    page.wait_for_url("**/g/**")
    page.keyboard.press("r")
    page.wait_for_url("**/round/")
    until(page, "document.activeElement.matches('[data-probe]')")
    for value in ["9.5", "8", "11", "10", "12", "7", "6", "5"]:
        page.keyboard.type(value)
        page.keyboard.press("Enter")
    expect(page.locator(".stop.kept")).to_have_count(8)
    page.keyboard.press("Enter")
    expect(page.locator("#round-summary")).to_contain_text("8 of 8 places read.")
    settled(page)
    assert Reading.objects.count() == 8
