"""The pictures of the README, from the demo's data: `./run shots`."""

from __future__ import annotations

import os
import sys
import threading
from pathlib import Path
from socketserver import ThreadingMixIn
from wsgiref.simple_server import WSGIRequestHandler, WSGIServer, make_server

from bench.running import CHROMIUM

SHOTS = Path(__file__).parents[1] / "docs" / "screenshots"
DESK, PHONE = (1280, 800), (390, 844)
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-dev-shm-usage", "--disable-background-networking"]
FLAGS += ["--font-render-hinting=none", "--force-color-profile=srgb", "--lang=en-GB"]


class _Server(ThreadingMixIn, WSGIServer):
    daemon_threads = True


class _Quiet(WSGIRequestHandler):
    def log_message(self, *args: object) -> None:
        """Say nothing."""


def main() -> int:
    """Load the demo, open every view, keep a picture of each."""
    os.environ["DJANGO_SETTINGS_MODULE"] = "cloche.config.settings.bench"
    import django

    django.setup()
    from django.contrib.staticfiles.handlers import StaticFilesHandler
    from django.core.management import call_command
    from django.core.wsgi import get_wsgi_application

    # The same hour in every set of pictures: the day's jobs go by it.
    from cloche.apps.shared import clock

    real = clock.now
    clock.now = lambda: real().replace(hour=6, minute=10, second=0)
    call_command("load_demo", work=True)
    views = _views()
    server = make_server("127.0.0.1", 0, StaticFilesHandler(get_wsgi_application()), _Server, handler_class=_Quiet)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
    _take(f"http://127.0.0.1:{server.server_port}", views)
    server.shutdown()
    return 0


def _views() -> list[tuple[str, str, tuple[int, int], str]]:
    from cloche.apps.covers import flows
    from cloche.apps.forecasts.flows import work_out_year
    from cloche.apps.gardens.models import Garden
    from cloche.apps.places.models import Place
    from cloche.apps.shared import clock

    hill = Garden.objects.earliest("pk")
    bed, tunnel = Place.objects.get(name="North bed"), Place.objects.get(name="Low tunnel")
    root, place = f"/g/{hill.pk}", f"/g/{hill.pk}/places/{bed.pk}/"
    # What the queue would work out while the page waits.
    keys = [key for key, _ in flows.offered(hill)][:3]
    flows.answer_seasons(bed, [flows.BARE, *keys])
    flows.answer_seasons(tunnel, [flows.BARE])
    for year in range(5):
        work_out_year(bed, clock.today(hill.timezone).year - year)
    own = "&".join(f"cover={key}" for key in keys)
    return [
        ("today", f"{root}/", DESK, "light"),
        ("today-phone", f"{root}/", PHONE, "light"),
        ("place", place, DESK, "light"),
        ("season", f"{root}/covers/season/?place={bed.pk}&crop=lettuce&crop=snap_bean&crop=tomato&{own}", DESK, "light"),
        ("bench", f"{root}/bench/", DESK, "light"),
        ("plan", f"{root}/plan/{bed.pk}/", DESK, "light"),
        ("cover-by-the-day", f"{root}/plan/{tunnel.pk}/cover/", DESK, "light"),
        ("years", f"{root}/years/?place={bed.pk}", DESK, "light"),
        ("crop-in-place", f"{place}crops/snap_bean/", DESK, "light"),
        ("sowings", f"{root}/sowings/", DESK, "light"),
        ("what-wakes", f"{root}/what-wakes/", DESK, "light"),
        ("windows", f"{root}/windows/", DESK, "light"),
        ("year-sheet", f"{root}/windows/year/", DESK, "light"),
        ("ground", f"{root}/ground/", DESK, "light"),
        ("new-garden", "/gardens/new/?latitude_deg=48.41&longitude_deg=15.61", DESK, "light"),
        ("round-phone", f"{root}/round/", PHONE, "light"),
        ("loggers", f"{root}/loggers/", DESK, "light"),
        ("covers", f"{root}/covers/?place={bed.pk}&crop=snap_bean", DESK, "light"),
        ("opening", f"{root}/covers/opening/", DESK, "light"),
    ]


def _take(base: str, views: list[tuple[str, str, tuple[int, int], str]]) -> None:
    from playwright.sync_api import sync_playwright

    SHOTS.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        for name, url, (width, height), scheme in views:
            context = browser.new_context(
                viewport={"width": width, "height": height},
                color_scheme=scheme,  # type: ignore[arg-type]
                locale="en-GB",
                reduced_motion="reduce",
            )
            page = context.new_page()
            page.goto(base + "/sign-in/")
            page.fill("[name=username]", "demo")
            page.fill("[name=password]", "demo-garden")
            page.click("main button")
            page.goto(base + url)
            page.evaluate("document.fonts.ready")
            page.wait_for_timeout(300)
            for digit in "9.5" if name == "round-phone" else "":
                page.click(f'[data-digit="{digit}"]')
            page.screenshot(path=str(SHOTS / f"{name}.png"))
            context.close()
        browser.close()


if __name__ == "__main__":
    sys.exit(main())
