"""The plan of the beds: what is put where, what that says, and what becomes of it."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.forecasts.inputs import build_inputs
from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.plan.courses import lowest_before
from cloche.apps.plan.pages.bed import bed_page
from cloche.apps.plan.pages.planting import planting_page
from cloche.apps.plants import flows
from cloche.apps.plants import selectors as plants
from cloche.apps.plants.models import BedShape, PlantEvent, Planting
from cloche.apps.sowings.models import Sowing
from cloche.apps.today.flows import answer, take_back
from cloche.apps.today.selectors import jobs_in
from cloche.apps.today.texts import job_line
from cloche.bridge.values.units import Units
from cloche_engine.forecast.watching import growing_in
from cloche_engine.hazards.air_limits import Stage
from tests.apps.bench.benches import BEHIND_D, store
from tests.conftest import NOW
from tests.factories import make_place

TODAY = NOW.date()
USUAL = {"crop_key": "radish", "origin": "sown", "layout": "squares", "thinning": "none", "length": "60", "width": "30"}


@pytest.fixture
def bed(garden: Garden) -> Place:
    place = make_place(garden)
    BedShape.objects.create(place=place, length_m=3.0, width_m=1.2, square_m=0.3)
    return place


def put(client: Client, bed: Place, **typed: object) -> str:
    url = reverse("new_planting", args=[bed.garden_id, bed.pk])
    return client.post(url, USUAL | {"planned_on": TODAY.isoformat()} | typed, follow=True).content.decode()


def planted(bed: Place, crop_key: str = "kale", **values: Any) -> Planting:
    return Planting.objects.create(place=bed, crop_key=crop_key, **{"origin": "raised", "planted_on": TODAY} | values)


def page_of(client: Client, bed: Place, query: str = "") -> str:
    return client.get(reverse("bed_plan", args=[bed.garden_id, bed.pk]) + query).content.decode()


def test_a_square_foot_of_radishes_is_put_in_and_drawn(signed_in: Client, bed: Place) -> None:
    given = put(signed_in, bed, x="0", y="0", length="30.48", width="30.48")
    assert "<b>Radish</b></a>, 16" in given
    planting = Planting.objects.get()
    assert given.count('class="patch planned"') == 1
    assert f"patch-{planting.pk}" in given
    assert "Radish: 16 seeds" in given


def test_inches_are_understood_in_inches(signed_in: Client, bed: Place) -> None:
    put(signed_in, bed, x="1 ft", y="0", length="2 ft", width="12 in")
    planting = Planting.objects.get()
    assert (planting.x_m, planting.length_m, planting.width_m) == pytest.approx((0.3048, 0.6096, 0.3048))


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ({"length": "9000"}, "Enter a value from 5 cm to 6000 cm."),
        ({"planted_on": "2026-05-01"}, "That date is in the future"),
        ({"x": "10", "y": ""}, "Enter both distances, or neither"),
        ({"length": "6000", "width": "6000", "plant": "2"}, "at most 4000"),
        ({"crop_key": "", "planted_on": "2026-04-20"}, "kept for later"),
    ],
)
def test_what_cannot_be_is_said_at_its_field(signed_in: Client, bed: Place, typed: dict[str, str], said: str) -> None:
    assert said in put(signed_in, bed, **typed)
    assert not Planting.objects.exists()


def test_a_patch_is_dragged_and_stays_within_its_bed(signed_in: Client, bed: Place) -> None:
    planting = planted(bed, x_m=0.0, y_m=0.0)
    url = reverse("lay", args=[bed.garden_id, planting.pk])
    answer_ = signed_in.post(url, {"x": 60, "y": 30, "length": 60, "width": 30}, headers={"HX-Request": "true"})
    assert answer_.status_code == 200
    planting.refresh_from_db()
    assert (planting.x_m, planting.y_m, planting.length_m, planting.width_m) == (0.6, 0.3, 0.6, 0.3)
    refused = signed_in.post(url, {"x": 280, "y": 0, "length": 60, "width": 30}, headers={"HX-Request": "true"})
    assert refused.status_code == 422
    assert "That reaches beyond the bed." in refused.content.decode()
    planting.refresh_from_db()
    assert planting.x_m == 0.6


def test_the_next_crop_is_offered_the_first_free_square(bed: Place) -> None:
    planted(bed, x_m=0.0, y_m=0.0, length_m=0.6, width_m=0.3)
    assert plants.next_spot(bed, plants.shape_of(bed)) == (0.6, 0.0)
    planted(bed, x_m=0.6, y_m=0.0, length_m=2.4, width_m=1.2)
    planted(bed, x_m=0.0, y_m=0.3, length_m=0.6, width_m=0.9)
    assert plants.next_spot(bed, plants.shape_of(bed)) is None


def test_patches_that_share_ground_and_families_that_come_back_too_soon_are_said(signed_in: Client, bed: Place) -> None:
    planted(bed, "cabbage", planted_on=date(2024, 5, 1), ended_on=date(2024, 9, 1))
    planted(bed, "kale", x_m=0.0, y_m=0.0, length_m=0.6, width_m=0.6)
    planted(bed, "lettuce", x_m=0.3, y_m=0.3, length_m=0.6, width_m=0.6)
    given = page_of(signed_in, bed)
    assert "Kale: Cabbage grew here in 2024. Growers wait until 2028 before they grow that family again." in given
    assert "overlap" in given
    assert "Previous crops" in given


def test_tall_plants_throw_their_shade_away_from_the_sun(signed_in: Client, bed: Place) -> None:
    planted(bed, "sweet_corn", planted_on=date(2026, 4, 1), height_m=1.8, x_m=0.0, y_m=0.0)
    assert 'class="shade"' not in page_of(signed_in, bed)
    drawn = page_of(signed_in, bed, "?on=2026-06-21&hour=9")
    assert 'class="shade"' in drawn
    assert "Shade on 21 June" in drawn
    assert 'class="shade"' not in page_of(signed_in, bed, "?on=2026-06-21&hour=nonsense")


def test_under_a_frame_it_says_when_a_crop_touches(bed: Place) -> None:
    CoverPeriod.objects.create(place=bed, cover="glass_frame", first=TODAY - timedelta(days=20))
    planted(bed, "chard", x_m=0.0, y_m=0.0)
    page = bed_page(bed, Units(), TODAY)
    assert page.roof
    assert any("Chard: touches the cover about" in line for line in page.roof_text)
    CoverPeriod.objects.update(cover="fleece")
    assert bed_page(bed, Units(), TODAY).roof is None


def test_what_is_sown_from_the_plan_becomes_a_sowing_and_can_be_undone(bed: Place, person: Any) -> None:
    planting = Planting.objects.create(place=bed, crop_key="radish", planned_on=TODAY, length_m=0.6, width_m=0.3)
    job = next(job for job in jobs_in(bed.garden, Units(), NOW) if job.kind == "plant")
    line = job_line(job, Units(), TODAY)
    assert line.do == "Sow 32 radishes."
    given = answer(bed.garden, job, "done", person)
    planting.refresh_from_db()
    assert planting.planted_on == TODAY
    assert planting.sowing is not None
    assert (planting.sowing.crop_key, planting.sowing.seeds) == ("radish", 32)
    assert not [job for job in jobs_in(bed.garden, Units(), NOW) if job.kind == "plant"]
    take_back(bed.garden, given.pk)
    planting.refresh_from_db()
    assert (planting.planted_on, planting.sowing) == (None, None)
    assert Sowing.objects.get().removed_at is not None


def test_plants_that_were_set_out_tell_the_places_limits(bed: Place, person: Any) -> None:
    flows.keep(planted(bed, "tomato", height_m=0.2), person)
    inputs = build_inputs(bed, [])
    (there,) = growing_in(inputs, {})
    assert (there.crop_key, there.stage) == ("tomato", Stage.SEEDLING)
    assert there.height_m == pytest.approx(0.2)
    PlantEvent.objects.create(planting=Planting.objects.get(), kind="measured", on=TODAY, height_m=0.45)
    (there,) = growing_in(build_inputs(bed, []), {})
    assert there.height_m == pytest.approx(0.45)
    flows.end(Planting.objects.get(), TODAY)
    assert growing_in(build_inputs(bed, []), {}) == []


def test_what_stood_the_winter_is_grown(bed: Place) -> None:
    planted(bed, "kale", planted_on=TODAY - timedelta(days=3), origin="overwintered")
    assert growing_in(build_inputs(bed, []), {})[0].stage is Stage.GROWN


def test_harvests_add_up_and_what_dies_frees_its_ground(signed_in: Client, bed: Place) -> None:
    planting = planted(bed, "chard", number=4, planted_on=TODAY - timedelta(days=40))
    url = reverse("planting", args=[bed.garden_id, planting.pk])
    empty = {"number": "", "weight": "", "height": "", "cause": "", "note": "", "on": TODAY.isoformat()}
    assert "Enter a number, a weight or both." in signed_in.post(url, empty | {"kind": "harvested"}).content.decode()
    for weight in ("0.4", "0,35"):
        signed_in.post(url, empty | {"kind": "harvested", "weight": weight})
    assert "harvested so far: 0.8 kg" in signed_in.get(url).content.decode()
    signed_in.post(url, empty | {"kind": "died", "number": "4", "cause": "frost"})
    planting.refresh_from_db()
    assert planting.ended_on == TODAY
    event = planting.events.get(kind="died")
    signed_in.post(reverse("remove_event", args=[bed.garden_id, planting.pk, event.pk]))
    planting.refresh_from_db()
    assert planting.ended_on is None
    assert "only for plants that died" in signed_in.post(url, empty | {"kind": "stood", "cause": "frost"}).content.decode()
    assert "before planting" in signed_in.post(url, empty | {"kind": "stood", "on": "2025-01-01"}).content.decode()


def test_a_night_s_cold_is_kept_with_what_died_of_it(signed_in: Client, bed: Place) -> None:
    store(bed, 9.0)
    forecast = Forecast.objects.get()
    # The garden's clock is two hours ahead; five hours of last night were cold.
    night = (BEHIND_D - 1) * 24 + 25
    forecast.ground.outside_c[night : night + 5] = [-1.0, -2.5, -3.1, -2.0, 0.0]
    forecast.save()
    planting = planted(bed, "lettuce", planted_on=TODAY - timedelta(days=20))
    signed_in.post(
        reverse("planting", args=[bed.garden_id, planting.pk]), {"kind": "died", "on": TODAY.isoformat(), "number": "2"}
    )
    assert planting.events.get().lowest_c == -3.1


def test_height_is_drawn_from_what_was_measured_on(bed: Place) -> None:
    planting = planted(bed, "kale", planted_on=TODAY - timedelta(days=14))
    PlantEvent.objects.create(planting=planting, kind="measured", on=TODAY, height_m=0.3)
    page = planting_page(plants.plantings_in(bed.garden).get(), Units(), TODAY)
    assert page.picture
    assert page.picture.measured[0][2].endswith("30 cm")
    assert any(line == "About 30 cm tall by now." for line in page.lines)


def test_the_same_again_every_fortnight(signed_in: Client, bed: Place) -> None:
    planting = planted(bed, "radish", origin="sown", x_m=0.0, y_m=0.0)
    url = reverse("again", args=[bed.garden_id, planting.pk])
    assert signed_in.post(url, {"again-every_d": "0", "again-times": "2"}).status_code == 422
    signed_in.post(url, {"again-every_d": "14", "again-times": "2"})
    more = Planting.objects.exclude(pk=planting.pk).order_by("planned_on")
    assert [row.planned_on for row in more] == [TODAY + timedelta(days=14), TODAY + timedelta(days=28)]
    assert {(row.planted_on, row.x_m) for row in more} == {(None, None)}


def test_the_plan_of_the_season_and_its_seed(signed_in: Client, bed: Place) -> None:
    url = reverse("plan", args=[bed.garden_id])
    assert "What will you grow where this year?" in signed_in.get(url).content.decode()
    planting = Planting.objects.create(place=bed, crop_key="radish", planned_on=TODAY - timedelta(days=2), length_m=0.6)
    given = signed_in.get(url).content.decode()
    assert "One planting in the plan is late: 32 radishes in North bed." in given
    assert "none in the box: buy some" in given
    signed_in.post(reverse("plant", args=[bed.garden_id, planting.pk]))
    assert "Everything in the plan has been sown or planted." in signed_in.get(url).content.decode()


def test_crops_take_turns_along_a_trellis(signed_in: Client, bed: Place) -> None:
    url = reverse("plan", args=[bed.garden_id])
    given = signed_in.get(url, {"length": "300", "crops": ["cucumber", "pea"]}).content.decode()
    assert "6 cucumbers and 6 peas will fit along it." in given
    assert signed_in.get(url, {"length": "x"}).status_code == 422


def test_a_spreadsheet_s_lines_become_the_plan_or_each_wrong_line_is_named(signed_in: Client, bed: Place) -> None:
    url = reverse("bring_plan", args=[bed.garden_id])
    lines = "Bed\tCrop\tDay\tNumber\nNorth bed\tCarrot\t2026-05-02\t64\nnorth bed\tTomatoes\t2026-05-20\t\n"
    wrong = signed_in.post(url, {"lines": lines + "South bed\tCarrot\t2026-05-02\nNorth bed\tHat\nNorth bed\tPea\t2nd May\tx"})
    text = wrong.content.decode()
    assert wrong.status_code == 422
    for said in (
        "Line 3: there is no place called “South bed”",
        "Line 4: there is no crop called “Hat”",
        "Line 5: “2nd May” is not a date",
    ):
        assert said in text
    assert "Tomatoes" in text
    assert not Planting.objects.exists()
    assert "Added 2 plantings to the plan." in signed_in.post(url, {"lines": lines}, follow=True).content.decode()
    assert list(Planting.objects.order_by("planned_on").values_list("crop_key", "origin", "number")) == [
        ("carrot", "sown", 64),
        ("tomato", "raised", None),
    ]


def test_a_viewer_sees_the_plan_and_moves_nothing(client: Client, signed_in: Client, bed: Place) -> None:
    planted(bed, x_m=0.0, y_m=0.0)
    bed.garden.memberships.update(role="viewer")
    given = page_of(signed_in, bed)
    assert "data-lay" not in given
    assert "Add to the plan" not in given


def test_a_bed_has_a_size(signed_in: Client, bed: Place) -> None:
    url = reverse("bed_shape", args=[bed.garden_id, bed.pk])
    assert (
        "Enter a value from 20 cm to 6000 cm."
        in signed_in.post(url, {"length": "2", "width": "120", "square": "30", "runs_deg": "0.0"}).content.decode()
    )
    signed_in.post(url, {"length": "4 m", "width": "75", "square": "25", "runs_deg": "0.0"})
    bed.shape.refresh_from_db()
    assert (bed.shape.length_m, bed.shape.width_m, bed.shape.runs_deg) == (4.0, 0.75, 0.0)


def test_what_is_off_the_plan_comes_back_from_history(signed_in: Client, bed: Place) -> None:
    planting = planted(bed)
    signed_in.post(reverse("remove_planting", args=[bed.garden_id, planting.pk]))
    assert not plants.plantings_in(bed.garden).exists()
    flows.put_back(planting)
    assert plants.plantings_in(bed.garden).count() == 1


def test_pages_ask_the_database_the_same_number_of_times_however_much_stands_there(
    signed_in: Client, bed: Place, django_assert_max_num_queries: Any
) -> None:
    url = reverse("plan", args=[bed.garden_id])
    for number in range(40):
        planted(bed, "lettuce", planted_on=TODAY if number % 2 else None, planned_on=TODAY, origin="raised")
    units_of(bed.garden.memberships.get().user)
    with django_assert_max_num_queries(25):
        signed_in.get(url)
    with django_assert_max_num_queries(30):
        page_of(signed_in, bed)


def test_a_night_of_months_ago_is_told_by_the_weather_that_was_written_down(bed: Place) -> None:
    store(bed, 9.0)
    long_ago = TODAY - timedelta(days=90)
    bed.garden.weather.create(day=long_ago, low_c=-7.5, high_c=1.0)
    assert lowest_before(bed, long_ago) == -7.5
    assert lowest_before(bed, long_ago - timedelta(days=1)) is None
    bed.cover_periods.create(cover="fleece", first=long_ago - timedelta(days=3))
    assert lowest_before(bed, long_ago) is None, "beneath a cover it was not as cold as that"


def test_what_is_meant_for_next_spring_is_seen_with_its_end(bed: Place) -> None:
    planted(bed)
    near = bed_page(bed, Units(), TODAY).season
    assert near is not None
    Planting.objects.create(place=bed, crop_key="radish", origin="sown", planned_on=TODAY + timedelta(days=330))
    far = bed_page(bed, Units(), TODAY).season
    assert far is not None
    assert len(near.months) < 8 < len(far.months)
    radish = next(bar for bar in far.bars if bar.name == "Radish")
    assert radish.width > 50
    assert radish.x + radish.width <= far.width


def test_a_cover_that_ends_before_the_bed_is_said_with_its_length(bed: Place) -> None:
    planted(bed)
    period = CoverPeriod.objects.create(place=bed, cover="film_tunnel", first=TODAY, covered_m=1.2)
    lines = " ".join(bed_page(bed, Units(), TODAY).roof_text)
    assert "Hooped tunnel of clear film is over 120 cm of the bed’s 300 cm. Plants beyond it are uncovered." in lines
    assert ".." not in lines
    CoverPeriod.objects.filter(pk=period.pk).update(covered_m=None)
    assert "are uncovered" not in " ".join(bed_page(Place.objects.get(pk=bed.pk), Units(), TODAY).roof_text)
