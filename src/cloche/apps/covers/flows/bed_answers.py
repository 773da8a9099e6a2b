"""What an own cover would do on each bed: asked for, and worked out in the queue, bed by bed."""

from __future__ import annotations

import hashlib
from collections.abc import Collection
from datetime import date

from django.db.models import QuerySet

from cloche.apps.covers.models import BedAnswer
from cloche.apps.covers.pages.whatif import aired, usual_crops
from cloche.apps.covers.selectors import coverable
from cloche.apps.forecasts.inputs import cover_description, described
from cloche.apps.forecasts.models import Forecast, ModelSnapshot
from cloche.apps.forecasts.pooled import cover_evidence_in, with_known
from cloche.apps.places.models import Cover, Place
from cloche.apps.shared import clock
from cloche.apps.sowings.selectors import sowings_in
from cloche.apps.work import queue
from cloche.bridge.values.cover_answers import BedGain
from cloche.bridge.values.heavy import OutdatedSnapshot, WhatIfQuery
from cloche.bridge.values.inputs import CoverSpan

ANSWER_BED = "covers.answer_bed"
MOST_BEDS = 12
WARMED_D = 14


def beds_for(cover: Cover) -> QuerySet[Place]:
    """Beds that it could go on and that are worked out."""
    return coverable(cover.garden).filter(snapshot__isnull=False).select_related("garden")[:MOST_BEDS]


def questions_of(cover: Cover, places: Collection[Place], today: date) -> dict[int, str]:
    """All that the answer for each place rests on: when its forecast was made, what the garden's other places have found of
    their covers, the cover, the crops."""
    garden = cover.garden
    known = [(other.pk, repr(values)) for other, values in cover_evidence_in(garden)]
    description = sorted(cover_description(cover, today).items(), key=str)
    same = repr((today, description, cover.kind, usual_crops(garden), garden.sowing_rule))
    # When alone: a forecast is large.
    made = dict(Forecast.objects.filter(place__in=places).values_list("place_id", "made_at"))
    questions = {}
    for place in places:
        others = [values for pk, values in known if pk != place.pk]
        questions[place.pk] = hashlib.sha256(repr((same, made.get(place.pk), others)).encode()).hexdigest()
    return questions


def answers_for(cover: Cover, today: date) -> dict[int, BedAnswer]:
    """The answers that are there, by bed; the others are queued, each once however often this is asked."""
    answers = {answer.place_id: answer for answer in BedAnswer.objects.filter(cover=cover)}
    good, due = {}, {}
    for place_id, question in questions_of(cover, list(beds_for(cover)), today).items():
        answer = answers.get(place_id)
        if answer is not None and answer.question == question and answer.answer is not None:
            good[place_id] = answer
        else:
            due[f"bed-{cover.pk}-{place_id}"] = {"cover_id": cover.pk, "place_id": place_id}
    queue.put_due(ANSWER_BED, due, queue.LATER)
    return good


def answer(cover: Cover, place: Place) -> BedAnswer | None:
    """Put the cover on the bed today, and keep what that would do. None where the bed is not worked out (any more)."""
    from cloche.bridge.services.whatif import what_if

    garden, today = cover.garden, clock.today(cover.garden.timezone)
    snapshot = ModelSnapshot.objects.filter(place=place).first()
    if snapshot is None:
        return None
    question = questions_of(cover, [place], today)[place.pk]
    span = CoverSpan(cover.kind, **aired(cover.kind), **cover_description(cover, today))  # type: ignore[arg-type]
    query = WhatIfQuery(
        0, WARMED_D, tuple(with_known([span], place)), usual_crops(garden), garden.sowing_rule != garden.SowingRule.MINIMUM
    )
    try:
        _, under = what_if(bytes(snapshot.packed), described(place, list(sowings_in(garden))), query)
    except OutdatedSnapshot:
        return None
    gained = [(crop.crop_key, crop.gained_d) for crop in under.crops if crop.gained_d]
    values = {"question": question, "answer": BedGain(under.gain_k[1], gained)}
    answer, _ = BedAnswer.objects.update_or_create(cover=cover, place=place, defaults=values)
    return answer
