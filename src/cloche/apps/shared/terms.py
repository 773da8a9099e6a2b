"""Definitions of gardening and forecasting terms, shown on Help and wherever a term is used."""

from __future__ import annotations

from dataclasses import dataclass

from cloche.apps.shared.words import lazy


@dataclass(frozen=True)
class Term:
    """A term and its definition."""

    key: str
    word: str
    text: str


TERMS = (
    Term(
        "minimum",
        lazy("Minimum and ideal temperature"),
        lazy(
            "The soil temperature at which seed just germinates, and the range in which nearly all of it "
            "comes up fast. Measured at seed depth, as a daily mean."
        ),
    ),
    Term(
        "window",
        lazy("Window"),
        lazy(
            "The dates on which a sowing succeeds from seed to harvest eight times in ten. Best dates: those "
            "with nearly the best harvest."
        ),
    ),
    Term(
        "sure",
        lazy("Eight times in ten"),
        lazy(
            "Cloche simulates each bed forty times, with weather and soil that vary as much as they "
            "realistically could, and counts how many of these sowings succeed. The shaded band contains the "
            "soil temperature eight times in ten."
        ),
    ),
    Term("half", lazy("Half up"), lazy("The date on which half of the seedlings that will come up are visible.")),
    Term(
        "harden",
        lazy("Harden off"),
        lazy("To accustom plants raised indoors to sun, wind and cool nights over a week or two before planting out."),
    ),
    Term(
        "fleece",
        lazy("Fleece (row cover)"),
        lazy("A light cloth laid over a bed. It lets rain and air through and protects from light frost."),
    ),
    Term(
        "tunnel",
        lazy("Low tunnel, cloche, cold frame"),
        lazy(
            "Clear film on hoops, a bell or bent sheet over a row, or a box with a glass or plastic lid. All "
            "of them must be opened on sunny days."
        ),
    ),
    Term("hotbed", lazy("Hotbed"), lazy("A bed on top of trodden dung and straw, which give off heat as they rot.")),
    Term(
        "normals",
        lazy("Normals"),
        lazy("The mean low and high of each month, from the nearest weather station."),
    ),
    Term(
        "frost",
        lazy("Last frost"),
        lazy("The last night of spring with freezing air, as the middle of many years: in half of them it comes later."),
    ),
    Term(
        "seed_depth",
        lazy("Seed depth"),
        lazy("The sowing depth, at which a place is also measured. Always use the same depth."),
    ),
)


def explained(*keys: str) -> list[Term]:
    """Return terms in the order given. Raises KeyError for an unknown one."""
    known = {term.key: term for term in TERMS}
    return [known[key] for key in keys]
