"""Questions about sowings and lots of seed. Light: pages ask them."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date, timedelta

from django.db.models import Prefetch, Q, QuerySet

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.seed.models import Packet
from cloche.apps.sowings.models import Count, Intention, Sowing, Step
from cloche.bridge.services import crops
from cloche.bridge.services.lots import viability_of
from cloche.core.crops.lots import FRESH_RATE, Viability

FOLLOWED_D, YEAR_D = 150, 365


def sowings_in(garden: Garden) -> QuerySet[Sowing]:
    """Current sowings of a garden's current places, the latest first."""
    current = Place.objects.filter(garden=garden)
    rows = Sowing.objects.filter(place__in=current, removed_at__isnull=True).select_related("place", "packet")
    steps = Step.objects.order_by("on", "id").select_related("place", "left")
    return rows.prefetch_related(Prefetch("counts", Count.objects.order_by("on")), Prefetch("steps", steps))


def sowings_followed(garden: Garden, today: date, lately_d: int, raised: Iterable[int]) -> QuerySet[Sowing]:
    """Those of which something is still expected, those of the past lately_d days, and of the year in places (raised, their
    numbers) whose plants stand there before they go out."""
    still = Q(finished=False) | Q(sown_on__gt=today - timedelta(days=lately_d))
    return sowings_in(garden).filter(still | Q(place__in=raised, sown_on__gte=today - timedelta(days=YEAR_D)))


def viability(packet: Packet, today: date, sowings: list[Sowing]) -> Viability:
    """Of a packet, from its age, its test and those of its sowings that were counted to the end."""
    crop = crops.crop(packet.crop_key)
    age_y = None if packet.packed_year is None else max(0, today.year - packet.packed_year)
    trials: list[tuple[int, int, float]] = []
    if packet.tested_of and packet.tested_up is not None:
        trials.append((packet.tested_of, packet.tested_up, 1.0))
    for sowing in sowings:
        if sowing.packet_id == packet.pk and sowing.finished and sowing.seeds and sowing.outlook:
            counts = [count.up for count in sowing.counts.all()]
            if counts:
                trials.append((sowing.seeds, min(max(counts), sowing.seeds), min(sowing.outlook.share, 0.999)))
    return viability_of(crop, age_y, trials)


def usual_rate(garden: Garden, crop_key: str, today: date) -> float:
    """Share of the seed in use that is alive, as far as is known; of fresh seed where nothing is."""
    packet = Packet.objects.filter(garden=garden, crop_key=crop_key, in_use=True, removed_at__isnull=True).first()
    if packet is None:
        return FRESH_RATE
    return viability(packet, today, list(sowings_in(garden).filter(packet=packet, finished=True))).rate


def intended_in(garden: Garden) -> QuerySet[Intention]:
    """Sowings that are meant to be made and neither made nor given up, the soonest first."""
    current = Place.objects.filter(garden=garden)
    return Intention.objects.filter(place__in=current, made=None, dropped_at=None).select_related("place")
