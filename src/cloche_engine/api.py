"""What can be asked of the engine. Every question brings all that its answer rests on, and no answer depends on an earlier one.

The main one is `forecast(ForecastInputs) -> ForecastResult`. The others are smaller: what a cover or a heater would change at
that place, how warm its soil was in a past season, what the weather set in the sandbox does over a few days.
"""

from __future__ import annotations

from cloche_engine.forecast.forecasting import forecast, soil_of, windows_under
from cloche_engine.forecast.heat_gains import heat_gains
from cloche_engine.forecast.whatif import day_of, what_if
from cloche_engine.inputs import ForecastInputs
from cloche_engine.results import MODEL_VERSION, ForecastResult

__all__ = [
    "MODEL_VERSION",
    "ForecastInputs",
    "ForecastResult",
    "day_of",
    "forecast",
    "heat_gains",
    "soil_of",
    "what_if",
    "windows_under",
]
