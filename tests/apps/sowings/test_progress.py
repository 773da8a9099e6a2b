"""How far a sowing has come: counts take precedence over forecasts, on every page."""

from __future__ import annotations

from datetime import date, timedelta

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.plants.models import Planting
from cloche.apps.sowings.models import Count, Sowing, Step
from cloche.apps.sowings.selectors import State, progress_of
from cloche_engine.results import SowingOutlook
from tests.factories import make_place
from tests.stored import sowing_outlook

TODAY = date(2026, 4, 22)


def outlook(end: float, half: date | None, most: date | None = None, overdue: date | None = None) -> SowingOutlook:
    """Of 100 sown `end` come up; middle days."""
    from dataclasses import replace

    curve = [0.0, end / 2, end]
    made = sowing_outlook(half, overdue)
    return replace(made, up=[[v * 0.8 for v in curve], curve, [v * 1.1 for v in curve]], most=(most, most, most))


@pytest.fixture
def sowing(garden: Garden) -> Sowing:
    values = {"crop_key": "pea", "sown_on": TODAY - timedelta(days=20), "depth_m": 0.03, "seeds": 50}
    return Sowing.objects.create(
        place=make_place(garden, "North bed"), outlook=outlook(56.0, TODAY - timedelta(days=6)), **values
    )


def count(sowing: Sowing, ago: int, up: int) -> None:
    Count.objects.create(sowing=sowing, on=TODAY - timedelta(days=ago), up=up)


def test_a_total_in_the_end_is_never_below_what_was_counted(signed_in: Client, sowing: Sowing) -> None:
    count(sowing, 1, 30)
    progress = progress_of(sowing, TODAY)
    assert progress.expected == (30, 30, 31)
    assert (
        "30 of 50 so far; 30 (30–31) expected in the end"
        in signed_in.get(reverse("sowings", args=[sowing.place.garden_id])).content.decode()
    )


def test_seedlings_that_were_lost_had_come_up(sowing: Sowing) -> None:
    count(sowing, 5, 30)
    count(sowing, 1, 12)
    assert progress_of(sowing, TODAY).counted == 30


@pytest.mark.parametrize(
    ("counts", "half_ago", "overdue_ago", "state"),
    [
        ([], -3, -9, State.AWAITED),
        ([], 3, -9, State.DUE),
        ([], 9, 2, State.OVERDUE),
        ([0], 9, 2, State.OVERDUE),
        ([10], 9, 2, State.COMING_UP),
        ([28], 9, 2, State.UP),
    ],
)
def test_one_state_at_a_time(sowing: Sowing, counts: list[int], half_ago: int, overdue_ago: int, state: State) -> None:
    sowing.outlook = outlook(56.0, TODAY - timedelta(days=half_ago), overdue=TODAY - timedelta(days=overdue_ago))
    for up in counts:
        count(sowing, 1, up)
    assert progress_of(sowing, TODAY).state is state


def test_what_was_closed_or_planted_out_is_no_longer_awaited(sowing: Sowing) -> None:
    count(sowing, 1, 0)
    sowing.finished = True
    assert progress_of(sowing, TODAY).state is State.FAILED
    sowing.finished = False
    Step.objects.create(sowing=sowing, kind=Step.Kind.PLANTED, on=TODAY)
    assert progress_of(sowing, TODAY).state is State.PLANTED_OUT


def test_a_count_that_shows_no_half_moves_half_behind_it(sowing: Sowing) -> None:
    assert progress_of(sowing, TODAY).half_on == TODAY - timedelta(days=6)
    count(sowing, 2, 3)
    progress = progress_of(sowing, TODAY)
    assert (progress.half_on, progress.half_counted) == (TODAY - timedelta(days=1), False)
    count(sowing, 0, 20)
    progress = progress_of(sowing, TODAY)
    assert (progress.half_on, progress.half_counted) == (TODAY, True)


def test_planting_out_puts_the_plants_into_the_plan_and_back(signed_in: Client, garden: Garden, sowing: Sowing) -> None:
    tray, bed = make_place(garden, "Tray", kind="tray"), make_place(garden, "Long bed")
    Sowing.objects.filter(pk=sowing.pk).update(place=tray)
    count(sowing, 1, 24)
    life = reverse("life", args=[garden.pk, sowing.pk])
    signed_in.post(life, {"kind": "planted", "on": TODAY.isoformat(), "place": bed.pk})
    planting = Planting.objects.get()
    assert (planting.place, planting.sowing_id, planting.planted_on, planting.number) == (bed, sowing.pk, TODAY, 24)
    assert planting.x_m is not None
    assert "Pea" in signed_in.get(reverse("bed_plan", args=[garden.pk, bed.pk])).content.decode()
    step = Step.objects.get()
    signed_in.post(reverse("remove_step", args=[garden.pk, sowing.pk, step.pk]))
    assert Sowing.objects.get().place == tray
    assert not Planting.objects.filter(removed_at=None).exists()


def test_planting_out_fulfils_what_was_planned(signed_in: Client, garden: Garden, sowing: Sowing) -> None:
    bed: Place = make_place(garden, "Long bed")
    planned = Planting.objects.create(place=bed, crop_key="pea", origin="raised", planned_on=TODAY, number=8)
    signed_in.post(reverse("life", args=[garden.pk, sowing.pk]), {"kind": "planted", "on": TODAY.isoformat(), "place": bed.pk})
    planned.refresh_from_db()
    assert (planned.sowing_id, planned.planted_on, planned.number) == (sowing.pk, TODAY, 8)
    assert Planting.objects.count() == 1
