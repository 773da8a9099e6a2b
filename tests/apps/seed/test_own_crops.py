"""Crops of a garden's own making: cloned from a relative, every value its own, at home on every page and in the archive."""

from datetime import date
from io import BytesIO
from typing import Any

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.flows import refresh
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.gardens.models import Garden, User
from cloche.apps.records.archive.read import read_archive
from cloche.apps.seed.own_crops import EVERY, PARTS, check_own
from cloche.bridge.services import crops
from cloche.bridge.values import border
from tests.factories import make_place, write_air

SAID = {"name": "Sugar snap", "plural": "sugar snaps", "days": "55", "minimum": "6", "begins": "3"}


def made(client: Client, garden: Garden, of: str = "pea", **said: str) -> Any:
    return client.post(f"{reverse('new_own_crop', args=[garden.pk])}?of={of}", SAID | said)


def test_a_relative_is_copied_and_its_values_changed(signed_in: Client, garden: Garden) -> None:
    first = signed_in.get(reverse("new_own_crop", args=[garden.pk])).content.decode()
    assert "Which crop is it most like?" in first
    assert made(signed_in, garden).status_code == 302
    garden.refresh_from_db()
    ((key, given),) = garden.own_crops.items()
    assert given == {
        "of": "pea",
        "name": "Sugar snap",
        "plural": "sugar snaps",
        "values": {"maturity_d": 55.0, "minimum_c": 6.0, "begins_c": 3.0},
    }
    assert key in garden.crops
    crops.set_custom_crops(garden.own_crops)
    crop, pea = crops.crop(key), crops.crop("pea")
    assert (crop.name, crop.maturity_d, crop.minimum_c, crop.life.begins_c) == ("Sugar snap", 55.0, 6.0, 3.0)
    assert crop.life.long_days == pea.life.long_days
    assert crop.rate is pea.rate


def test_it_has_windows_and_a_page_like_any_other(signed_in: Client, garden: Garden, now: object) -> None:
    write_air(garden, date(2026, 3, 20), 34, low_c=3, high_c=13)
    made(signed_in, garden)
    garden.refresh_from_db()
    (key,) = garden.own_crops
    place = make_place(garden)
    refresh(place)
    assert CropOutlook.objects.filter(place=place, crop_key=key).exists()
    shown = signed_in.get(reverse("crop_in_place", args=[garden.pk, place.pk, key])).content.decode()
    assert "Sugar snaps in North bed" in shown
    for room in ("windows", "today", "my_crops"):
        assert "Sugar snap" in signed_in.get(reverse(room, args=[garden.pk])).content.decode()
    assert "Sugar snap" in b"".join(signed_in.get(reverse("windows_csv", args=[garden.pk]))).decode()


@pytest.mark.parametrize(
    ("said", "why"),
    [
        ({"name": "Carrot"}, "There is already a crop of that name."),
        ({"name": ""}, "This field is required."),
        ({"ideal_from": "4", "minimum": "9"}, "The ideal range must not begin below the minimum."),
        ({"begins": "20", "best": "18"}, "Growth must start below the best temperature"),
        ({"days": "400"}, "Please confirm"),
        ({"days": "soon"}, "is not a number"),
    ],
)
def test_what_cannot_be_is_refused_at_its_field_and_nothing_typed_is_lost(
    signed_in: Client, garden: Garden, said: dict[str, str], why: str
) -> None:
    answer = made(signed_in, garden, **said)
    assert answer.status_code == 422
    assert why in answer.content.decode()
    assert 'value="sugar snaps"' in answer.content.decode()
    garden.refresh_from_db()
    assert garden.own_crops == {}


def test_what_lies_far_is_kept_once_it_is_meant_and_can_be_changed_again(signed_in: Client, garden: Garden) -> None:
    assert made(signed_in, garden, days="300", meant="on").status_code == 302
    garden.refresh_from_db()
    (key,) = garden.own_crops
    address = reverse("edit_own_crop", args=[garden.pk, key])
    assert 'value="300"' in signed_in.get(address).content.decode()
    assert signed_in.post(address, SAID | {"days": "60"}).status_code == 302
    garden.refresh_from_db()
    assert garden.own_crops[key]["values"]["maturity_d"] == 60.0
    assert signed_in.get(reverse("edit_own_crop", args=[garden.pk, "own_00000000"])).status_code == 404


def test_other_gardens_do_not_have_it(signed_in: Client, garden: Garden) -> None:
    made(signed_in, garden)
    garden.refresh_from_db()
    (key,) = garden.own_crops
    assert "Sugar snap" in signed_in.get(reverse("my_crops", args=[garden.pk])).content.decode()
    other = Garden.objects.create(name="Other", latitude_deg=50, longitude_deg=8, timezone_name="Europe/Berlin")
    other.memberships.create(user=garden.people.first(), role="owner")
    assert "Sugar snap" not in signed_in.get(reverse("my_crops", args=[other.pk])).content.decode()
    assert signed_in.get(reverse("seed", args=[other.pk, key])).status_code == 404


@pytest.mark.parametrize(
    "given",
    [
        [],
        {"pea": {"of": "pea", "name": "x", "plural": "x", "values": {}}},
        {"own_0a0b0c0d": {"of": "unicorn", "name": "x", "plural": "x", "values": {}}},
        {"own_0a0b0c0d": {"of": "pea", "name": "", "plural": "x", "values": {}}},
        {"own_0a0b0c0d": {"of": "pea", "name": "x\u202e", "plural": "x", "values": {}}},
        {"own_0a0b0c0d": {"of": "pea", "name": "x", "plural": "x", "values": {"magic": 1}}},
        {"own_0a0b0c0d": {"of": "pea", "name": "x", "plural": "x", "values": {"minimum_c": 900}}},
        {
            "own_0a0b0c0d": {
                "of": "pea",
                "name": "x",
                "plural": "x",
                "values": {"begins_c": 20.0, "best_c": 10.0, "ends_c": 30.0},
            }
        },
    ],
)
def test_from_a_file_only_what_the_form_would_take(given: Any) -> None:
    with pytest.raises(border.NotAllowed):
        check_own(given)


def test_it_goes_into_the_archive_and_comes_back(signed_in: Client, garden: Garden, person: User) -> None:
    made(signed_in, garden)
    garden.refresh_from_db()
    whole = b"".join(signed_in.get(reverse("archive_out", args=[garden.pk])))
    # Elsewhere nothing was said of it before.
    crops.set_custom_crops({})
    copy = read_archive(BytesIO(whole), person)
    assert copy.own_crops == garden.own_crops
    assert copy.crops == garden.crops


def test_every_value_has_its_field_under_one_heading() -> None:
    fields = [field for part in PARTS.values() for field in part]
    assert sorted(fields) == sorted(said.field for said in EVERY)
