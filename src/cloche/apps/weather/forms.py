"""Form for a day's weather."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date, timedelta
from typing import Any

from django import forms
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.shared import clock
from cloche.apps.shared.fields import DayField, TypedNumber, parse_with
from cloche.apps.shared.words import lazy
from cloche.apps.weather.models import DailyWeather
from cloche.bridge.values.units import Units, parse_air, parse_rain, parse_snow
from cloche_engine.inputs import Day

WINDS = [
    ("", lazy("not entered")),
    ("0.5", lazy("calm")),
    ("2", lazy("leaves rustle")),
    ("4", lazy("twigs move")),
    ("7", lazy("branches move")),
]
"""Wind at two metres [m/s] by what it moves: the Beaufort scale's 1 to 5 at three quarters of its ten metres' speed."""


class WeatherForm(forms.Form):
    """Form for a day's weather; a future day counts as a forecast."""

    day = DayField(label=lazy("Date"))
    low = TypedNumber(label=lazy("Low"))
    high = TypedNumber(label=lazy("High"))
    sky = forms.ChoiceField(label=lazy("Sky"), required=False, choices=[("", lazy("not entered")), *DailyWeather.Sky.choices])
    wind = forms.TypedChoiceField(label=lazy("Wind"), required=False, choices=WINDS, coerce=float, empty_value=None)
    rain = TypedNumber(label=lazy("Rain"), required=False)
    snow = TypedNumber(label=lazy("Snow"), required=False)

    def __init__(self, *args: Any, units: Units, garden: Garden, known: Day | date, **kwargs: Any) -> None:
        """Set up the form for a day, prefilled with what is known of it."""
        kwargs["initial"] = _day_filled(known, units)
        super().__init__(*args, **kwargs)
        self.garden, self.units = garden, units
        self.shown = self.initial["day"]
        for name in ("low", "high"):
            parse_with(self.fields[name], lambda text: parse_air(text, units))
            self.fields[name].label = f"{name.capitalize()}, {units.degree}"
        parse_with(self.fields["rain"], lambda text: parse_rain(text, units))
        self.fields["rain"].label = _("Rain ({unit})").format(unit=units.rain)
        parse_with(self.fields["snow"], lambda text: parse_snow(text, units))
        self.fields["snow"].label = _("Snow ({length})").format(length=units.length)
        self.fields["snow"].help_text = _("lying in the morning")

    def keep_typed(self, typed: Mapping[str, str], before: Day | date) -> None:
        """Keep typed values after the day was changed, without values of the other day."""
        others = _day_filled(before, self.units)
        for name in self.fields:
            value = typed.get(name, "")
            if name != "day" and value and value != str(others.get(name) or ""):
                self.initial[name] = value

    def clean(self) -> dict[str, Any]:
        """Check that the low is not above the high and that the day is within the range of forecasts."""
        data = super().clean() or {}
        low, high, day = data.get("low"), data.get("high"), data.get("day")
        if low is not None and high is not None and low > high:
            self.add_error("high", _("The high is below the low."))
        if day and day > clock.today(self.garden.timezone) + timedelta(days=16):
            self.add_error("day", _("Enter a date within the next 16 days."))
        return data


def _day_filled(known: Day | date, units: Units) -> dict[str, Any]:
    """Return the initial values for a known day."""
    if isinstance(known, date):
        return {"day": known}
    wind = None if known.wind_m_s is None else min(WINDS[1:], key=lambda w: abs(float(w[0]) - (known.wind_m_s or 0.0)))[0]
    return {
        "day": known.day,
        "low": f"{units.temperature_from_c(known.low_c):.1f}",
        "high": f"{units.temperature_from_c(known.high_c):.1f}",
        "sky": known.sky or "",
        "wind": wind,
        "rain": "" if known.rain_mm is None else f"{round(units.rain_from_mm(known.rain_mm), 2):g}",
        "snow": "" if known.snow_m is None else f"{units.length_from_m(known.snow_m):g}",
    }
