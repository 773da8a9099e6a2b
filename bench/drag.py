"""How many frames a second a patch is dragged with among two hundred: `./run bench drag`, in Chromium at desk size."""

from __future__ import annotations

import mimetypes
import statistics
import threading
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path

from bench.running import CHROMIUM

STATIC = Path(__file__).parents[1] / "src" / "cloche" / "static"
ROWS, COLUMNS, STEPS = 10, 20, 240
FRAMES = """() => { window.frames_ms = []; let last = performance.now();
  const tick = (now) => { window.frames_ms.push(now - last); last = now; requestAnimationFrame(tick); };
  requestAnimationFrame(tick); }"""


def main() -> int:
    """Print the middle and the slowest twentieth of the frames while a patch is dragged to and fro."""
    from playwright.sync_api import sync_playwright

    html = _page()

    class Served(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            path = self.path.split("?")[0]
            file = STATIC / path.removeprefix("/static/")
            data = html if path == "/" else file.read_bytes() if path.startswith("/static/") and file.is_file() else b""
            self.send_response(200)
            self.send_header("Content-Type", "text/html" if path == "/" else mimetypes.guess_type(path)[0] or "text/plain")
            self.end_headers()
            self.wfile.write(data)

        def log_message(self, *args: object) -> None:
            """Nothing to say."""

    server = ThreadingHTTPServer(("127.0.0.1", 0), Served)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=["--no-sandbox", "--disable-gpu"])
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"http://127.0.0.1:{server.server_port}/")
        box = page.locator(".patch").first.bounding_box()
        assert box
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 3
        page.mouse.move(x, y)
        page.mouse.down()
        page.evaluate(FRAMES)
        for step in range(STEPS):
            page.mouse.move(x + 3 * (step % 120), y + step % 60)
        frames = sorted(page.evaluate("window.frames_ms"))
        browser.close()
    server.shutdown()
    middle, slow = statistics.median(frames), frames[int(0.95 * len(frames))]
    print(
        f"{ROWS * COLUMNS} patches: {len(frames)} frames, {middle:.1f} ms in the middle, {slow:.1f} ms at the slowest twentieth"
    )
    print(f"{1000 / middle:.0f} frames a second")
    return 0


def _page() -> bytes:
    from django.core.management import call_command
    from django.test import Client, override_settings

    from cloche.apps.gardens.models import Garden, Membership, User
    from cloche.apps.plants.models import BedShape, Planting
    from cloche.apps.shared import clock

    call_command("ready", verbosity=0)
    User.objects.filter(username="dragging").delete()
    person = User.objects.create_user("dragging")
    garden = Garden.objects.create(
        name="Frames", latitude_deg=48, longitude_deg=15, elevation_m=300, timezone_name="Europe/Vienna"
    )
    Membership.objects.create(garden=garden, user=person, role="owner")
    place = garden.places.create(name="Large bed")
    BedShape.objects.create(place=place, length_m=6.0, width_m=3.0, square_m=0.3)
    today = clock.today(garden.timezone)
    crops = ("radish", "carrot", "onion", "pea", "lettuce", "kale", "spinach", "beet")
    for number in range(ROWS * COLUMNS):
        spot = {"x_m": 0.3 * (number % COLUMNS), "y_m": 0.3 * (number // COLUMNS)}
        Planting.objects.create(place=place, crop_key=crops[number % 8], origin="raised", planted_on=today, **spot)
    client = Client()
    client.force_login(person, backend="allauth.account.auth_backends.AuthenticationBackend")
    with override_settings(ALLOWED_HOSTS=["*"]):
        answer = client.get(f"/g/{garden.pk}/plan/{place.pk}/")
    garden.delete()
    assert answer.status_code == 200
    return answer.content
