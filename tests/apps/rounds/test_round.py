"""The round: what a stop keeps, that it is kept once, what is refused, and what it brought."""

import base64
import io
import re
from datetime import datetime, timedelta
from typing import Any
from uuid import uuid4

import pytest
from django.test import Client
from django.urls import reverse
from PIL import Image

from cloche.apps.forecasts.flows import refresh_stale
from cloche.apps.forecasts.models import CropOutlook, WindowChange
from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.places.models import Operation, Place
from cloche.apps.readings.models import Reading, Visit
from cloche.apps.rounds import pages
from cloche.apps.rounds.pages import summary
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place, make_reading


@pytest.fixture
def bed(garden: Garden) -> Place:
    return make_place(garden)


def stop(place: Place, **values: Any) -> dict[str, Any]:
    return {"key": str(uuid4()), "place": place.pk, "at": NOW.isoformat(), "temperature": "9,5"} | values


def send(client: Client, garden: Garden, *stops: Any, **body: Any):  # type: ignore[no-untyped-def]
    body = {"sent_at": NOW.isoformat(), "stops": list(stops)} | body
    return client.post(reverse("send_round", args=[garden.pk]), body, content_type="application/json")


def answer(client: Client, garden: Garden, stop: dict[str, Any]) -> dict[str, Any]:
    return dict(send(client, garden, stop).json()["results"][0])


def test_a_stop_keeps_everything_that_was_seen(signed_in: Client, garden: Garden, bed: Place, person: User) -> None:
    seen = stop(bed, deeper="8", air="17", air_low="2.5", air_high="31", moisture="moist", snow="3")
    seen |= {"note": "mole", "losses": "two lettuces"}
    assert answer(signed_in, garden, seen | {"works": ["watered", "thinned"]})["state"] == "kept"
    visit = Visit.objects.get()
    assert (visit.air_c, visit.air_low_c, visit.air_high_c, visit.moisture, visit.snow_m) == (17.0, 2.5, 31.0, "moist", 0.03)
    assert (visit.note, visit.losses, visit.made_by, visit.at) == ("mole", "two lettuces", person, NOW)
    read = visit.readings.order_by("depth_m").values_list("depth_m", "temperature_c", "entered_by")
    assert list(read) == [(0.05, 9.5, person.pk), (0.10, 8.0, person.pk)]
    assert set(visit.operations.values_list("work", flat=True)) == {"watered", "thinned"}


def test_the_same_stop_twice_is_kept_once(signed_in: Client, garden: Garden, bed: Place) -> None:
    visit = stop(bed, works=["watered"])
    states = [answer(signed_in, garden, visit)["state"] for _ in range(3)]
    assert states == ["kept", "known", "known"]
    assert (Visit.objects.count(), Reading.objects.count(), Operation.objects.count()) == (1, 1, 1)


def test_each_stop_has_its_own_answer_and_a_bad_one_spoils_no_other(signed_in: Client, garden: Garden, bed: Place) -> None:
    other = make_place(garden, "South bed")
    bad = stop(bed, temperature="182")
    results = send(signed_in, garden, bad, stop(other), "nonsense").json()["results"]
    assert [result["state"] for result in results] == ["refused", "kept", "refused"]
    assert "18.2" in results[0]["message"]
    assert Reading.objects.get().place == other


@pytest.mark.parametrize(
    ("values", "said"),
    [
        ({"temperature": "warm"}, "not a number"),
        ({"temperature": ""}, "Nothing has been entered"),
        ({"at": (NOW + timedelta(hours=2)).isoformat()}, "runs ahead"),
        ({"at": "2024-01-01T07:30:00+00:00"}, "more than a year"),
        ({"at": "soon"}, "not a time"),
        ({"at": "2026-13-45T99:00:00Z"}, "not a time"),
        ({"at": "2026-03-29T02:30"}, "did not exist"),
        ({"place": 999_999}, "no longer in the garden"),
        ({"air_low": "5", "air_high": "2"}, "below the lowest"),
        ({"moisture": "soggy"}, "valid choice"),
        ({"works": ["danced"]}, "valid choice"),
        ({"photo": "data:image/jpeg;base64,AAAA"}, "cannot be read"),
        ({"key": "seven"}, "valid UUID"),
    ],
)
def test_what_cannot_be_is_refused_in_words_and_nothing_is_kept(
    signed_in: Client, garden: Garden, bed: Place, values: dict[str, Any], said: str
) -> None:
    given = answer(signed_in, garden, stop(bed) | values)
    assert given["state"] == "refused"
    assert said in given["message"]
    assert not Visit.objects.exists()
    assert not Reading.objects.exists()


def test_two_who_read_the_same_minute_are_told_and_one_gives_way(signed_in: Client, garden: Garden, bed: Place) -> None:
    make_reading(bed, NOW, 7.0, entered_by=make_person("hazel"))
    visit = stop(bed)
    given = answer(signed_in, garden, visit)
    assert (given["state"], "hazel recorded 7.0°" in given["message"]) == ("conflict", True)
    assert not Visit.objects.exists()
    assert answer(signed_in, garden, visit | {"replace": True})["state"] == "kept"
    reading = Reading.objects.current().get()
    assert reading.temperature_c == 9.5
    assert [row.temperature_c for row in reading.history.all()] == [9.5, 7.0]


def test_who_reads_again_within_a_minute_corrects_themselves(
    signed_in: Client, garden: Garden, bed: Place, person: User
) -> None:
    make_reading(bed, NOW, 7.0, entered_by=person)
    assert answer(signed_in, garden, stop(bed))["state"] == "kept"
    assert [row.temperature_c for row in Reading.objects.current().get().history.all()] == [9.5, 7.0]


def test_two_who_read_the_same_agree(signed_in: Client, garden: Garden, bed: Place) -> None:
    make_reading(bed, NOW, 9.5)
    assert answer(signed_in, garden, stop(bed))["state"] == "kept"
    assert Reading.objects.count() == 1


def test_a_clock_that_runs_ahead_is_set_right(signed_in: Client, garden: Garden, bed: Place) -> None:
    ahead = timedelta(hours=3)
    send(signed_in, garden, stop(bed, at=(NOW - timedelta(minutes=20) + ahead).isoformat()), sent_at=(NOW + ahead).isoformat())
    assert Visit.objects.get().at == NOW - timedelta(minutes=20)


def test_a_time_typed_without_offset_is_the_gardens(signed_in: Client, garden: Garden, bed: Place) -> None:
    answer(signed_in, garden, stop(bed, at="2026-04-22T07:45"))
    assert Visit.objects.get().at == datetime.fromisoformat("2026-04-22T05:45:00+00:00")


def test_units_are_those_in_which_it_was_typed(signed_in: Client, garden: Garden, bed: Place) -> None:
    answer(signed_in, garden, stop(bed, temperature="50", degree="F"))
    assert Reading.objects.get().temperature_c == pytest.approx(10.0)


def test_a_picture_is_made_small_and_loses_where_it_was_taken(signed_in: Client, garden: Garden, bed: Place) -> None:
    notes = Image.Exif()
    notes[0x8825] = {1: "N", 2: (48.0, 12.0, 0.0)}
    out = io.BytesIO()
    Image.new("RGB", (2000, 900), "green").save(out, "JPEG", exif=notes)
    text = "data:image/jpeg;base64," + base64.b64encode(out.getvalue()).decode()
    visit = stop(bed, photo=text)
    assert answer(signed_in, garden, visit)["state"] == "kept"
    shown = signed_in.get(reverse("visit_photo", args=[garden.pk, visit["key"]]))
    picture = Image.open(io.BytesIO(shown.content))
    assert (picture.size, dict(picture.getexif())) == ((1280, 576), {})


def test_a_stop_is_undone_whole(signed_in: Client, garden: Garden, bed: Place) -> None:
    visit = stop(bed, works=["dug"])
    answer(signed_in, garden, visit)
    url = reverse("take_visit_back", args=[garden.pk, visit["key"]])
    assert signed_in.post(url).json()["state"] == "taken back"
    assert signed_in.post(url).status_code == 200
    assert not Reading.objects.current().exists()
    assert not Operation.objects.exists()
    assert Visit.objects.get().removed_at is not None


def test_undoing_ones_own_stop_leaves_what_another_wrote(signed_in: Client, garden: Garden, bed: Place) -> None:
    hazel = make_person("hazel")
    agreed, gave_way = make_reading(bed, NOW, 9.5, entered_by=hazel), make_reading(bed, NOW, 7.0, depth_m=0.1, entered_by=hazel)
    visit = stop(bed, deeper="8") | {"replace": True}
    assert answer(signed_in, garden, visit)["state"] == "kept"
    signed_in.post(reverse("take_visit_back", args=[garden.pk, visit["key"]]))
    current = dict(Reading.objects.current().values_list("pk", "temperature_c"))
    assert current == {agreed.pk: 9.5, gave_way.pk: 7.0}


def test_a_key_of_another_garden_is_refused_and_tells_nothing(signed_in: Client, garden: Garden, bed: Place) -> None:
    other = make_garden(make_person("hazel"))
    theirs = Visit.objects.create(key=uuid4(), place=make_place(other), at=NOW)
    assert answer(signed_in, garden, stop(bed, key=str(theirs.key)))["state"] == "refused"
    assert not Reading.objects.exists()


def test_what_another_person_read_is_not_sent_under_ones_own_name(signed_in: Client, garden: Garden, bed: Place) -> None:
    assert send(signed_in, garden, stop(bed), person="hazel").status_code == 403
    assert not Visit.objects.exists()


@pytest.mark.parametrize("body", [b"{", b"[]", b'{"stops": 4}', b"null", b'{"stops": [' + b"1," * 300 + b"1]}"])
def test_what_is_no_list_of_stops_is_refused(signed_in: Client, garden: Garden, body: bytes) -> None:
    url = reverse("send_round", args=[garden.pk])
    assert signed_in.post(url, body, content_type="application/json").status_code == 400


def test_without_scripts_the_table_is_one_form(signed_in: Client, garden: Garden, bed: Place) -> None:
    other = make_place(garden, "South bed")
    typed = {
        f"{bed.pk}-place": bed.pk,
        f"{bed.pk}-temperature": "8.5",
        f"{other.pk}-place": other.pk,
        f"{other.pk}-temperature": "",
    }
    url = reverse("round", args=[garden.pk])
    page = signed_in.post(url, typed, follow=True).content.decode()
    assert "1 of 2 places saved." in page
    assert Reading.objects.get().temperature_c == 8.5
    refused = signed_in.post(url, typed | {f"{other.pk}-temperature": "900"})
    assert refused.status_code == 422
    assert 'value="900"' in refused.content.decode()
    assert Reading.objects.count() == 1
    assert "every place was left empty" in signed_in.post(url, {}, follow=True).content.decode()


def test_without_scripts_too_two_who_disagree_are_told_and_nothing_is_kept_by_half(
    signed_in: Client, garden: Garden, bed: Place
) -> None:
    other = make_place(garden, "South bed")
    make_reading(other, NOW, 7.0, entered_by=make_person("hazel"))
    typed = {f"{p.pk}-{name}": value for p in (bed, other) for name, value in (("place", p.pk), ("temperature", "8.5"))}
    refused = signed_in.post(reverse("round", args=[garden.pk]), typed)
    assert (refused.status_code, "hazel recorded 7.0°" in refused.content.decode()) == (422, True)
    assert refused.content.decode().count('value="8.5"') == 2
    assert Reading.objects.get().temperature_c == 7.0


def test_the_page_lists_places_in_walking_order_with_what_is_expected(signed_in: Client, garden: Garden, bed: Place) -> None:
    make_place(garden, "Terrace", kind="raised")
    refresh_stale()
    page = signed_in.get(reverse("round", args=[garden.pk]))
    text = page.content.decode()
    walk = text[text.index("stops") :]
    assert walk.index("North bed") < walk.index("Terrace")
    kept = page.context["page"].kept
    assert [place["name"] for place in kept["places"]] == ["North bed", "Terrace"]
    assert len(kept["places"][0]["temperature"]["low_c"]) == 96
    assert "would help most" in text
    assert "Morning round" in text


def test_an_empty_garden_is_led_to_its_first_place(signed_in: Client, garden: Garden) -> None:
    assert "Add your first place" in signed_in.get(reverse("round", args=[garden.pk])).content.decode()


def test_the_summary_says_what_is_being_worked_out_and_then_what_moved(signed_in: Client, garden: Garden, bed: Place) -> None:
    refresh_stale()
    url = reverse("round_summary", args=[garden.pk])
    answer(signed_in, garden, stop(bed))
    assert "Working out what this means" in signed_in.get(url).content.decode()
    rows = list(CropOutlook.objects.filter(place=bed))
    CropOutlook.objects.filter(place=bed).delete()
    for row in rows:
        row.pk, row.windows = None, []
    CropOutlook.objects.bulk_create(rows)
    refresh_stale()
    text = signed_in.get(url).content.decode()
    assert "1 of 1 place read." in text
    assert "a window opens" in text
    assert WindowChange.objects.filter(place=bed, before=None).exists()


def test_what_moved_there_and_back_has_not_moved(garden: Garden, bed: Place) -> None:
    day = NOW.date()
    for before, after in ((day, day + timedelta(days=4)), (day + timedelta(days=4), day)):
        WindowChange.objects.create(place=bed, crop_key="carrot", method="direct", at=NOW, before=before, after=after)
    WindowChange.objects.create(place=bed, crop_key="pea", method="direct", at=NOW, before=day, after=day + timedelta(days=3))
    WindowChange.objects.create(place=bed, crop_key="beet", method="direct", at=NOW, before=day, after=None)
    moved = summary(garden, NOW - timedelta(minutes=1), NOW).moved
    assert moved == ["Peas in North bed: from 25 April, 3 days later.", "Beets in North bed: no reliable window any more."]


@pytest.mark.parametrize(("role", "status"), [("helper", 200), ("viewer", 403)])
def test_helpers_log_and_viewers_look_on(client: Client, garden: Garden, bed: Place, role: str, status: int) -> None:
    person = make_person("hazel")
    Membership.objects.create(garden=garden, user=person, role=role)
    client.force_login(person, backend="allauth.account.auth_backends.AuthenticationBackend")
    assert send(client, garden, stop(bed)).status_code == status
    assert client.get(reverse("round", args=[garden.pk])).status_code == 200


def test_the_worker_and_the_manifest_stand_at_the_root(client: Client, db: None) -> None:
    worker = client.get("/worker.js")
    assert worker["Content-Type"].startswith("text/javascript")
    assert "no-cache" in worker["Cache-Control"]
    assert "css/pages" in worker.content.decode()
    manifest = client.get("/manifest.webmanifest").json()
    assert [icon["sizes"] for icon in manifest["icons"]] == ["192x192", "512x512", "512x512"]
    assert client.get("/no-signal/").status_code == 200


def test_what_the_round_loads_is_there_without_signal(signed_in: Client, garden: Garden, bed: Place) -> None:
    page = signed_in.get(reverse("round", args=[garden.pk])).content.decode()
    loaded = re.findall(r'<link rel="stylesheet" href="([^"]+)"|<script src="([^"]+)"', page)
    assert len(loaded) > 10
    shell = signed_in.get("/worker.js").content.decode().splitlines()[0]
    assert [file for style, script in loaded if (file := style or script) not in shell] == []


def test_what_was_seen_stands_on_the_place_s_page(signed_in: Client, garden: Garden, bed: Place) -> None:
    url = reverse("place", args=[garden.pk, bed.pk])
    answer(signed_in, garden, stop(bed))
    assert "Seen on rounds" not in signed_in.get(url).content.decode()
    seen = {"temperature": "", "moisture": "wet", "air_low": "-2", "snow": "4", "note": "mole", "losses": "two lettuces"}
    answer(signed_in, garden, stop(bed, at=(NOW - timedelta(hours=1)).isoformat()) | seen)
    text = signed_in.get(url).content.decode()
    assert "Soil wet; lowest −2.0°; 4 cm of snow; two lettuces; mole" in text


def test_opening_is_offered_where_something_stands_that_opens(signed_in: Client, garden: Garden, bed: Place) -> None:
    frame = make_place(garden, "Frame", kind="frame")
    page = signed_in.get(reverse("round", args=[garden.pk])).content.decode()
    assert f'name="{frame.pk}-works" value="opened"' in page
    assert f'name="{bed.pk}-works" value="opened"' not in page
    assert answer(signed_in, garden, stop(frame, works=["opened"]))["state"] == "kept"
    assert [operation.work for operation in frame.operations.all()] == ["opened"]


def test_a_place_that_is_made_in_the_same_moment_breaks_nothing(
    signed_in: Client, garden: Garden, bed: Place, monkeypatch: pytest.MonkeyPatch
) -> None:
    whole = pages.round_page

    def meanwhile(*given: Any) -> pages.RoundPage:
        make_place(garden, "New bed")
        return whole(*given)

    monkeypatch.setattr(pages, "round_page", meanwhile)
    assert signed_in.get(reverse("round", args=[garden.pk])).status_code == 200
