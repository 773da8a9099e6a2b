"""What cold a kind stands, after what was seen."""

import numpy as np
import pytest
from scipy.integrate import quad
from scipy.stats import norm

from cloche_engine.windows.learned_limit import PRIOR_SD_K, SLIP, SOFT_K, Seen, learned_limit


def test_nothing_seen_leaves_what_is_listed() -> None:
    limit = learned_limit(-8.0, [])
    assert (limit.limit_c, limit.sd_k) == pytest.approx((-8.0, PRIOR_SD_K), abs=0.02)


def test_as_an_integral_has_it() -> None:
    """A plant that stood -9 °C and one that died at -11 °C, against SciPy's integration of the same posterior."""

    def weight(limit: float) -> float:
        stood, died = (SLIP + (1 - 2 * SLIP) * norm.cdf((limit - low) / SOFT_K) for low in (-9.0, -11.0))
        return float(norm.pdf(limit, -8.0, PRIOR_SD_K) * (1 - stood) * died)

    whole = quad(weight, -18, 2)[0]
    mean = quad(lambda limit: limit * weight(limit), -18, 2)[0] / whole
    # Each was alone, and a lone plant's word counts as one plant's.
    assert learned_limit(-8.0, [Seen(-9.0, 1, 0), Seen(-11.0, 0, 1)]).limit_c == pytest.approx(mean, abs=0.02)


def test_it_moves_no_further_than_what_was_seen() -> None:
    assert learned_limit(-6.0, [Seen(-7.5, 4, 0)]).limit_c == -7.5
    assert learned_limit(-6.0, [Seen(-5.0, 0, 4)]).limit_c <= -5.0


def test_what_stands_lowers_it_and_what_dies_raises_it() -> None:
    stood, died = learned_limit(-6.0, [Seen(-8.0, 20, 0)]), learned_limit(-6.0, [Seen(-4.0, 0, 20)])
    assert stood.limit_c < -7.0
    assert died.limit_c > -5.0
    assert max(stood.sd_k, died.sd_k) < PRIOR_SD_K


def test_a_hundred_plants_of_one_night_are_one_night() -> None:
    few, many = learned_limit(-6.0, [Seen(-8.0, 4, 0)]), learned_limit(-6.0, [Seen(-8.0, 100, 0)])
    assert few.limit_c == pytest.approx(many.limit_c)


def test_nights_of_known_truth_find_it() -> None:
    rng = np.random.default_rng(3)
    truth, seen = -9.5, []
    for low in rng.uniform(-13, -5, 60):
        dead = rng.binomial(10, norm.cdf((truth - low) / SOFT_K))
        seen.append(Seen(float(low), 10 - int(dead), int(dead)))
    limit = learned_limit(-7.0, seen)
    assert limit.limit_c == pytest.approx(truth, abs=0.6)
    assert limit.nights == 60
