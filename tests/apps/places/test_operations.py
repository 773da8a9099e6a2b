"""Covers on and off, operations, and how a place lies."""

from datetime import date

import pytest
from django.test import Client
from django.urls import reverse
from procrastinate.contrib.django.models import ProcrastinateJob

from cloche.apps.forecasts.flows import refresh
from cloche.apps.forecasts.inputs import build_inputs
from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod, Operation, Place
from cloche.apps.places.selectors import covers_on
from tests.factories import make_place

FORM = {"cover": "film_tunnel", "first": "2026-04-20", "last": "", "ends_capped": "on", "opens": "above", "above": "25"}
FORM |= {"from_h": "10", "to_h": "16", "opening": "0.4"}


@pytest.fixture
def bed(garden: Garden) -> Place:
    return make_place(garden)


def put_on(client: Client, bed: Place, **values: str):  # type: ignore[no-untyped-def]
    return client.post(reverse("new_cover", args=[bed.garden_id, bed.pk]), FORM | values)


def page(client: Client, bed: Place) -> str:
    return str(client.get(reverse("place", args=[bed.garden_id, bed.pk])).content.decode())


def test_a_cover_goes_on_and_the_place_is_worked_out_again(signed_in: Client, bed: Place) -> None:
    assert put_on(signed_in, bed).status_code == 302
    period = CoverPeriod.objects.get(place=bed)
    assert (period.cover, period.above_c, period.opening, period.last) == ("film_tunnel", 25.0, 0.4, None)
    shown = page(signed_in, bed)
    assert "Hooped tunnel of clear film" in shown
    assert "opened to stay below 25°" in shown
    assert ProcrastinateJob.objects.filter(task_name="forecasts.work_out", args={"place_id": bed.pk}).count() == 1


def test_many_changes_in_a_row_are_worked_out_once(signed_in: Client, bed: Place) -> None:
    put_on(signed_in, bed, last="2026-04-21")
    put_on(signed_in, bed, first="2026-04-22")
    assert ProcrastinateJob.objects.filter(task_name="forecasts.work_out", status="todo").count() == 1
    bed.refresh_from_db()
    assert bed.input_revision == 2


@pytest.mark.parametrize(
    ("values", "field", "said"),
    [
        ({"last": "2026-04-01"}, "last", "date off must not be before"),
        ({"above": ""}, "above", "the temperature to stay below"),
        ({"above": "warm"}, "above", "not a number"),
        ({"opens": "hours", "from_h": "16", "to_h": "10"}, "to_h", "hour of closing must be after"),
        ({"first": ""}, "first", "required"),
        ({"cover": "umbrella"}, "cover", "valid choice"),
    ],
)
def test_what_cannot_be_is_said_at_the_field_and_kept(
    signed_in: Client, bed: Place, values: dict[str, str], field: str, said: str
) -> None:
    response = put_on(signed_in, bed, **values)
    assert response.status_code == 422
    assert said in str(response.context["form"].errors[field])
    assert not CoverPeriod.objects.exists()


def test_two_covers_are_on_at_once_only_where_that_is_meant(signed_in: Client, bed: Place) -> None:
    put_on(signed_in, bed)
    response = put_on(signed_in, bed, cover="fleece", first="2026-04-25")
    assert "The hooped tunnel of clear film is on from 20 April onwards." in response.content.decode()
    assert "Both covers are on, one over the other" in response.content.decode()
    assert CoverPeriod.objects.count() == 1
    assert put_on(signed_in, bed, cover="fleece", first="2026-04-22", both="on").status_code == 302
    assert [cover.key for cover in covers_on(bed, date(2026, 4, 22))] == ["film_tunnel", "fleece"]
    third = put_on(signed_in, bed, cover="bell", first="2026-04-25", both="on")
    assert "Another cover is on from 20 April onwards" in third.content.decode()
    refresh(bed)
    watched = Forecast.objects.get(place=bed).watch
    assert watched.cover == "film_tunnel"
    assert watched.covered is not None
    edit = reverse("edit_cover", args=[bed.garden_id, bed.pk, CoverPeriod.objects.get(cover="fleece").pk])
    assert signed_in.get(edit).context["form"]["both"].value() is True


def test_a_layer_inside_a_frame_leaves_the_frame_there(signed_in: Client, garden: Garden) -> None:
    frame = make_place(garden, "Frame", kind="frame")
    form = signed_in.get(reverse("new_cover", args=[garden.pk, frame.pk])).content.decode()
    assert "Without the tick, it replaces the cold frame with glass that is always there." in form
    assert put_on(signed_in, frame, cover="fleece", both="on").status_code == 302
    assert [cover.key for cover in covers_on(frame, date(2026, 4, 22))] == ["glass_frame", "fleece"]
    frame.cover_periods.all().delete()
    assert put_on(signed_in, frame, cover="fleece").status_code == 302
    assert [cover.key for cover in covers_on(frame, date(2026, 4, 22))] == ["fleece"]


def test_a_cover_over_part_of_a_bed_is_told_with_its_length(signed_in: Client, bed: Place) -> None:
    refused = put_on(signed_in, bed, covered="0.01")
    assert "Enter a value from 10 cm to 6000 cm." in str(refused.context["form"].errors["covered"])
    assert put_on(signed_in, bed, covered="80").status_code == 302
    assert CoverPeriod.objects.get().covered_m == pytest.approx(0.8)
    assert "over 80 cm of the bed" in page(signed_in, bed)
    assert build_inputs(bed, []).covers[0].length_m == pytest.approx(0.8)


def test_a_film_lies_on_the_soil_under_another_cover_and_two_films_do_not(signed_in: Client, bed: Place) -> None:
    put_on(signed_in, bed)
    assert put_on(signed_in, bed, cover="black_film").status_code == 302
    assert put_on(signed_in, bed, cover="film_on_soil").status_code == 422
    assert put_on(signed_in, bed, cover="bell").status_code == 422
    assert set(CoverPeriod.objects.values_list("cover", flat=True)) == {"film_tunnel", "black_film"}
    refresh(bed)
    assert Forecast.objects.get(place=bed).watch.cover == "film_tunnel"
    shown = page(signed_in, bed)
    assert "Hooped tunnel of clear film" in shown
    assert "Black film on the soil" in shown


def test_off_today_change_and_strike_out(signed_in: Client, bed: Place) -> None:
    put_on(signed_in, bed)
    period = CoverPeriod.objects.get()
    signed_in.post(reverse("take_cover_off", args=[bed.garden_id, bed.pk, period.pk]))
    period.refresh_from_db()
    assert period.last == date(2026, 4, 21)
    url = reverse("edit_cover", args=[bed.garden_id, bed.pk, period.pk])
    assert "hooped tunnel of clear film" in signed_in.get(url).content.decode()
    assert signed_in.post(url, FORM | {"last": "2026-05-01", "opens": "closed"}).status_code == 302
    period.refresh_from_db()
    assert (period.last, period.opens) == (date(2026, 5, 1), "closed")
    signed_in.post(reverse("remove_cover", args=[bed.garden_id, bed.pk, period.pk]))
    assert not CoverPeriod.objects.exists()


def test_one_that_went_on_today_and_comes_off_today_was_never_there(signed_in: Client, bed: Place) -> None:
    put_on(signed_in, bed, first="2026-04-22")
    signed_in.post(reverse("take_cover_off", args=[bed.garden_id, bed.pk, CoverPeriod.objects.get().pk]))
    assert not CoverPeriod.objects.exists()


def test_operations_are_written_down_and_struck_out(signed_in: Client, bed: Place) -> None:
    url = reverse("add_operation", args=[bed.garden_id, bed.pk])
    assert signed_in.post(url, {"work": "watered", "day": "2026-04-21", "amount": "12"}).status_code == 302
    operation = Operation.objects.get(place=bed)
    assert (operation.work, operation.amount) == ("watered", 12.0)
    assert "Watered" in page(signed_in, bed)
    signed_in.post(url, {"work": "mulched", "day": "2026-04-22", "amount": "5"})
    assert Operation.objects.get(work="mulched").amount == pytest.approx(0.05)
    signed_in.post(reverse("remove_operation", args=[bed.garden_id, bed.pk, operation.pk]))
    assert not Operation.objects.filter(work="watered").exists()


def test_operations_ahead_and_floods_are_refused(signed_in: Client, bed: Place) -> None:
    url = reverse("add_operation", args=[bed.garden_id, bed.pk])
    ahead = signed_in.post(url, {"work": "watered", "day": "2026-05-01"})
    assert ahead.status_code == 422
    assert "in the future" in ahead.content.decode()
    assert "0 to 200 mm" in signed_in.post(url, {"work": "watered", "day": "2026-04-21", "amount": "900"}).content.decode()
    assert not Operation.objects.exists()


def test_a_stranger_finds_none_of_it(client: Client, bed: Place, django_user_model) -> None:  # type: ignore[no-untyped-def]
    client.force_login(
        django_user_model.objects.create_user("stranger", password="a-long-password"),
        "allauth.account.auth_backends.AuthenticationBackend",
    )
    for name in ("new_cover", "add_operation"):
        assert client.post(reverse(name, args=[bed.garden_id, bed.pk]), FORM).status_code == 404


def test_how_a_place_lies_is_kept_and_checked(signed_in: Client, bed: Place) -> None:
    url = reverse("edit_place", args=[bed.garden_id, bed.pk])
    situation = {
        "name": "North bed",
        "kind": "open",
        "seed_depth": "5",
        "texture": "clay",
        "slope_deg": "6",
        "aspect_deg": "90.0",
    }
    situation |= {"width": "80", "within": "polytunnel", "shaded_from_h": "15", "shaded_to_h": "19"}
    assert signed_in.post(url, situation).status_code == 302
    bed.refresh_from_db()
    assert (bed.texture, bed.slope_deg, bed.aspect_deg, bed.width_m) == ("clay", 6.0, 90.0, pytest.approx(0.8))
    assert (bed.within, bed.shaded_from_h, bed.shaded_to_h) == ("polytunnel", 15, 19)
    assert "or neither" in signed_in.post(url, situation | {"shaded_to_h": ""}).content.decode()
    assert "shade must end after it starts" in signed_in.post(url, situation | {"shaded_to_h": "9"}).content.decode()
    assert "Enter a width from" in signed_in.post(url, situation | {"width": "9000"}).content.decode()


def test_opened_and_shut_are_a_tap_each_and_can_be_taken_back(signed_in: Client, garden: Garden, bed: Place) -> None:
    assert "Opened" not in page(signed_in, bed)  # nothing stands over it
    frame = make_place(garden, "Frame", kind="frame")
    assert "Opened" in page(signed_in, frame)
    air = reverse("air_place", args=[garden.pk, frame.pk])
    shown = signed_in.post(air, {"opened": ""}, follow=True).content.decode()
    assert "Saved: cover opened, Frame." in shown
    opened = Operation.objects.get()
    assert opened.work == "opened"
    assert reverse("remove_operation", args=[garden.pk, frame.pk, opened.pk]) in shown
    signed_in.post(reverse("remove_operation", args=[garden.pk, frame.pk, opened.pk]))
    assert not Operation.objects.exists()
    signed_in.post(air, {"shut": ""})
    assert Operation.objects.get().work == "shut"


def test_how_far_it_was_opened_is_no_depth(signed_in: Client, bed: Place) -> None:
    url = reverse("add_operation", args=[bed.garden_id, bed.pk])
    answer = signed_in.post(url, {"work": "opened", "day": "2026-04-21", "amount": "5"})
    assert answer.status_code == 422
    assert "Leave this empty" in answer.content.decode()
    signed_in.post(url, {"work": "opened", "day": "2026-04-21", "amount": ""})
    assert Operation.objects.get().amount == 0.0
