"""Fill the demo: gardens, people, readings and weather around the demo's day. A second start finds them and leaves them."""

from __future__ import annotations

import zlib
from datetime import datetime, timedelta
from typing import Any
from uuid import NAMESPACE_OID, uuid5

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connection, transaction
from django.db.migrations.exceptions import InconsistentMigrationHistory
from django.db.migrations.loader import MigrationLoader

from cloche.apps.covers.models import CoverTrial
from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.loggers.flows.devices import deploy, let_device_in
from cloche.apps.loggers.flows.take_in import Sent, take_in
from cloche.apps.places.models import Cover, CoverPeriod, HeatPeriod, Hotbed, Lamp, Place, Room, RoomAir
from cloche.apps.readings.flows.record import Measured, Seen, correct_reading, record_visit
from cloche.apps.readings.models import Reading
from cloche.apps.records.demo_plants import stand
from cloche.apps.records.kinds import KINDS
from cloche.apps.shared import clock
from cloche.apps.sowings.flows import intend, take_step
from cloche.apps.sowings.models import Count, Sowing, Step
from cloche.apps.weather import flows
from cloche.apps.weather.models import DailyWeather
from cloche.apps.weather.provider import answer_from
from cloche.bridge.services import crops
from cloche.demo.plan import HILL, HOTBED_AGE_D, SOUTH, GardenPlan
from cloche.demo.plants import EARLIER, PLANTINGS, SHAPES, SIGNS

PASSWORD = "demo-garden"
LOADER = 5
"""Counts up when the same plan is made up otherwise."""


WALK: dict[str, dict[str, Any]] = {
    "North bed": {"moisture": "moist", "note": "first peas through"},
    "Wall frame": {"moisture": "dry", "air_low_c": -1.5, "air_high_c": 31.0, "works": ("watered",)},
    "Bells": {"losses": "two lettuces under the cracked bell, the rest stood"},
}


class Command(BaseCommand):
    """Load the demo data: `load_demo --seed 7`."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--seed", type=int, default=7)
        parser.add_argument("--work", action="store_true", help="work out the forecasts at once, without a worker")

    def handle(self, *args: Any, seed: int, work: bool, **options: Any) -> None:
        if not settings.CLOCHE_DEMO:
            raise CommandError("Demo data go into the demo only, never beside a grower's own.")
        forget_older_tables()
        call_command("ready", verbosity=0)
        if not _already(seed):
            self.stderr.write("Making up the demo gardens (once) ...")
            load(seed)
        if work:
            # Imported late: a start without it has no use for the weight of computing. What another engine made is stale, too.
            from cloche.apps.forecasts.flows import refresh_stale

            self.stderr.write("Working out what the ground will do ...")
            refresh_stale()


def _already(seed: int) -> bool:
    """Return whether the demo with this seed and day is loaded, from the mark in the demo person's first name."""
    return User.objects.filter(username="demo", first_name=_stamp(seed)).exists()


def _stamp(seed: int) -> str:
    """Return the mark of a demo: day, seed and version of its plan."""
    plan = zlib.crc32(repr((LOADER, HILL, SOUTH, SHAPES, PLANTINGS, EARLIER, SIGNS)).encode())
    return f"{clock.now().date().isoformat()} {seed} {plan:08x}"


@transaction.atomic
def load(seed: int) -> None:
    """Replace the demo data."""
    _forget(Reading, DailyWeather)
    Garden.objects.all().delete()
    User.objects.all().delete()
    demo = User.objects.create_user("demo", password=PASSWORD, first_name=_stamp(seed))
    south = User.objects.create_user("southern", password=PASSWORD, temperature_unit="F", length_unit="in")
    for plan, people in ((HILL, [demo]), (SOUTH, [south, demo])):
        garden = _garden(plan)
        for person, role in zip(people, ("owner", "grower"), strict=False):
            Membership.objects.create(garden=garden, user=person, role=role)
        _fill(garden, plan, people[0], seed)
        _sow(garden, plan, people[0])
        _warm(garden, plan, people[0])
        _raise(garden, plan)
        _hear(garden, seed)
    stand(Garden.objects.get(name=HILL.name), demo)
    helper = User.objects.create_user("helper", password=PASSWORD)
    Membership.objects.create(garden=Garden.objects.get(name=HILL.name), user=helper, role="helper")
    _forget(*(kind.model.history.model for kind in KINDS.values()))  # type: ignore[attr-defined]
    _walk(Garden.objects.get(name=HILL.name), demo, helper)


def _walk(garden: Garden, owner: User, helper: User) -> None:
    """Add yesterday's evening round by the helper and a reading later corrected by the owner."""
    evening = clock.now().astimezone(garden.timezone).replace(hour=16, minute=40, second=0, microsecond=0) - timedelta(days=1)
    for minutes, (name, seen) in enumerate(WALK.items()):
        place = garden.places.get(name=name)
        key = uuid5(NAMESPACE_OID, f"{garden.name}, {name}, {evening:%Y-%m-%d}")
        record_visit(place, Seen(key, evening + timedelta(minutes=2 * minutes), **seen), helper)
    reading = Reading.objects.filter(place__garden=garden, place__name="Terrace").order_by("-taken_at")[1]
    reading._history_user = owner  # type: ignore[attr-defined]
    better = Measured(
        reading.taken_at, reading.depth_m, round(reading.temperature_c + 0.6, 1), "read again, it had not settled"
    )
    correct_reading(reading, better)


def _forget(*models: Any) -> None:
    """Delete the demo data at once, without writing history."""
    with connection.cursor() as cursor:
        for model in models:
            cursor.execute(f"DELETE FROM {connection.ops.quote_name(model._meta.db_table)}")  # noqa: S608 - a model's own name


def _garden(plan: GardenPlan) -> Garden:
    lows, highs = plan.climate.monthly()
    return Garden.objects.create(
        name=plan.name,
        latitude_deg=plan.latitude_deg,
        longitude_deg=plan.longitude_deg,
        elevation_m=plan.elevation_m,
        timezone_name=plan.timezone_name,
        normal_lows_c=lows,
        normal_highs_c=highs,
        away_from_h=plan.away and plan.away[0],
        away_to_h=plan.away and plan.away[1],
    )


def _hear(garden: Garden, seed: int) -> None:
    """Store a weather forecast as if the service had just been asked."""
    from cloche.demo.weather_service import report

    site = (garden.latitude_deg, garden.longitude_deg, garden.elevation_m)
    flows.keep(garden, answer_from(report(*site, garden.timezone, clock.now(), seed)))


def _sow(garden: Garden, plan: GardenPlan, person: User) -> None:
    today = clock.today(garden.timezone)
    for packet_plan in plan.packets:
        of, up = packet_plan.tested or (None, None)
        in_use = not garden.packets.filter(crop_key=packet_plan.crop_key).exists()
        garden.packets.create(
            crop_key=packet_plan.crop_key,
            variety=packet_plan.variety,
            packed_year=today.year - packet_plan.age_y,
            price=packet_plan.price,
            tested_of=of,
            tested_up=up,
            values=dict(packet_plan.values),
            in_use=in_use,
        )
    for made in plan.sowings:
        sowing = Sowing.objects.create(
            place=garden.places.get(name=made.place),
            packet=garden.packets.filter(crop_key=made.crop_key, in_use=True).first(),
            crop_key=made.crop_key,
            sown_on=today - timedelta(days=made.ago_d),
            seeds=made.seeds,
            depth_m=crops.crop(made.crop_key).sowing_depth_m,
            entered_by=person,
            finished=made.finished,
        )
        for ago, count in made.counts:
            Count.objects.create(sowing=sowing, on=today - timedelta(days=ago), up=count)


def _warm(garden: Garden, plan: GardenPlan, person: User) -> None:
    """Add covers, a hotbed, a running trial and planned sowings."""
    today = clock.today(garden.timezone)
    for own in plan.own:
        cover = Cover.objects.create(
            garden=garden,
            kind=own.kind,
            name=own.name,
            length_m=own.length_m,
            width_m=own.width_m,
            spread_m=own.spread_m,
            purchase_year=today.year - own.age_y,
            dirty=own.dirty,
            price=own.price,
        )
        CoverPeriod.objects.filter(place__garden=garden, place__name=own.on).update(item=cover)
    for place in garden.places.filter(kind="hotbed"):
        Hotbed.objects.create(place=place, material="hay", filled_on=today - timedelta(days=HOTBED_AGE_D))
    for name, crop_key, ahead_d in plan.meant:
        intend(garden.places.get(name=name), crop_key, today + timedelta(days=ahead_d), person)
    if plan.trial:
        covered, bare, ago = plan.trial
        places = {place.name: place for place in garden.places.all()}
        begun = today - timedelta(days=ago)
        alike = ["soil", "sun", "depth", "hour"]
        CoverTrial.objects.create(covered=places[covered], bare=places[bare], depth_m=0.05, begun_on=begun, alike=alike)


def _raise(garden: Garden, plan: GardenPlan) -> None:
    """Add rooms, windows, mats, cables and lamps of the bench, and its raised plants."""
    today = clock.today(garden.timezone)
    for item in plan.bench:
        name, kind, night_c, day_c = item.room
        room, _new = Room.objects.get_or_create(garden=garden, name=name, kind=kind, night_c=night_c, day_c=day_c)
        place = garden.places.get(name=item.place)
        place.room = room
        if item.window:
            place.window_aspect_deg, place.window_shade = item.window
        place.save()
        if item.heat:
            source, ago, watts, ruled = item.heat
            period = HeatPeriod(place=place, source=source, first=today - timedelta(days=ago), watts=watts)
            if ruled:
                period.control, (period.start_c, period.stop_c) = HeatPeriod.Control.THERMOSTAT, ruled
            if source == HeatPeriod.Kind.CABLE:
                period.length_m, period.width_m, period.over_m, period.under_m = 1.2, 0.6, 0.06, 0.03
            period.save()
        if item.lamp:
            watts, away, spans = item.lamp
            first = today - timedelta(days=40)
            Lamp.objects.create(place=place, first=first, watts=watts, away_m=away, spans=[list(span) for span in spans])
        for ago, air_c in item.air:
            at = clock.now().astimezone(garden.timezone).replace(hour=18, minute=0, second=0, microsecond=0)
            RoomAir.objects.create(room=room, at=at - timedelta(days=ago), temperature_c=air_c)
        for crop_key, kind_of_step, ago, cell in item.steps:
            sowing = place.sowings.get(crop_key=crop_key)
            take_step(Step(sowing=sowing, kind=kind_of_step, on=today - timedelta(days=ago), cell_m=cell))


def _fill(garden: Garden, plan: GardenPlan, person: User, seed: int) -> None:
    # Always made up to the midnight before the garden’s day: whatever the hour of the start, the data are the same,
    # none lies in the future, and the day's round is still to do.
    midnight = clock.now().astimezone(garden.timezone).replace(hour=0, minute=0, second=0, microsecond=0)
    from cloche.demo.records import invent

    made = invent(plan, midnight, seed)
    DailyWeather.objects.bulk_create(
        [DailyWeather(garden=garden, day=d, low_c=low, high_c=high, rain_mm=rain) for d, low, high, rain in made.weather]
    )
    for order, place_plan in enumerate(plan.places):
        place = Place.objects.create(
            garden=garden,
            name=place_plan.name,
            kind=place_plan.kind,
            seed_depth_m=place_plan.seed_depth_m,
            walking_order=order,
            texture=place_plan.texture,
            slope_deg=place_plan.slope_deg,
            within=place_plan.within,
        )
        if place_plan.cover is not None:
            key, ago = place_plan.cover
            day = midnight.date() - timedelta(days=ago)
            CoverPeriod.objects.create(place=place, cover=key, first=day, opens=place_plan.opens)
        rows = made.readings[place_plan.name]
        by_hand = [row for row in rows if row.depth_m == place.seed_depth_m]
        Reading.objects.bulk_create(
            [
                Reading(
                    place=place,
                    taken_at=row.taken_at,
                    depth_m=row.depth_m,
                    temperature_c=row.temperature_c,
                    note=row.note,
                    entered_by=person,
                )
                for row in by_hand
            ],
            batch_size=2000,
        )
        if place_plan.logger:
            logged = [(row.taken_at, row.temperature_c) for row in rows if row.depth_m != place.seed_depth_m]
            _log(garden, place, logged, person)


def _log(garden: Garden, place: Place, logged: list[tuple[datetime, float]], person: User) -> None:
    """Store everything a place's logger sent up to today, after which it falls silent."""
    device, _ = let_device_in(garden, f"{place.name} logger", "C", person)
    deploy(device, "1", place, 2 * place.seed_depth_m)
    take_in(device, [Sent("1", value, at) for at, value in logged])


def is_of_older_migrations() -> bool:
    """Return whether this database was built by migrations that no longer exist or in another order."""
    loader = MigrationLoader(connection)
    if set(loader.applied_migrations) - set(loader.disk_migrations or ()):
        return True
    try:
        loader.check_consistent_history(connection)
    except InconsistentMigrationHistory:
        return True
    return False


def forget_older_tables() -> None:
    """Empty a demo database that can no longer be migrated; it holds no personal data."""
    if is_of_older_migrations():
        with connection.cursor() as cursor:
            cursor.execute("DROP SCHEMA public CASCADE; CREATE SCHEMA public")
