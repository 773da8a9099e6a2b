"""A small farm and its five years, made up: how fast Today, the plan and the years are with them, and how many questions
they ask of the database: `./run bench farm [BEDS]`."""

from __future__ import annotations

import gc
import sys
from datetime import date, datetime, time, timedelta
from math import cos, pi
from typing import TYPE_CHECKING

from bench.pages import measured

if TYPE_CHECKING:
    from cloche.apps.gardens.models import Garden, User
    from cloche.apps.places.models import Place

BEDS, YEARS = 40, 5
SOWINGS, PLANTINGS = 3.0, 7.5
"""A bed and year: 120 sowings and 300 plantings in 40 beds."""
LIMIT_MS = 150.0
CROPS = ("radish", "carrot", "onion", "pea", "lettuce", "kale", "spinach", "beet", "broccoli", "leek", "snap_bean", "tomato")
ORIGINS = ("sown", "sown", "raised", "bought", "overwintered")
ENDS = (("harvested", "", 4), ("harvested", "", 9), ("died", "frost", 2), ("stood", "", None), ("measured", "", None))


def main(beds: float = BEDS) -> int:
    """Print a row a page, with a quarter of the beds and with all of them; exit 1 where one is slower than 150 ms or asks
    more the larger the farm is."""
    from django.core.management import call_command
    from django.db import connection

    call_command("ready", verbosity=0)
    counted: list[dict[str, int]] = []
    slow = 0
    for number in (max(int(beds) // 4, 1), int(beds)):
        garden, person = made_up(number)
        try:
            print(f"\n{number} beds, {len(CROPS)} crops, {_count(garden)} in {YEARS} years\n")
            medians, queries = look(garden, person)
        finally:
            garden.delete()
            person.delete()
        slow = sum(ms > LIMIT_MS for ms in medians.values())
        counted.append(queries)
    connection.close()
    grown = {name: (few, counted[1][name]) for name, few in counted[0].items() if counted[1][name] > few}
    print(f"\nEvery page's median under {LIMIT_MS:.0f} ms: {'no' if slow else 'yes'}")
    print(f"Pages that ask more of a larger farm: {grown or 'none'}")
    return 1 if slow or grown else 0


def _count(garden: Garden) -> str:
    from cloche.apps.plants.models import Planting
    from cloche.apps.sowings.models import Sowing

    sowings, plantings = (model.objects.filter(place__garden=garden).count() for model in (Sowing, Planting))
    return f"{sowings} sowings and {plantings} plantings"


def look(garden: Garden, person: User) -> tuple[dict[str, float], dict[str, int]]:
    """Median times [ms] and numbers of queries, by page."""
    from django.test import Client, override_settings

    from bench.pages import queries_of
    from cloche.apps.plants.models import Planting

    place, root = garden.places.all()[0], f"/g/{garden.pk}"
    planting = Planting.objects.filter(place=place, planted_on__isnull=False).order_by("-planted_on")[0]
    pages = {
        "Today": f"{root}/",
        "Plan of the season": f"{root}/plan/",
        "A bed's plan": f"{root}/plan/{place.pk}/",
        "A planting": f"{root}/plants/{planting.pk}/",
        "Seed box": f"{root}/plan/seed/",
        "Years": f"{root}/years/",
        "Years of a crop": f"{root}/years/?place={place.pk}&crop=carrot",
        "Sowings": f"{root}/sowings/",
        "History": f"{root}/history/",
    }
    with override_settings(ALLOWED_HOSTS=["testserver"]):
        client = Client()
        client.force_login(person, backend="allauth.account.auth_backends.AuthenticationBackend")
        # What the engine left in memory is no burden of a process that serves pages.
        gc.collect()
        gc.freeze()
        medians = measured(client, pages, LIMIT_MS)
        gc.unfreeze()
        return medians, {name: queries_of(client, url) for name, url in pages.items()}


def made_up(beds: int) -> tuple[Garden, User]:
    """A farm on which everything that this room's pages read is there, worked out by the engine for the present day."""
    from cloche.apps.forecasts.flows import refresh_if_stale
    from cloche.apps.gardens.models import Garden, Membership, User
    from cloche.apps.shared import clock

    User.objects.filter(username="farm").delete()
    person = User.objects.create_user("farm")
    site = {"latitude_deg": 48.0, "longitude_deg": 15.0, "elevation_m": 300.0, "timezone_name": "Europe/Vienna"}
    garden = Garden.objects.create(name="Five years", **site)
    Membership.objects.create(garden=garden, user=person, role="owner")
    today = clock.today(garden.timezone)
    _weather(garden, today)
    for number in range(beds):
        place = garden.places.create(name=f"Bed {number + 1}", walking_order=number, width_m=1.2)
        _soil(place, today)
        _grow(place, number, today)
    for place in garden.places.all():
        refresh_if_stale(place.pk)
    return garden, person


def _usual_c(day: date) -> float:
    return 10.0 - 10.0 * cos(2 * pi * (day.timetuple().tm_yday - 20) / 365)


def _weather(garden: Garden, today: date) -> None:
    from cloche.apps.weather.models import DailyWeather

    days = [today - timedelta(days=back) for back in range(1, 366 * YEARS)]
    lows = {day: _usual_c(day) - 5.0 + (day.toordinal() * 7 % 11 - 5) * 0.8 for day in days}
    DailyWeather.objects.bulk_create(
        DailyWeather(garden=garden, day=day, low_c=low, high_c=low + 9.0, rain_mm=day.toordinal() % 5 * 1.5)
        for day, low in lows.items()
    )


def _soil(place: Place, today: date) -> None:
    """Years that were worked out, and the last two months' readings."""
    from cloche.apps.forecasts.models import SoilYear
    from cloche.apps.readings.models import Reading

    for year in range(today.year - YEARS + 1, today.year + 1):
        means = [round(_usual_c(date(year, 1, 1) + timedelta(days=i)) + year % 3 * 0.4, 2) for i in range(366)]
        known = [mean if date(year, 1, 1) + timedelta(days=i) < today else None for i, mean in enumerate(means)]
        SoilYear.objects.create(place=place, year=year, depth_m=place.seed_depth_m, mean_c=known, measured=300)
    Reading.objects.bulk_create(
        Reading(
            place=place,
            taken_at=datetime.combine(today - timedelta(days=back), time(8), tzinfo=place.garden.timezone),
            temperature_c=round(_usual_c(today - timedelta(days=back)), 1),
            depth_m=place.seed_depth_m,
        )
        for back in range(1, 60)
    )


def _grow(place: Place, number: int, today: date) -> None:
    """Sowings and plantings of all the years; the last year's stand or are only meant, the others ended."""
    from cloche.apps.plants.models import BedShape, PlantEvent, Planting
    from cloche.apps.seed.models import Packet
    from cloche.apps.sowings.models import Count, Sowing

    BedShape.objects.create(place=place, length_m=12.0, width_m=1.2, square_m=0.3)
    lot = {"crop_key": CROPS[number % len(CROPS)], "variety": f"Lot {number + 1}", "in_use": number < len(CROPS)}
    packet = Packet.objects.create(garden=place.garden, **lot)
    sown = []
    for i in range(round(SOWINGS * YEARS)):
        back = 20 + i * 365 * YEARS // round(SOWINGS * YEARS)
        key = CROPS[(number + i) % len(CROPS)]
        sown.append(
            Sowing(
                place=place,
                packet=packet if key == packet.crop_key else None,
                crop_key=key,
                sown_on=today - timedelta(days=back),
                seeds=50,
                depth_m=0.01,
                finished=back > 100,
            )
        )
    Sowing.objects.bulk_create(sown)
    Count.objects.bulk_create(
        Count(sowing=sowing, on=sowing.sown_on + timedelta(days=15), up=35) for sowing in sown if sowing.finished
    )
    rows, all_years = [], round(PLANTINGS * YEARS)
    for i in range(all_years):
        begun = today - timedelta(days=i * 365 * YEARS // all_years - 30)
        rows.append(
            Planting(
                place=place,
                crop_key=CROPS[(number + 5 * i) % len(CROPS)],
                origin=ORIGINS[i % len(ORIGINS)],
                planned_on=begun,
                planted_on=begun if begun <= today else None,
                ended_on=begun + timedelta(days=110) if (today - begun).days > 110 else None,
                number=24,
                x_m=0.3 * (i * 4 % 37),
                y_m=0.0,
                length_m=1.2,
                width_m=1.2,
            )
        )
    Planting.objects.bulk_create(rows)
    PlantEvent.objects.bulk_create(
        PlantEvent(
            planting=row,
            kind=kind,
            on=(row.planted_on or today) + timedelta(days=20),
            number=many,
            cause=cause,
            lowest_c=-4.0 if kind in ("died", "stood") else None,
            height_m=0.2 if kind == "measured" else None,
        )
        for row, (kind, cause, many) in zip(rows, ENDS * len(rows), strict=False)
        if row.ended_on
    )


if __name__ == "__main__":
    sys.exit(main())
