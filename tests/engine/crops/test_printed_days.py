"""Days to harvest as packets print them: from sowing, from when it is up, or from planting out."""

import pytest

from cloche.bridge.services.crops import crop
from cloche_engine.crops.grown import with_values


def test_days_from_sowing_leave_out_the_days_until_it_is_up() -> None:
    """Common practice, no source: radish packets say 25 to 28 days from sowing, of which some five pass before it is up."""
    radish = crop("radish")
    said = with_values(radish, {"maturity_sown_d": 28.0})
    assert 20 <= said.maturity_d <= 24.5
    assert said.maturity_sown_d == pytest.approx(28.0)


def test_days_from_planting_are_taken_as_they_are() -> None:
    tomato = with_values(crop("tomato"), {"maturity_planted_d": 60.0})
    assert tomato.maturity_planted_d == 60.0
    assert tomato.maturity_d == crop("tomato").maturity_d


def test_days_from_emergence_move_those_from_planting_in_step() -> None:
    grown = crop("broccoli")
    said = with_values(grown, {"maturity_d": grown.maturity_d * 1.2})
    assert said.maturity_planted_d == pytest.approx(grown.maturity_planted_d * 1.2)


def test_no_packet_makes_a_crop_ripe_before_it_is_up() -> None:
    assert with_values(crop("parsnip"), {"maturity_sown_d": 12.0}).maturity_d >= 10


@pytest.mark.parametrize(
    ("key", "least_d", "most_d"), [("carrot", 70, 95), ("pea", 60, 80), ("snap_bean", 55, 72), ("beet", 60, 85)]
)
def test_the_table_s_own_days_from_sowing_are_those_of_packets(key: str, least_d: float, most_d: float) -> None:
    """Common practice, no source."""
    assert least_d <= crop(key).maturity_sown_d <= most_d
