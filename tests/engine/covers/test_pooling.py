"""What one place teaches about a cover counts elsewhere: in full for the same cover, with wider doubt for its kind."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche_engine.covers.pooling import Message, message, pooled, strange

USUAL_SD = 0.7


def test_a_message_is_what_the_readings_add() -> None:
    """By Bayes: prior times message is the posterior."""
    prior, posterior = (0.1, 0.7), (0.5, 0.3)
    params = message("bell", 4, prior, posterior)
    precision = 1 / prior[1] ** 2 + 1 / params.sd**2
    assert 1 / np.sqrt(precision) == pytest.approx(posterior[1])
    assert (prior[0] / prior[1] ** 2 + params.middle / params.sd**2) / precision == pytest.approx(posterior[0])
    assert not message("bell", 4, prior, prior).weighs


def test_the_same_cover_counts_nearly_in_full_and_its_kind_for_less() -> None:
    params = [Message("film_tunnel", 7, 0.8, 0.1)]
    same, kin, other = (
        pooled(key, item, params, USUAL_SD) for key, item in (("film_tunnel", 7), ("film_tunnel", 8), ("bell", 7))
    )
    assert same[0] == pytest.approx(0.8, abs=0.15)
    assert 0.2 < kin[0] < same[0] - 0.2
    assert other == (0.0, USUAL_SD)
    assert same[1] < kin[1] < USUAL_SD


def test_many_of_a_kind_tell_more_than_one() -> None:
    single, four = ([Message("fleece", number, 0.8, 0.2) for number in range(count)] for count in (1, 4))
    assert pooled("fleece", None, four, USUAL_SD)[0] > pooled("fleece", None, single, USUAL_SD)[0]
    assert pooled("fleece", None, four, USUAL_SD)[1] < pooled("fleece", None, single, USUAL_SD)[1]


@given(st.lists(st.tuples(st.integers(0, 3), st.floats(-6, 6), st.floats(0.05, 3)), max_size=6))
def test_it_is_never_surer_than_the_same_cover_read_nor_wilder_than_is_believable(rows: list[tuple[int, float, float]]) -> None:
    params = [Message("bin", item or None, middle, sd) for item, middle, sd in rows]
    middle, sd = pooled("bin", 1, params, USUAL_SD)
    assert abs(middle) <= 2 * USUAL_SD
    assert 0 < sd <= USUAL_SD + 1e-9


def test_what_is_beyond_belief_is_asked_about() -> None:
    assert strange(Message("bin", None, 2.0, 0.2), USUAL_SD)
    assert not strange(Message("bin", None, 2.0, 0.8), USUAL_SD)
    assert not strange(Message("bin", None, 1.0, 0.1), USUAL_SD)
