import numpy as np
import pytest

from cloche_engine.soil.drift import balanced


def test_members_lie_about_nothing_and_spread_as_they_should() -> None:
    drawn = balanced(np.random.default_rng(1), 2000, 40)
    assert np.abs(drawn.mean(axis=1)).max() < 1e-12
    assert drawn.std() == pytest.approx(1.0, abs=0.02)


def test_a_longer_course_begins_as_a_shorter_one() -> None:
    long, short = (balanced(np.random.default_rng(2), rows, 40) for rows in (50, 20))
    np.testing.assert_array_equal(long[:20], short)


def test_one_member_is_drawn_as_it_comes() -> None:
    assert balanced(np.random.default_rng(3), 5, 1).std() > 0
