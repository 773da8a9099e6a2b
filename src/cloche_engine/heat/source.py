"""Sources of heat: what they give, and what they use."""

from __future__ import annotations

from dataclasses import dataclass, replace

Span = tuple[float, float]
ALWAYS: Span = (float("-inf"), float("inf"))
MOST_W_M2 = 600.0
"""More than any source below seedlings gives: mats have 135 to 160 W/m², cable benches at most 200; at 600 a closed tray
would cook within hours (common practice, no source)."""


@dataclass(frozen=True)
class Heating:
    """Watts from below. power_w_m2 at depth_m; start_c, stop_c of a thermostat with its probe at probe_m (None: always on);
    spans: hours of the day in which a timer lets it, none for all day, over midnight where the end comes first; during: hours
    of the run from which and until which it is there at all. A hotbed has fading: days to rise, days to fade, counted from
    the fill; flush: how strong its first heat is against the lasting one; topped_h: when half as much was added to it, which
    rises and fades in its turn."""

    power_w_m2: float
    depth_m: float
    start_c: float | None = None
    stop_c: float | None = None
    probe_m: float = 0.05
    spans: tuple[Span, ...] = ()
    during: Span = ALWAYS
    fading_d: tuple[float, float] | None = None
    flush: float = 0.0
    filled_h: float = 0.0
    topped_h: float | None = None

    @property
    def is_ruled(self) -> bool:
        """Whether a thermostat switches it."""
        return self.start_c is not None and self.stop_c is not None

    def shifted(self, hours: float) -> Heating:
        """The same for a clock that starts `hours` later.

        Parameters
        ----------
        hours : float
            Hours by which to shift.
        """
        topped_h = None if self.topped_h is None else self.topped_h - hours
        during = (self.during[0] - hours, self.during[1] - hours)
        return replace(self, filled_h=self.filled_h - hours, topped_h=topped_h, during=during)

    def share_of_hour(self, hour: int) -> float:
        """Share of an hour of the run in which its days and its timer let it, 0-1.

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
    """Hours a day that a timer lets through.

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
    """Energy a day to keep something so much warmer.

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
