"""Heat from below as places are described: a mat under a tray with its lid on, a raised bed in spring."""

from datetime import date

import numpy as np
import pytest

from cloche_engine.api import forecast
from cloche_engine.covers.kinds import kind
from cloche_engine.covers.periods import CoverPeriod
from cloche_engine.forecast.places import MAT_HEAT, RAISED, TRAY
from cloche_engine.places.rooms import ROOMS, room
from cloche_engine.soil.bed import Bed, Parameters
from cloche_engine.soil.place import Place
from cloche_engine.soil.simulate import simulate
from tests.engine.forecast.test_forecasting import inputs
from tests.engine.weathers import WAVE, spell, trajectories

DAY = slice(-24, None)


def test_a_mat_lifts_its_tray_by_six_to_eleven_kelvin_over_the_room() -> None:
    """Common practice, no source: 10 to 20 degrees Fahrenheit, the lid on; less without."""
    indoors = room(spell(date(2026, 3, 1), 0, 8, 0.5, days=10))
    tray = Bed(texture="potting", volume=TRAY, wetness=0.4, indoors=True, heating=(MAT_HEAT,))
    places = [Place(tray, WAVE, (CoverPeriod(kind("lid"), 0.0, 1e6),)), Place(tray, WAVE)]
    under, without = simulate([place.case(indoors, Parameters.typical(1)) for place in places], [0.02])
    lifts = [float(c.at(0.02)[DAY].mean() - indoors.air_c[DAY].mean()) for c in (under, without)]
    assert 6.0 < lifts[0] < 11.0
    assert 3.0 < lifts[1] < lifts[0] - 1


def test_a_heated_tray_that_was_read_is_foretold() -> None:
    result = forecast(inputs(6, 24.0, kind="mat", crops=("pepper",)))
    assert result.cover_evidence is None
    assert result.ground.readings_used == 12
    assert np.mean(result.ground.near_mid_c) > 17


def test_a_raised_bed_is_warmer_in_spring_by_half_a_kelvin_to_one_and_a_half() -> None:
    """Common practice, no source."""
    weather = spell(date(2026, 4, 1), 4, 14, 0.6, days=20)
    level, raised = (trajectories(weather, [None], bed)[0].at(0.05)[-72:] for bed in (Bed(), RAISED))
    assert 0.5 < float(raised.mean() - level.mean()) < 1.5
    assert float(raised.max()) > float(level.max())


@pytest.mark.parametrize("kind_of_room", ROOMS)
@pytest.mark.parametrize(("low", "high"), [(-12.0, -4.0), (4.0, 15.0), (22.0, 36.0)])
def test_a_room_is_as_warm_as_was_typed_whatever_it_is_outdoors(kind_of_room: str, low: float, high: float) -> None:
    """70 °F by night and by day are 70 °F."""
    kept = ROOMS[kind_of_room].between(21.1, 21.1)
    air = room(spell(date(2026, 3, 1), low, high, 0.5, days=10), kept).air_c
    assert np.allclose(air, 21.1)
