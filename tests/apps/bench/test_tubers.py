"""Trays of seed potatoes: kept, told from frost, planted on their day, and the jobs that say so."""

from __future__ import annotations

from datetime import timedelta

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.bench.tubers import TuberDue, sprouting_of, trays_in
from cloche.apps.forecasts.selectors import ground_of
from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import TuberTray
from cloche.apps.today.flows import answer, take_back
from cloche.apps.today.jobs.job import JobKind
from cloche.apps.today.selectors import day_of, jobs_in
from cloche.apps.today.texts import job_line
from tests.apps.bench.benches import TODAY, lit, make_tray
from tests.apps.bench.test_bench import get, post
from tests.conftest import NOW

KEPT = {
    "crop_key": "potato_first_early", "set_out_on": (TODAY - timedelta(days=40)).isoformat(),
    "plant_on": (TODAY + timedelta(days=9)).isoformat(), "tubers": "24", "variety": "Amber",
}  # fmt: skip


def kept(garden: Garden, soil_c: float = 10.0, plant_in_d: int = 9) -> TuberTray:
    place = make_tray(garden, "Porch", soil_c)
    dates = {"set_out_on": TODAY - timedelta(days=40), "plant_on": TODAY + timedelta(days=plant_in_d)}
    return place.tuber_trays.create(crop_key="potato_first_early", tubers=24, variety="Amber", **dates)


def tuber_jobs(garden: Garden) -> list[tuple[str, str, bool]]:
    units = units_of(garden.memberships.get().user)
    jobs = [job for job in jobs_in(garden, units, NOW) if job.kind is JobKind.TUBERS]
    lines = [job_line(job, units, TODAY) for job in jobs]
    return [(line.do, line.why, line.urgent) for line in lines]


def test_a_tray_is_kept_changed_planted_and_removed(signed_in: Client, garden: Garden) -> None:
    place = make_tray(garden, "Porch", 10.0)
    page = post(signed_in, garden, "keep_tubers", **KEPT, place=place.pk)
    assert "24 first early potatoes (Amber)" in page
    assert "have had short, stout sprouts since" in page
    tray = TuberTray.objects.get()
    other = make_tray(garden, "Cellar", 6.0)
    post(signed_in, garden, "edit_tubers", tray.pk, **KEPT | {"tubers": "30"}, place=other.pk)
    tray.refresh_from_db()
    assert (tray.tubers, tray.place) == (30, other)
    page = post(signed_in, garden, "plant_tubers", tray.pk)
    assert "Planted today." in page
    assert "crop=potato_first_early&amp;seeds=30" in page
    assert "Planted today." not in post(signed_in, garden, "plant_tubers", tray.pk, undo="1")
    assert "30 first early potatoes" not in post(signed_in, garden, "remove_tubers", tray.pk).split("<h1>")[1]
    assert not trays_in(garden, TODAY)


def test_a_tray_planted_before_it_is_set_out_is_refused(signed_in: Client, garden: Garden) -> None:
    place = make_tray(garden, "Porch", 10.0)
    typed = KEPT | {"plant_on": (TODAY - timedelta(days=60)).isoformat(), "place": place.pk}
    response = signed_in.post(reverse("keep_tubers", args=[garden.pk]), typed)
    assert response.status_code == 422
    assert "must not be before they are set out" in response.content.decode()
    assert 'value="Amber"' in response.content.decode()
    assert not TuberTray.objects.exists()


def test_a_light_place_free_of_frost_is_offered_first(signed_in: Client, garden: Garden) -> None:
    make_tray(garden, "Freezing shed", 0.2, light=lit(window=6.0))
    make_tray(garden, "Dark cellar", 10.0)
    porch = make_tray(garden, "Porch", 12.0, light=lit(window=4.0))
    make_tray(garden, "Warm sill", 19.0, light=lit(window=8.0))
    assert f'value="{porch.pk}" selected' in get(signed_in, garden, "potatoes")


def test_frost_is_a_job_before_planting_is(garden: Garden) -> None:
    tray = kept(garden, 0.2, plant_in_d=-1)
    (do, why, urgent), *more = tuber_jobs(garden)
    assert not more
    assert do.startswith("Move the 24 first early potatoes (Amber) to a place free of frost before")
    assert why == "Frost is possible in Porch that night, and frozen tubers rot."
    assert urgent
    assert sprouting_of(tray, ground_of(tray.place), TODAY).due(TODAY) is TuberDue.FROST
    assert sprouting_of(tray, None, TODAY).due(TODAY) is TuberDue.PLANT


@pytest.mark.parametrize(
    ("soil_c", "why"),
    [(10.0, "The sprouts have been ready since"), (6.0, "The planting date has come. The sprouts are still short")],
)
def test_they_are_planted_on_their_day_whether_ready_or_not(garden: Garden, soil_c: float, why: str) -> None:
    kept(garden, soil_c, plant_in_d=0)
    (do, said, urgent) = tuber_jobs(garden)[0]
    assert do == "Plant the 24 first early potatoes (Amber) sprouting in Porch."
    assert said.startswith(why)
    assert not urgent


def test_before_its_day_a_tray_is_no_job_and_a_tick_plants_it(garden: Garden) -> None:
    tray = kept(garden)
    assert tuber_jobs(garden) == []
    tray.plant_on = TODAY
    tray.save()
    person = garden.memberships.get().user
    job = next(job for job in day_of(garden, units_of(person), NOW).jobs if job.kind is JobKind.TUBERS)
    given = answer(garden, job, "done", person)
    tray.refresh_from_db()
    assert tray.planted_on == TODAY
    assert tuber_jobs(garden) == []
    take_back(garden, given.pk)
    tray.refresh_from_db()
    assert tray.planted_on is None
