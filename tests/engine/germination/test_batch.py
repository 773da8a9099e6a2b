"""A sowing that was made: foretold, counted, overdue, and what it teaches."""

import numpy as np
import pytest

from cloche_engine.crops.catalogue import crop
from cloche_engine.germination.batch import Batch, BatchOutlook, foretell
from cloche_engine.germination.pooling import STAND_LOG_SD, pooled, pooled_pace, stands
from cloche_engine.germination.steady import FIELD_FACTOR, FIELD_LOG_SD, days_to_emergence

RADISH = crop("radish")
SOIL = np.full((60 * 24, 8), 12.0)
EXPECTED_D = float(days_to_emergence(12.0, RADISH))


def outlook(seeds: int | None = 100, soil_c: np.ndarray = SOIL, **values: object) -> BatchOutlook:
    batch = Batch(12, 0.013, 0.013, seeds, **values)  # type: ignore[arg-type]
    return foretell(batch, soil_c, RADISH)


def counts(*pairs: tuple[float, int]) -> list[tuple[int, int]]:
    return [(12 + round(24 * days), up) for days, up in pairs]


def test_without_counts_it_is_the_steady_answer_within_the_soil_s_doubt() -> None:
    result = outlook()
    assert result.half_d[1] == pytest.approx(EXPECTED_D, abs=1)
    assert result.half_d[0] < result.half_d[1] < result.half_d[2]
    assert result.first_d[1] < result.half_d[1] < result.most_d[1]
    assert result.up[1, -1] == pytest.approx(90 * result.share, abs=2)
    assert (np.diff(result.up[1]) >= -1e-9).all()


def test_silence_means_failure_sooner_where_more_was_sown() -> None:
    few, many = outlook(5), outlook(500)
    assert many.overdue_d <= few.overdue_d
    assert EXPECTED_D * 0.6 < many.overdue_d < EXPECTED_D * 1.6


def test_a_poor_count_at_the_end_lowers_the_rate_and_a_late_one_the_pace() -> None:
    poor = outlook(counts=counts((EXPECTED_D * 2, 30)))
    assert poor.rate[0] < 0.75
    assert poor.up[1, -1] == pytest.approx(30, abs=4)
    late = outlook(counts=counts((EXPECTED_D, 5), (EXPECTED_D * 1.3, 45), (EXPECTED_D * 1.8, 85)))
    assert np.exp(late.pace[0]) > FIELD_FACTOR * 1.08
    assert late.pace[1] < FIELD_LOG_SD


def test_what_was_counted_is_not_taken_back() -> None:
    day = round(EXPECTED_D)
    result = outlook(counts=counts((day, 70)))
    assert result.up[0, -1] >= 70 - 1e-9
    assert result.up[2, -1] > 75
    assert result.up[1, day] == pytest.approx(70, abs=0.5)


def test_counts_of_nothing_while_it_is_early_change_little() -> None:
    early = outlook(counts=counts((EXPECTED_D * 0.4, 0)))
    assert early.half_d[1] == pytest.approx(outlook().half_d[1], abs=1)


def test_seed_that_never_moves_is_never_up_nor_overdue() -> None:
    result = outlook(soil_c=np.full((60 * 24, 8), -2.0))
    assert np.isinf(result.half_d).all()
    assert np.isinf(result.overdue_d)
    assert result.up.max() == 0


def test_a_garden_learns_its_pace_slowly() -> None:
    prior = (float(np.log(FIELD_FACTOR)), FIELD_LOG_SD)
    assert pooled_pace([]) == pytest.approx((FIELD_FACTOR, FIELD_LOG_SD))
    slow = float(np.log(1.5))
    single, many = pooled_pace([(slow, 0.05, *prior)]), pooled_pace([(slow, 0.05, *prior)] * 12)
    assert FIELD_FACTOR < single[0] < 1.42
    assert single[0] < many[0] < 1.56
    assert many[1] < single[1] < FIELD_LOG_SD


def test_what_one_began_with_is_taken_out_of_what_it_teaches() -> None:
    """A batch that saw nothing new tells nothing, whatever it began with."""
    assert pooled_pace([(float(np.log(1.4)), 0.1, float(np.log(1.4)), 0.1)]) == pytest.approx((FIELD_FACTOR, FIELD_LOG_SD))


def test_a_thin_stand_does_not_blame_good_seed() -> None:
    """Common practice, no source: of good seed some seven in ten stand in a garden's bed."""
    seen = counts((EXPECTED_D * 2, 62))
    alone, bed = outlook(counts=seen), outlook(counts=seen, stand=(0.7, STAND_LOG_SD))
    assert alone.rate[0] < 0.76
    assert bed.rate[0] > 0.85
    assert bed.up[1, -1] == pytest.approx(62, abs=4)
    assert outlook(stand=(0.7, STAND_LOG_SD)).up[1, -1] == pytest.approx(0.7 * outlook().up[1, -1], abs=3)


def test_seed_that_was_tested_leaves_the_ground_to_blame() -> None:
    seen = counts((EXPECTED_D * 2, 40))
    tested, unknown = (outlook(counts=seen, stand=(0.7, STAND_LOG_SD), strength=s) for s in (200.0, 6.0))
    assert tested.rate[0] > 0.85
    assert tested.stand[0] < unknown.stand[0] < np.log(0.7)
    slow = pooled([(tested.stand[0] - np.log(0.7), tested.stand[1], 0.0, STAND_LOG_SD)] * 6, 1.0, STAND_LOG_SD)
    assert slow[0] < 0.9


def test_the_posterior_covers_the_truth_about_as_often_as_it_says() -> None:
    """Sowings drawn from the model's own doubt: the band of the final count holds about eight times in ten."""
    rng = np.random.default_rng(5)
    inside, share = [], outlook().share
    for _ in range(60):
        rate, pace = rng.beta(0.9 * 12, 0.1 * 12), FIELD_FACTOR * np.exp(FIELD_LOG_SD * rng.standard_normal())
        days = pace / float(RADISH.rate.at(12.0)) * np.exp(RADISH.spread_log_sd * rng.standard_normal(100))
        alive = rng.random(100) < rate * share
        first = int((alive & (days <= EXPECTED_D)).sum())
        result = outlook(counts=counts((EXPECTED_D, first)))
        final = int(alive.sum())
        inside.append(result.up[0, -1] - 1.5 <= final <= result.up[2, -1] + 1.5)
    assert 0.7 <= np.mean(inside) <= 0.97


def test_what_stands_is_a_field_factor_as_handbooks_have_it() -> None:
    """Field factors of 0.5 to 0.8 for seed in the open (from memory of handbooks); on a bench nearly all comes through."""
    for key in ("carrot", "onion", "lettuce", "pea", "snap_bean"):
        assert 0.5 <= stands(crop(key)) <= 0.8
        assert stands(crop(key), bench=True) > 0.9
    assert stands(crop("garlic_autumn")) > 0.9
