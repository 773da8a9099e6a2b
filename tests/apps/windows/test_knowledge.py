"""How well a place is known, in words with figures."""

from typing import Any

import pytest

from cloche.apps.forecasts.models import Forecast
from cloche.apps.forecasts.selectors import Ground
from cloche.apps.places.models import Place
from cloche.apps.windows.pages.knowledge import Knowledge, knowledge_of
from cloche.bridge.values.units import Units
from tests.stored import stored_forecast


def said(units: Units | None = None, **values: Any) -> Knowledge:
    usual = {"band_k": {1: 1.0, 3: 1.5, 7: 2.0, 14: 3.0}, "readings_used": 16, "weather_days": 15}
    return knowledge_of(Ground(Place(), Forecast(ground=stored_forecast(**usual | values))), units or Units())


def test_it_rests_on_what_was_read() -> None:
    assert said(readings_used=0).headline.startswith("No readings yet")
    assert "four or five more days" in said(readings_used=3).headline
    assert said().headline == "Tomorrow’s soil temperature is known to within about ±1.0°."
    assert "within ±2.0° a week ahead and ±3.0° two weeks ahead" in said().rests_on
    assert "16 readings from the last two months and on the air temperatures of 15 days" in said().rests_on


def test_differences_are_in_the_person_s_degrees() -> None:
    assert said(Units("F", "in")).headline == "Tomorrow’s soil temperature is known to within about ±1.8°."


def test_its_record_is_told_by_lead() -> None:
    record = said(checks=[[1, 20, 0.8, 0.85], [7, 12, 1.6, 0.75]]).record
    assert "The error was 0.8° a day ahead and 1.6° a week ahead" in record
    assert "Of 20 readings forecast a day ahead, 85% were within the band" in record
    assert said().record == ""


@pytest.mark.parametrize(
    ("parameters", "words"),
    [
        ({"sun": [1.05, 1.2, 1.4]}, "it absorbs more sun (1.2 times the usual)"),
        ({"exchange": [0.3, 0.5, 0.9]}, "its cover leaks less air (0.5 times the usual)"),
        ({"deep_k": [0.5, 1.5, 2.5]}, "its soil at depth is 1.5° warmer than assumed"),
        ({"room_k": [-3.0, -2.0, -1.0]}, "its room is 2.0° colder than assumed"),
    ],
)
def test_what_sets_it_apart_is_said_where_it_is_clear(parameters: dict[str, list[float]], words: str) -> None:
    assert words in said(parameters=parameters).learned
    assert said(parameters=parameters, readings_used=0).learned == ""


def test_what_is_not_clear_is_not_said() -> None:
    assert said(parameters={"sun": [0.9, 1.2, 1.4], "deep_k": [-1.0, 1.0, 3.0], "wetter": [-0.1, 0.1, 0.3]}).learned == ""


def test_water_that_nobody_wrote_down_is_asked_about() -> None:
    assert "Was it watered" in said(parameters={"wetter": [0.1, 0.2, 0.3]}).wetter
    assert "Was it cleared" in said(parameters={"wetter": [-0.3, -0.2, -0.1]}).wetter
    assert said(parameters={"wetter": [-0.1, 0.1, 0.3]}).wetter == ""


def test_strange_readings_are_kept_and_asked_about() -> None:
    assert said(strange={7: 5.0}).strange.startswith("1 reading is far from the rest (ringed).")
    assert "They are kept" in said(strange={7: 5.0, 9: -6.0}).strange


def test_it_says_what_lies_beyond_the_known_days() -> None:
    assert "a rough estimate from the latitude" in said().weather
    assert "entered for this garden" in said(normals_source="typed").weather
    assert "replays the weather of 12 earlier years" in said(replayed_years=12).weather
