"""Changes to plantings: plan, plant, observe, end and save seed."""

from __future__ import annotations

from datetime import date, timedelta

from django.db import transaction

from cloche.apps.gardens.models import User
from cloche.apps.places.flows import note_change_at
from cloche.apps.plants.models import BedShape, PlantEvent, Planting, SavedSeed
from cloche.apps.plants.selectors import next_spot, shape_of
from cloche.apps.seed.flows import keep as keep_packet
from cloche.apps.seed.models import Packet
from cloche.apps.shared import clock
from cloche.apps.sowings.flows import remove as take_off
from cloche.apps.sowings.flows import sow, take_back, take_step
from cloche.apps.sowings.models import Sowing, Step
from cloche.apps.sowings.selectors import progress_of
from cloche.bridge.services import beds, crops


@transaction.atomic
def keep_shape(shape: BedShape) -> None:
    """Save the size of a bed."""
    shape.save()


@transaction.atomic
def keep(planting: Planting, person: User | None) -> Planting:
    """Save a new or changed planting; plants in a place set the frost limits that matter there."""
    before = Planting.objects.filter(pk=planting.pk).select_related("place").first()
    if before is None:
        planting.entered_by = person
    _sow(planting, person)
    planting.save()
    if planting.planted_on is not None or (before and before.planted_on is not None):
        note_change_at(planting.place)
        if before and before.place_id != planting.place_id:
            note_change_at(before.place)
    return planting


def lay(planting: Planting, x_m: float, y_m: float, length_m: float, width_m: float) -> None:
    """Save where a planting lies on the plan. The forecast does not depend on it."""
    planting.x_m, planting.y_m, planting.length_m, planting.width_m = x_m, y_m, length_m, width_m
    planting.save(update_fields=["x_m", "y_m", "length_m", "width_m"])


@transaction.atomic
def plant(planting: Planting, on: date, person: User | None) -> None:
    """Mark a planned planting as done.

    What is sown becomes a sowing, so that its emergence is predicted and can be counted.
    """
    planting.planted_on = on
    _sow(planting, person)
    planting.save(update_fields=["planted_on", "sowing"])
    note_change_at(planting.place)


@transaction.atomic
def not_planted(planting: Planting) -> None:
    """Undo `plant`: the planting is planned again."""
    planting.planted_on = None
    if planting.sowing is not None:
        if planting.is_seeded:
            take_off(planting.sowing)
        planting.sowing = None
    planting.save(update_fields=["planted_on", "sowing"])
    note_change_at(planting.place)


@transaction.atomic
def plant_out(step: Step, person: User | None) -> Planting:
    """Plant out a raised sowing.

    Adds it to the bed where it was planned, or in the first free square.
    """
    sowing = take_step(step).sowing
    meant = Planting.objects.filter(
        place=sowing.place, crop_key=sowing.crop_key, origin=Planting.Origin.RAISED, planted_on=None, ended_on=None
    )
    planting = meant.filter(removed_at=None, sowing=None).order_by("planned_on", "pk").first()
    if planting is None:
        planting = Planting(place=sowing.place, crop_key=sowing.crop_key, packet=sowing.packet, entered_by=person)
        planting.origin = Planting.Origin.RAISED
        crop = crops.crop(sowing.crop_key)
        planting.length_m, planting.width_m = crop.plant_m, crop.row_m
        planting.number = progress_of(sowing, step.on).counted or None
        spot = next_spot(sowing.place, shape_of(sowing.place))
        if spot is not None:
            planting.x_m, planting.y_m = spot
    planting.sowing, planting.planted_on = sowing, step.on
    planting.save()
    return planting


@transaction.atomic
def take_planting_out_back(step: Step) -> None:
    """Undo `plant_out`: the planting is planned again, or removed if it was not planned. Raises NotTheLast."""
    planted = Planting.objects.filter(sowing=step.sowing, origin=Planting.Origin.RAISED, planted_on=step.on, removed_at=None)
    take_back(step)
    for planting in planted:
        planting.sowing = planting.planted_on = None
        if planting.planned_on is None:
            planting.removed_at = clock.now()
        planting.save(update_fields=["sowing", "planted_on", "removed_at"])


def _sow(planting: Planting, person: User | None) -> None:
    if not planting.is_seeded or planting.sowing or not planting.planted_on:
        return
    size, own = (planting.length_m, planting.width_m), (planting.plant_m, planting.row_m, planting.per_station)
    sowing = Sowing(place=planting.place, packet=planting.packet, crop_key=planting.crop_key, sown_on=planting.planted_on)
    sowing.seeds = planting.number or beds.patch(planting.crop_key, size, planting.layout, own).seeds
    sowing.depth_m = crops.crop(planting.crop_key).sowing_depth_m
    planting.sowing = sow(sowing, person)


@transaction.atomic
def end(planting: Planting, on: date | None) -> None:
    """Mark a planting as ended on a day, or as still standing."""
    planting.ended_on = on
    planting.save(update_fields=["ended_on"])
    note_change_at(planting.place)


@transaction.atomic
def remove(planting: Planting) -> None:
    """Remove a planting from the plan; it can be restored."""
    planting.removed_at = clock.now()
    planting.save(update_fields=["removed_at"])
    note_change_at(planting.place)


@transaction.atomic
def put_back(planting: Planting) -> None:
    """Restore a removed planting."""
    planting.removed_at = None
    planting.save(update_fields=["removed_at"])
    note_change_at(planting.place)


@transaction.atomic
def note_event(event: PlantEvent) -> PlantEvent:
    """Save an observation; when the last plants die, the ground becomes free."""
    event.save()
    planting = event.planting
    if event.kind == PlantEvent.Kind.DIED and planting.number is not None and planting.is_standing:
        died = sum(event.number or 0 for event in planting.events.filter(kind=PlantEvent.Kind.DIED))
        if died >= planting.number:
            planting.ended_on = event.on
            planting.save(update_fields=["ended_on"])
    note_change_at(planting.place)
    return event


@transaction.atomic
def remove_event(event: PlantEvent) -> None:
    """Remove an observation and its consequences."""
    planting = event.planting
    if event.kind == PlantEvent.Kind.DIED and planting.ended_on == event.on:
        planting.ended_on = None
        planting.save(update_fields=["ended_on"])
    event.delete()
    note_change_at(planting.place)


@transaction.atomic
def in_succession(planting: Planting, every_d: int, times: int, person: User) -> list[Planting]:
    """Add repeats of a planting every so many days, not yet placed on the plan."""
    first = planting.planned_on or planting.planted_on or clock.today(planting.place.garden.timezone)
    plantings = []
    for number in range(1, times + 1):
        again = Planting.objects.get(pk=planting.pk)
        again.pk, again.sowing, again.planted_on, again.ended_on, again.x_m, again.y_m = None, None, None, None, None, None
        again._state.adding = True
        again.planned_on, again.entered_by = first + timedelta(days=every_d * number), person
        again.save()
        plantings.append(again)
    return plantings


@transaction.atomic
def save_seed(planting: Planting, variety: str, year: int) -> Packet:
    """Add a packet of seed saved from a planting.

    It sets the values of the windows only if there is no other packet.
    """
    garden = planting.place.garden
    kept = Packet.objects.filter(garden=garden, crop_key=planting.crop_key, removed_at__isnull=True)
    packet = Packet(garden=garden, crop_key=planting.crop_key, variety=variety, packed_year=year)
    packet.in_use = not kept.filter(in_use=True).exists()
    keep_packet(packet)
    SavedSeed.objects.create(packet=packet, planting=planting)
    return packet
