"""Random draws, one a member, that lie evenly about nothing: a few dozen members then have the mean that is known."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


def balanced(rng: np.random.Generator, *shape: int) -> Array:
    """Standard normals of a shape, members along the last axis; with more than one member their mean is exactly nothing.

    Parameters
    ----------
    rng : Generator
        Stream of random numbers.

    Returns
    -------
    ndarray
    """
    drawn = rng.standard_normal(shape)
    members = shape[-1]
    if members < 2:
        return drawn
    return (drawn - drawn.mean(axis=-1, keepdims=True)) * np.sqrt(members / (members - 1))
