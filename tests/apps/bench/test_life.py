"""A sowing's life: what happens to it, where it stands, what comes next, and what the day asks for."""

from __future__ import annotations

from datetime import timedelta

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.bench.life import life_of, ripe_on
from cloche.apps.forecasts.flows import refresh
from cloche.apps.forecasts.models import CropOutlook, Forecast
from cloche.apps.forecasts.status import keep_left
from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import Place
from cloche.apps.plan.courses import known_of
from cloche.apps.plants.models import Planting
from cloche.apps.shared import words
from cloche.apps.sowings import flows
from cloche.apps.sowings.flows import followed
from cloche.apps.sowings.models import Step
from cloche.apps.sowings.selectors import sowings_in
from cloche.apps.today.flows import answer, take_back
from cloche.apps.today.selectors import jobs_in
from cloche.apps.today.texts import job_line
from cloche_engine.hazards.air_limits import Limits
from cloche_engine.hazards.frost import NightWay
from cloche_engine.heat.faults import Fault
from cloche_engine.results import CandidateDays, HeatAlarm, NightPlan, RibbonDays, Watch
from tests.apps.bench.benches import TODAY, heated, make_tray, sown, store
from tests.conftest import NOW
from tests.factories import make_place, make_window, write_air


def step(client: Client, garden: Garden, sowing: int, **typed: object) -> str:
    usual = {"on": TODAY.isoformat(), "place": "", "cell": ""}
    return client.post(reverse("life", args=[garden.pk, sowing]), usual | typed, follow=True).content.decode()


def may_go_out(place: Place, crop_key: str, first: str) -> None:
    """A window for planting out there."""
    window = make_window(first, "2026-08-01")
    CropOutlook.objects.create(
        place=place, crop_key=crop_key, method="transplanted", windows=[window], sow_now=False, main_limit="",
        ribbon=RibbonDays([], [], []), days=CandidateDays([], [], [], "", "", "", [], ""),
    )  # fmt: skip


def test_what_comes_next_is_told_from_seed_to_bed(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden, "Mat", heat=heated())
    tray.heat_periods.create(source="mat", first=TODAY, control="thermostat")
    sowing = sown(tray, "tomato", 10, 3, cell_m=0.04)
    may_go_out(make_place(garden, "Tunnel"), "tomato", "2026-05-20")
    page = signed_in.get(reverse("life", args=[garden.pk, sowing.pk])).content.decode()
    assert "Tomatoes, sown on 12 April, now in Mat." in page
    assert "Take tomatoes off the heat" in page
    # Four and a half weeks in a cell of 4 cm are over before they are grown for the bed.
    assert "roots will fill a cell of 4 cm" in page
    assert "can be planted out in Tunnel" in page
    assert page.index("Pot tomatoes") < page.index("Start hardening off") < page.index("can be planted out")


def test_a_tray_moves_and_everything_says_where_it_stands(signed_in: Client, garden: Garden) -> None:
    tray, house = make_tray(garden, "Mat"), make_tray(garden, "House bench", 9.0, within="greenhouse")
    sowing = sown(tray, "leek", 30, 18)
    assert "The tray is now in House bench." in step(signed_in, garden, sowing.pk, kind="moved", place=house.pk)
    sowing.refresh_from_db()
    assert (sowing.place, sowing.sown_in) == (house, tray)
    assert [batch.number for batch in followed(house, list(sowings_in(garden)), TODAY)] == [sowing.pk]
    assert not list(followed(tray, list(sowings_in(garden)), TODAY))
    assert "now in House bench" in signed_in.get(reverse("life", args=[garden.pk, sowing.pk])).content.decode()
    assert "House bench" in signed_in.get(reverse("sowings", args=[garden.pk])).content.decode()
    for place in (tray, house):
        place.refresh_from_db()
        assert place.input_revision == 1
    page = signed_in.post(
        reverse("remove_step", args=[garden.pk, sowing.pk, Step.objects.get().pk]), follow=True
    ).content.decode()
    assert "The tray is in Mat again." in page
    sowing.refresh_from_db()
    assert (sowing.place, sowing.sown_in) == (tray, None)


def test_only_the_last_of_several_moves_is_taken_back(signed_in: Client, garden: Garden) -> None:
    tray, house, bed = (make_tray(garden, name) for name in ("Mat", "House", "Bed"))
    sowing = sown(tray, "leek", 30, 18)
    for place in (house, bed):
        flows.take_step(Step(sowing=sowing, kind="moved", on=TODAY, place=place))
    first, last = sowing.steps.all()
    url = reverse("remove_step", args=[garden.pk, sowing.pk, first.pk])
    assert "Undo the later move first" in signed_in.post(url, follow=True).content.decode()
    sowing.refresh_from_db()
    assert (sowing.place, sowing.sown_in) == (bed, tray)
    flows.take_back(last)
    sowing.refresh_from_db()
    assert (sowing.place, sowing.sown_in) == (house, tray)


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ({"kind": "moved"}, "Choose where the tray is now"),
        ({"kind": "potted"}, "Enter the width of the new cells"),
        ({"kind": "leaf", "on": "2026-04-23"}, "in the future"),
        ({"kind": "leaf", "on": "2026-01-23"}, "before the sowing"),
        ({"kind": "eaten"}, "not one of the available choices"),
        ({"kind": "potted", "cell": "70"}, "from 1 cm to 50 cm"),
    ],
)
def test_what_cannot_have_happened_is_said(signed_in: Client, garden: Garden, typed: dict[str, str], said: str) -> None:
    sowing = sown(make_tray(garden), "leek", 30, 18)
    assert said in step(signed_in, garden, sowing.pk, **typed)
    assert not Step.objects.exists()


def test_nothing_is_slipped_in_before_a_move_nor_moved_to_where_it_is(signed_in: Client, garden: Garden) -> None:
    tray, house = make_tray(garden, "Mat"), make_tray(garden, "House")
    sowing = sown(tray, "leek", 30, 18)
    flows.take_step(Step(sowing=sowing, kind="moved", on=TODAY - timedelta(days=2), place=house))
    early = (TODAY - timedelta(days=5)).isoformat()
    assert "The tray was moved on 20 April" in step(signed_in, garden, sowing.pk, kind="leaf", on=early)
    assert "The tray is already there" in step(signed_in, garden, sowing.pk, kind="moved", place=house.pk)


def test_what_the_left_place_was_like_is_kept_with_the_move(garden: Garden) -> None:
    warm, cool = make_tray(garden, "Mat", 24.0), make_tray(garden, "Sill", 12.0)
    sowing = sown(warm, "pepper", 6)
    flows.take_step(Step(sowing=sowing, kind="moved", on=TODAY - timedelta(days=1), place=cool))
    rows = list(sowings_in(garden))
    keep_left(rows)
    kept = Step.objects.get().left_c
    assert kept == [24.0] * 5 * 24
    # The place that was left forgets; the move does not.
    store(warm, 5.0)
    keep_left(list(sowings_in(garden)))
    assert Step.objects.get().left_c == kept
    (batch,) = followed(cool, list(sowings_in(garden)), TODAY)
    assert batch.before == ((TODAY - timedelta(days=1), tuple(kept)),)


def jobs(garden: Garden) -> list[str]:
    units = units_of(garden.memberships.get().user)
    return [job_line(job, units, TODAY).do for job in jobs_in(garden, units, NOW)]


def test_the_day_asks_for_the_bench_and_a_tick_is_written_into_the_sowings_life(garden: Garden) -> None:
    tray = make_tray(garden, "Mat", heat=heated())
    tray.heat_periods.create(source="mat", first=TODAY)
    sowing = sown(tray, "tomato", 10, 0)
    sowing.counts.create(on=TODAY, up=30)
    assert jobs(garden) == ["Take tomatoes off the heat and move them to a bright place near 17°: half of them are up."]
    person = garden.memberships.get().user
    (job,) = jobs_in(garden, units_of(person), NOW)
    made = answer(garden, job, "done", person)
    assert [step.kind for step in sowing.steps.all()] == ["heat_off"]
    assert jobs(garden) == []
    take_back(garden, made.pk)
    assert not sowing.steps.exists()
    assert len(jobs(garden)) == 1


def test_a_sowing_kept_on_the_heat_asks_for_a_lower_thermostat_and_one_tap_sets_it(signed_in: Client, garden: Garden) -> None:
    tray = make_tray(garden, "Mat", heat=heated())
    tray.heat_periods.create(source="mat", first=TODAY - timedelta(days=20), control="thermostat", start_c=20.0, stop_c=22.0)
    sowing = sown(tray, "leek", 10, 0)
    sowing.counts.create(on=TODAY, up=30)
    assert jobs(garden) == ["Take leeks off the heat and move them to a bright place near 12°: half of them are up."]
    chosen = signed_in.post(reverse("heat_off_rule", args=[garden.pk, sowing.pk]), {"rule": "kept"}, follow=True)
    assert "follow the new rule" in chosen.content.decode()
    assert jobs(garden) == ["Turn the thermostat down to 16°. Leeks will grow more slowly and sturdier."]
    person = garden.memberships.get().user
    (job,) = jobs_in(garden, units_of(person), NOW)
    made = answer(garden, job, "done", person)
    assert list(tray.heat_periods.values_list("first", "start_c", "stop_c"))[-1] == (TODAY, 16.0, 18.0)
    assert jobs(garden) == []
    assert "Thermostat turned down to 16°" in signed_in.get(reverse("life", args=[garden.pk, sowing.pk])).content.decode()
    take_back(garden, made.pk)
    assert tray.heat_periods.last().start_c == 20.0
    assert len(jobs(garden)) == 1


def test_a_thermostat_turned_down_at_its_tray_is_not_asked_for_again_and_is_set_back_after_a_move(garden: Garden) -> None:
    tray, house = make_tray(garden, "Mat", heat=heated()), make_tray(garden, "House")
    first = tray.heat_periods.create(
        source="mat", first=TODAY - timedelta(days=40), control="thermostat", start_c=20.0, stop_c=22.0
    )
    sowing = sown(tray, "tomato", 30, 20, heat_off_rule="all")
    assert life_of(sowing, garden, tray, TODAY, None).lower_c == 18.0
    step_down = flows.take_step(Step(sowing=sowing, kind="turned_down", on=TODAY - timedelta(days=1), start_c=18.0))
    step_down.delete()  # as if it had been turned by hand
    tray = Place.objects.get(pk=tray.pk)
    assert life_of(sowing, garden, tray, TODAY, None).lower_c is None
    again = flows.take_step(Step(sowing=sowing, kind="turned_down", on=TODAY, start_c=16.0))
    flows.take_step(Step(sowing=sowing, kind="moved", on=TODAY, place=house))
    flows.take_back(again)
    assert tray.heat_periods.last().start_c == 18.0
    first.refresh_from_db()
    assert first.start_c == 20.0


def test_a_sowing_in_its_bed_tells_its_harvest_and_the_plan_the_same_day(signed_in: Client, garden: Garden) -> None:
    bed = make_tray(garden, "North bed", kind="bed", seed_depth_m=0.05)
    sowing = sown(bed, "radish", 12, 3)
    ripe = ripe_on(life_of(sowing, garden, bed, TODAY, None), TODAY)
    assert ripe is not None
    # Common practice, no source: radishes are pulled three to five weeks after they are up in mild weather.
    assert 14 <= (ripe - (TODAY - timedelta(days=3))).days <= 40
    planting = Planting(place=bed, crop_key="radish", planted_on=sowing.sown_on, sowing=sowing)
    assert known_of(bed, TODAY).grows(planting).course.ripe == ripe
    page = signed_in.get(reverse("life", args=[garden.pk, sowing.pk])).content.decode()
    assert f"ready to harvest about {words.day(ripe, TODAY)}" in page


def test_a_rule_that_there_is_not_is_refused_and_the_old_one_stays(signed_in: Client, garden: Garden) -> None:
    sowing = sown(make_tray(garden), "leek", 10, 0, heat_off_rule="all")
    said = signed_in.post(reverse("heat_off_rule", args=[garden.pk, sowing.pk]), {"rule": "never"}, follow=True)
    assert "Choose one of the rules" in said.content.decode()
    sowing.refresh_from_db()
    assert sowing.heat_off_rule == "all"


@pytest.mark.parametrize(
    ("fault", "said"),
    [(Fault.HOT, "it does not stop by itself"), (Fault.COLD, "does not seem to heat"), (Fault.FLAT, "do not change")],
)
def test_a_heater_that_fails_is_the_days_first_job(garden: Garden, fault: Fault, said: str) -> None:
    make_tray(garden, "Mat", heat=heated(), alarm=HeatAlarm(fault, NOW, 31.2, 22.0, 17.0))
    units = units_of(garden.memberships.get().user)
    (job,) = jobs_in(garden, units, NOW)
    line = job_line(job, units, TODAY)
    assert said in line.do
    assert "31°" in line.why
    assert line.urgent
    assert not job.is_guessed


@pytest.mark.parametrize(("way", "expected"), [(None, True), (NightWay.BRING_IN, False)])
def test_what_was_brought_in_goes_out_again_when_the_night_is_mild(
    garden: Garden, way: NightWay | None, expected: bool
) -> None:
    tray = make_tray(garden, "Kitchen")
    cells = make_tray(garden, "Cells outdoors", 8.0, kind="cells")
    night = NightPlan(way, 0.1, 0.1, (2.0, -1.0), (2.0, -1.0), True)
    watch = Watch("", [], Limits(27.0, -2.0, None, None), [night] * 3, None, [], None, [], [])
    forecast = Forecast.objects.get(place=cells)
    forecast.watch = watch
    forecast.save()
    sowing = sown(cells, "leek", 40, 28)
    flows.take_step(Step(sowing=sowing, kind="brought_in", on=TODAY - timedelta(days=1), place=tray))
    sentences = [text for text in jobs(garden) if "Put leeks out again" in text]
    assert bool(sentences) is expected


def test_a_tray_is_judged_without_rows_and_harvests(signed_in: Client, garden: Garden) -> None:
    """By what trays need: no bed spacing, no harvest date."""
    write_air(garden, TODAY - timedelta(days=30), 34)
    garden.crops = ["tomato"]
    garden.save()
    tray, bed = make_place(garden, "Tray", kind="tray", seed_depth_m=0.02), make_place(garden, "Bed")
    for place in (tray, bed):
        refresh(place)
    pages = [
        signed_in.get(reverse("crop_in_place", args=[garden.pk, place.pk, "tomato"])).content.decode() for place in (tray, bed)
    ]
    assert "rows 60 cm apart" not in pages[0]
    assert "apart" in pages[1]
    assert "Harvest about" not in pages[0]
    assert "judged where it is planted out" in pages[0]
