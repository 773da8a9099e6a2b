"""What it takes to keep a room or a corner of it warm, against a mat: watts by how much warmer than now.

Common practice, no source: rooms are dear, corners cheap, mats cheapest. Losses are assumptions: a room of 12 m² loses some
40 W for each kelvin; a corner walled off with insulating board, 1 by 0.6 by 0.7 m, some 3 W.
"""

from __future__ import annotations

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
