"""Three days under a cover: the air outside, inside as it is opened, inside if it stays shut, and when it stands open."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from cloche.drawing.geometry import Linear, Tick, band, path, value_ticks

WIDTH, HEIGHT = 1064.0, 210.0
LEFT, RIGHT, TOP, BOTTOM = 34.0, 1056.0, 30.0, 186.0
BAR_TOP = 8.0


@dataclass(frozen=True)
class Lines:
    """Hourly temperatures from midnight [°C]: outside, and low, middle and high when closed and as planned."""

    outside_c: Sequence[float]
    shut_c: Sequence[Sequence[float]]
    planned_c: Sequence[Sequence[float]]


@dataclass(frozen=True)
class Bar:
    """A period for which the cover is open; the thickness is the opening."""

    x: float
    width: float
    y: float
    height: float


@dataclass(frozen=True)
class Limit:
    """A limit and its label."""

    y: float
    words: str


@dataclass(frozen=True)
class Days:
    """The whole drawing: `days` are midnights with labels, `hours` noons."""

    outside: str
    shut: str
    shut_band: str
    planned: str
    planned_band: str
    bars: list[Bar]
    limits: list[Limit]
    days: list[Tick]
    values: list[Tick]
    noons: list[float]


def days(
    lines: Lines,
    plans: Sequence[tuple[int, int, int, float]],
    limits_c: Sequence[float],
    labels: Sequence[str],
    words: Callable[[float], str],
) -> Days:
    """Draw days. `plans` holds (day, from hour, to hour, opening 0-1), `labels` those of the days; `words` formats a
    temperature.
    """
    hours = len(lines.outside_c)
    everything = [*lines.outside_c, *lines.shut_c[0], *lines.shut_c[2], *limits_c]
    low, high = min(everything) - 1, max(everything) + 1
    x, y = Linear(0, hours, LEFT, RIGHT), Linear(low, high, BOTTOM, TOP)
    at = [x(hour + 0.5) for hour in range(hours)]

    def line(values: Sequence[float]) -> str:
        return path(zip(at, [y(value) for value in values], strict=True))

    def between(rows: Sequence[Sequence[float]]) -> str:
        return band(at, [y(value) for value in rows[0]], [y(value) for value in rows[2]])

    opened = [(x(24 * n + start), x(24 * n + end), share) for n, start, end, share in plans if share > 0]
    return Days(
        outside=line(lines.outside_c),
        shut=line(lines.shut_c[1]),
        shut_band=between(lines.shut_c),
        planned=line(lines.planned_c[1]),
        planned_band=between(lines.planned_c),
        bars=[Bar(round(a, 1), round(b - a, 1), BAR_TOP, round(4 + 12 * share**0.5, 1)) for a, b, share in opened],
        limits=[Limit(round(y(value), 1), words(value)) for value in limits_c],
        days=[Tick(round(x(24 * n), 1), label) for n, label in enumerate(labels)],
        values=[Tick(round(y(value), 1), words(value)) for value in value_ticks(low, high, most=4)],
        noons=[round(x(24 * n + 12), 1) for n in range(len(labels))],
    )
