"""The sky against a reference library."""

import numpy as np
import pytest
from pvlib import irradiance

from cloche_engine.weather.sky import diffuse_share


@pytest.mark.parametrize("sun_w_m2", [20.0, 100.0, 250.0, 400.0, 520.0])
def test_the_diffuse_share_is_that_of_the_reference_library(sun_w_m2: float) -> None:
    """pvlib's `erbs` [Erbs1982], at 60 degrees from the zenith on 10 April."""
    extra = float(irradiance.get_extra_radiation(100)) * np.cos(np.radians(60.0))
    expected = irradiance.erbs(sun_w_m2, 60.0, 100)["dhi"] / sun_w_m2
    assert diffuse_share(sun_w_m2, extra) == pytest.approx(expected, abs=0.01)
