"""Every change is told with who, when, before and after, and can be gone back on; what was removed can be put back."""

from datetime import timedelta
from typing import Any
from uuid import uuid4

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.covers.models import CoverTrial
from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.models import (
    BenchCheck,
    Cover,
    CoverPeriod,
    HeatPeriod,
    HeatTest,
    Hotbed,
    HotbedFill,
    HotbedNote,
    HotbedTray,
    Lamp,
    Operation,
    Place,
    Room,
    RoomAir,
    TuberTray,
)
from cloche.apps.plants.models import BedShape, PlantEvent, Planting
from cloche.apps.readings.models import Reading, Visit
from cloche.apps.records.history import changes
from cloche.apps.records.kinds import KINDS
from cloche.apps.sowings.models import Count, Intention, Sowing, Step
from cloche.apps.trials.models import GerminationTrial, TrialBatch, TrialCount
from cloche.apps.weather.models import DailyWeather
from cloche.apps.years.models import Sign
from cloche.bridge.values.units import Units
from tests.conftest import NOW
from tests.factories import make_garden, make_person, make_place, make_reading


@pytest.fixture
def bed(garden: Garden) -> Place:
    return make_place(garden)


def page(client: Client, garden: Garden, query: str = "") -> str:
    return str(client.get(reverse("history", args=[garden.pk]) + query).content.decode())


def go_back(client: Client, garden: Garden, kind: str, index: int = 0) -> str:
    rows = [change for change in changes(garden, Units(), NOW) if change.kind == kind]
    url = reverse("restore", args=[garden.pk, kind, rows[index].pk])
    return str(client.post(url, follow=True).content.decode())


def correct(client: Client, reading: Reading, value: str) -> None:
    place = reading.place
    typed = {"temperature": value, "day": "2026-04-22", "time": "07:30", "depth": "5", "note": ""}
    client.post(reverse("edit_reading", args=[place.garden_id, place.pk, reading.pk]), typed)


def test_a_correction_is_told_and_undone(signed_in: Client, garden: Garden, bed: Place) -> None:
    reading = make_reading(bed, NOW - timedelta(minutes=30), 9.5)
    correct(signed_in, reading, "8.5")
    given = page(signed_in, garden)
    assert "temperature 9.5° → 8.5°" in given
    assert "rowan" in given
    assert "This change is in the history" in go_back(signed_in, garden, "reading")
    reading.refresh_from_db()
    assert reading.temperature_c == 9.5
    assert "temperature 8.5° → 9.5°" in page(signed_in, garden)


def test_a_reading_from_a_file_keeps_what_it_said_before_its_first_change(
    signed_in: Client, garden: Garden, bed: Place
) -> None:
    Reading.objects.bulk_create([Reading(place=bed, taken_at=NOW - timedelta(minutes=30), depth_m=0.05, temperature_c=7.0)])
    correct(signed_in, Reading.objects.get(), "8.5")
    assert "temperature 7.0° → 8.5°" in page(signed_in, garden)


def test_what_came_in_bulk_keeps_what_it_was_whatever_changes_it(garden: Garden) -> None:
    """A garden brought in from its file has no history yet; a cover, an operation and a place must not lose their first
    state."""
    Place.objects.bulk_create([Place(garden=garden, name="Old name")])
    bed = Place.objects.get()
    bed.name = "New name"
    bed.save()
    CoverPeriod.objects.bulk_create([CoverPeriod(place=bed, cover="fleece", first=NOW.date())])
    Operation.objects.bulk_create([Operation(place=bed, work="watered", at=NOW)])
    CoverPeriod.objects.all().delete()
    bed.operations.all().delete()
    given = {change.kind: change for change in changes(garden, Units(), NOW) if change.did != "recorded"}
    assert given["place"].parts == ["name Old name → New name"]
    assert [history.history_type for history in bed.history.order_by("history_id")] == ["+", "~"]
    assert {given["cover"].undo, given["operation"].undo} == {"restored"}


def every_kind(garden: Garden, bed: Place) -> dict[str, Any]:
    sowing = Sowing.objects.create(place=bed, crop_key="pea", sown_on=NOW.date(), depth_m=0.03)
    return {
        "reading": make_reading(bed, NOW),
        "weather": DailyWeather.objects.create(garden=garden, day=NOW.date(), low_c=2, high_c=12),
        "place": bed,
        "cover": CoverPeriod.objects.create(place=bed, cover="fleece", first=NOW.date()),
        "own_cover": Cover.objects.create(garden=garden, kind="fleece", name="Fleece"),
        "hotbed": Hotbed.objects.create(place=bed, filled_on=NOW.date()),
        "intention": Intention.objects.create(place=bed, crop_key="pea", sow_on=NOW.date()),
        "trial": CoverTrial.objects.create(covered=bed, bare=bed, depth_m=0.05, begun_on=NOW.date(), alike=["soil"]),
        "operation": Operation.objects.create(place=bed, work="watered", at=NOW),
        "visit": Visit.objects.create(key=uuid4(), place=bed, at=NOW, note="mole", photo=b"picture"),
        "sowing": sowing,
        "count": Count.objects.create(sowing=sowing, on=NOW.date(), up=4),
        "step": Step.objects.create(sowing=sowing, kind="potted", on=NOW.date(), cell_m=0.07),
        "heat": HeatPeriod.objects.create(place=bed, first=NOW.date(), watts=20),
        "fill": HotbedFill.objects.create(place=bed, on=NOW.date()),
        "hotbed_tray": HotbedTray.objects.create(place=bed, hotbed=bed, first=NOW.date()),
        "hotbed_note": HotbedNote.objects.create(place=bed, on=NOW.date(), core_c=52),
        "tuber_tray": TuberTray.objects.create(
            place=bed, crop_key="potato_first_early", set_out_on=NOW.date(), plant_on=NOW.date()
        ),
        "bench_check": BenchCheck.objects.create(place=bed, item="run", on=NOW.date()),
        "heat_test": HeatTest.objects.create(place=bed, on=NOW.date(), spots=[20] * 9),
        "lamp": Lamp.objects.create(place=bed, first=NOW.date(), spans=[[6, 20]]),
        "room": (room := Room.objects.create(garden=garden, name="Shed")),
        "planting": (planting := Planting.objects.create(place=bed, crop_key="kale", planted_on=NOW.date())),
        "plant_event": PlantEvent.objects.create(planting=planting, kind="harvested", on=NOW.date(), weight_kg=0.5),
        "sign": Sign.objects.create(garden=garden, name="First dandelion", on=NOW.date()),
        "germination_trial": (tried := GerminationTrial.objects.create(garden=garden, name="Warmth", begun_on=NOW.date())),
        "trial_batch": (batch := TrialBatch.objects.create(trial=tried, crop_key="pea", seeds=20, warmth_c=15)),
        "trial_count": TrialCount.objects.create(batch=batch, on=NOW.date(), up=7),
        "bed_shape": BedShape.objects.create(place=bed),
        "room_air": RoomAir.objects.create(room=room, at=NOW, temperature_c=15.5),
    }


def test_every_kind_of_record_has_an_example_here(garden: Garden, bed: Place) -> None:
    assert every_kind(garden, bed).keys() == KINDS.keys()


@pytest.mark.parametrize("kind", KINDS)
def test_what_was_removed_can_be_put_back_as_it_was(signed_in: Client, garden: Garden, bed: Place, kind: str) -> None:
    row = every_kind(garden, bed)[kind]
    before = {f.attname: getattr(row, f.attname) for f in row._meta.concrete_fields if f.attname != "input_revision"}
    model = type(row)
    if "removed_at" in KINDS[kind].fields:
        row.removed_at = NOW
        row.save()
    else:
        row.delete()
    given = page(signed_in, garden, "?removed")
    assert "restored" in given
    assert "This change is in the history" in go_back(signed_in, garden, kind)
    after = model._base_manager.get(pk=before["id"])
    restored = {name: getattr(after, name) for name in before}
    if kind == "visit":
        restored["photo"] = bytes(restored["photo"])
    assert restored == before


def test_what_is_in_the_way_is_said_and_nothing_changes(signed_in: Client, garden: Garden, bed: Place) -> None:
    gone = make_reading(bed, NOW, 9.5)
    gone.removed_at = NOW
    gone.save()
    make_reading(bed, NOW, 7.0)
    assert "recorded in its place since" in go_back(signed_in, garden, "reading", 1)
    assert Reading.objects.current().get().temperature_c == 7.0


def test_another_gardens_history_is_not_told_and_not_touched(signed_in: Client, garden: Garden) -> None:
    theirs = make_place(make_garden(make_person("hazel"), "Theirs"), "Secret bed")
    theirs.name = "Hidden bed"
    theirs.save()
    assert "Hidden bed" not in page(signed_in, garden)
    row = theirs.history.first()
    assert row is not None
    assert signed_in.post(reverse("restore", args=[garden.pk, "place", row.history_id])).status_code == 404
    assert signed_in.post(reverse("restore", args=[garden.pk, "nothing", 1])).status_code == 404


def test_the_page_asks_few_questions_however_long_the_history(
    signed_in: Client, garden: Garden, bed: Place, django_assert_max_num_queries: Any
) -> None:
    for i in range(80):
        make_reading(bed, NOW - timedelta(hours=i), 9.0 + i / 10)
    with django_assert_max_num_queries(38):
        given = page(signed_in, garden)
    assert given.count("recorded") >= 55
    assert "Older changes" in given
    assert page(signed_in, garden, "?before=rubbish")


def test_something_new_tells_what_was_told_of_it_and_whom_it_is_from(garden: Garden, bed: Place, person: User) -> None:
    Visit.objects.create(key=uuid4(), place=bed, at=NOW, moisture="wet", note="mole", made_by=person)
    (change,) = [c for c in changes(garden, Units(), NOW) if c.kind == "visit"]
    assert (change.who, change.parts) == ("rowan", ["moisture by feel wet", "note mole"])


def test_history_lies_on_the_clocks_day(garden: Garden, bed: Place, person: User) -> None:
    make_reading(bed, NOW)
    (change,) = [c for c in changes(garden, Units(), NOW) if c.kind == "reading"]
    assert change.when == "today 08:00"
