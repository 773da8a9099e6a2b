"""A cover's time on the bed: from when to when, how it is opened, and what stands there together as one."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import reduce
from math import sqrt

from cloche_engine.covers.kinds import CoverKind


@dataclass(frozen=True)
class Vent:
    """A regular opening of a cover.

    Attributes
    ----------
    opening : float
        Fraction of the full opening, 0-1.
    from_h, to_h : float or None
        Start and end in local standard time; None for all day.
    above_c : float or None
        Opens only as far as needed to keep the inside below this temperature [°C]; None to open regardless.
    """

    opening: float = 0.0
    from_h: float | None = None
    to_h: float | None = None
    above_c: float | None = None


Known = tuple[tuple[float, float], tuple[float, float], tuple[float, float]]
NOT_KNOWN: Known = ((1.0, 1.0), (1.0, 1.0), (1.0, 1.0))


@dataclass(frozen=True)
class Noted:
    """A recorded opening of a cover between two hours of the run, 0 (closed) to 1 (wide open)."""

    start_h: float
    end_h: float
    opening: float


@dataclass(frozen=True)
class CoverPeriod:
    """A cover on a bed between two hours of the run.

    Attributes
    ----------
    blanket : tuple of float or None
        Hours of the day during which a night blanket lies on it.
    known : Known
        What other beds show of its light, air exchange and heat loss: the factor, and the share of the usual uncertainty that
        remains, 0-1, for each.
    length_m : float or None
        Length along the bed; None for a long cover.
    noted : tuple of Noted
        Recorded openings, which take precedence over the regular one.
    """

    kind: CoverKind
    start_h: float
    end_h: float
    vent: Vent = Vent()
    ends_capped: bool = True
    blanket: tuple[float, float] | None = None
    width_m: float | None = None
    length_m: float | None = None
    known: Known = NOT_KNOWN
    noted: tuple[Noted, ...] = ()

    def aired_at(self, hour: float) -> CoverPeriod:
        """Return the cover as it stands at an hour, opened as recorded or as usual.

        Parameters
        ----------
        hour : float
            Hour of the run.
        """
        seen = next((noted for noted in self.noted if noted.start_h <= hour < noted.end_h), None)
        return self if seen is None else replace(self, vent=Vent(seen.opening))

    def under(self, upper: CoverPeriod) -> CoverPeriod:
        """Combine this cover with another one over it for the time that both stand.

        The opening is that of the upper one, or of this one where the upper one stays closed.

        Parameters
        ----------
        upper : CoverPeriod
            What stands over this one.
        """
        lower_kind, upper_kind = (
            cover.kind if cover.vent.opening else replace(cover.kind, open_m_h=0.0) for cover in (self, upper)
        )
        light, exchange, loss = (
            (mine * others, max(doubt, doubt_of_other))
            for (mine, doubt), (others, doubt_of_other) in zip(self.known, upper.known, strict=True)
        )
        return replace(
            upper,
            kind=lower_kind.under(upper_kind),
            vent=upper.vent if upper.vent.opening else self.vent,
            ends_capped=upper.ends_capped,
            blanket=upper.blanket or self.blanket,
            width_m=max(self.width_m or self.kind.width_m, upper.width_m or upper.kind.width_m),
            length_m=None if self.length_m is None or upper.length_m is None else max(self.length_m, upper.length_m),
            known=(light, (sqrt(exchange[0]), exchange[1]), (sqrt(loss[0]), loss[1])),
        )

    def shifted(self, hours: float) -> CoverPeriod:
        """Return the cover on a run whose first hour is some hours later.

        Parameters
        ----------
        hours : float
            Hours by which to shift.
        """
        noted = tuple(replace(noted, start_h=noted.start_h - hours, end_h=noted.end_h - hours) for noted in self.noted)
        return replace(self, start_h=self.start_h - hours, end_h=self.end_h - hours, noted=noted)

    @property
    def leak_m_h(self) -> float:
        """Air exchange with the vent closed [m³/m²h]."""
        return self.kind.leak_m_h if self.ends_capped else self.kind.with_ends_open().leak_m_h


def as_one(covers: Iterable[CoverPeriod]) -> CoverPeriod | None:
    """Combine all covers over a bed at one time, the lowest nearest to the ground; None if there are none.

    Parameters
    ----------
    covers : Iterable[CoverPeriod]
        Covers that stand there together.
    """
    upwards = sorted(covers, key=lambda cover: cover.kind.gap_m)
    return reduce(lambda lower, upper: lower.under(upper), upwards) if upwards else None
