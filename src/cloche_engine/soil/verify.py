"""A place's own record: what was expected of each reading before it was used, and which readings are hard to believe.

Everything the readings tell is linear and Gaussian about the fitted course, so any of them can be left out and predicted from
others exactly. The weather is taken as it came; how a place is known is judged here, not how well weather is foretold.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cloche_engine.soil.drift import ReadingKernel, covariance
from cloche_engine.soil.learned import Learned

Array = NDArray[np.float64]

LEADS_D = (1, 3, 7)
FEWEST_BEFORE, FEWEST_CHECKS = 6, 5
STRANGE_K, STRANGE_SD = 4.0, 4.0
BAND_SD = 1.2816
"""Half width of the middle 80 % in standard deviations."""


@dataclass(frozen=True)
class Check:
    """Accuracy of readings predicted `lead_d` days ahead.

    Holds their number, the root mean square error [K] and the share within the stated range, 0-1.
    """

    lead_d: int
    count: int
    error_k: float
    inside: float


def record(learned: Learned) -> list[Check]:
    """Predict each reading from those at least `lead_d` days older.

    Leads with too few readings are left out, and so are implausible readings.

    Parameters
    ----------
    learned : Learned
        What readings have taught of the place.
    """
    total, away = _joint(learned)
    odd = strange(learned)
    hour, checks = learned.drift.hour, []
    for lead_d in LEADS_D:
        errors = []
        for i, at in enumerate(hour):
            before = np.flatnonzero(hour <= at - 24 * lead_d)
            if i not in odd and len(before) >= FEWEST_BEFORE:
                weight = np.linalg.solve(total[np.ix_(before, before)], total[before, i])
                sd = np.sqrt(max(total[i, i] - weight @ total[before, i], 1e-6))
                errors.append((away[i] - weight @ away[before], sd))
        if len(errors) >= FEWEST_CHECKS:
            error, sd = np.array(errors).T
            inside = float((np.abs(error) <= BAND_SD * sd).mean())
            checks.append(Check(lead_d, len(error), float(np.sqrt((error**2).mean())), inside))
    return checks


def strange(learned: Learned) -> dict[int, float]:
    """Return the implausible readings.

    The keys are indices among the readings used, the values their distance from what all others predict [K].

    Parameters
    ----------
    learned : Learned
        What readings have taught of the place.
    """
    if len(learned.drift.hour) < FEWEST_BEFORE:
        return {}
    total, away = _joint(learned)
    inverse = np.linalg.inv(total)
    missed = inverse @ away / np.diag(inverse)
    # What a reading scatters by itself counts as for any other; that it weighed little must not excuse it.
    excused = learned.drift.wandering.scatter_k**2 * np.maximum(learned.drift.scatter - 1.0, 0.0)
    sd = np.sqrt(1 / np.diag(inverse) - excused)
    odd = np.flatnonzero((np.abs(missed) > STRANGE_K) & (np.abs(missed) > STRANGE_SD * sd))
    return {int(i): float(missed[i]) for i in odd}


def _joint(learned: Learned) -> tuple[Array, Array]:
    """Return the covariance of the readings with unknown parameters, and their residuals.

    The residuals are the readings minus the course expected from the description alone.
    """
    drift = learned.drift
    own = covariance(drift.wandering, ReadingKernel(drift.hour), drift.swing_k, drift.scatter)
    return own + learned.slope @ learned.slope.T, drift.residual_k + learned.slope @ learned.mean
