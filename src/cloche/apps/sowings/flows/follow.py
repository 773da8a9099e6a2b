"""Sowings as the forecast takes them, and what it says of them kept. Runs in a worker."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date, timedelta

from cloche.apps.places.models import Place
from cloche.apps.sowings import selectors
from cloche.apps.sowings.models import Sowing
from cloche.bridge.services.lots import pooled_pace, pooled_stand
from cloche.bridge.values.inputs import SownBatch
from cloche.bridge.values.stored import SowingOutlook
from cloche.core.crops.lots import FRESH_RATE


def followed(place: Place, everything: list[Sowing], today: date) -> Iterator[SownBatch]:
    """Sowings of a place that still stand there, those that are up for good too; everything: the garden's sowings, which tell
    of its seed."""
    for sowing in everything:
        recent = today - timedelta(days=selectors.FOLLOWED_D) <= sowing.sown_on
        if sowing.place_id == place.pk and recent:
            packet = sowing.packet
            yield SownBatch(
                number=sowing.pk,
                crop_key=sowing.crop_key,
                sown_on=sowing.sown_on,
                depth_m=sowing.depth_m,
                seeds=sowing.seeds,
                rate=selectors.viability(packet, today, everything).rate if packet else FRESH_RATE,
                values=dict(packet.values) if packet else {},
                counts=tuple((count.on, count.up) for count in sowing.counts.all()),
                over=sowing.finished,
                outlook=sowing.outlook,
                before=tuple((step.on, tuple(step.left_c)) for step in sowing.steps.all() if step.left_c),
            )


def keep_outlooks(outlooks: dict[int, SowingOutlook]) -> None:
    """Store what was worked out."""
    for pk, outlook in outlooks.items():
        Sowing.objects.filter(pk=pk).update(outlook=outlook)


def pace_of(everything: list[Sowing]) -> tuple[float, float]:
    """How much slower than the laboratory a garden's soil is, by all its sowings that were counted: middle and log SD."""
    pooled = [s.outlook.pace for s in everything if s.outlook and s.seeds and len(s.counts.all())]
    return pooled_pace(pooled)


def stand_of(everything: list[Sowing]) -> tuple[float, float]:
    """How much more of what lives comes through in a garden than in others, by all its sowings that were counted."""
    pooled = [s.outlook.stand for s in everything if s.outlook and s.seeds and len(s.counts.all())]
    return pooled_stand(pooled)
