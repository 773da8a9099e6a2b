"""The review of doubtful readings: reasons, what they do to the forecast, and the grower's word."""

from datetime import timedelta

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.flows import refresh_stale
from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.flows.devices import deploy, let_device_in
from cloche.apps.loggers.flows.take_in import Sent, take_in
from cloche.apps.loggers.models import LoggedHour
from cloche.apps.places.models import Place
from cloche.apps.readings import selectors as measured
from cloche.apps.readings.models import Reading
from cloche.apps.records.flagged import flag_page
from cloche.bridge.values.units import Units
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place, make_reading, read_twice_daily, write_air


@pytest.fixture
def bed(garden: Garden) -> Place:
    bed = make_place(garden)
    write_air(garden, (NOW - timedelta(days=30)).date(), 30)
    read_twice_daily(bed, 14, NOW, 7.0, 13.0)
    return bed


def url(garden: Garden) -> str:
    return reverse("flags", args=[garden.pk])


def test_a_quiet_record_says_so(signed_in: Client, garden: Garden, bed: Place) -> None:
    refresh_stale()
    assert "No reading of the last three weeks is in doubt." in signed_in.get(url(garden)).content.decode()


def test_a_far_reading_is_shown_with_reason_weight_and_ways_out(signed_in: Client, garden: Garden, bed: Place) -> None:
    odd = make_reading(bed, NOW - timedelta(days=3, hours=2), 41.0)
    refresh_stale()
    text = signed_in.get(url(garden)).content.decode()
    assert "1 thing in the record of the last three weeks is doubtful." in text
    assert "41.0° at 5 cm, 19 April 06:00" in text
    assert "% of the usual weight" in text, text[text.index("<tbody>") :]
    assert reverse("edit_reading", args=[garden.pk, bed.pk, odd.pk]) in text
    picture = text[text.index('class="spark"') :]
    assert picture.index("course-band") < picture.index("mark-strange")
    assert picture.count("mark-strange") == 1


def test_a_word_settles_it_and_can_be_taken_back(signed_in: Client, garden: Garden, bed: Place) -> None:
    odd = make_reading(bed, NOW - timedelta(days=3, hours=2), 41.0)
    refresh_stale()
    evidence = Place.objects.get().input_revision
    text = signed_in.post(url(garden), {"numbers": odd.pk, "review": "left_out"}, follow=True).content.decode()
    assert "Already answered" in text
    assert "left out of the forecast" in text
    assert Place.objects.get().input_revision == evidence + 1
    used = {row[0] for row in measured.readings_since(bed, NOW - timedelta(days=30), NOW)}
    assert odd.pk not in used
    signed_in.post(url(garden), {"numbers": odd.pk, "review": ""})
    assert odd.pk in {row[0] for row in measured.readings_since(bed, NOW - timedelta(days=30), NOW)}
    assert [row.review for row in odd.history.order_by("history_id")] == ["", "left_out", ""]


def test_hours_of_a_logger_that_hangs_are_one_thing_and_are_left_out_together(
    signed_in: Client, garden: Garden, bed: Place
) -> None:
    device, _ = let_device_in(garden, "Logger", "C", None)
    deploy(device, "1", bed, 0.05)
    refresh_stale()
    start = (NOW - timedelta(days=4)).replace(minute=0)
    take_in(device, [Sent("1", 9.9, start + timedelta(hours=h)) for h in range(40)])
    (item,) = [i for i in flag_page(garden, Units(), NOW).items if i.what.startswith("logger")]
    assert "did not change" in item.why
    assert item.numbers.count(",") == 39
    signed_in.post(url(garden), {"numbers": item.numbers, "review": "left_out"})
    assert LoggedHour.objects.filter(review="left_out").count() == 40
    assert not [row for row in measured.readings_since(bed, NOW - timedelta(days=9), NOW) if row[0] < 0]
    assert len(flag_page(garden, Units(), NOW).settled) == 1


def test_another_gardens_readings_cannot_be_judged(signed_in: Client, garden: Garden) -> None:
    theirs = make_reading(make_place(make_garden(make_person("hazel"))), NOW)
    assert signed_in.post(url(garden), {"numbers": theirs.pk, "review": "left_out"}).status_code == 404
    assert Reading.objects.get().review == ""


@pytest.mark.parametrize("typed", [{"numbers": "x,;", "review": "right"}, {"numbers": "1", "review": "gone"}, {}])
def test_nonsense_changes_nothing(signed_in: Client, garden: Garden, bed: Place, typed: dict[str, str]) -> None:
    assert signed_in.post(url(garden), typed).status_code == 404
