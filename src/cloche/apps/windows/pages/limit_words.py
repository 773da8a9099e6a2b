"""What stands in the way, in words: as a name, and as the end of a sentence."""

from __future__ import annotations

from cloche.apps.shared.i18n import lazy
from cloche.core.windows.limits import Limit

NAMES = {
    Limit.COLD: lazy("soil too cold"),
    Limit.HOT: lazy("soil too hot"),
    Limit.WET: lazy("ground too wet"),
    Limit.FROZEN: lazy("ground frozen"),
    Limit.NIGHTS: lazy("nights too cold"),
    Limit.FROST: lazy("frost after emergence"),
    Limit.LATE_FROST: lazy("frost before harvest"),
    Limit.LIGHT: lazy("under ten hours of light"),
    Limit.SEASON: lazy("too little season left"),
    Limit.HEAT: lazy("hot days before harvest"),
    Limit.BOLTS: lazy("bolts after cold"),
    Limit.DAYLENGTH: lazy("days of the wrong length"),
    Limit.FORWARD: lazy("too far grown before winter"),
    Limit.WINTER: lazy("winter too hard"),
    Limit.UNCOMFORTABLE: lazy("soil not yet in its ideal range"),
    Limit.DATE: lazy("before its date by the last frost"),
}
SENTENCES = {
    Limit.COLD: lazy("the soil is too cold: it would lie too long or too little of it come up"),
    Limit.HOT: lazy("the soil is too hot for it"),
    Limit.WET: lazy("the ground is too wet to work"),
    Limit.FROZEN: lazy("the ground is frozen"),
    Limit.NIGHTS: lazy("the nights are too cold for it"),
    Limit.FROST: lazy("frost would catch what is up"),
    Limit.LATE_FROST: lazy("frost would come before the harvest"),
    Limit.LIGHT: lazy("the days are too short: under ten hours of light growth pauses"),
    Limit.SEASON: lazy("too little of the season is left to ripen"),
    Limit.HEAT: lazy("it would have to ripen in too hot days"),
    Limit.FORWARD: lazy("it would be too far grown when winter comes"),
    Limit.WINTER: lazy("the winter is too hard for it there"),
    Limit.BOLTS: lazy("cold weeks while it is young would make it bolt"),
    Limit.DAYLENGTH: lazy("the days are the wrong length for it to flower or bulb"),
    Limit.UNCOMFORTABLE: lazy("the soil may not be in its ideal range yet"),
    Limit.DATE: lazy("its date by the last frost has not come"),
}
PLANTED = {
    Limit.COLD: lazy("the soil at the roots is too cold"),
    Limit.FROST: lazy("frost would catch it"),
    Limit.HOT: lazy("it would stand in too hot days at once"),
}


def limit_name(limit: str | None) -> str:
    """Its name; empty for none."""
    return NAMES[Limit(limit)] if limit else ""


def sentence(limit: str, sown: bool = True) -> str:
    """The limit as the end of a sentence that says why."""
    code = Limit(limit)
    return SENTENCES[code] if sown else PLANTED.get(code, SENTENCES[code])
