"""Write down what covers would do, which covers a garden owns, and trials of them."""

from __future__ import annotations

import hashlib
from collections.abc import Collection, Iterator, Sequence
from dataclasses import replace
from datetime import date, datetime

from django.db import transaction
from django.db.models import QuerySet

from cloche.apps.covers.models import BedAnswer, CoverTrial, SeasonAnswer
from cloche.apps.covers.pages.whatif import aired, usual_crops
from cloche.apps.covers.selectors import coverable, pairs_of
from cloche.apps.forecasts.inputs import build_inputs, cover_description, cover_evidence_in, with_known
from cloche.apps.forecasts.models import CropOutlook, Forecast, ModelSnapshot
from cloche.apps.gardens.models import Garden, User
from cloche.apps.places.flows import note_change_at
from cloche.apps.places.models import Cover, Hotbed, Place
from cloche.apps.readings.flows.record import Measured, record_reading
from cloche.apps.seed import selectors as packets
from cloche.apps.shared import clock
from cloche.apps.sowings.selectors import sowings_in
from cloche.apps.work import queue
from cloche.bridge.services import covers
from cloche_engine.inputs import CoverSpan, Under
from cloche_engine.queries import OutdatedSnapshot, WhatIfQuery
from cloche_engine.results import BedGain, CropDays, CropSeason

ANSWER_BED = "covers.answer_bed"
MOST_BEDS = 12
WARMED_D = 14


def beds_for(cover: Cover) -> QuerySet[Place]:
    """Return the beds with a forecast on which the cover could go."""
    return coverable(cover.garden).filter(snapshot__isnull=False).select_related("garden")[:MOST_BEDS]


def questions_of(cover: Cover, places: Collection[Place], today: date) -> dict[int, str]:
    """Return a key for everything an answer depends on, by place.

    It includes the forecast's time, the evidence about covers from other places, the cover and the crops.
    """
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


def bed_answers(cover: Cover, today: date) -> dict[int, BedAnswer]:
    """Return available answers by bed and queue the others, each only once."""
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


def answer_bed(cover: Cover, place: Place) -> BedAnswer | None:
    """Compute and store the effect of a cover on a bed today, None if the bed has no forecast (any more)."""
    from cloche_engine.api import what_if

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
        _, under = what_if(bytes(snapshot.packed), build_inputs(place, list(sowings_in(garden))), query)
    except OutdatedSnapshot:
        return None
    gained = [(crop.crop_key, crop.gained_d) for crop in under.crops if crop.gained_d]
    values = {"question": question, "answer": BedGain(under.gain_k[1], gained)}
    answer, _ = BedAnswer.objects.update_or_create(cover=cover, place=place, defaults=values)
    return answer


MOVE_SEASON = "covers.move_season"
BARE = ""
OWN = "own-"


def offered(garden: Garden) -> list[tuple[str, str]]:
    """Return keys and names of the garden's own covers, one of each kind, then kinds that it does not own."""
    own: dict[str, Cover] = {}
    for cover in garden.covers.filter(removed_at__isnull=True).order_by("name"):
        own.setdefault(cover.kind, cover)
    mine = [(f"{OWN}{cover.pk}", cover.name) for cover in own.values()]
    return [*mine, *((key, name) for key, name in covers.for_beds() if key not in own)]


def span_for(garden: Garden, key: str, today: date) -> CoverSpan | None:
    """Return a cover as an attentive grower would open it, None for no cover or one that has been removed."""
    if key.startswith(OWN):
        cover = garden.covers.filter(pk=key.removeprefix(OWN), removed_at__isnull=True).first()
        if cover is None:
            return None
        return CoverSpan(cover.kind, **aired(cover.kind), **cover_description(cover, today))  # type: ignore[arg-type]
    return CoverSpan(key, **aired(key)) if key else None  # type: ignore[arg-type]


def question_of(place: Place, today: date) -> str:
    """Return a key for everything the answers of a bed depend on apart from the covers."""
    garden = place.garden
    values = (
        today,
        place.forecast.made_at,
        sorted((key, choice.sowing_rule, choice.method) for key, choice in packets.choices_of(garden).items()),
        garden.sowing_rule,
        [values for other, values in cover_evidence_in(garden) if other.pk != place.pk],
    )
    return hashlib.sha256(repr(values).encode()).hexdigest()


def seasons_at(place: Place, keys: Sequence[str], today: date) -> dict[str, list[CropSeason]]:
    """Return available answers by cover, including no cover, and queue the missing ones together."""
    question, wanted = question_of(place, today), [BARE, *keys]
    rows = SeasonAnswer.objects.filter(place=place, cover__in=wanted, question=question)
    answers = {row.cover: row.answer for row in rows}
    due = [key for key in wanted if key not in answers]
    if due:
        queue.put_due(MOVE_SEASON, {f"season-{place.pk}": {"place_id": place.pk, "keys": due}}, queue.LATER)
    return answers


def answer_seasons(place: Place, keys: Sequence[str]) -> None:
    """Compute and store a bed's windows under some covers, replacing those of another day."""
    from cloche.apps.forecasts.flows import inputs_of
    from cloche_engine.api import windows_under

    today = clock.today(place.garden.timezone)
    question = question_of(place, today)
    spans = {key: span_for(place.garden, key, today) for key in keys}
    there = {key: span for key, span in spans.items() if key == BARE or span is not None}
    described = dict(zip([k for k in there if k], with_known([s for s in there.values() if s], place), strict=True))
    windows = windows_under(inputs_of(place), [described.get(key) for key in there])
    before = {row.cover: row.answer for row in SeasonAnswer.objects.filter(place=place, cover__in=list(there))}
    SeasonAnswer.objects.filter(place=place).exclude(question=question).delete()
    for key, crops in zip(there, windows, strict=True):
        known = {season.crop_key: season for season in before.get(key, [])}
        seasons = [carried_on(_season_of(crop), known.get(crop.crop_key), today) for crop in crops if crop.better]
        SeasonAnswer.objects.update_or_create(place=place, cover=key, defaults={"question": question, "answer": seasons})


def carried_on(season: CropSeason, before: CropSeason | None, today: date) -> CropSeason:
    """Return the season with the date on which its open window opened, from the previous answer.

    A window computed today otherwise begins today.
    """
    if before is None or not season.windows or not before.windows or season.sown != before.sown:
        return season
    is_open, opened = season.windows[0].earliest <= today, before.opens
    if not is_open or opened is None or opened >= today or before.windows[0].last < today:
        return season
    return replace(season, open_since=opened)


def _season_of(days: CropDays) -> CropSeason:
    sown = days.method == CropOutlook.Method.DIRECT
    return CropSeason(days.crop_key, sown, days.windows, None if days.windows else days.main_limit)


def beds(garden: Garden) -> list[Place]:
    """Return the beds with a forecast that can be covered."""
    return list(coverable(garden).filter(forecast__isnull=False).select_related("forecast", "garden"))


@transaction.atomic
def save_own(cover: Cover) -> Cover:
    """Save a cover and update the forecasts of its places."""
    cover.save()
    for place in Place.objects.filter(cover_periods__item=cover).distinct():
        note_change_at(place)
    return cover


def remove_own(cover: Cover) -> None:
    """Remove a cover from the list. The record of where it stood remains."""
    cover.removed_at = clock.now()
    cover.save(update_fields=["removed_at"])


def put_back_own(cover: Cover) -> bool:
    """Restore a cover unless another has its name, and return whether that was possible."""
    if Cover.objects.filter(garden=cover.garden, name__iexact=cover.name, removed_at__isnull=True).exists():
        return False
    cover.removed_at = None
    cover.save(update_fields=["removed_at"])
    return True


def begin(trial: CoverTrial) -> CoverTrial:
    """Start a trial. Readings of both places count as its pairs from now on."""
    trial.save()
    return trial


def end(trial: CoverTrial) -> None:
    """End a trial. Later readings no longer count."""
    trial.ended_on = clock.today(trial.covered.garden.timezone)
    trial.save(update_fields=["ended_on"])


@transaction.atomic
def read_pair(trial: CoverTrial, at: datetime, covered_c: float, bare_c: float, person: User) -> None:
    """Save both readings, each to its own place, or neither. Raises AlreadyThere."""
    for place, value in ((trial.covered, covered_c), (trial.bare, bare_c)):
        record_reading(place, Measured(at, trial.depth_m, value), person)


@transaction.atomic
def build_hotbed(bed: Hotbed) -> Hotbed:
    """Save how a hotbed is built and update its heat."""
    bed.save()
    note_change_at(bed.place)
    return bed


MOST_GAINS = 60


def gains_of(place: Place, since: datetime) -> Iterator[Under]:
    """Yield the difference between a trial's covered and bare place at each pair of readings."""

    for trial in CoverTrial.objects.filter(covered=place).select_related("covered__garden", "bare__garden"):
        for pair in [pair for pair in pairs_of(trial, max(since.date(), trial.begun_on)) if pair.at >= since][-MOST_GAINS:]:
            yield Under("gain", pair.at, pair.at, pair.warmer_k, trial.depth_m)
