"""What a reading is expected to be, and from where on one asks again."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

LEAST_MARGIN_K = 2.0
"""A kitchen probe strays by a degree, and a bed differs by another within a step: common practice, no source."""


def asked_again(low_c: ArrayLike, high_c: ArrayLike) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """The range outside which a reading is asked about: the expected band, widened by half of itself and at least 2 K.

    It is a question, never a refusal: the ground may well have surprised us.

    Parameters
    ----------
    low_c : array_like
        Any one shape, ends of the band that holds eight readings in ten [°C].
    high_c : array_like
        Any one shape, ends of the band that holds eight readings in ten [°C].

    Returns
    -------
    tuple[ndarray, ndarray]
        Both ends in that shape [°C].
    """
    low, high = np.asarray(low_c, dtype=np.float64), np.asarray(high_c, dtype=np.float64)
    margin = np.maximum((high - low) / 2, LEAST_MARGIN_K)
    return low - margin, high + margin
