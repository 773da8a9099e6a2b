"""What the garden's covers teach each other: what each place has found of its cover goes into the others' forecasts."""

from __future__ import annotations

from datetime import date

from django.db.models import Q

from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.models import Garden
from cloche.apps.places.flows.revision import note_change_at
from cloche.apps.places.models import Place
from cloche.apps.shared import clock
from cloche.bridge.services import pooling
from cloche.bridge.values.inputs import CoverSpan
from cloche.bridge.values.stored import CoverEvidence

WORTH_PASSING_ON = 0.2
"""Change of a factor's logarithm from which the garden's other covers of the kind are worked out anew at once; else it counts
from the next day (assumption)."""
NOTHING = (0.0, 0.0)


def cover_evidence_elsewhere(place: Place) -> list[CoverEvidence]:
    """What the garden's other places have found of their covers (see bridge.services.pooling)."""
    others = Forecast.objects.filter(place__garden=place.garden_id, place__removed_at__isnull=True).exclude(place=place)
    return [evidence for evidence in others.order_by("place_id").values_list("cover_evidence", flat=True) if evidence]


def with_known(spans: list[CoverSpan], place: Place) -> list[CoverSpan]:
    """Covers of a place, or that could be put there, with what the others have found."""
    evidence = cover_evidence_elsewhere(place)
    return [pooling.with_known(span, evidence) for span in spans] if evidence else spans


def cover_evidence_in(garden: Garden) -> list[tuple[Place, CoverEvidence]]:
    """Every place that has found something of its cover, with what it has found."""
    rows = Forecast.objects.filter(place__garden=garden, place__removed_at__isnull=True, cover_evidence__isnull=False)
    # The rest of a forecast is large and of no concern here.
    rows = rows.select_related("place").defer("ground", "frosts", "nights", "watch")
    evidence = ((row.place, row.cover_evidence) for row in rows.order_by("place__walking_order"))
    return [(place, known) for place, known in evidence if known]


def pass_on(place: Place, before: CoverEvidence | None, after: CoverEvidence | None) -> None:
    """Have the others under covers of the kind worked out, if it is worth it."""
    keys = {evidence.key for evidence in (before, after) if evidence}
    if not keys or not _moved(before, after):
        return
    for other in _under_kinds(place, keys, clock.today(place.garden.timezone)):
        note_change_at(other)


def _moved(before: CoverEvidence | None, after: CoverEvidence | None) -> bool:
    """By more than a little, and than its own doubt: two places that hardly know anything must not ask each other on and on."""
    old, new = (evidence.factors if evidence else {} for evidence in (before, after))
    if before and after and before.key != after.key:
        return True
    pairs = [(old.get(name, NOTHING), new.get(name, NOTHING)) for name in {*old, *new}]
    return any(abs(was - now) > max(WORTH_PASSING_ON, doubt) for (was, _), (now, doubt) in pairs)


def _under_kinds(place: Place, keys: set[str], today: date) -> list[Place]:
    current = Q(cover_periods__cover__in=keys) & (Q(cover_periods__last__isnull=True) | Q(cover_periods__last__gte=today))
    return list(Place.objects.filter(current, garden=place.garden_id, removed_at__isnull=True).exclude(pk=place.pk).distinct())
