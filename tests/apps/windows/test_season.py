"""The season's windows: page, table and calendar."""

import csv
import io
from datetime import date
from typing import Any

import pytest
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.urls import reverse
from icalendar import Calendar

from cloche.apps.forecasts import selectors as forecasts
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.models import Garden, User
from cloche.apps.places import flows
from cloche.apps.places.models import Place
from cloche.apps.windows.models import CalendarLink
from cloche.apps.windows.pages.season import frosts_changed, frosts_words
from cloche.bridge.values.units import Units
from cloche_engine.results import CandidateDays, FrostDates, RibbonDays
from cloche_engine.windows.limits import Limit
from tests.conftest import NOW
from tests.factories import make_person, make_place, make_window

RIBBON = RibbonDays([0, 10, 20], [0.0, 0.9, 0.9], [8.0, 10.0, 12.0])
DAYS = CandidateDays([], [], [], "", "", "", [], "")


def put(place: Place, key: str, first: str = "", last: str = "", method: str = "direct", **values: Any) -> None:
    """An outlook as a forecast would leave it."""
    why = {"opens_after": Limit.COLD, "closes_before": Limit.HEAT} | values
    CropOutlook.objects.create(
        place=place,
        crop_key=key,
        method=method,
        windows=[make_window(first, last, **why)] if first else [],
        sow_now=first == "2026-04-22",
        main_limit="" if first else Limit.COLD,
        half_d=9.0,
        ribbon=RIBBON,
        days=DAYS,
    )


@pytest.fixture
def two(garden: Garden) -> tuple[Place, Place]:
    """A bed and a frame: peas now in both, beans later and first in the frame, okra nowhere, tomatoes are raised."""
    bed, frame = make_place(garden, "North bed"), make_place(garden, "Wall frame")
    for place, beans in ((bed, "2026-05-14"), (frame, "2026-05-02")):
        put(place, "pea", "2026-04-22", "2026-06-01")
        put(place, "snap_bean", beans, "2026-07-20")
        put(place, "okra")
        put(place, "tomato", "2026-06-25", "2026-07-10", method="transplanted")
    return bed, frame


def shown(client: Client, garden: Garden) -> str:
    response = client.get(reverse("windows", args=[garden.pk]))
    assert response.status_code == 200
    return response.content.decode()


def test_the_page_says_what_can_go_in_now_and_what_is_next(signed_in: Client, garden: Garden, two: object) -> None:
    page = shown(signed_in, garden)
    assert "1 crop can be sown or planted today, anywhere. Next: dwarf French bean from 2 May in Wall frame." in page
    assert "anywhere now" in page
    assert "North bed from 14 May" in page
    assert "succeeds eight times in ten: okra." in page
    assert "Tomato, plants" in page
    assert "sow indoors from" in page


def test_an_empty_garden_says_what_is_missing(signed_in: Client, garden: Garden) -> None:
    assert "Windows appear here as soon as the first place has a forecast" in shown(signed_in, garden)


def test_removed_places_are_not_counted(signed_in: Client, garden: Garden, two: tuple[Place, Place]) -> None:
    flows.remove_place(two[1])
    assert "Next: dwarf French bean from 14 May in North bed" in shown(signed_in, garden)


def test_queries_do_not_grow_with_places(signed_in: Client, garden: Garden, two: object) -> None:
    shown(signed_in, garden)
    with CaptureQueriesContext(
        connection,
    ) as few:
        shown(signed_in, garden)
    for number in range(6):
        put(make_place(garden, f"Bed {number}"), "pea", "2026-04-22", "2026-06-01")
    with CaptureQueriesContext(connection) as many:
        shown(signed_in, garden)
    assert len(many) == len(few)


def test_the_table_holds_every_window_and_every_lack(signed_in: Client, garden: Garden, two: object) -> None:
    out = b"".join(signed_in.get(reverse("windows_csv", args=[garden.pk])).streaming_content).decode()  # type: ignore[attr-defined]
    rows = list(csv.DictReader(io.StringIO(out)))
    beans = {row["place"]: row for row in rows if row["crop"] == "Dwarf French bean"}
    assert (beans["Wall frame"]["earliest"], beans["Wall frame"]["last"]) == ("2026-05-02", "2026-07-20")
    assert beans["Wall frame"]["opens_after"] == "soil too cold"
    assert {row["no_window_for"] for row in rows if row["crop"] == "Okra"} == {"soil too cold"}


def events(client: Client, garden: Garden, person: User) -> tuple[str, dict[str, date]]:
    """Address and its days by summary."""
    url = reverse("feed", args=[CalendarLink.objects.get(membership__garden=garden, membership__user=person).token])
    feed = Calendar.from_ical(Client().get(url).content)
    return url, {str(event["summary"]): event["dtstart"].dt for event in feed.walk("VEVENT")}


def test_a_calendar_follows_the_secret_address(signed_in: Client, garden: Garden, person: User, two: object) -> None:
    signed_in.post(reverse("make_feed", args=[garden.pk]))
    url, days = events(signed_in, garden, person)
    assert url in shown(signed_in, garden)
    assert days["Dwarf French bean in Wall frame: the window opens"] == date(2026, 5, 2)
    assert days["Pea in North bed: last sensible date"] == date(2026, 6, 1)
    assert "Pea in North bed: the window opens" not in days
    assert days["Tomato, plants in North bed: the window opens"] == date(2026, 6, 25)
    indoors = days["Tomato, plants in North bed: sow indoors"]
    assert date(2026, 4, 25) <= indoors <= date(2026, 5, 15)


def test_an_ended_address_shows_nothing_and_the_next_is_another(
    signed_in: Client, garden: Garden, person: User, two: object
) -> None:
    signed_in.post(reverse("make_feed", args=[garden.pk]))
    old, _ = events(signed_in, garden, person)
    signed_in.post(reverse("revoke_feed", args=[garden.pk]))
    assert Client().get(old).status_code == 404
    signed_in.post(reverse("make_feed", args=[garden.pk]))
    assert events(signed_in, garden, person)[0] != old


def test_who_is_taken_out_of_a_garden_reads_it_no_more(signed_in: Client, garden: Garden, two: object) -> None:
    other = make_person("alder")
    garden.memberships.create(user=other)
    theirs = Client()
    theirs.force_login(other, backend="allauth.account.auth_backends.AuthenticationBackend")
    theirs.post(reverse("make_feed", args=[garden.pk]))
    url, _ = events(theirs, garden, other)
    garden.memberships.filter(user=other).delete()
    assert Client().get(url).status_code == 404
    assert Client().get(reverse("feed", args=["guessed"])).status_code == 404


def test_summer_and_winter_days_are_whole_days(signed_in: Client, garden: Garden, person: User, two: object) -> None:
    signed_in.post(reverse("make_feed", args=[garden.pk]))
    token = CalendarLink.objects.get().token
    text = Client().get(reverse("feed", args=[token])).content.decode()
    assert "DTSTART;VALUE=DATE:20260502" in text
    assert NOW.strftime("DTSTAMP:%Y%m%dT%H%M%SZ") in text


def test_a_change_of_what_the_frost_dates_rest_on_is_told_with_both_for_two_months() -> None:
    days = date(2026, 5, 1), date(2026, 5, 20), date(2026, 6, 4)
    before = FrostDates(days, None, -12.0, 0, "region")
    earlier = date(2026, 4, 2), date(2026, 4, 28), date(2026, 5, 10)
    now = FrostDates(earlier, None, -9.0, 12, "record", before, date(2026, 3, 1))
    text = frosts_changed(now, date(2026, 3, 20))
    assert "Since 1 March the frost dates are based mostly on 12 years of this site’s own days" in text
    assert "moved from 20 May to 28 April" in text
    typed = FrostDates(earlier, None, -9.0, 0, "typed", before, date(2026, 3, 1))
    assert "come from the monthly temperatures you entered instead of the usual climate of the region" in frosts_changed(
        typed, date(2026, 3, 20)
    )
    assert frosts_changed(now, date(2026, 5, 1)) == ""
    assert frosts_changed(before, date(2026, 3, 20)) == ""


def test_dates_weighed_from_two_sources_are_shown_with_both(garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    days = date(2026, 4, 10), date(2026, 4, 24), date(2026, 5, 8)
    weighed = FrostDates(
        days,
        None,
        -9.0,
        6,
        "record",
        own_usual=(date(2026, 4, 18), None),
        typical_usual=(date(2026, 5, 3), None),
        typical_source="region",
    )
    monkeypatch.setattr(forecasts, "frosts_of", lambda _garden: weighed)
    text = frosts_words(garden, Units(), date(2026, 3, 20))
    assert "Source: 6 years of this site’s own days and the usual climate of the region." in text
    assert "By this site’s own days alone, the last spring frost would be about 18 April; without them, about 3 May." in text
