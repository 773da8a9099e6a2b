"""A walk through the rooms of the demo, both gardens, three dates: no two pages state different numbers or orders."""

import csv
import html
import re
from dataclasses import dataclass
from datetime import date, datetime
from functools import cached_property
from zoneinfo import ZoneInfo

import pytest
from django.test import Client
from django.urls import reverse
from icalendar import Calendar

from cloche.apps.forecasts.flows import refresh_stale
from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.models import Place
from cloche.apps.records.management.commands.load_demo import load
from cloche.apps.shared import clock
from cloche.apps.windows.feed import calendar
from cloche.apps.windows.pages.season import TIMINGS, Timing
from cloche.bridge.services import crops
from cloche_engine.places.kinds import BENCHES

ZONE = ZoneInfo("Europe/Vienna")
DATES = [datetime(2026, *day, tzinfo=ZONE) for day in ((4, 22, 9), (7, 9, 7), (10, 3, 18))]
KINDS = 3
DEGREES = r"−?\d+(?:\.\d)?°"


def plain(page: str) -> str:
    """What a reader sees of a page, tags away and spaces evened."""
    return re.sub(r"\s+", " ", html.unescape(re.sub(r"<[^>]+>", " ", page)))


@dataclass
class Rooms:
    """The pages of one garden as one of its people sees them."""

    client: Client
    garden: Garden
    now: datetime

    def page(self, name: str, *more: object, **query: object) -> str:
        answer = self.client.get(reverse(name, args=[self.garden.pk, *more]), query)
        assert answer.status_code == 200, name
        return b"".join(answer).decode()

    @cached_property
    def today(self) -> date:
        return self.now.astimezone(self.garden.timezone).date()

    @cached_property
    def places(self) -> list[Place]:
        return list(self.garden.places.all())

    @cached_property
    def table(self) -> list[dict[str, str]]:
        """All windows, as the file has them."""
        return [row for row in csv.DictReader(self.page("windows_csv").splitlines()) if row["earliest"]]

    @cached_property
    def open_now(self) -> set[tuple[str, str, str]]:
        """Crop, place and way of every window that is open, by the file; what only raises plants left out."""
        beds = {place.name for place in self.places if place.kind not in BENCHES}
        return {
            (row["crop"], row["place"], row["method"])
            for row in self.table
            if row["place"] in beds and date.fromisoformat(row["earliest"]) <= self.today
        }


@pytest.fixture(params=DATES, ids=["April", "July", "October"])
def rooms(request: pytest.FixtureRequest, db: None, monkeypatch: pytest.MonkeyPatch) -> list[Rooms]:
    now = request.param
    monkeypatch.setattr(clock, "now", lambda: now)
    load(7)
    # A few places of different kinds say as much as all of them.
    for garden in Garden.objects.all():
        kinds = {place.kind: place.pk for place in garden.places.order_by("-walking_order")}
        garden.places.exclude(pk__in=list(kinds.values())[-KINDS:]).update(removed_at=now)
    refresh_stale()
    client = Client()
    client.force_login(User.objects.get(username="demo"))
    return [Rooms(client, garden, now) for garden in Garden.objects.order_by("pk")]


def test_no_two_rooms_contradict_each_other(rooms: list[Rooms]) -> None:
    assert len(rooms) == 2
    for page in rooms:
        same_warmth(page)
        same_windows(page)
        same_dates_in_the_calendar(page)
        same_jobs(page)


def same_warmth(rooms: Rooms) -> None:
    """One figure for the day, and one for this hour, of each place."""
    today, ground = plain(rooms.page("today")), plain(rooms.page("ground"))
    for place in rooms.places:
        there = plain(rooms.page("place", place.pk))
        mean = re.search(rf"{re.escape(place.name)} is at ({DEGREES}), the daily mean", there)
        hour = re.search(rf"({DEGREES})[CF]? at this hour", there)
        assert mean, place.name
        assert hour, place.name
        wakes = plain(rooms.page("what_wakes", place=place.pk))
        assert f"{place.name} is at {mean[1]}" in wakes
        assert re.search(rf"{re.escape(place.name)} .{{0,160}}?mean {re.escape(mean[1])}", today), (place.name, mean[1])
        assert hour[1] in today
        assert re.search(rf"{re.escape(place.name)}.{{0,120}}?{re.escape(hour[1])}", ground), (place.name, hour[1])


LINK = r"/g/\d+/places/\d+/crops/([a-z0-9_]+)/"
OPEN = (Timing.CLOSING, Timing.BEST, Timing.LATE, Timing.EARLY)


def same_windows(rooms: Rooms) -> None:
    """What can go in now, by the file, the season's page, each place's page, Today and the crops' own pages."""
    season = rooms.page("windows")
    groups = dict(re.findall(r"<h2>([^<]*)</h2>(.*?)(?=<h2>|$)", season, re.S))
    listed = "".join(groups.get(str(TIMINGS[timing]), "") for timing in OPEN)
    crops_open = {crop for crop, _, _ in rooms.open_now}
    if listed:
        # A crop and what is grown of it to stand the winter are one row and a second one below it.
        rows = re.findall(rf'<a class="ribbon-row" href="{LINK}"', listed)
        known = {crop.name: crop.key for crop in crops.crops()}
        assert {crops.usual_of(key) for key in rows} == {crops.usual_of(known[name]) for name in crops_open}
        said = re.search(r"(\w+) crops? can be sown or planted today", plain(season))
        assert said
        assert said[1].lower() in (str(len(rows)), NUMBERS.get(len(rows), ""))
    today = rooms.page("today")
    for place in rooms.places:
        here = {(crop, method) for crop, name, method in rooms.open_now if name == place.name}
        if place.kind in BENCHES:
            continue
        page = rooms.page("place", place.pk)
        lines = re.findall(rf'<a class="ribbon-row[^"]*" href="{LINK}".*?<span class="when">([^<]*)<', page, re.S)
        now = {crops.crop(key).name for key, when in lines if when.startswith("today") or "from today" in when}
        assert now == {crop for crop, _ in here}, place.name
        card = re.search(rf'<b>{re.escape(html.escape(place.name))}</b>.*?<ul class="into">(.*?)</ul>', today, re.S)
        assert card, place.name
        more = re.search(r"and (\d+) more", card[1])
        count = len(re.findall(r"<a href", card[1])) + (int(more[1]) if more else 0)
        assert count == len({crop for crop, method in here if method == "direct"}), place.name


COUNTED = ["one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"]
NUMBERS = dict(enumerate(COUNTED, start=1))


def same_dates_in_the_calendar(rooms: Rooms) -> None:
    """First and last days in the calendar are those of the file."""
    events = Calendar.from_ical(calendar(rooms.garden, rooms.now)).walk("VEVENT")
    feed = {(str(event["summary"]), event["dtstart"].dt) for event in events}
    beds = {place.name for place in rooms.places if place.kind not in BENCHES}
    for row in rooms.table:
        if row["place"] not in beds:
            continue
        name = f"{row['crop']}{'' if row['method'] == 'direct' else ', plants'} in {row['place']}"
        first = date.fromisoformat(row["earliest"])
        if first > rooms.today:
            assert (f"{name}: the window opens", first) in feed
        if row["last"]:
            assert (f"{name}: last sensible date", date.fromisoformat(row["last"])) in feed


def same_jobs(rooms: Rooms) -> None:
    """The day's jobs and their order on Today and in the week; how far to open, as Open and shut has it."""

    def jobs(page: str) -> list[str]:
        return [plain(job) for job in re.findall(r'<p class="do">(.*?)</p>', page, re.S)]

    today, week = rooms.page("today"), rooms.page("week")
    assert jobs(today) == jobs(week)
    opening = plain(rooms.page("opening"))
    for said in re.findall(r"(Open (?:it|them)[^.]*?\d\d?[:.]\d\d to \d\d?[:.]\d\d)", plain(today)):
        assert said in opening, said
