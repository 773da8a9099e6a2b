"""Sources of heat: what they give, and what they use."""

from __future__ import annotations

from dataclasses import dataclass, replace

Span = tuple[float, float]
ALWAYS: Span = (float("-inf"), float("inf"))
NEVER_EASES: Span = (float("inf"), float("inf"))
SELF_REGULATED: Span = (15.0, 55.0)
"""A self-regulating mat gives all its power while its element is at 15 °C and next to nothing at 55: in a warm room it draws
about two thirds of its label (assumption, from what makers of such cable print for 10 and 50 °C; from memory)."""
MOST_W_M2 = 600.0
"""More than any source below seedlings gives: mats have 135 to 160 W/m², cable benches at most 200; at 600 a closed tray
would cook within hours (common practice, no source)."""


@dataclass(frozen=True)
class Heating:
    """A heat source below the ground or the trays.

    Attributes
    ----------
    power_w_m2, depth_m : float
        Power [W/m²] and its depth [m].
    start_c, stop_c, probe_m : float or None
        Thermostat limits [°C] and depth of its probe [m]; None without a thermostat.
    spans : tuple of Span
        Hours of the day in which a timer allows it, empty for all day; they may cross midnight.
    during : Span
        Hours of the run in which it is there at all.
    eases_c : Span
        Element temperatures up to which a self-regulating source gives all its power, and from which it gives none [°C].
    fading_d : tuple of float or None
        Days in which a hotbed rises and fades, counted from its filling.
    flush : float
        Initial heat of a hotbed relative to its lasting heat.
    filled_h, topped_h : float or None
        Hour of its filling, and of topping up with half the amount, which rises and fades in turn.
    """

    power_w_m2: float
    depth_m: float
    start_c: float | None = None
    stop_c: float | None = None
    probe_m: float = 0.05
    spans: tuple[Span, ...] = ()
    during: Span = ALWAYS
    eases_c: Span = NEVER_EASES
    fading_d: tuple[float, float] | None = None
    flush: float = 0.0
    filled_h: float = 0.0
    topped_h: float | None = None

    @property
    def is_ruled(self) -> bool:
        """Whether a thermostat switches it."""
        return self.start_c is not None and self.stop_c is not None

    def shifted(self, hours: float) -> Heating:
        """Return the source on a clock that starts some hours later.

        Parameters
        ----------
        hours : float
            Hours by which to shift.
        """
        topped_h = None if self.topped_h is None else self.topped_h - hours
        during = (self.during[0] - hours, self.during[1] - hours)
        return replace(self, filled_h=self.filled_h - hours, topped_h=topped_h, during=during)

    def share_of_hour(self, hour: int) -> float:
        """Return the fraction of an hour in which its dates and its timer allow it, 0-1.

        Parameters
        ----------
        hour : int
            Hour of the run, which begins at a midnight.
        """
        there = _overlap(float(hour), hour + 1.0, *self.during)
        if not self.spans or there == 0.0:
            return there
        of_day = hour % 24
        return there * min(sum(_timed(of_day, *span) for span in self.spans), 1.0)


def _timed(of_day: int, start: float, end: float) -> float:
    if start <= end:
        return _overlap(of_day, of_day + 1.0, start, end)
    return _overlap(of_day, of_day + 1.0, start, 24.0) + _overlap(of_day, of_day + 1.0, 0.0, end)


def _overlap(first: float, last: float, start: float, end: float) -> float:
    return max(min(last, end) - max(first, start), 0.0)


def span_hours(spans: tuple[Span, ...]) -> float:
    """Return the hours per day that a timer allows.

    Parameters
    ----------
    spans : tuple[Span, ...]
        Hours of the day; none: all day.
    """
    return sum(min(sum(_timed(hour, *span) for span in spans), 1.0) for hour in range(24)) if spans else 24.0


ROOM_W_K, CORNER_W_K = 40.0, 3.0
AFTER_ALL_D = 4
"""Days for which heat stays on after all of a kind are up, until a true leaf shows: three to seven (common practice, no
source)."""


def kwh_a_day(watts_k: float, warmer_k: float) -> float:
    """Return the daily energy that keeps something warmer by a difference [kWh].

    Parameters
    ----------
    watts_k : float
        What it loses for each kelvin [W/K].
    warmer_k : float
        How much warmer [K].

    Returns
    -------
    float
        [kWh].
    """
    return watts_k * max(warmer_k, 0.0) * 24 / 1000
