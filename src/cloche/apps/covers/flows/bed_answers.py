"""What an own cover would do on each bed: asked for, and worked out in the queue, bed by bed."""

from __future__ import annotations

import hashlib
from datetime import date

from django.db.models import QuerySet

from cloche.apps.covers.models import BedAnswer
from cloche.apps.covers.pages.whatif import aired, usual_crops
from cloche.apps.covers.selectors import coverable
from cloche.apps.forecasts.inputs import cover_description, described
from cloche.apps.forecasts.models import ModelSnapshot
from cloche.apps.forecasts.pooled import cover_evidence_in, with_known
from cloche.apps.places.models import Cover, Place
from cloche.apps.shared import clock
from cloche.apps.sowings.selectors import sowings_in
from cloche.apps.work import queue
from cloche.bridge.values.cover_answers import BedGain
from cloche.bridge.values.inputs import CoverSpan
from cloche.bridge.values.stored import CoverEvidence

ANSWER_BED = "covers.answer_bed"
MOST_BEDS = 12
WARMED_D = 14


def beds_for(cover: Cover) -> QuerySet[Place]:
    """Beds that it could go on and that are worked out."""
    return coverable(cover.garden).filter(snapshot__isnull=False).select_related("forecast", "garden")[:MOST_BEDS]


def question_of(cover: Cover, place: Place, today: date, cover_evidence: list[tuple[Place, CoverEvidence]]) -> str:
    """All that an answer rests on. cover_evidence: what the garden's places have found of their covers."""
    garden = cover.garden
    values = (
        today,
        place.forecast.made_at,
        sorted(cover_description(cover, today).items(), key=str),
        [values for other, values in cover_evidence if other.pk != place.pk],
        cover.kind,
        usual_crops(garden),
        garden.sowing_rule,
    )
    return hashlib.sha256(repr(values).encode()).hexdigest()


def answers_for(cover: Cover, today: date) -> dict[int, BedAnswer]:
    """The answers that are there, by bed; the others are queued, each once however often this is asked."""
    found = {one.place_id: one for one in BedAnswer.objects.filter(cover=cover)}
    good, due, cover_evidence = {}, {}, cover_evidence_in(cover.garden)
    for place in beds_for(cover):
        answer, question = found.get(place.pk), question_of(cover, place, today, cover_evidence)
        if answer is not None and answer.question == question and answer.answer is not None:
            good[place.pk] = answer
        else:
            due[f"bed-{cover.pk}-{place.pk}"] = {"cover_id": cover.pk, "place_id": place.pk}
    queue.put_due(ANSWER_BED, due, queue.LATER)
    return good


def answer(cover: Cover, place: Place) -> BedAnswer | None:
    """Put the cover on the bed today, and keep what that would do. None where the bed is not worked out (any more)."""
    from cloche.bridge.services.whatif import OutdatedSnapshot, WhatIfQuery, what_if

    garden, today = cover.garden, clock.today(cover.garden.timezone)
    snapshot = ModelSnapshot.objects.filter(place=place).first()
    if snapshot is None:
        return None
    question = question_of(cover, place, today, cover_evidence_in(garden))
    span = CoverSpan(cover.kind, **aired(cover.kind), **cover_description(cover, today))  # type: ignore[arg-type]
    query = WhatIfQuery(
        0, WARMED_D, tuple(with_known([span], place)), usual_crops(garden), garden.sowing_rule != garden.SowingRule.MINIMUM
    )
    try:
        _, under = what_if(bytes(snapshot.packed), described(place, list(sowings_in(garden))), query)
    except OutdatedSnapshot:
        return None
    gained = [(one.crop_key, one.gained_d) for one in under.crops if one.gained_d]
    values = {"question": question, "answer": BedGain(under.gain_k[1], gained)}
    found, _ = BedAnswer.objects.update_or_create(cover=cover, place=place, defaults=values)
    return found
