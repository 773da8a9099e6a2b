"""After a frost: what the night did to each sowing that was up, what to look for, and until when sowing again is sensible."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors as forecasts
from cloche.apps.gardens.models import Garden
from cloche.apps.shared import words
from cloche.apps.today import texts
from cloche.apps.today.after import WORST_FIRST, Frosted, frosted_in
from cloche.bridge.values.units import Units


@dataclass(frozen=True)
class AfterLine:
    """One sowing. harm: a code; text: what happened; look: for what; again: until when sowing again is sensible."""

    place: str
    place_pk: int
    name: str
    harm: str
    text: str
    look: str
    again: str


@dataclass(frozen=True)
class AfterPage:
    """Context of today/after.html."""

    headline: str
    sub: str
    lines: list[AfterLine]


def after_page(garden: Garden, units: Units, today: date) -> AfterPage:
    """All sowings that were up in a night that was cold enough, the worst hurt first."""
    frosted = frosted_in(forecasts.grounds_in(garden), today)
    lines = [
        AfterLine(
            row.place.name,
            row.place.pk,
            row.name,
            str(row.what.harm),
            texts.frosted(row, units),
            texts.look_for(row),
            texts.sow_again(row, today),
        )
        for row in frosted
    ]
    return AfterPage(_headline(frosted), _sub(lines), lines)


def _headline(frosted: Sequence[Frosted]) -> str:
    """How it went, in a sentence."""
    if not frosted:
        return _("No frost has reached what is up in the last nights.")
    counts = [(harm, sum(row.what.harm is harm for row in frosted)) for harm in WORST_FIRST]
    parts = [f"{words.count(count, 'sowing', 'sowings')} {texts.HARM_NAMES[harm]}" for harm, count in counts if count]
    return _("After the frost: {listed}.").format(listed=words.listed(parts, 4))


def _sub(lines: list[AfterLine]) -> str:
    if not lines:
        return _("What frost does to a crop depends on its stage; after a cold night each sowing stands here.")
    return _("By the cold that plants felt where they stand, at their stage. What you see counts more: look before you act.")
