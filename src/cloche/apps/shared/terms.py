"""Words of the trade and of forecasts, each explained once: on Help, and where it is used, in place."""

from __future__ import annotations

from dataclasses import dataclass

from cloche.apps.shared.words import lazy


@dataclass(frozen=True)
class Term:
    """A word and what it means."""

    key: str
    word: str
    text: str


TERMS = (
    Term(
        "minimum",
        lazy("Minimum, ideal"),
        lazy(
            "Soil in which seed just starts, and in which it comes up fast and "
            "nearly all of it. Measured at seed depth, as the "
            "mean of the day."
        ),
    ),
    Term(
        "window",
        lazy("Window"),
        lazy(
            "The days on which a sowing succeeds from seed to harvest eight "
            "times in ten. Best days: those that give nearly the "
            "best harvest."
        ),
    ),
    Term(
        "sure",
        lazy("Eight times in ten"),
        lazy(
            "Cloche works out each bed forty times, with weather and ground that differ as much as they may; it counts in how "
            "many of them the sowing succeeds. The shaded band holds the soil’s temperature eight times in ten."
        ),
    ),
    Term("half", lazy("Half up"), lazy("The day on which half of the seedlings that will come up can be seen.")),
    Term(
        "harden",
        lazy("Harden off"),
        lazy("To get plants raised indoors used to sun, wind and cool nights, over a week or two, before they are set out."),
    ),
    Term(
        "fleece",
        lazy("Fleece, row cover"),
        lazy("A light cloth laid over a bed. Rain and air pass it; it takes the edge off frost."),
    ),
    Term(
        "tunnel",
        lazy("Low tunnel, cloche, cold frame"),
        lazy(
            "Clear film on hoops; a bell or bent sheet over a row; a box with a "
            "glass or plastic lid. Each must be opened on sunny "
            "days."
        ),
    ),
    Term("hotbed", lazy("Hotbed"), lazy("A bed over trodden dung and straw, which heat as they rot.")),
    Term(
        "normals",
        lazy("Normals"),
        lazy("The mean low and high of each month, from the weather service nearest to you."),
    ),
    Term(
        "frost",
        lazy("Last frost"),
        lazy(
            "The last night of spring on which the air falls to freezing, in the middle of many years: half of the years it is "
            "later."
        ),
    ),
    Term(
        "seed_depth",
        lazy("Seed depth"),
        lazy("As deep as the seed will lie, and the depth at which a place is read: always the same one."),
    ),
)


def explained(*keys: str) -> list[Term]:
    """These terms, in the order given. Raises KeyError for one that is not explained."""
    known = {term.key: term for term in TERMS}
    return [known[key] for key in keys]
