"""Unfrozen columns stepped side by side: the scheme of `conduction`, to the digit, for BESIDE columns at a time.

Each sweep of a column waits for its own last cell; columns beside each other fill that waiting. Arrays are (blocks, cells,
BESIDE): what is worked on together lies together.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from cloche_engine.compiled import lean, woven
from cloche_engine.soil.conduction import Ready
from cloche_engine.soil.layers import MIDDLE, STAGE, START, WEIGHT, Columns

Array = NDArray[np.float64]
Index = NDArray[np.int64]

BESIDE = 8
SWEEPS = 6
"""Numbers of a column that its sweeps hand on."""


class Blocks(NamedTuple):
    """Columns in blocks of BESIDE, arranged so that one instruction handles a whole block.

    Attributes
    ----------
    held, lift, share : ndarray
        As in `Ready`.
    conductance, side : ndarray
        Conductance to the next cell and to what stands beside [W/m²K].
    bottom : ndarray
        Conductance below the column, (blocks, BESIDE) [W/m²K].
    sided : ndarray
        Whether any column of a block has something beside it, (blocks,).
    soil, mean, middle, end, push, beside : ndarray
        Working memory, (cells, BESIDE).
    sweep : ndarray
        Working memory, (SWEEPS, BESIDE).
    """

    held: Array
    lift: Array
    share: Array
    conductance: Array
    side: Array
    bottom: Array
    sided: NDArray[np.bool_]
    soil: Array
    mean: Array
    middle: Array
    end: Array
    push: Array
    beside: Array
    sweep: Array


def in_blocks(columns: Columns, ready: Ready) -> Blocks:
    """Arrange the columns in blocks.

    Parameters
    ----------
    columns : Columns
        The batch's columns.
    ready : Ready
        The matrix of a step, factored.
    """
    count = len(columns.capacity) // BESIDE

    def laid(values: Array) -> Array:
        whole = values[: count * BESIDE].reshape(count, BESIDE, values.shape[1])
        return np.ascontiguousarray(whole.transpose(0, 2, 1))

    side = laid(columns.side_per_s * columns.capacity)
    scratch = [np.zeros((columns.capacity.shape[1], BESIDE)) for _ in range(6)]
    return Blocks(
        held=laid(ready.held),
        lift=laid(ready.lift),
        share=laid(ready.share),
        conductance=laid(columns.conductance),
        side=side,
        bottom=columns.bottom[: count * BESIDE].reshape(count, BESIDE).copy(),
        sided=np.asarray(side.any(axis=(1, 2))),
        sweep=np.zeros((SWEEPS, BESIDE)),
        **dict(zip(Blocks._fields[-7:-1], scratch, strict=True)),
    )


@woven
def fetch(k: int, soil: Array, blocks: Blocks) -> bool:
    """Copy the soil of a block and return whether any of its columns is above 0 °C throughout.

    Parameters
    ----------
    k : int
        Number of the block.
    soil : ndarray
        Of all columns, (columns, cells).
    blocks : Blocks
        The columns, laid side by side.
    """
    thawed = False
    for j in range(BESIDE):
        coldest = 0.0
        for i in range(soil.shape[1]):
            value = soil[k * BESIDE + j, i]
            blocks.soil[i, j] = value
            coldest = min(coldest, value)
        blocks.sweep[5, j] = coldest
        thawed = thawed or coldest >= 0.0
    return thawed


@lean
def step_block(k: int, blocks: Blocks, a: Array, b: Array, deep_c: Array) -> None:
    """Advance a fetched block by one step and leave its mean and end in the block.

    The result is valid for columns that `stayed_thawed`.

    Parameters
    ----------
    k : int
        Number of the block.
    blocks : Blocks
        The columns, laid side by side.
    a : ndarray
        A of the surface flux a - b T of all columns [W/m²].
    b : ndarray
        B of it [W/m²K].
    deep_c : ndarray
        Temperature below all columns [°C].
    """
    _first_up(k, blocks, deep_c)
    _first_down(k, blocks, a, b)
    _second_up(k, blocks, deep_c)
    _second_down(k, blocks)


@woven
def stayed_thawed(j: int, blocks: Blocks) -> bool:
    """Return whether column j of the block neither held ice nor came close to it.

    Parameters
    ----------
    j : int
        Number within the block.
    blocks : Blocks
        The columns, laid side by side.
    """
    return min(blocks.sweep[4, j], blocks.sweep[5, j]) >= 0.0


@woven
def _first_up(k: int, blocks: Blocks, deep_c: Array) -> None:
    """Build the right-hand side of the first stage and eliminate it upwards.

    The upward flux and the carried term stay in rows 0 and 1 of sweep.
    """
    soil, middle, push, sweep = blocks.soil, blocks.middle, blocks.push, blocks.sweep
    held, lift, conductance, side = blocks.held[k], blocks.lift[k], blocks.conductance[k], blocks.side[k]
    last, sided = len(soil) - 1, blocks.sided[k]
    for j in range(BESIDE):
        sweep[0, j], sweep[1, j] = blocks.bottom[k, j] * (2 * deep_c[k * BESIDE + j] - soil[last, j]), 0.0
    for i in range(last + 1):
        for j in range(BESIDE):
            push[i, j] = side[i, j] * blocks.beside[i, j] if sided else 0.0
    for i in range(last, 0, -1):
        for j in range(BESIDE):
            rising = conductance[i - 1, j] * (soil[i, j] - soil[i - 1, j])
            right = (held[i, j] - side[i, j]) * soil[i, j] + sweep[0, j] - rising + 2 * push[i, j] + sweep[1, j]
            middle[i, j] = right
            sweep[1, j], sweep[0, j] = right * lift[i - 1, j], rising


@woven
def _first_down(k: int, blocks: Blocks, a: Array, b: Array) -> None:
    """Solve the surface, then the first stage downwards.

    Row 2 of sweep keeps the pivot of the first cell, row 3 its right-hand side in the second stage, row 4 the minimum.
    """
    middle, sweep, share, lift = blocks.middle, blocks.sweep, blocks.share[k], blocks.lift[k]
    held, side, push = blocks.held[k], blocks.side[k], blocks.push
    for j in range(BESIDE):
        drive, slope, below_c = a[k * BESIDE + j], b[k * BESIDE + j], blocks.soil[0, j]
        first = 1.0 / (1.0 / share[0, j] + slope)
        solved = first * ((held[0, j] - side[0, j] - slope) * below_c + sweep[0, j] + 2 * (drive + push[0, j]) + sweep[1, j])
        sweep[2, j], sweep[3, j] = first, held[0, j] * (MIDDLE * solved - START * below_c) + push[0, j] + drive
        middle[0, j], sweep[4, j] = solved, solved
    for i in range(1, len(middle)):
        for j in range(BESIDE):
            solved = middle[i, j] * share[i, j] + lift[i - 1, j] * middle[i - 1, j]
            middle[i, j], sweep[4, j] = solved, min(sweep[4, j], solved)


@woven
def _second_up(k: int, blocks: Blocks, deep_c: Array) -> None:
    """Build the right-hand side of the second stage and eliminate it upwards."""
    soil, middle, end, push, sweep = blocks.soil, blocks.middle, blocks.end, blocks.push, blocks.sweep
    held, lift = blocks.held[k], blocks.lift[k]
    for j in range(BESIDE):
        sweep[1, j] = blocks.bottom[k, j] * deep_c[k * BESIDE + j]
    for i in range(len(soil) - 1, 0, -1):
        for j in range(BESIDE):
            right = held[i, j] * (MIDDLE * middle[i, j] - START * soil[i, j]) + push[i, j] + sweep[1, j]
            end[i, j], sweep[1, j] = right, right * lift[i - 1, j]


@woven
def _second_down(k: int, blocks: Blocks) -> None:
    """Solve the second stage downwards and average over the step."""
    soil, middle, end, mean, sweep = blocks.soil, blocks.middle, blocks.end, blocks.mean, blocks.sweep
    share, lift = blocks.share[k], blocks.lift[k]
    for j in range(BESIDE):
        solved = sweep[2, j] * (sweep[3, j] + sweep[1, j])
        end[0, j], sweep[4, j] = solved, min(sweep[4, j], solved)
        mean[0, j] = WEIGHT * (soil[0, j] + middle[0, j]) + STAGE * solved
    for i in range(1, len(soil)):
        for j in range(BESIDE):
            solved = end[i, j] * share[i, j] + lift[i - 1, j] * end[i - 1, j]
            end[i, j], sweep[4, j] = solved, min(sweep[4, j], solved)
            mean[i, j] = WEIGHT * (soil[i, j] + middle[i, j]) + STAGE * solved


@woven
def put_back(k: int, j: int, blocks: Blocks, soil: Array, means: Array) -> None:
    """Copy column j of a block and its means back to the arrays (columns, cells).

    Parameters
    ----------
    k : int
        Number of the block.
    j : int
        Number within the block.
    blocks : Blocks
        The columns, laid side by side.
    soil : ndarray
        Of all columns, moved on.
    means : ndarray
        Of all columns over the step.
    """
    for i in range(soil.shape[1]):
        soil[k * BESIDE + j, i] = blocks.end[i, j]
        means[k * BESIDE + j, i] = blocks.mean[i, j]
