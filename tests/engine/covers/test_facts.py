"""What growers know of covers, as the priors give it without any reading. Common practice, no source, unless said."""

from datetime import date

import numpy as np
import pytest

from cloche_engine.covers.kinds import kind, kinds
from cloche_engine.covers.periods import Vent
from cloche_engine.errors import UnknownCover
from cloche_engine.soil.bed import Bed, Event, Work
from tests.engine.weathers import MIXED_D, closed_and, spell, trajectories, under

MARCH = date(2026, 3, 14)
LAST = slice((MIXED_D + 2) * 24, (MIXED_D + 3) * 24)
DAWN = slice((MIXED_D + 2) * 24 + 3, (MIXED_D + 2) * 24 + 7)


def test_a_clear_day_near_freezing_is_warmer_inside_than_a_dull_one_ten_degrees_milder() -> None:
    """Late in March, closed: of the afternoon inside; of soil at 5 cm after three such days, under twin-wall."""
    keys = ["twin_wall_frame", "glass_frame", "film_tunnel"]
    covers = [under(key) for key in keys]
    clear, dull = (trajectories(spell(MARCH, *days), covers) for days in ((-3, 4, 0.97), (7, 14, 0.25)))
    warmer = [float(bright.air_c[LAST].max() - grey.air_c[LAST].max()) for bright, grey in zip(clear, dull, strict=True)]
    assert warmer[0] > warmer[1] > warmer[2] > 0
    assert warmer[1] > 1
    assert clear[0].at(0.05)[LAST].mean() > dull[0].at(0.05)[LAST].mean()


def test_covered_soil_does_not_freeze_on_ordinary_nights_and_does_on_hard_ones() -> None:
    covers = [None, under("film_tunnel"), under("glass_frame")]
    ordinary = trajectories(spell(date(2026, 3, 10), -3, 6, 0.8), covers)
    frozen = [bool(trajectory.at(0.0)[MIXED_D * 24 :].min() < -0.05) for trajectory in ordinary]
    assert frozen == [True, False, False]
    hard = trajectories(spell(date(2026, 2, 1), -19, -8, 0.7, days=6), covers)
    assert all(trajectory.at(0.0)[MIXED_D * 24 :].min() < -0.05 for trajectory in hard[1:])


def test_mulch_keeps_winter_soil_warmer_and_spring_soil_cooler() -> None:
    for first, low, high, warmer in ((date(2026, 1, 5), -6, -1, True), (date(2026, 4, 10), 8, 21, False)):
        weather = spell(first, low, high, 0.7, days=8)
        bare, mulched = (trajectories(weather, [None], bed)[0].at(0.05)[-72:].mean() for bed in (Bed(), Bed(mulch_m=0.06)))
        assert bool(mulched > bare) is warmer


def test_at_dawn_films_lie_below_glass_and_glass_below_twin_wall() -> None:
    """From physics: plain film lets infrared through, glass does not, twin-wall insulates besides."""
    order = ["film_tunnel", "thermal_tunnel", "glass_frame", "twin_wall_frame"]
    dawn = [
        trajectory.air_c[DAWN].min() for trajectory in trajectories(spell(MARCH, -3, 6, 0.97), [under(key) for key in order])
    ]
    assert dawn[0] <= dawn[1] + 0.05
    assert dawn[1] < dawn[2] < dawn[3]
    assert dawn[2] > dawn[0] + 0.5


def test_a_dry_film_over_cold_dry_soil_falls_below_outside_air() -> None:
    """From physics: it inverts on clear nights when the soil has little to give."""
    weather = spell(date(2026, 1, 20), -6, 1, 0.97, days=5, wind=0.5)
    covered = trajectories(weather, [under("film_tunnel")], Bed(wetness=0.02, texture="sand", moist=0.1, mulch_m=0.05))[0]
    inside, outside = covered.air_c[:, 0], weather.air_c[:, 0]
    night = [day * 24 + hour for day in range(MIXED_D + 2, MIXED_D + 5) for hour in (2, 3, 4, 5)]
    assert (inside[night] < outside[night]).any()


@pytest.mark.parametrize("opening", [0.2, 0.5, 1.0])
@pytest.mark.parametrize("days", [(-3, 4, 0.97), (8, 13, 0.25), (12, 28, 0.95)])
def test_opening_never_takes_the_inside_further_from_the_outside(opening: float, days: tuple[float, float, float]) -> None:
    """Hour by hour over the first opened day, soils alike at its start."""
    weather = spell(date(2026, 4, 20), *days)
    shut, opened = trajectories(weather, closed_and(opening))
    first = slice(0, 20)
    outside = weather.air_c[first]
    assert (np.abs(opened.air_c[first] - outside) <= np.abs(shut.air_c[first] - outside) + 0.35).all()


def test_an_open_frame_is_cooler_by_day() -> None:
    shut, aired = trajectories(spell(date(2026, 5, 1), 8, 22, 0.9), closed_and(1.0, from_h=10.0, to_h=16.0))
    assert aired.air_c[LAST].max() < shut.air_c[LAST].max() - 3


def test_a_rule_opens_no_further_than_needed() -> None:
    warm = spell(date(2026, 5, 1), 8, 22, 0.9)
    ruled = trajectories(warm, [under("glass_frame", vent=Vent(1.0, above_c=24.0))])[0]
    shut = trajectories(warm, [under("glass_frame")])[0]
    assert ruled.air_c[LAST].max() < shut.air_c[LAST].max()
    assert 0 < ruled.opening[LAST].max() <= 1
    night = slice(LAST.start, LAST.start + 4)
    assert ruled.opening[night].max() < 0.01


def test_narrow_covers_gain_less() -> None:
    """Share of the one-dimensional gain at 5 cm after 21 days, between middle and mean of a two-dimensional trial."""
    weather = spell(date(2026, 3, 25), 3, 13, 0.65, days=12)
    widths = (0.3, 0.6, 0.9, 1.2)
    covers = [None, *(under("film_tunnel", width_m=w) for w in widths), under("film_tunnel", width_m=4.0)]
    means = np.array([trajectory.at(0.05)[-72:].mean() for trajectory in trajectories(weather, covers)])
    share = (means[1:-1] - means[0]) / (means[-1] - means[0])
    assert share == pytest.approx([0.475, 0.675, 0.77, 0.83], abs=0.05)


def test_open_ends_and_blankets_do_what_they_are_for() -> None:
    covers = [under("bent_sheet"), under("bent_sheet", ends_capped=False), under("bent_sheet", blanket=(18.0, 8.0))]
    capped, draughty, blanket = trajectories(spell(MARCH, -3, 6, 0.97), covers)
    assert draughty.air_c[LAST].max() < capped.air_c[LAST].max() - 1
    assert blanket.air_c[DAWN].min() > capped.air_c[DAWN].min() + 0.5


def test_a_cover_put_on_warms_from_that_hour() -> None:
    weather = spell(date(2026, 4, 1), 3, 14, 0.8, days=10)
    from dataclasses import replace

    later = replace(under("film_tunnel"), start_h=16 * 24.0)
    bare, covered = trajectories(weather, [None, later])
    before = covered.at(0.05)[: 16 * 24] - bare.at(0.05)[: 16 * 24]
    assert np.abs(before).max() < 1e-3
    assert covered.at(0.05)[-24:].mean() > bare.at(0.05)[-24:].mean() + 2


def test_watered_ground_is_cooler_by_day_and_a_canopy_shades_it() -> None:
    weather = spell(date(2026, 5, 20), 10, 26, 0.95, days=8)
    at = (MIXED_D + 4) * 24 + 8.0
    dry = trajectories(weather, [None], Bed())[0].at(0.05)[-60:].max()
    for work in (Work.WATERED, Work.CANOPY, Work.MULCHED):
        done = trajectories(weather, [None], Bed().with_events(Event(work, at)))[0].at(0.05)[-60:].max()
        assert done < dry, work


def test_every_kind_has_values_a_source_and_a_confidence() -> None:
    assert len(kinds()) >= 15
    for row in kinds().values():
        assert 0 < row.solar < 1
        assert 0 <= row.infrared + row.emissivity <= 1.02
        assert row.source
        assert row.confidence in ("high", "medium", "low")


def test_a_cover_that_is_none_is_refused() -> None:
    with pytest.raises(UnknownCover):
        kind("umbrella")


def test_a_rule_opens_and_shuts_smoothly_through_a_fair_day() -> None:
    """Wider towards the hottest hour and narrower after it, not to and fro from hour to hour."""
    weather = spell(date(2026, 4, 20), 8, 20, 0.9, days=4)
    for key in ("twin_wall_arch", "glass_frame", "film_tunnel"):
        opening = trajectories(weather, [under(key, vent=Vent(0.4, above_c=20.0))])[0].opening[LAST, 0]
        top = int(opening.argmax())
        assert opening.max() > 0.1
        assert (np.diff(opening[:top]) > -0.02).all()
        assert (np.diff(opening[top:]) < 0.02).all()
