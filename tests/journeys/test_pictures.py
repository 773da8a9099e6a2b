"""A round with pictures over a thin line: readings first, pictures in portions, and what is too large keeps nothing waiting."""

import base64
import io
import json
from typing import Any
from uuid import uuid4

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import Page, Request

from cloche.apps.gardens.models import Garden
from cloche.apps.readings.models import Reading, Visit
from tests.factories import make_garden, make_person, make_place
from tests.journeys.test_covers import sign_in
from tests.journeys.test_round import until

pytestmark = pytest.mark.django_db(transaction=True)


def noisy(seed: int, side: int = 700) -> str:
    """A picture that cannot be pressed small, as a data address of some 400 kB."""
    dots = np.random.default_rng(seed).integers(0, 255, (side, side, 3), dtype=np.uint8)
    out = io.BytesIO()
    Image.fromarray(dots).save(out, "JPEG", quality=80)
    return "data:image/jpeg;base64," + base64.b64encode(out.getvalue()).decode()


@pytest.fixture
def garden(db: None) -> Garden:
    garden = make_garden(make_person("rowan"), "Plot")
    for n in range(10):
        make_place(garden, f"Bed {n}")
    return garden


def walk(page: Page, garden: Garden, pictured: int) -> list[dict[str, Any]]:
    """Ten stops on the device, not sent yet: the first few with pictures. Then they are sent; returns what was posted."""
    stops = []
    for n, place in enumerate(garden.places.all()):
        entry = {"key": str(uuid4()), "place": str(place.pk), "temperature": f"{n}.5", "degree": "C", "length": "cm"}
        if n < pictured:
            entry["photo"] = noisy(n)
        at = f"2026-04-22T07:{n:02}:00.000Z"
        given = {"key": entry["key"], "garden": garden.pk, "person": "rowan", "place": place.pk, "placeName": place.name}
        stops.append(given | {"at": at, "state": "waiting", "message": "", "entry": entry})
    posted: list[dict[str, Any]] = []
    page.on("request", lambda request: posted.append(sent_in(request)) if request.url.endswith("/round/send/") else None)
    page.evaluate(
        "async (stops) => { for (const stop of stops) await clocheWaiting.put(stop); await clocheWaiting.send(); }", stops
    )
    return posted


def sent_in(request: Request) -> dict[str, Any]:
    body = request.post_data_buffer or b""
    return {"bytes": len(body), "photos": ["photo" in stop for stop in json.loads(body)["stops"]]}


def left(page: Page) -> list[dict[str, Any]]:
    left_over: list[dict[str, Any]] = page.evaluate("async () => await clocheWaiting.all()")
    return left_over


def test_pictures_go_in_portions_and_readings_go_first(page: Page, live_server: Any, garden: Garden) -> None:
    sign_in(page, live_server.url)
    page.wait_for_url("**/g/**")
    posted = walk(page, garden, 8)
    assert left(page) == []
    assert Reading.objects.count() == 10
    assert Visit.objects.filter(photo__isnull=False).count() == 8
    assert len(posted) > 2
    assert all(visit["bytes"] < 2_000_000 for visit in posted)
    flat = [photo for visit in posted for photo in visit["photos"]]
    assert flat == sorted(flat), "a picture went before a reading"


@pytest.mark.refused_requests
def test_a_picture_that_is_refused_keeps_no_reading_waiting(
    page: Page, live_server: Any, garden: Garden, settings: Any
) -> None:
    sign_in(page, live_server.url)
    page.wait_for_url("**/g/**")
    settings.DATA_UPLOAD_MAX_MEMORY_SIZE = 100_000
    walk(page, garden, 3)
    waiting = left(page)
    assert Reading.objects.count() == 7
    assert {stop["state"] for stop in waiting} == {"refused"}
    assert {stop["message"] for stop in waiting} == {"Its picture is too large to send. Send it without the picture."}
    page.goto(f"{live_server.url}/g/{garden.pk}/round/")
    for _ in range(3):
        page.get_by_role("button", name="Send it without its picture").first.click()
        page.wait_for_timeout(300)
    until(page, "clocheWaiting.all().then((all) => all.length === 0)")
    assert Reading.objects.count() == 10
    assert not Visit.objects.filter(photo__isnull=False).exists()
