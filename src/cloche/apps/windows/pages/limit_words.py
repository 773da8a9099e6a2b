"""What stands in the way, in a sentence's words."""

from __future__ import annotations

SENTENCES = {
    "soil too cold": "the soil is too cold: it would lie too long or too little of it come up",
    "soil too hot": "the soil is too hot for it",
    "ground frozen or too wet": "the ground is frozen or too wet to work",
    "nights too cold": "the nights are too cold for it",
    "frost after emergence": "frost would catch what is up",
    "frost before harvest": "frost would come before the harvest",
    "under ten hours of light": "the days are too short: under ten hours of light growth pauses",
    "too little season left": "too little of the season is left to ripen",
    "hot days before harvest": "it would have to ripen in too hot days",
    "too far grown before winter": "it would be too far grown when winter comes",
    "winter too hard": "the winter is too hard for it there",
    "bolts after cold": "cold weeks in its youth would make it bolt",
    "days of the wrong length": "the days are the wrong length for it to flower or bulb",
    "soil not yet in its ideal range": "the soil is not surely in its ideal range yet",
    "before its date by the last frost": "its date by the last frost has not come",
}
PLANTED = {
    "soil too cold": "the soil at the roots is too cold",
    "frost after emergence": "frost would catch it",
    "soil too hot": "it would stand in too hot days at once",
}


def sentence(limit: str, sown: bool = True) -> str:
    """The limit as the end of a sentence that says why."""
    return SENTENCES[limit] if sown else PLANTED.get(limit, SENTENCES[limit])
