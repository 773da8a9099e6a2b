"""Below its comfortable range a crop comes late, thin and over many days, and at last not at all."""

import numpy as np
import pytest

from cloche.bridge.services.crops import steady_outlooks
from cloche_engine.crops.catalogue import crop
from cloche_engine.germination.batch import Batch, BatchOutlook, foretell
from cloche_engine.germination.steady import FIELD_FACTOR, FIELD_LOG_SD, LOT_K, felt_by_lots, field_factors

KEYS = ["snap_bean", "carrot", "tomato", "sweet_corn"]


def lying(key: str, soil_c: float) -> BatchOutlook:
    grown = crop(key)
    batch = Batch(12, grown.sowing_depth_m, grown.sowing_depth_m, 100, 0.9, 12.0, (FIELD_FACTOR, FIELD_LOG_SD), (1.0, 0.0))
    return foretell(batch, np.full((200 * 24, 8), soil_c), grown)


@pytest.mark.parametrize("key", KEYS)
def test_the_cooler_the_later_and_the_wider(key: str) -> None:
    """Common practice, no source: seed in cold ground comes over weeks, in warm ground within days."""
    grown = crop(key)
    middles, widths = [], []
    for soil_c in (grown.optimum_from_c + 3, grown.optimum_from_c, grown.minimum_c + 1.0):
        early, middle, late = lying(key, soil_c).half_d
        middles.append(middle)
        widths.append((late - early) / middle)
    assert middles == sorted(middles)
    assert widths[2] > 1.2 * widths[0]


@pytest.mark.parametrize("key", KEYS)
def test_and_at_last_not_at_all(key: str) -> None:
    grown = crop(key)
    assert not np.isfinite(lying(key, max(grown.minimum_c - 6.0, 0.2)).half_d[1])
    assert steady_outlooks(max(grown.minimum_c - 6.0, 0.2), [grown])[0].days == np.inf


@pytest.mark.parametrize("key", KEYS)
def test_grid_and_sowing_agree_on_the_middle_day_where_both_give_one(key: str) -> None:
    grown = crop(key)
    for soil_c in np.arange(grown.minimum_c, grown.optimum_to_c, 2.0):
        grid = steady_outlooks(float(soil_c), [grown])[0].days
        if np.isfinite(grid):
            assert lying(key, float(soil_c)).half_d[1] == pytest.approx(grid, abs=1.0 + 0.05 * grid)


def test_lots_differ_in_cool_soil_alone_and_none_thaws_or_overheats() -> None:
    pace = field_factors(FIELD_FACTOR, FIELD_LOG_SD, 40, 1)
    soil_c = np.repeat(np.array([-3.0, 0.2, 8.0, 14.0, 20.0, 30.0, 60.0])[:, None], 40, axis=1)
    felt = felt_by_lots(soil_c, pace)
    assert felt.std(axis=1)[2:4] == pytest.approx([LOT_K, LOT_K], rel=0.02)
    assert felt.mean(axis=1)[2:] == pytest.approx(soil_c[2:, 0], abs=0.02)
    np.testing.assert_array_equal(felt[[0, 5, 6]], soil_c[[0, 5, 6]])
    assert (felt[1] >= 0.0).all()
    slowest, quickest = int(np.argmax(pace)), int(np.argmin(pace))
    assert felt[2, slowest] < 8.0 < felt[2, quickest]
    np.testing.assert_array_equal(felt_by_lots(soil_c, np.full(40, 1.1)), soil_c)
