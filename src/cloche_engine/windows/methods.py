"""Sown in place, or raised and planted out: derived for the site from the season's length and what the move costs."""

from __future__ import annotations

from enum import StrEnum

from cloche_engine.windows.outlook import Outlook

SHORT_WINDOW_D = 21
"""A sowing in place that leaves less choice than this is one bad spell away from none (assumption)."""
WORTH_D = 14
"""Raising is worth its work when it brings the harvest forward by this and twice the setback (assumption)."""


class Method(StrEnum):
    """Whether a crop is sown in place or planted out."""

    DIRECT = "direct"
    TRANSPLANTED = "transplanted"


def better_method(sown: Outlook | None, planted: Outlook | None) -> Method:
    """Return the method that suits a place: the one with a window, else the one with more time, else the one with the earlier
    harvest.

    Parameters
    ----------
    sown : Outlook | None
        Its outlook where it is sown in place; None: it never is.
    planted : Outlook | None
        Its outlook where it is planted out; None: it never is.
    """
    if planted is None or not planted.windows:
        return Method.DIRECT if sown is not None else Method.TRANSPLANTED
    if sown is None or not sown.windows:
        return Method.TRANSPLANTED
    if is_short(sown):
        return Method.TRANSPLANTED
    if sown.crop.usual_method == "direct":
        return Method.DIRECT
    gained_d = _harvest(sown) - _harvest(planted)
    return Method.TRANSPLANTED if gained_d >= WORTH_D + 2 * planted.crop.setback_d else Method.DIRECT


def is_short(sown: Outlook) -> bool:
    """Return whether sowing in place leaves hardly any choice of dates.

    Parameters
    ----------
    sown : Outlook
        Its outlook where it is sown in place; None: it never is.
    """
    return all(not window.open_ended and window.last - window.earliest < SHORT_WINDOW_D for window in sown.windows)


def _harvest(outlook: Outlook) -> float:
    earliest = outlook.windows[0].earliest
    index = int((outlook.day == earliest).argmax())
    return earliest + float(outlook.harvest_d[index])
