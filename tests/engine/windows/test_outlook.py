from datetime import date, timedelta

import numpy as np
import pytest

from cloche_engine.crops.catalogue import crop
from cloche_engine.weather.record import DailyRecord
from cloche_engine.windows.limits import HALF, SENSIBLE, Limit, longest_in_soil_d
from cloche_engine.windows.outlook import Outlook, sowing_outlook
from cloche_engine.windows.season import Bed, Season

DAYS, MEMBERS = 366, 12
CANDIDATES = np.arange(0, 240)


def year(mean_c: float = 9.0, half_swing_k: float = 10.0, start_doy: int = 60, shelter_k: float = 0.0) -> Bed:
    """A plain northern year from 1 March, members a little apart, soil following air."""
    rng = np.random.default_rng(4)
    doy = start_doy + np.arange(DAYS)
    season = mean_c + half_swing_k * np.cos(2 * np.pi * (doy - 203) / 365.25)
    mean = season[:, None] + rng.normal(0, 0.7, (1, MEMBERS))
    hour = np.arange(24)
    soil = np.repeat(mean + 1.0, 24, axis=0) + np.tile(3 * np.cos(2 * np.pi * (hour - 16) / 24), DAYS)[:, None]
    first = date(2026, 1, 1) + timedelta(days=start_doy - 1)
    low = mean - 6.5 + shelter_k
    return Bed.of(np.clip(soil, -5, 45), Season.of(DailyRecord.of(first, low, mean + 5), 48.0))


def warm_soil(shelter_k: float = 0.0) -> Bed:
    """The same year over soil that is warm all along."""
    always = np.full((DAYS * 24, MEMBERS), 22.0)
    return Bed.of(always, year(shelter_k=shelter_k).season)


def look(key: str, **values: float) -> Outlook:
    return sowing_outlook(crop(key), year(**values), CANDIDATES)


def test_hardy_and_cheap_goes_first_tender_last() -> None:
    """Common practice, no source."""
    first = {key: look(key).windows[0].earliest for key in ("spinach", "carrot", "snap_bean", "squash")}
    assert first["spinach"] < first["carrot"] < first["snap_bean"]
    assert first["carrot"] < first["squash"]


def test_best_days_lie_within_the_window() -> None:
    for key in ("carrot", "lettuce", "snap_bean", "radish"):
        for window in look(key).windows:
            assert window.earliest <= window.best_from <= window.best_to <= window.last
            assert SENSIBLE <= window.probability <= 1


def test_a_cold_start_is_named_as_the_reason() -> None:
    result = look("carrot")
    assert result.windows[0].opens_after is Limit.COLD
    assert result.failing[Limit.COLD][0] > 0.5


def test_frost_holds_tender_crops_back_though_the_soil_is_warm() -> None:
    result = sowing_outlook(crop("cucumber"), warm_soil(), CANDIDATES)
    assert result.windows[0].opens_after in (Limit.FROST, Limit.NIGHTS)
    assert result.windows[0].earliest > 20


def test_a_cover_opens_the_window_earlier() -> None:
    covered, bare = (sowing_outlook(crop("cucumber"), warm_soil(k), CANDIDATES).windows[0].earliest for k in (3.0, 0.0))
    assert covered < bare - 5


def test_the_end_counts_back_from_the_end_of_the_season() -> None:
    result = look("snap_bean")
    window = result.windows[-1]
    assert window.closes_before in (Limit.SEASON, Limit.LATE_FROST)
    # Sown on the last day it is ripe before growth ends, in the second half of September.
    assert 110 < window.last < 170


def test_where_spring_turns_hot_cool_crops_end_by_heat() -> None:
    """Common practice, no source: peas must go in very early where spring turns hot."""
    result = look("pea", mean_c=15.0)
    assert result.windows[0].closes_before in (Limit.HEAT, Limit.HOT)
    assert result.windows[0].last < 65


def test_a_crop_without_a_window_says_what_stands_in_the_way() -> None:
    result = look("okra", mean_c=2.0)
    assert result.windows == []
    assert result.main_limit is Limit.COLD


def test_colder_soil_takes_longer() -> None:
    result = look("carrot")
    middle = result.days_to[HALF, 1]
    assert middle[30] > middle[90]


def test_quick_seed_shows_before_slow_seed() -> None:
    result = look("carrot")
    finite = np.isfinite(result.days_to[-1, 2])
    assert (np.diff(result.days_to[:, 1, finite], axis=0) > 0).all()
    assert (np.diff(result.days_to[:, :, finite], axis=1) >= 0).all()


def test_probabilities_and_shares_are_between_none_and_all() -> None:
    result = look("lettuce")
    for values in (result.success, result.share, *result.failing.values()):
        assert (values >= 0).all()
        assert (values <= 1).all()


@pytest.mark.parametrize("key", ["radish", "carrot", "parsnip", "asparagus"])
def test_seed_may_lie_three_to_eight_weeks_by_its_nature(key: str) -> None:
    assert 21 <= longest_in_soil_d(crop(key)) <= 56


def test_hardy_seed_may_lie_longer_than_tender() -> None:
    """Common practice, no source: peas sown in March lie six weeks and come up; beans would have rotted."""
    assert longest_in_soil_d(crop("pea")) >= 42 > 30 >= longest_in_soil_d(crop("snap_bean"))
