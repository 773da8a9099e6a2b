"""What a garden's covers teach each other: a factor of one cover on one bed is its kind's in this garden, its own, and how it
happens to stand there, each as far from the usual as is believable.

    log factor = kind + cover + standing,    all normal about nothing

What a place has found of it, less what was believed before, is a message. Messages of the same kind tell of the kind, those of
the very same cover of it too. Partial pooling (a random-effects model), solved exactly [Gelman2013 chapter 5].
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

USUAL_SD = {"light": 0.10, "exchange": 0.70, "loss": 0.20}
"""How far covers of a kind differ in their light, their leakage and what they let out: SD of the logarithm (assumptions: 10 %
of the light by dirt and years, leakage by half or double, a fifth of the loss)."""
KIND_SHARE, COVER_SHARE, STANDING_SHARE = 0.45, 0.45, 0.10
"""Of the variance between covers anywhere: between gardens, between covers of a garden, between the ways one stands
(assumption: mostly how old, how tight and how thick it is)."""
MOST_SD = 2.0
"""What lies further from the usual than so many standard deviations is not believed, but asked about."""


@dataclass(frozen=True)
class Message:
    """Estimate of a cover's factor from the readings of one place alone.

    Attributes
    ----------
    middle, sd : float
        Mean and standard deviation of the logarithm.
    item : int or None
        Which of the garden's own covers it is, None if unknown.
    """

    key: str
    item: int | None
    middle: float
    sd: float

    @property
    def weighs(self) -> bool:
        """Whether the estimate carries any information."""
        return bool(np.isfinite(self.sd))


def message(key: str, item: int | None, prior: tuple[float, float], posterior: tuple[float, float]) -> Message:
    """Return the contribution of the readings alone from the prior and posterior (middle, sd).

    Parameters
    ----------
    key : str
        Kind of the cover.
    item : int | None
        Number of the garden's own cover; None: not one of its own.
    prior : tuple[float, float]
        Middle and SD before them.
    posterior : tuple[float, float]
        Middle and SD after the readings.
    """
    gained = 1 / posterior[1] ** 2 - 1 / prior[1] ** 2
    if gained <= 0.05 / prior[1] ** 2:
        return Message(key, item, 0.0, float("inf"))
    middle = (posterior[0] / posterior[1] ** 2 - prior[0] / prior[1] ** 2) / gained
    return Message(key, item, float(middle), float(1 / np.sqrt(gained)))


def pooled(
    key: str, item: int | None, messages: Sequence[Message], usual_sd: float, whole_kind: bool = False
) -> tuple[float, float]:
    """Estimate the logarithm of the factor for a cover without readings of its own.

    Returns its mean and standard deviation.

    Parameters
    ----------
    key : str
        Kind of the cover.
    item : int | None
        Number of the garden's own cover; None: not one of its own.
    messages : Sequence[Message]
        What each place's readings alone tell of its cover.
    usual_sd : float
        Standard deviation between covers anywhere.
    whole_kind : bool
        For what all of the kind have in common here.
    """
    weighing = [message for message in messages if message.key == key and message.weighs]
    if not weighing:
        return 0.0, usual_sd * (np.sqrt(KIND_SHARE) if whole_kind else 1.0)
    kind, own, stands = (share * usual_sd**2 for share in (KIND_SHARE, COVER_SHARE, STANDING_SHARE))
    same = np.array([[a.item is not None and a.item == b.item for b in weighing] for a in weighing], dtype=bool)
    each = np.array([stands + message.sd**2 + (own if message.item is None else 0.0) for message in weighing])
    total = kind + own * same + np.diag(each)
    mine = kind + own * np.array([item is not None and message.item == item for message in weighing]) * (not whole_kind)
    weight = np.linalg.solve(total, mine)
    middle = float(weight @ np.array([message.middle for message in weighing]))
    left = max((kind if whole_kind else usual_sd**2) - float(weight @ mine), (0.1 * usual_sd) ** 2)
    return float(np.clip(middle, -MOST_SD * usual_sd, MOST_SD * usual_sd)), float(np.sqrt(left))


def alone(message: Message, usual_sd: float) -> tuple[float, float]:
    """Return mean and standard deviation of the logarithm for the same cover where it was measured.

    Parameters
    ----------
    message : Message
        What a place's readings alone tell.
    usual_sd : float
        Standard deviation between covers anywhere.
    """
    precision = 1 / message.sd**2 + 1 / usual_sd**2
    return message.middle / message.sd**2 / precision, float(1 / np.sqrt(precision))


def strange(message: Message, usual_sd: float) -> bool:
    """Return whether the factor is outside the physical range by more than its own uncertainty.

    Parameters
    ----------
    message : Message
        What a place's readings alone tell.
    usual_sd : float
        Standard deviation between covers anywhere.
    """
    return message.weighs and abs(message.middle) - message.sd > MOST_SD * usual_sd
