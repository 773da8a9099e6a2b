"""The catalogue against the published tables it is built from (all written down from memory of their source)."""

import json

import numpy as np
import pytest

from cloche_engine.crops import build, knots
from cloche_engine.crops.catalogue import catalogue, crop
from cloche_engine.errors import UnknownCrop
from cloche_engine.germination.steady import days_to_emergence


def test_at_least_sixty_crops_each_with_its_sources() -> None:
    assert len(catalogue()) >= 60
    for crop_row in catalogue().values():
        assert crop_row.rate_source
        assert crop_row.share_source
        assert crop_row.advice_source
        assert crop_row.growing_source


def test_the_shipped_catalogue_is_what_the_script_builds() -> None:
    shipped = json.loads((knots.DATA / "catalogue.json").read_text(encoding="utf-8"))
    assert json.loads(json.dumps(build.build())) == shipped


@pytest.mark.parametrize(
    ("key", "minimum_f", "optimum_f"),
    # Harrington's conditions as reprinted in Knott's Handbook
    [("pea", 40, (40, 75)), ("okra", 60, (70, 95)), ("muskmelon", 60, (75, 95)), ("carrot", 40, (45, 85))],
)
def test_advice_is_the_published_one(key: str, minimum_f: float, optimum_f: tuple[float, float]) -> None:
    grown = crop(key)
    assert grown.minimum_c * 1.8 + 32 == pytest.approx(minimum_f)
    assert (grown.optimum_from_c * 1.8 + 32, grown.optimum_to_c * 1.8 + 32) == pytest.approx(optimum_f)


def test_an_unknown_crop_is_named_in_the_refusal() -> None:
    with pytest.raises(UnknownCrop, match="triffid"):
        crop("triffid")


def test_half_a_degree_fahrenheit_is_within_a_printed_whole_degree() -> None:
    turnip = crop("turnip")  # optimum from 60 °F, which is 15.56 °C
    assert turnip.comfortable_at(15.5)
    assert not turnip.comfortable_at(15.2)


def test_growing_values_are_within_what_is_possible() -> None:
    for crop_row in catalogue().values():
        assert crop_row.minimum_c <= crop_row.optimum_from_c <= crop_row.optimum_to_c <= crop_row.maximum_c
        # Pumpkin's best, 95 °F, is printed above its best range, 70 to 90 °F.
        assert crop_row.optimum_from_c <= crop_row.optimum_c <= crop_row.optimum_to_c or crop_row.key == "pumpkin"
        assert 0.002 <= crop_row.sowing_depth_m <= (0.15 if crop_row.usual_method == "planted" else 0.06)
        assert 20 <= crop_row.maturity_d <= 200
        assert -15 <= crop_row.frost_limit_c < 3


def test_a_crop_that_moves_at_freezing_stops_a_degree_below() -> None:
    assert knots.rate_knots({0.0: 49.0, 5.0: 15.0}, 30.0, None)[0] == (-1.0, 0.0)


def test_a_cold_end_runs_to_the_heat_sum_base() -> None:
    assert knots.rate_knots({10.0: 20.0, 15.0: 10.0}, 30.0, knots.HeatSum(3.0, 100.0))[0] == (3.0, 0.0)


def test_a_hot_end_stops_at_the_higher_of_table_and_advice() -> None:
    assert knots.rate_knots({0.0: None, 25.0: 5.0}, 35.0, None)[-1] == (35.0, 0.0)
    assert knots.rate_knots({0.0: None, 35.0: 5.0}, 35.0, None)[-1] == (40.0, 0.0)


def test_poor_lots_are_measured_against_their_own_best() -> None:
    assert dict(knots.relative_share({20.0: 0.21, 30.0: 0.60}))[30.0] == 1.0


def test_kin_lends_its_pace() -> None:
    """Pak choi shows in four fifths of a cabbage's days (assumption)."""
    assert days_to_emergence(20.0, crop("pak_choi")) == pytest.approx(0.8 * float(days_to_emergence(20.0, crop("cabbage"))))
    assert crop("pak_choi").rate_source.startswith("assumption: as cabbage in 0.8 times the days")


def test_what_is_planted_shoots_by_soil_temperature_alone() -> None:
    potato = crop("potato_maincrop")
    assert (potato.start, potato.usual_method) == ("tuber", "planted")
    cool, middle, warm, cold, hot = (float(days_to_emergence(c, potato)) for c in (8.0, 12.0, 18.0, 1.0, 35.0))
    assert (cool, middle, warm) == pytest.approx((35.0, 24.0, 16.0), rel=0.02)
    assert np.isinf([cold, hot]).all()


@pytest.mark.parametrize(
    ("key", "weeks"), [("potato_first_early", (10, 12)), ("potato_second_early", (12, 16)), ("potato_maincrop", (16, 20))]
)
def test_potatoes_are_ready_in_their_weeks(key: str, weeks: tuple[int, int]) -> None:
    """Common practice, no source."""
    grown = crop(key)
    in_weeks = (float(days_to_emergence(15.0, grown)) + grown.maturity_d) / 7
    assert weeks[0] <= in_weeks <= weeks[1]


def test_standing_room_and_raising_are_within_what_is_possible() -> None:
    for crop_row in catalogue().values():
        assert 0.01 < crop_row.plant_m <= crop_row.row_m < 3.0, crop_row.key
        assert 1 <= crop_row.per_station <= 10
        assert 0 <= crop_row.raise_weeks <= 12
        assert (crop_row.raise_weeks > 0) or crop_row.usual_method != "raised", crop_row.key
        assert 0.05 < crop_row.height_m < 3.0


def test_sixteen_radishes_or_carrots_stand_in_a_square_foot() -> None:
    """Common practice, no source: at stations three inches apart; Cloche's rows are no denser than that allows."""
    for key in ("radish", "carrot"):
        grown = crop(key)
        assert grown.plant_m <= 0.0762
        assert 0.3048**2 / (grown.plant_m * grown.row_m) < 20


def test_most_crops_are_offered_only_once_they_are_chosen() -> None:
    usual = [crop_row.key for crop_row in catalogue().values() if crop_row.usual]
    assert 25 < len(usual) < 40
    assert {"carrot", "pea", "tomato"} <= set(usual)
    assert "scorzonera" not in usual
