"""What stands in the way, in words: as a name, and as the end of a sentence."""

from __future__ import annotations

from cloche.core.windows.limits import Limit

NAMES = {
    Limit.COLD: "soil too cold",
    Limit.HOT: "soil too hot",
    Limit.WET: "ground frozen or too wet",
    Limit.NIGHTS: "nights too cold",
    Limit.FROST: "frost after emergence",
    Limit.LATE_FROST: "frost before harvest",
    Limit.LIGHT: "under ten hours of light",
    Limit.SEASON: "too little season left",
    Limit.HEAT: "hot days before harvest",
    Limit.BOLTS: "bolts after cold",
    Limit.DAYLENGTH: "days of the wrong length",
    Limit.FORWARD: "too far grown before winter",
    Limit.WINTER: "winter too hard",
    Limit.UNCOMFORTABLE: "soil not yet in its ideal range",
    Limit.DATE: "before its date by the last frost",
}
SENTENCES = {
    Limit.COLD: "the soil is too cold: it would lie too long or too little of it come up",
    Limit.HOT: "the soil is too hot for it",
    Limit.WET: "the ground is frozen or too wet to work",
    Limit.NIGHTS: "the nights are too cold for it",
    Limit.FROST: "frost would catch what is up",
    Limit.LATE_FROST: "frost would come before the harvest",
    Limit.LIGHT: "the days are too short: under ten hours of light growth pauses",
    Limit.SEASON: "too little of the season is left to ripen",
    Limit.HEAT: "it would have to ripen in too hot days",
    Limit.FORWARD: "it would be too far grown when winter comes",
    Limit.WINTER: "the winter is too hard for it there",
    Limit.BOLTS: "cold weeks in its youth would make it bolt",
    Limit.DAYLENGTH: "the days are the wrong length for it to flower or bulb",
    Limit.UNCOMFORTABLE: "the soil is not surely in its ideal range yet",
    Limit.DATE: "its date by the last frost has not come",
}
PLANTED = {
    Limit.COLD: "the soil at the roots is too cold",
    Limit.FROST: "frost would catch it",
    Limit.HOT: "it would stand in too hot days at once",
}


def limit_name(limit: str | None) -> str:
    """Its name; empty for none."""
    return NAMES[Limit(limit)] if limit else ""


def sentence(limit: str, sown: bool = True) -> str:
    """The limit as the end of a sentence that says why."""
    code = Limit(limit)
    return SENTENCES[code] if sown else PLANTED.get(code, SENTENCES[code])
