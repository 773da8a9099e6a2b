"""A planned bench put through the engine: what more watts, a thicker layer, a dry one, a colder room and no lid do to it."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import pytest

from cloche.bridge.services.bench import PlannedBench, Warmth, warmth_of
from cloche_engine.heat.build import Cable, lay

USUAL = PlannedBench(under_m=0.025, over_m=0.07, mix_m=0.05, filling="sharp_sand", wet=True, lid=True, room_c=5.0, hold_c=18.0)


def built(planned: PlannedBench = USUAL, cable_m: float = 8.0, w_m: float = 10.0) -> Warmth:
    """A bench of 4 by 2 ft with a cable of so many metres."""
    return warmth_of(planned, lay(1.22, 0.61, Cable(cable_m, w_m)))


@pytest.fixture(scope="module")
def usual() -> Warmth:
    return built()


def test_a_usual_bench_lifts_its_trays_by_about_fifteen_degrees_within_a_day_or_two(usual: Warmth) -> None:
    """Common practice, no source: a sand bench takes a day or two to warm through."""
    assert usual.lift_k == pytest.approx(15, abs=3)
    assert 12 < usual.hours < 60
    assert usual.duty is not None
    assert 0.5 < usual.duty < 1.0


def test_its_course_rises_and_flattens(usual: Warmth) -> None:
    rises = [after - before for before, after in pairwise(usual.course_c)]
    assert rises[1] > rises[10] > -0.05
    assert abs(rises[-1]) < 0.1
    assert usual.course_c[-1] == pytest.approx(USUAL.room_c + usual.lift_k, abs=0.3)


def test_more_watts_lift_further_and_are_on_for_less(usual: Warmth) -> None:
    strong = built(w_m=14.0)
    assert strong.lift_k > 1.2 * usual.lift_k
    assert strong.duty is not None
    assert usual.duty is not None
    assert strong.duty < usual.duty
    # What is held costs the same, however strong the cable.
    assert strong.duty * 14.0 == pytest.approx(usual.duty * 10.0, rel=0.1)


def test_a_cable_too_weak_is_said_to_be(usual: Warmth) -> None:
    weak = built(w_m=4.0)
    assert weak.duty is None
    assert weak.lift_k < 13


def test_a_warmer_room_asks_less_of_it(usual: Warmth) -> None:
    mild = built(replace(USUAL, room_c=12.0))
    assert mild.duty is not None
    assert usual.duty is not None
    assert mild.duty < 0.6 * usual.duty
    assert built(replace(USUAL, room_c=20.0)).duty == 0.0


def test_without_a_lid_the_trays_stay_colder(usual: Warmth) -> None:
    assert built(replace(USUAL, lid=False)).lift_k < usual.lift_k - 2


@pytest.mark.parametrize("filling", ["vermiculite", "perlite"])
def test_a_dry_layer_keeps_the_heat_below(filling: str) -> None:
    wet, dry = (built(replace(USUAL, filling=filling, wet=wet)).lift_k for wet in (True, False))
    assert dry < wet


def test_a_thick_layer_is_slower_to_warm() -> None:
    thin, thick = (built(replace(USUAL, over_m=over)).hours for over in (0.03, 0.15))
    assert thick > 1.3 * thin
