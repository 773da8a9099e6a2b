"""Plantings of the demo gardens."""

from __future__ import annotations

from datetime import timedelta

from cloche.apps.gardens.models import Garden, User
from cloche.apps.plants.models import BedShape, PlantEvent, Planting
from cloche.apps.shared import clock
from cloche.apps.sowings.models import Count, Sowing
from cloche.apps.years.models import Sign
from cloche.bridge.services import crops
from cloche.demo.plants import EARLIER, PLANTINGS, SHAPES, SIGNS, PlantingPlan


def stand(garden: Garden, person: User) -> None:
    """Add bed sizes and past, standing and planned plantings."""
    places = {place.name: place for place in garden.places.all()}
    for shape in SHAPES:
        sizes = {"length_m": shape.length_m, "width_m": shape.width_m, "square_m": shape.square_m, "runs_deg": shape.runs_deg}
        BedShape.objects.create(place=places[shape.place], **sizes)
    today = clock.today(garden.timezone)
    for name, crop_key, ago_d, seeds, counts in EARLIER:
        depth = crops.crop(crop_key).sowing_depth_m
        sown = {
            "crop_key": crop_key,
            "sown_on": today - timedelta(days=ago_d),
            "seeds": seeds,
            "depth_m": depth,
            "finished": True,
        }
        sowing = Sowing.objects.create(place=places[name], entered_by=person, **sown)
        Count.objects.bulk_create(Count(sowing=sowing, on=today - timedelta(days=back), up=up) for back, up in counts)
    Sign.objects.bulk_create(Sign(garden=garden, name=name, on=today - timedelta(days=ago_d)) for name, ago_d in SIGNS)
    for plan in PLANTINGS:
        _stand(plan, Planting(place=places[plan.place], entered_by=person))


def _stand(plan: PlantingPlan, planting: Planting) -> None:
    today = clock.today(planting.place.garden.timezone)
    planting.crop_key, planting.origin, planting.layout, planting.number = plan.crop_key, plan.origin, plan.layout, plan.number
    planting.thinning = plan.thinning
    on = today - timedelta(days=plan.ago_d)
    if plan.ago_d > 0:
        planting.planted_on = on
    else:
        planting.planned_on = on
    if plan.at:
        planting.x_m, planting.y_m, planting.length_m, planting.width_m = plan.at
    if plan.ended_d is not None:
        planting.ended_on = today - timedelta(days=plan.ended_d)
    if plan.origin == Planting.Origin.SOWN:
        planting.sowing = planting.place.sowings.filter(crop_key=plan.crop_key, sown_on=on).first()
    planting.packet = planting.place.garden.packets.filter(crop_key=plan.crop_key, in_use=True).first()
    planting.save()
    for kind, ago_d, fields in plan.events:
        PlantEvent.objects.create(planting=planting, kind=kind, on=today - timedelta(days=ago_d), **dict(fields))
