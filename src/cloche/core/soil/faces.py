"""The surfaces of a stretch, hour by hour: open ground and ground under covers, each with its own part of the weather."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche.core.covers.air import Inside, covered_balance
from cloche.core.soil.lanes import Forcing
from cloche.core.soil.skin import Balance, Hour, Skin, open_balance
from cloche.core.soil.stretch import Stretch

Array = NDArray[np.float64]
Index = NDArray[np.intp] | slice


@dataclass
class State:
    """What the surfaces remember from hour to hour, (columns,): surface; air, inner and outer face, opening of covers."""

    surface_c: Array
    air_c: Array
    inner_c: Array
    outer_c: Array
    opening: Array


class _Weather:
    """A stretch's weather over some of the columns, (hours, columns) each."""

    def __init__(self, forcing: Forcing, sun: Array, index: Index, start: int, end: int) -> None:
        hours = slice(start, end)
        self.sun = forcing.sun[hours][:, index] * sun[index]
        self.air, self.sky = forcing.air[hours][:, index], forcing.sky[hours][:, index]
        self.wind, self.vapour = forcing.wind[hours][:, index], forcing.vapour[hours][:, index]

    def at(self, i: int) -> Hour:
        """The i-th hour of the stretch."""
        return Hour(self.sun[i], self.air[i], self.sky[i], self.wind[i], self.vapour[i])


class Faces:
    """Balances of all columns over a stretch."""

    def __init__(self, stretch: Stretch, forcing: Forcing, start: int, end: int) -> None:
        self.stretch, self.start = stretch, start
        under, opened = stretch.covered, np.flatnonzero(~stretch.is_covered)
        self.all_open = not len(under)
        self.opened: Index = slice(None) if self.all_open else opened
        self.under = under
        self.any_open = bool(len(opened))
        self._open = _Weather(forcing, stretch.sun, self.opened, start, end)
        self._covered = None if self.all_open else _Weather(forcing, stretch.sun, under, start, end)
        self._last: Balance | None = None

    def balance(self, i: int, skin: Skin, first_c: Array, state: State) -> Balance:
        """Balance of every column in the i-th hour of the stretch; moves what covers remember on."""
        now = self._open.at(i)
        if self.all_open:
            self._last = open_balance(skin, now, first_c, state.surface_c, self._last)
            state.air_c = state.inner_c = state.outer_c = now.air
            return self._last
        parts = [np.empty_like(first_c) for _ in range(5)]
        if self.any_open:
            opened = self.opened
            self._last = open_balance(skin.only(opened), now, first_c[opened], state.surface_c[opened], self._last)
            for whole, name in zip(parts, ("a", "b", "s0", "s1", "latent"), strict=True):
                whole[opened] = getattr(self._last, name)
            state.air_c[opened] = state.inner_c[opened] = state.outer_c[opened] = now.air
        self._under_covers(i, skin, first_c, state, parts)
        a, b, s0, s1, latent = parts
        return Balance(a, b, s0, s1, latent, a, b)

    def _under_covers(self, i: int, skin: Skin, first_c: Array, state: State, parts: list[Array]) -> None:
        assert self._covered is not None  # noqa: S101 - there are covers
        under = self.under
        before = Inside(state.air_c[under], state.inner_c[under], state.outer_c[under], state.opening[under])
        covers, now = self.stretch.covers_at(self.start + i), self._covered.at(i)
        inner, inside = covered_balance(skin.only(under), covers, now, first_c[under], state.surface_c[under], before)
        for whole, value in zip(parts, inner, strict=True):
            whole[under] = value
        state.air_c[under], state.inner_c[under], state.outer_c[under] = inside.air_c, inside.inner_c, inside.outer_c
        state.opening[under] = inside.opening
