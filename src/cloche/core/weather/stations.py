"""What stations and services measure another way than it is kept here: wind at ten metres, cloud as a share of the sky."""

from __future__ import annotations

WIND_AT_2_M = 0.748
"""Wind at two metres over wind at ten: 4.87 / ln(67.8 · 10 - 5.42) [FAO56 eq. 47]."""
CLEAR, OVERCAST = 0.3, 0.8
"""Shares of cloud below and above which a day is called so (assumption)."""


def sky_of(cloud: float) -> str:
    """The word for a day's sky.

    Parameters
    ----------
    cloud : float
        Mean share of the sky that is covered, 0-1.

    Returns
    -------
    str
        clear, broken or overcast.
    """
    return "clear" if cloud < CLEAR else "overcast" if cloud > OVERCAST else "broken"
