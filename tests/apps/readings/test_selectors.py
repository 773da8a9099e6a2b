"""The day's figure and the other questions about what was measured."""

from datetime import timedelta

import pytest

from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.flows.devices import deploy, let_device_in
from cloche.apps.loggers.flows.take_in import Sent, take_in
from cloche.apps.places.models import Place
from cloche.apps.readings import selectors
from tests.conftest import NOW
from tests.factories import make_place, make_reading

YESTERDAY_EARLY, YESTERDAY_LATE = NOW - timedelta(hours=24.5), NOW - timedelta(hours=15.5)


@pytest.fixture
def bed(garden: Garden) -> Place:
    return make_place(garden)


def figure(garden: Garden) -> float | None:
    return next((read.mean_c for read in selectors.day_reads(garden, NOW).values()), None)


def test_the_day_s_figure_is_the_mean_of_an_early_and_a_late_reading(garden: Garden, bed: Place) -> None:
    """Common practice, no source."""
    make_reading(bed, YESTERDAY_EARLY, 12.0)
    make_reading(bed, YESTERDAY_LATE, 19.0)
    assert figure(garden) == 15.5


def test_the_newest_early_and_late_readings_count(garden: Garden, bed: Place) -> None:
    for at, value in ((YESTERDAY_EARLY, 2.0), (YESTERDAY_LATE, 19.0), (NOW - timedelta(minutes=30), 12.0)):
        make_reading(bed, at, value)
    assert figure(garden) == 15.5


@pytest.mark.parametrize("only", [YESTERDAY_EARLY, YESTERDAY_LATE])
def test_one_reading_is_no_day_s_figure(garden: Garden, bed: Place, only: object) -> None:
    make_reading(bed, only, 12.0)  # type: ignore[arg-type]
    assert figure(garden) is None


def test_old_removed_and_other_depths_readings_do_not_count(garden: Garden, bed: Place) -> None:
    make_reading(bed, YESTERDAY_EARLY, 12.0)
    make_reading(bed, YESTERDAY_LATE - timedelta(days=3), 19.0)
    make_reading(bed, YESTERDAY_LATE, 19.0, depth_m=0.15)
    make_reading(bed, YESTERDAY_LATE, 19.0, removed_at=NOW)
    assert figure(garden) is None


def test_the_newest_of_each_place(garden: Garden, bed: Place) -> None:
    other = make_place(garden, "Frame")
    make_reading(bed, YESTERDAY_EARLY, 1.0)
    make_reading(bed, YESTERDAY_LATE, 2.0)
    make_reading(bed, NOW, 3.0, removed_at=NOW)
    latest = selectors.latest_by_place(garden)
    assert latest == {bed.pk: selectors.Latest(YESTERDAY_LATE, 2.0)}
    assert other.pk not in latest


def test_points_are_thinned_evenly_and_in_order(bed: Place) -> None:
    for minute in range(900):
        make_reading(bed, NOW - timedelta(minutes=minute), 8.0, depth_m=0.1)
    points = selectors.points_between(bed, NOW - timedelta(days=2), NOW)
    assert 250 < len(points) <= selectors.MOST_POINTS
    assert [p.taken_at for p in points] == sorted(p.taken_at for p in points)


def test_a_logger_s_whole_day_is_its_mean_and_half_a_day_is_none(garden: Garden, bed: Place) -> None:
    device, _ = let_device_in(garden, "Logger", "C", None)
    deploy(device, "1", bed, bed.seed_depth_m)
    take_in(device, [Sent("1", 10.0 + h % 4, NOW - timedelta(hours=h)) for h in range(1, 15)])
    assert selectors.day_reads(garden, NOW) == {}
    take_in(device, [Sent("1", 10.0 + h % 4, NOW - timedelta(hours=h)) for h in range(15, 25)])
    assert selectors.day_reads(garden, NOW)[bed.pk].logged_c == pytest.approx(11.5, abs=0.1)
