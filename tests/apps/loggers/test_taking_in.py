"""What a device sends is kept once, whatever the order, the clock and the faults; hours are the sum of what was kept."""

from datetime import UTC, datetime, timedelta
from itertools import pairwise
from typing import Any

import pytest
from django.core.exceptions import ValidationError
from django.test import Client
from django.urls import reverse
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from procrastinate.contrib.django.models import ProcrastinateJob

from cloche.apps.forecasts.inputs import seen_under
from cloche.apps.gardens.models import Garden
from cloche.apps.loggers import selectors
from cloche.apps.loggers.flows import devices
from cloche.apps.loggers.flows.take_in import Sent, take_in
from cloche.apps.loggers.models import Device, LoggedHour, LoggedReading, Probe
from cloche.apps.loggers.pages import loggers_page, silence_lines
from cloche.apps.places.models import Place, Room
from cloche.apps.readings import selectors as measured
from cloche.apps.shared.http import fingerprint
from cloche.bridge.values.units import Units
from tests.conftest import NOW
from tests.factories import make_place

TEN = timedelta(minutes=10)


@pytest.fixture
def bed(garden: Garden) -> Place:
    return make_place(garden)


@pytest.fixture
def device(garden: Garden, bed: Place) -> Device:
    made, _ = devices.let_device_in(garden, "Bed logger", "C", None)
    devices.deploy(made, "1", bed, 0.05)
    return made


def values(count: int, start: datetime = NOW - timedelta(days=1), value: float = 9.0) -> list[Sent]:
    return [Sent("1", value + i % 7, start + i * TEN) for i in range(count)]


def test_values_are_kept_with_their_hours(device: Device, bed: Place) -> None:
    assert take_in(device, values(60)).kept == 60
    assert LoggedReading.objects.count() == 60
    hours = LoggedHour.objects.order_by("hour")
    assert [h.number for h in hours] == [6] * 10
    first = list(LoggedReading.objects.order_by("at").values_list("temperature_c", flat=True)[:6])
    assert hours[0].mean_c == pytest.approx(sum(first) / 6)
    assert (hours[0].low_c, hours[0].high_c) == (min(first), max(first))


def test_the_same_again_changes_nothing(device: Device) -> None:
    take_in(device, values(60))
    before = list(LoggedHour.objects.order_by("hour").values())
    again = take_in(device, values(60))
    assert (again.kept, again.known) == (0, 60)
    assert list(LoggedHour.objects.order_by("hour").values()) == before


def test_a_value_twice_in_one_message_is_kept_once(device: Device) -> None:
    sent = values(1) * 3
    taken = take_in(device, sent)
    assert (taken.kept, taken.known) == (1, 2)
    assert LoggedHour.objects.get().number == 1


@settings(max_examples=15, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(order=st.permutations(range(24)), cuts=st.lists(st.integers(1, 23), max_size=4), twice=st.booleans())
def test_neither_order_nor_portions_nor_repeats_matter(device: Device, order: list[int], cuts: list[int], twice: bool) -> None:
    LoggedReading.objects.all().delete()
    LoggedHour.objects.all().delete()
    params = values(24)
    shuffled = [params[i] for i in order]
    edges = [0, *sorted(set(cuts)), 24]
    for start, end in pairwise(edges):
        for _ in range(2 if twice else 1):
            take_in(device, shuffled[start:end])
    assert LoggedReading.objects.count() == 24
    by_hour = {h.hour: (h.number, round(h.sum_c, 6), h.low_c, h.high_c) for h in LoggedHour.objects.all()}
    wanted: dict[datetime, list[float]] = {}
    for param in params:
        assert param.at is not None
        wanted.setdefault(param.at.replace(minute=0), []).append(param.temperature)
    assert by_hour == {h: (len(v), round(sum(v), 6), min(v), max(v)) for h, v in wanted.items()}


@pytest.mark.parametrize(("code", "word"), [(-127.0, "not responding"), (85.0, "switched on"), (71.0, "soil temperatures")])
def test_faults_are_kept_and_count_for_nothing(device: Device, garden: Garden, bed: Place, code: float, word: str) -> None:
    taken = take_in(device, [*values(5), Sent("1", code, NOW - TEN)])
    assert (taken.kept, taken.faulty) == (6, 1)
    assert sum(h.number for h in LoggedHour.objects.all()) == 5
    assert all(h.temperature_c < 20 for h in selectors.hours_between([bed.pk], NOW - timedelta(days=2), NOW))
    (line,) = loggers_page(garden, Units(), NOW).devices
    assert word in line.probes[0].faults
    assert len(line.probes[0].picture.lines) == 1


@pytest.mark.parametrize(
    ("unit", "sent", "kept"), [("C", 10.0, 10.0), ("F", 50.0, 10.0), ("K", 283.15, 10.0), ("F", -127.0, -127.0)]
)
def test_units_are_turned_and_codes_are_not(device: Device, unit: str, sent: float, kept: float) -> None:
    take_in(device, [Sent("1", sent, NOW)], unit)
    assert LoggedReading.objects.get().temperature_c == pytest.approx(kept, abs=1e-4)


def test_a_clock_that_drifts_is_set_right_and_still_known_again(device: Device) -> None:
    ahead = timedelta(minutes=50)
    params = [Sent("1", 9.0, NOW - TEN + ahead)]
    take_in(device, params, sent_at=NOW + ahead)
    assert LoggedHour.objects.get().hour == NOW.replace(minute=0) - timedelta(hours=1)
    assert take_in(device, params, sent_at=NOW + ahead + timedelta(seconds=3)).known == 1
    device.refresh_from_db()
    assert device.drift_s == 3003


def test_the_same_hours_lived_twice_by_a_clock_that_was_put_back_are_both_kept(device: Device) -> None:
    """At the same device time stands another reading once its clock, two hours ahead, has been corrected."""
    wrong, at = timedelta(hours=2), NOW - timedelta(hours=3)
    take_in(device, [Sent("1", 9.0, at + wrong), Sent("1", 9.5, at + wrong + TEN)], sent_at=NOW + wrong)
    later = [Sent("1", 12.0, at + wrong), Sent("1", 9.5, at + wrong + TEN)]
    taken = take_in(device, later, sent_at=NOW)
    assert (taken.kept, taken.known) == (1, 1), "a value that is the same at the same device time was sent again"
    hours = {hour.hour: hour.mean_c for hour in LoggedHour.objects.all()}
    first, second = (moment.replace(minute=0, second=0, microsecond=0) for moment in (at, at + wrong))
    assert hours[second] == pytest.approx(12.0)
    assert hours[first] < 10.0
    assert take_in(device, later, sent_at=NOW).kept == 0, "is saved only once"


def test_a_clock_that_was_never_set_is_refused_and_says_so(device: Device) -> None:
    then = datetime(2000, 1, 1, tzinfo=UTC)
    (refused,) = take_in(device, [Sent("1", 9.0, then)], sent_at=then).refused
    assert refused.code == "clock"


@pytest.mark.parametrize(
    ("sent", "code"),
    [
        (Sent("2", 9.0, NOW), "channel"),
        (Sent("1", float("nan"), NOW), "value"),
        (Sent("1", 9.0, NOW + timedelta(hours=1)), "future"),
        (Sent("1", 9.0, NOW.replace(year=2001)), "past"),
    ],
)
def test_what_cannot_be_taken_comes_back_and_the_rest_is_kept(device: Device, sent: Sent, code: str) -> None:
    taken = take_in(device, [*values(2), sent])
    assert (taken.kept, [(r.index, r.code) for r in taken.refused]) == (2, [(2, code)])


def test_a_year_comes_in_afterwards(device: Device, bed: Place) -> None:
    start = NOW - timedelta(days=365)
    rows = [Sent("1", 8.0, start + i * timedelta(hours=1)) for i in range(365 * 24)]
    assert take_in(device, rows).kept == 8760
    assert len(measured.readings_since(bed, NOW - timedelta(days=60), NOW)) == pytest.approx(60 * 24, abs=1)


def test_what_is_measured_within_an_hour_is_worked_out_once(device: Device, bed: Place) -> None:
    for minutes in range(0, 50, 10):
        take_in(device, [Sent("1", 9.0, NOW.replace(minute=minutes) - timedelta(hours=2))])
    bed.refresh_from_db()
    assert bed.input_revision == 1
    assert ProcrastinateJob.objects.filter(task_name="forecasts.work_out", args={"place_id": bed.pk}).count() == 1


def test_a_moved_probe_leaves_what_it_measured_where_it_was(device: Device, garden: Garden, bed: Place) -> None:
    take_in(device, values(6))
    other = make_place(garden, "South bed")
    devices.deploy(device, "1", other, 0.08)
    take_in(device, [Sent("1", 20.0, NOW + timedelta(minutes=5))])
    take_in(device, [Sent("1", 5.0, NOW - timedelta(days=3))])  # late, from where it stuck then
    end = NOW + timedelta(hours=1)
    assert {h.temperature_c for h in selectors.hours_between([other.pk], NOW - timedelta(days=9), end)} == {20.0}
    assert 5.0 in {h.temperature_c for h in selectors.hours_between([bed.pk], NOW - timedelta(days=9), end)}


def test_silence_is_noticed_and_said(device: Device, garden: Garden, bed: Place) -> None:
    take_in(device, values(12, NOW - timedelta(hours=2)))
    assert silence_lines(garden, NOW) == []
    assert silence_lines(garden, NOW + timedelta(hours=1)) == []
    (said,) = silence_lines(garden, NOW + timedelta(hours=5))
    assert said == "Bed logger in North bed has been silent since 07:50, today. Is its battery flat, or is it out of range?"
    devices.shut_out(device)
    assert silence_lines(garden, NOW + timedelta(hours=5)) == []


def test_logged_hours_stand_among_a_places_readings(device: Device, garden: Garden, bed: Place) -> None:
    take_in(device, values(6, NOW - timedelta(hours=1)))
    (point,) = measured.points_between(bed, NOW - timedelta(days=1), NOW)
    assert (point.depth_m, point.taken_at) == (0.05, NOW - timedelta(minutes=30))
    assert selectors.hour_of(point.pk) == (device.probes.get().pk, NOW - timedelta(hours=1))
    assert measured.latest_by_place(garden)[bed.pk].temperature_c == 14.0


def test_the_page_lets_one_in_shows_the_token_once_and_shuts_it_out(signed_in: Client, garden: Garden, bed: Place) -> None:
    url = reverse("loggers", args=[garden.pk])
    assert "No logger has sent anything yet." in signed_in.get(url).content.decode()
    made = signed_in.post(url, {"name": "Tunnel", "unit": "C"})
    token = made.context["token"]
    device = Device.objects.get()
    assert token in made.content.decode()
    assert token not in signed_in.get(url).content.decode()
    assert device.fingerprint == fingerprint(token) != token
    stuck = {"channel": "a b", "place": bed.pk, "depth": "8"}
    refused = signed_in.post(reverse("deploy_probe", args=[garden.pk, device.pk]), stuck)
    assert (refused.status_code, "without spaces" in refused.content.decode()) == (422, True)
    page = signed_in.post(reverse("deploy_probe", args=[garden.pk, device.pk]), stuck | {"channel": "a"}, follow=True)
    assert "North bed</a>, 8 cm" in page.content.decode()
    signed_in.post(reverse("renew_token", args=[garden.pk, device.pk]))
    assert Device.objects.get().fingerprint != device.fingerprint
    assert "blocked" in signed_in.post(reverse("shut_out", args=[garden.pk, device.pk]), follow=True).content.decode()
    probe = device.probes.get()
    gone = signed_in.post(reverse("retrieve_probe", args=[garden.pk, device.pk, probe.pk]), follow=True).content.decode()
    assert "None of its probes is assigned" in gone


def api(client: Client, token: str, path: str = "readings", body: Any = None, **heads: Any):  # type: ignore[no-untyped-def]
    heads.setdefault("content_type", "application/json")
    return client.post(f"/api/v1/{path}", body, headers={"Authorization": f"Bearer {token}"}, **heads)


@pytest.fixture
def token(device: Device) -> str:
    return devices.renew_token(device)


def test_a_token_opens_its_own_garden_until_it_is_shut_out(client: Client, device: Device, token: str) -> None:
    body = {"readings": [{"channel": "1", "at": NOW.isoformat(), "temperature": 9.5}]}
    assert api(client, token, body=body).json() == {"kept": 1, "known": 0, "faulty": 0, "refused": []}
    assert api(client, "a-guess", body=body).status_code == 401
    assert client.post("/api/v1/readings", body, content_type="application/json").status_code == 401
    devices.shut_out(device)
    assert api(client, token, body=body).status_code == 401


def test_one_value_on_its_own_is_of_this_moment(client: Client, token: str) -> None:
    assert api(client, token, "reading", {"temperature": 9.5}).json()["kept"] == 1
    assert LoggedReading.objects.get().at == NOW


def test_csv_is_taken_line_by_line(client: Client, token: str) -> None:
    text = f"at,channel,temperature\n{NOW.isoformat()},1,9.5\nyesterday,1,9\n{NOW.isoformat()},7,9\n"
    answer = api(client, token, "readings.csv", text, content_type="text/csv").json()
    assert (answer["kept"], [(r["index"], r["code"]) for r in answer["refused"]]) == (1, [(1, "row"), (2, "channel")])
    assert api(client, token, "readings.csv", "a;b\n1;2", content_type="text/csv").status_code == 400
    assert api(client, token, "readings.csv", b"\xff\xfe\x00", content_type="text/csv").status_code == 400


@pytest.mark.parametrize(
    "body",
    [
        {},
        {"readings": [{"temperature": "warm"}]},
        {"readings": [{"temperature": 9, "at": "2026-04-22T08:00:00"}]},  # without an offset it could be any hour
        {"readings": [{"temperature": 9, "depth": 5}]},
        {"readings": [], "unit": "R"},
        {"readings": [{"temperature": 9, "at": "0001-01-01T00:00:00+14:00"}]},
    ],
)
def test_what_is_not_as_described_is_refused_whole(client: Client, token: str, body: dict[str, Any]) -> None:
    assert api(client, token, body=body).status_code == 422
    assert not LoggedReading.objects.exists()


def test_a_device_can_ask_how_it_stands(client: Client, device: Device, token: str) -> None:
    params = client.get("/api/v1/device", headers={"Authorization": f"Bearer {token}"}).json()
    assert params == {"name": "Bed logger", "unit": "C", "channels": ["1"], "heard_at": None, "drift_s": 0}


def test_a_probe_in_the_air_is_no_soil_and_teaches_the_cover(device: Device, bed: Place) -> None:
    devices.deploy(device, "2", bed, 0.05, in_air=True)
    take_in(device, [Sent("2", 15.0, NOW - timedelta(hours=12) + i * TEN) for i in range(60)])
    assert measured.readings_since(bed, NOW - timedelta(days=2), NOW) == []
    params = seen_under(bed, NOW - timedelta(days=2))
    assert 2 <= len(params) <= 4
    assert {(param.what, param.value) for param in params} == {("air", 15.0)}
    (shown,) = loggers_page(bed.garden, Units(), NOW).devices
    line = next(line for line in shown.probes if line.channel == "2")
    assert line.depth == "in the air"
    # Moved into the soil it is another probe.
    assert devices.deploy(device, "2", bed, 0.05).in_air is False


def test_a_probe_in_a_room_tells_all_its_trays_how_warm_it_is(device: Device, bed: Place) -> None:
    room = Room.objects.create(garden=bed.garden, name="Back room", kind="cool")
    trays = [make_place(bed.garden, name=name, kind="tray", room=room) for name in ("Tray one", "Tray two")]
    devices.deploy(device, "2", room)
    before = {tray.pk: tray.input_revision for tray in trays}
    take_in(device, [Sent("2", 15.0, NOW - timedelta(hours=12) + i * TEN) for i in range(60)])
    for tray in trays:
        tray.refresh_from_db()
        assert tray.input_revision > before[tray.pk]
        readings = seen_under(tray, NOW - timedelta(days=2))
        assert {(reading.what, reading.value) for reading in readings} == {("room", 15.0)}
        assert measured.readings_since(tray, NOW - timedelta(days=2), NOW) == []
    assert seen_under(bed, NOW - timedelta(days=2)) == ()
    (shown,) = loggers_page(bed.garden, Units(), NOW).devices
    line = next(line for line in shown.probes if line.channel == "2")
    assert (line.place, line.depth) == ("Back room", "in the air")
    assert line.url == reverse("room", args=[bed.garden_id, room.pk])
    assert line.picture is not None
    # In a room and in a place at once it is nowhere.
    with pytest.raises(ValidationError):
        Probe(device=device, channel="3", depth_m=0.0).clean()


def test_the_form_offers_rooms_beside_places(signed_in: Client, device: Device, bed: Place) -> None:
    room = Room.objects.create(garden=bed.garden, name="Back room", kind="cool")
    url = f"/g/{bed.garden_id}/loggers/{device.pk}/probes/"
    signed_in.post(url, {"channel": "2", "place": f"room-{room.pk}", "depth": ""})
    probe = Probe.objects.get(device=device, channel="2")
    assert (probe.place, probe.room, probe.in_air) == (None, room, True)
    page = signed_in.get(reverse("room", args=[bed.garden_id, room.pk])).content.decode()
    assert "Bed logger is here: nothing received yet." in page
    assert signed_in.post(url, {"channel": "2", "place": "room-0", "depth": ""}).status_code == 422


@pytest.mark.parametrize("year", [1900, 2099])
def test_a_clock_that_is_a_lifetime_off_breaks_nothing(device: Device, year: int) -> None:
    taken = take_in(device, [Sent("1", 9.0, None)], sent_at=datetime(year, 12, 31, tzinfo=UTC))
    assert (taken.kept, len(taken.refused)) == (0, 1)
    device.refresh_from_db()
    assert abs(device.drift_s) > 60 * 365 * 86400
