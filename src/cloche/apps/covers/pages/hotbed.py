"""A hotbed through its weeks: when trays, when plants, when it has faded."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from cloche.apps.forecasts import selectors as windows
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.bridge.services import hotbeds
from cloche.bridge.values.stored import PlaceForecast, Triple
from cloche.bridge.values.units import Units
from cloche.drawing.cover_gain import CoverGain, cover_gain, limits, marks

BEHIND_D, AHEAD_D = 21, 70


@dataclass(frozen=True)
class HotbedPage:
    """Context of covers/hotbed.html: sentences."""

    headline: str
    uses: list[str]
    learned: str
    ribbon: CoverGain | None = None


def hotbed_page(place: Place, units: Units, today: date) -> HotbedPage:
    """From its last forecast."""
    ground = windows.ground_of(place)
    if ground is None:
        return HotbedPage(f"{place.name} is being worked out.", [], "")
    times = hotbeds.times_of(ground.data, ground.forecast.day)
    text = _headline(place, times, units, today), _uses(times, units, today), _learned(ground.data.parameters)
    return HotbedPage(*text, _drawn(ground.data, units))


def _drawn(data: PlaceForecast, units: Units) -> CoverGain:
    """Three weeks behind by the day and ten ahead with their band, against what roots stand."""
    hours = data.near_mid_c[: BEHIND_D * 24]
    past = [sum(hours[i : i + 24]) / 24 for i in range(0, len(hours), 24)]
    band = [past + side[:AHEAD_D] for side in (data.far_low_c, data.far_mid_c, data.far_high_c)]
    within = limits(band)
    labels = [(value, units.temperature_text(value, 0)) for value in marks(within)]
    return cover_gain(band, band[1], within, hotbeds.TOO_HOT_C, len(past), labels)


def _headline(place: Place, times: hotbeds.Times, units: Units, today: date) -> str:
    peak = units.temperature_text(times.peak_c, 0)
    when = words.day(times.peak_on, today)
    passed = "was hottest" if times.peak_on < today else "will be hottest"
    if times.plant is None:
        return f"{place.name} {passed} {when} at {peak}."
    fit = "may be planted into now" if times.plant <= today else f"may be planted into from {words.day(times.plant, today)}"
    return f"{place.name} {passed} {when} at {peak}; it {fit}."


def _uses(times: hotbeds.Times, units: Units, today: date) -> list[str]:
    warm, hot, low = (units.temperature_text(v, 0) for v in (hotbeds.TRAYS_FROM_C, hotbeds.TOO_HOT_C, hotbeds.USEFUL_C))
    text = []
    if times.trays:
        until = words.day(times.plant, today) if times.plant and times.plant > times.trays else "it cools"
        text.append(f"Seed trays on top from {words.day(times.trays, today)}, once it is {warm}, until {until}.")
    else:
        text.append(f"It is not seen to reach {warm} for trays: was it wet enough, deep enough, trodden?")
    if times.plant:
        text.append(f"Tender crops straight into it from {words.day(times.plant, today)}, when roots meet no more than {hot}.")
    if times.fades:
        text.append(
            f"It falls below {low} about {words.day(times.fades, today)}: top it up once a week or two before, as it sinks."
        )
    return text


def _learned(parameters: dict[str, Triple]) -> str:
    parts = [("heat", "as much heat"), ("rise", "the time to rise"), ("fade", "the time to fade")]
    text = [
        f"{parameters[key][1]:.1f} times {name} ({parameters[key][0]:.1f} to {parameters[key][2]:.1f})"
        for key, name in parts
        if key in parameters
    ]
    return f"Against what such a bed usually does, its readings tell {words.listed(text)}." if text else ""
