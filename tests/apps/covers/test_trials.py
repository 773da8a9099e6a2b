"""A cover against a bare strip: setting up, pairs, what is told."""

from datetime import date, timedelta
from typing import Any

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.covers.models import CoverTrial
from cloche.apps.covers.pages.trial import emergence_lines, measured_on
from cloche.apps.covers.selectors import pairs_before, pairs_of
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.readings.models import Reading
from cloche.apps.sowings.models import Count, Sowing
from cloche.bridge.values.units import Units
from cloche_engine.trials.germinated import half_of
from tests.conftest import NOW
from tests.factories import make_place, make_reading

TODAY = NOW.date()


@pytest.fixture
def trial(garden: Garden) -> CoverTrial:
    covered, bare = make_place(garden, "Tunnel", kind="tunnel"), make_place(garden, "Strip")
    begun = TODAY - timedelta(days=10)
    return CoverTrial.objects.create(covered=covered, bare=bare, depth_m=0.05, begun_on=begun, alike=["soil"])


def shown(client: Client, trial: CoverTrial) -> str:
    return client.get(reverse("trial", args=[trial.covered.garden_id, trial.pk])).content.decode()


def pair(trial: CoverTrial, days_ago: int, covered_c: float, bare_c: float, apart_min: int = 3) -> None:
    at = NOW - timedelta(days=days_ago)
    make_reading(trial.covered, at, covered_c)
    make_reading(trial.bare, at + timedelta(minutes=apart_min), bare_c)


def test_it_is_set_up_with_what_was_seen_to(signed_in: Client, garden: Garden) -> None:
    covered, bare = make_place(garden, "Tunnel", kind="tunnel"), make_place(garden, "Strip")
    given = {"covered": covered.pk, "bare": bare.pk, "begun_on": "2026-04-20", "depth": "5", "alike": ["soil", "sun"]}
    url = reverse("trials", args=[garden.pk])
    assert "cannot be compared with itself" in signed_in.post(url, given | {"bare": covered.pk}).content.decode()
    assert "in the future" in signed_in.post(url, given | {"begun_on": "2026-05-20"}).content.decode()
    signed_in.post(url, given)
    trial = CoverTrial.objects.get()
    assert trial.alike == ["soil", "sun"]
    page = shown(signed_in, trial)
    assert "no pairs of readings yet" in page
    assert "a good stride apart" in page


def test_pairs_go_into_both_records_or_into_none(signed_in: Client, trial: CoverTrial) -> None:
    url = reverse("trial", args=[trial.covered.garden_id, trial.pk])
    given = {"covered": "14.5", "bare": "11", "at": "2026-04-22T07:30"}
    signed_in.post(url, given)
    assert {r.place.name: r.temperature_c for r in Reading.objects.all()} == {"Tunnel": 14.5, "Strip": 11.0}
    again = signed_in.post(url, given)
    assert again.status_code == 422
    assert "already has a reading at that time and depth" in again.content.decode()
    assert Reading.objects.count() == 2
    assert "in the future" in signed_in.post(url, given | {"at": "2026-04-23T07:30"}).content.decode()
    assert "before the trial began" in signed_in.post(url, given | {"at": "2026-03-23T07:30"}).content.decode()


def test_readings_of_the_round_are_pairs_too_if_near_enough(trial: CoverTrial) -> None:
    pair(trial, 4, 14.0, 10.0, apart_min=20)
    pair(trial, 3, 14.0, 10.0, apart_min=50)
    pair(trial, 30, 14.0, 10.0)
    make_reading(trial.covered, NOW - timedelta(days=2), 15.0, depth_m=0.10)
    make_reading(trial.bare, NOW - timedelta(days=2), 11.0, depth_m=0.10)
    assert len(pairs_of(trial)) == 1


def test_its_answer_has_an_interval_and_the_days_that_would_settle_it(signed_in: Client, trial: CoverTrial) -> None:
    for ago, by in ((2, 3.0), (1, 4.0)):
        pair(trial, ago, 10.0 + by, 10.0)
    assert "3.5° warmer so far, on 2 days. This is not conclusive yet" in shown(signed_in, trial)
    for ago, by in ((5, 2.4), (4, 3.6), (3, 3.1)):
        pair(trial, ago, 10.0 + by, 10.0)
    page = shown(signed_in, trial)
    # Mean 3.22, SD 0.602 of five days; Student's 2.776 for four degrees of freedom: ± 0.75.
    assert "3.2° warmer (2.5° to 4.0°, 95% certain)" in page
    assert "To know the difference to within 0.5° would take about 4 more days" in page


def test_an_ended_trial_takes_no_more_pairs(signed_in: Client, trial: CoverTrial) -> None:
    pair(trial, 2, 14.0, 10.0)
    signed_in.post(reverse("end_trial", args=[trial.covered.garden_id, trial.pk]))
    trial.refresh_from_db()
    assert trial.ended_on == TODAY
    make_reading(trial.covered, NOW + timedelta(days=2), 14.0)
    make_reading(trial.bare, NOW + timedelta(days=2), 10.0)
    assert len(pairs_of(trial)) == 1
    assert "Read both now" not in shown(signed_in, trial)


def test_the_form_offers_a_covered_bed_against_a_bare_one(signed_in: Client, garden: Garden) -> None:
    make_place(garden, "Strip")
    covered = make_place(garden, "Tunnel", kind="tunnel")
    covered.cover_periods.create(cover="film_tunnel", first=TODAY - timedelta(days=9))
    page = signed_in.get(reverse("trials", args=[garden.pk])).content.decode()
    assert f'<option value="{covered.pk}" selected>Tunnel</option>' in page
    assert "selected>Strip</option>" in page


def test_a_bed_that_was_warmer_anyway_is_told_apart_from_its_cover(signed_in: Client, trial: CoverTrial) -> None:
    for ago in range(1, 9):
        pair(trial, ago, 14.0 + ago % 2, 10.0)
    for ago in range(14, 22):
        pair(trial, ago, 11.0 + 0.2 * (ago % 2), 10.0)
    assert pairs_before(trial) == []
    assert "Nobody read both beds before the cover went on" in shown(signed_in, trial)
    trial.covered.cover_periods.create(cover="film_tunnel", first=trial.begun_on)
    assert len(pairs_before(trial)) == 8
    given = shown(signed_in, trial)
    assert "Tunnel compared with Strip: 3.4° warmer" in given
    assert "Before the cover went on, the bed already differed by 1.1° warmer on 8 days" in given
    trial.covered.cover_periods.create(cover="fleece", first=TODAY - timedelta(days=18), last=TODAY - timedelta(days=16))
    assert len(pairs_before(trial)) == 5


def test_a_day_or_two_before_are_no_baseline(signed_in: Client, trial: CoverTrial) -> None:
    """Sixteen days under a cover are not weighed against one day before it."""
    for ago in range(1, 9):
        pair(trial, ago, 13.2 + 0.1 * (ago % 2), 10.0)
    pair(trial, 15, 11.7, 10.0)
    trial.covered.cover_periods.create(cover="film_tunnel", first=trial.begun_on)
    assert len(pairs_before(trial)) == 1
    given = shown(signed_in, trial)
    assert "Tunnel compared with Strip: 3.2° warmer" in given
    assert "Only 1 day was read before the cover went on" in given
    assert "After three days" not in given


def test_a_slip_is_left_aside_and_said(signed_in: Client, trial: CoverTrial) -> None:
    for ago in range(1, 10):
        pair(trial, ago, 13.0 + 0.1 * (ago % 3), 10.0)
    make_reading(trial.covered, NOW - timedelta(days=10), 29.0)
    make_reading(trial.bare, NOW - timedelta(days=10), 10.0)
    given = shown(signed_in, trial)
    assert "3.1° warmer" in given
    assert "12 April is far from all the others, probably an error, and is left out." in given


def came_up(place: Place, crop_key: str, counts: list[tuple[int, int]], **values: Any) -> None:
    sowing = Sowing.objects.create(
        place=place, crop_key=crop_key, sown_on=TODAY - timedelta(days=20), seeds=50, depth_m=0.01, **values
    )
    for after, up in counts:
        Count.objects.create(sowing=sowing, on=sowing.sown_on + timedelta(days=after), up=up)


def test_what_came_up_in_both_beds_is_set_side_by_side(signed_in: Client, trial: CoverTrial) -> None:
    CoverTrial.objects.filter(pk=trial.pk).update(begun_on=TODAY - timedelta(days=21))
    trial.refresh_from_db()
    came_up(trial.covered, "radish", [(4, 0), (6, 20), (8, 44)])
    came_up(trial.bare, "radish", [(8, 0), (11, 15), (14, 36)])
    came_up(trial.covered, "carrot", [(12, 1)])
    came_up(trial.bare, "carrot", [(15, 0)])
    came_up(trial.covered, "pea", [(9, 30)])
    lines = emergence_lines(trial)
    # Beside SciPy and statsmodels the same functions stand in tests/engine/trials; here, that they reach the page.
    covered, bare = (
        half_of([(float(after), up) for after, up in counts])
        for counts in ([(4, 0), (6, 20), (8, 44)], [(8, 0), (11, 15), (14, 36)])
    )
    assert covered is not None
    assert bare is not None
    assert len(lines) == 2
    assert lines[0].startswith("Carrots: half up after an unknown time")
    assert f"half up after {covered.days:.0f} days" in lines[1]
    assert f"{bare.days:.0f} days" in lines[1]
    assert "of every 100 seeds sown, 88 (" in lines[1]
    text = signed_in.get(reverse("trial", args=[trial.covered.garden_id, trial.pk])).content.decode()
    assert "Seedlings" in text


def test_several_covers_are_tried_against_one_bare_bed(signed_in: Client, trial: CoverTrial) -> None:
    other = make_place(trial.covered.garden, "Fleeced bed")
    later = CoverTrial.objects.create(covered=other, bare=trial.bare, depth_m=0.05, begun_on=trial.begun_on)
    long_ago = CoverTrial.objects.create(
        covered=other, bare=trial.bare, depth_m=0.05, begun_on=date(2020, 3, 1), ended_on=date(2020, 4, 1)
    )
    text = signed_in.get(reverse("trial", args=[trial.covered.garden_id, trial.pk])).content.decode()
    assert "Same uncovered bed" in text
    assert reverse("trial", args=[trial.covered.garden_id, later.pk]) in text
    assert reverse("trial", args=[trial.covered.garden_id, long_ago.pk]) not in text


def test_compare_covers_names_what_the_trial_there_measured_and_at_which_hours(trial: CoverTrial) -> None:
    """Its own number is the mean of day and night, and smaller."""
    for days_ago in range(1, 9):
        pair(trial, days_ago, 14.0 + 0.1 * (days_ago % 3), 11.0)
    measured = measured_on(trial.covered, Units("C", "cm"))
    (text,) = measured.values()
    assert list(measured) == ["film_tunnel"]
    assert text == "Your own trial here measured 3.1° warmer at 5 cm at 08:00, on 8 days."
    assert measured_on(trial.bare, Units("C", "cm")) == {}
