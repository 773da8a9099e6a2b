"""The reading desk: adding, refusing, correcting, removing, taking back."""

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.models import Place
from cloche.apps.readings.flows import record
from cloche.apps.readings.flows.record import AlreadyThere, Measured
from cloche.apps.readings.models import Reading
from tests.conftest import NOW
from tests.factories import make_place, make_reading


@pytest.fixture
def bed(garden: Garden) -> Place:
    return make_place(garden)


def post(client: Client, place: Place, htmx: bool = True, **values: str) -> Any:
    typed = {"temperature": "8.4", "day": "2026-04-22", "time": "07:30", "depth": "5", "note": ""} | values
    headers = {"HX-Request": "true"} if htmx else {}
    return client.post(reverse("add_reading", args=[place.garden_id, place.pk]), typed, headers=headers)


def test_a_reading_is_kept_as_celsius_metres_and_utc(signed_in: Client, bed: Place, person: User) -> None:
    response = post(signed_in, bed, temperature="8,4 °C", note="first")
    assert response.status_code == 200
    reading = bed.readings.get()
    assert reading.temperature_c == pytest.approx(8.4)
    assert reading.depth_m == 0.05
    assert reading.taken_at == datetime(2026, 4, 22, 5, 30, tzinfo=UTC)
    assert (reading.entered_by, reading.note) == (person, "first")


def test_the_answer_is_the_desk_with_an_empty_form_and_an_undo(signed_in: Client, bed: Place) -> None:
    response = post(signed_in, bed)
    page = response.content.decode()
    assert "8.4° at 5 cm, Wed 22 Apr, 07:30, saved." in page
    assert "Undo" in page
    assert "<html" not in page
    assert response["HX-Trigger"] == "ground-changed"


def test_without_scripts_one_is_sent_back_to_the_place(signed_in: Client, bed: Place) -> None:
    response = post(signed_in, bed, htmx=False)
    assert response["Location"] == reverse("place", args=[bed.garden_id, bed.pk])
    assert "saved" in signed_in.get(response["Location"]).content.decode()


def test_a_reading_makes_the_forecast_old(signed_in: Client, bed: Place) -> None:
    post(signed_in, bed)
    assert Place.objects.get(pk=bed.pk).input_revision == bed.input_revision + 1


def test_fahrenheit_and_inches_are_understood(signed_in: Client, bed: Place, person: User) -> None:
    User.objects.filter(pk=person.pk).update(temperature_unit="F", length_unit="in")
    post(signed_in, bed, temperature="60", depth="2")
    reading = bed.readings.get()
    assert reading.temperature_c == pytest.approx(15.56, abs=0.01)
    assert reading.depth_m == pytest.approx(0.0508)


@pytest.mark.parametrize(
    ("values", "said"),
    [
        ({"temperature": "warm"}, "“warm” is not a number"),
        ({"temperature": ""}, "This field is required"),
        ({"temperature": "400"}, "400 °C is outside the range -30 to 60. Did you mean 40?"),
        ({"temperature": "68"}, "Did you mean °F?"),
        ({"day": "2026-04-23"}, "is in the future"),
        ({"day": "2026-02-30"}, "valid date"),
        ({"time": "25:00"}, "valid time"),
        ({"day": "2026-03-29", "time": "02:30"}, "did not exist on 29 March 2026"),
        ({"depth": "500"}, "500 cm is outside the range 0 to 200"),
    ],
)
def test_bad_input_is_refused_at_its_field_and_nothing_typed_is_lost(
    signed_in: Client, bed: Place, values: dict[str, str], said: str
) -> None:
    response = post(signed_in, bed, note="keep me", **values)
    page = response.content.decode()
    assert response.status_code == 422
    assert said in page
    assert 'aria-invalid="true"' in page
    assert "keep me" in page
    assert bed.readings.count() == 0


def test_the_missing_hour_suggests_the_one_after(signed_in: Client, bed: Place) -> None:
    assert "Did you mean 03:30?" in post(signed_in, bed, day="2026-03-29", time="02:30").content.decode()


def test_the_hour_that_comes_twice_is_taken_as_the_first_and_said(signed_in: Client, bed: Place) -> None:
    page = post(signed_in, bed, day="2025-10-26", time="02:30").content.decode()
    assert "occurs twice" in page
    assert bed.readings.get().taken_at == datetime(2025, 10, 26, 0, 30, tzinfo=UTC)


def test_three_in_the_morning_of_that_night_is_an_ordinary_time(signed_in: Client, bed: Place) -> None:
    assert post(signed_in, bed, day="2026-03-29", time="03:00").status_code == 200
    assert bed.readings.get().taken_at == datetime(2026, 3, 29, 1, 0, tzinfo=UTC)


def test_a_second_reading_of_the_same_minute_is_refused_with_the_first_one_s_value(signed_in: Client, bed: Place) -> None:
    post(signed_in, bed)
    response = post(signed_in, bed, temperature="9.9")
    assert response.status_code == 422
    assert "already a reading of 8.4°" in response.content.decode()
    assert bed.readings.get().temperature_c == pytest.approx(8.4)


def test_the_same_minute_at_another_depth_is_another_reading(signed_in: Client, bed: Place) -> None:
    post(signed_in, bed)
    assert post(signed_in, bed, depth="10").status_code == 200
    assert bed.readings.count() == 2


def change(client: Client, reading: Reading, what: str, **values: str) -> Any:
    url = reverse(what, args=[reading.place.garden_id, reading.place_id, reading.pk])
    return client.post(url, values, headers={"HX-Request": "true"})


def test_removing_can_be_undone(signed_in: Client, bed: Place) -> None:
    reading = make_reading(bed, NOW - timedelta(hours=3))
    assert "removed" in change(signed_in, reading, "remove_reading").content.decode()
    assert Reading.objects.current().count() == 0
    change(signed_in, reading, "take_back")
    assert Reading.objects.current().get() == reading


def test_correcting_can_be_undone(signed_in: Client, bed: Place) -> None:
    reading = make_reading(bed, NOW - timedelta(hours=3), 8.0)
    typed = {"temperature": "9.5", "day": "2026-04-22", "time": "05:00", "depth": "5", "note": "misread"}
    assert "corrected" in change(signed_in, reading, "edit_reading", **typed).content.decode()
    reading.refresh_from_db()
    assert (reading.temperature_c, reading.note) == (9.5, "misread")
    change(signed_in, reading, "take_back")
    reading.refresh_from_db()
    assert (reading.temperature_c, reading.note) == (8.0, "")


def test_writing_down_can_be_undone(signed_in: Client, bed: Place) -> None:
    post(signed_in, bed)
    change(signed_in, bed.readings.get(), "take_back")
    assert Reading.objects.current().count() == 0


def test_undo_does_not_bring_back_a_second_reading_of_one_minute(signed_in: Client, bed: Place) -> None:
    reading = make_reading(bed, NOW - timedelta(hours=3), 8.0)
    change(signed_in, reading, "remove_reading")
    make_reading(bed, NOW - timedelta(hours=3), 9.0)
    change(signed_in, reading, "take_back")
    assert Reading.objects.current().get().temperature_c == 9.0


def test_a_bad_correction_comes_back_in_its_row(signed_in: Client, bed: Place) -> None:
    reading = make_reading(bed, NOW - timedelta(hours=3), 8.0)
    typed = {"temperature": "x", "day": "2026-04-22", "time": "05:00", "depth": "5"}
    response = change(signed_in, reading, "edit_reading", **typed)
    assert response.status_code == 422
    assert response["HX-Retarget"] == f"#reading-{reading.pk}"
    reading.refresh_from_db()
    assert reading.temperature_c == 8.0


def test_a_removed_reading_cannot_be_corrected(signed_in: Client, bed: Place) -> None:
    reading = make_reading(bed, NOW, removed_at=NOW)
    assert change(signed_in, reading, "edit_reading").status_code == 404


def test_the_flow_itself_refuses_a_second_one_and_stores_nothing(bed: Place) -> None:
    measured = Measured(NOW, 0.05, 8.0)
    record.record_reading(bed, measured, None)
    with pytest.raises(AlreadyThere) as refusal:
        record.record_reading(bed, measured, None)
    assert refusal.value.existing == bed.readings.get()
