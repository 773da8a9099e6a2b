"""Gardens made up by the hundred, to be worked out and looked at: `python -m bench.made_up NUMBER` prints one a line, as JSON.

Each has six places, ten days of readings twice a day, a logger in its first bed, and a grower named as it is.
"""

from __future__ import annotations

import json
import os
import sys
from datetime import date, datetime, time, timedelta
from math import cos, pi
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from cloche.apps.gardens.models import Garden
    from cloche.apps.readings.models import Reading

PLACES = ("open", "open", "open", "frame", "tunnel", "raised")
READ_D = 10
PASSWORD = "spade-and-fork"  # noqa: S105 - of people that do not exist
LOGGED = "1"
"""The channel that a garden's logger sends by."""


def main(number: int) -> None:
    """Make so many."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "cloche.config.settings.production")
    import django

    django.setup()
    from django.contrib.auth.hashers import make_password

    from cloche.apps.readings.models import Reading
    from cloche.apps.shared import clock

    hashed = make_password(PASSWORD)  # the same for all: to make one is meant to take long
    readings: list[Reading] = []
    for at in range(number):
        facts, garden = _garden(at, hashed)
        readings += _read(garden, clock.today(garden.timezone))
        print(json.dumps(facts), flush=True)
    Reading.objects.bulk_create(readings, batch_size=5000)


def _garden(at: int, hashed: str) -> tuple[dict[str, Any], Garden]:
    """Its facts and itself; a dozen neighbours each lie within a mile of one another."""
    from cloche.apps.gardens.models import Garden, Membership, User
    from cloche.apps.loggers.flows.devices import deploy, let_device_in
    from cloche.apps.places.models import Place

    site = {"latitude_deg": 46.0 + at // 12 % 30 * 0.2, "longitude_deg": 9.0 + at // 360 * 0.2 + at % 12 * 0.001}
    person = User.objects.create(username=f"grower-{at}", password=hashed)
    garden = Garden.objects.create(name=f"Garden {at}", elevation_m=300.0, timezone_name="Europe/Vienna", **site)
    Membership.objects.create(garden=garden, user=person, role=Membership.Role.OWNER)
    places = [
        Place.objects.create(garden=garden, name=f"Bed {i + 1}", kind=kind, walking_order=i) for i, kind in enumerate(PLACES)
    ]
    device, token = let_device_in(garden, "Logger", "C", person)
    deploy(device, LOGGED, places[0], 0.1)
    facts = {"garden": garden.pk, "places": [place.pk for place in places], "name": person.username, "token": token}
    return facts, garden


def _read(garden: Garden, today: date) -> list[Reading]:
    from cloche.apps.readings.models import Reading

    def usual_c(day: date) -> float:
        return 10.0 - 9.0 * cos(2 * pi * (day.timetuple().tm_yday - 25) / 365)

    days = [today - timedelta(days=back) for back in range(1, READ_D + 1)]
    return [
        Reading(
            place=place,
            depth_m=place.seed_depth_m,
            taken_at=datetime.combine(day, time(hour), tzinfo=garden.timezone),
            temperature_c=round(usual_c(day) + (3.0 if hour > 12 else -2.0) + place.pk % 5 * 0.3, 1),
        )
        for place in garden.places.all()
        for day in days
        for hour in (7, 16)
    ]


if __name__ == "__main__":
    main(int(sys.argv[1]))
