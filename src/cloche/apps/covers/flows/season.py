"""Whole windows of a bed bare and under covers: asked for, and worked out in the queue, bed by bed."""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from dataclasses import replace
from datetime import date

from cloche.apps.covers.models import SeasonAnswer
from cloche.apps.covers.pages.whatif import aired
from cloche.apps.covers.selectors import coverable
from cloche.apps.forecasts.inputs import cover_description
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.forecasts.pooled import cover_evidence_in, with_known
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Cover, Place
from cloche.apps.seed import selectors as packets
from cloche.apps.shared import clock
from cloche.apps.work import queue
from cloche.bridge.services import covers
from cloche.bridge.values.cover_answers import CropSeason
from cloche.bridge.values.inputs import CoverSpan
from cloche.bridge.values.stored import CropDays

MOVE_SEASON = "covers.move_season"
BARE = ""
OWN = "own-"


def offered(garden: Garden) -> list[tuple[str, str]]:
    """Keys and names: the garden's own covers, of those that are alike one, then kinds that it does not own."""
    own: dict[str, Cover] = {}
    for cover in garden.covers.filter(removed_at__isnull=True).order_by("name"):
        own.setdefault(cover.kind, cover)
    mine = [(f"{OWN}{cover.pk}", cover.name) for cover in own.values()]
    return [*mine, *((key, name) for key, name in covers.for_beds() if key not in own)]


def span_for(garden: Garden, key: str, today: date) -> CoverSpan | None:
    """A cover as somebody who is there would air it; None: bare, or one that is gone."""
    if key.startswith(OWN):
        cover = garden.covers.filter(pk=key.removeprefix(OWN), removed_at__isnull=True).first()
        if cover is None:
            return None
        return CoverSpan(cover.kind, **aired(cover.kind), **cover_description(cover, today))  # type: ignore[arg-type]
    return CoverSpan(key, **aired(key)) if key else None  # type: ignore[arg-type]


def question_of(place: Place, today: date) -> str:
    """All that the answers of a bed rest on, besides the covers themselves."""
    garden = place.garden
    values = (
        today,
        place.forecast.made_at,
        sorted((key, choice.sowing_rule, choice.method) for key, choice in packets.choices_of(garden).items()),
        garden.sowing_rule,
        [values for other, values in cover_evidence_in(garden) if other.pk != place.pk],
    )
    return hashlib.sha256(repr(values).encode()).hexdigest()


def answers_for(place: Place, keys: Sequence[str], today: date) -> dict[str, list[CropSeason]]:
    """The answers that are there, by cover, the bare bed's among them; where one is lacking they are queued together."""
    question, wanted = question_of(place, today), [BARE, *keys]
    rows = SeasonAnswer.objects.filter(place=place, cover__in=wanted, question=question)
    answers = {row.cover: row.answer for row in rows}
    due = [key for key in wanted if key not in answers]
    if due:
        queue.put_due(MOVE_SEASON, {f"season-{place.pk}": {"place_id": place.pk, "keys": due}}, queue.LATER)
    return answers


def answer(place: Place, keys: Sequence[str]) -> None:
    """Work out a bed's windows under some covers, and keep them in place of those of another day."""
    from cloche.apps.forecasts.flows.refresh import inputs_of
    from cloche.bridge.services.forecasting import windows_under

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
    """With since when its window has been open, as the answer of before knew it: the window as it is worked out today begins
    with today."""
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
    """Beds that a cover could go on and that are worked out."""
    return list(coverable(garden).filter(forecast__isnull=False).select_related("forecast", "garden"))
