"""Three years of twenty probes at ten minutes: what they take on disk, and how fast pages are with them."""

from __future__ import annotations

import time

from bench.pages import measured

PROBES = 20
LIMIT_MS = 200.0

VALUES = """
INSERT INTO loggers_reading (probe_id, at, temperature_c)
SELECT p, t, (10 + 8 * sin(2 * pi() * (extract(doy FROM t) - 115) / 365) + 2 * sin(2 * pi() * (extract(hour FROM t) - 11) / 24)
  + 0.1 * random())::real
FROM unnest(%s::int[]) p, generate_series(%s::timestamptz - interval '3 years', %s::timestamptz, interval '10 minutes') t
"""
HOURS = """
INSERT INTO loggers_hour (probe_id, hour, number, sum_c, low_c, high_c)
SELECT probe_id, date_trunc('hour', at, 'UTC'), count(*), sum(temperature_c::float8), min(temperature_c), max(temperature_c)
FROM loggers_reading WHERE probe_id = ANY(%s) GROUP BY 1, 2
"""


def main() -> int:
    """Print the figures; exit 1 where a page of a place is slower than 200 ms."""
    from django.core.management import call_command
    from django.db import connection
    from django.test import Client, override_settings

    from bench.ingest import bytes_a_reading
    from cloche.apps.forecasts.flows import refresh_if_stale
    from cloche.apps.gardens.models import Garden, Membership, User
    from cloche.apps.loggers.flows.devices import deploy, let_device_in
    from cloche.apps.loggers.models import Probe
    from cloche.apps.places.models import Place
    from cloche.apps.shared import clock

    call_command("ready", verbosity=0)
    connection.cursor().execute("TRUNCATE loggers_reading, loggers_hour")
    person, _ = User.objects.get_or_create(username="scale")
    garden = Garden.objects.create(name="Three years", latitude_deg=48.0, longitude_deg=15.0)
    Membership.objects.create(garden=garden, user=person, role="owner")
    for i in range(PROBES):
        place = Place.objects.create(garden=garden, name=f"Bed {i}", walking_order=i)
        device, _ = let_device_in(garden, f"Logger {i}", "C", None)
        deploy(device, "1", place, 0.05)
    probes = list(Probe.objects.filter(place__garden=garden).values_list("pk", flat=True))
    now = clock.now().replace(microsecond=0, second=0, minute=0)
    begun = time.perf_counter()
    with connection.cursor() as cursor:
        cursor.execute(VALUES, [probes, now, now])
        cursor.execute(HOURS, [probes])
        cursor.execute("SELECT count(*) FROM loggers_reading")
        count = cursor.fetchone()[0]
    Probe.objects.filter(pk__in=probes).update(last_at=now, last_c=9.0, every_s=600)
    size = bytes_a_reading()
    made = time.perf_counter() - begun
    print(f"{count:,} readings of {PROBES} probes, made in {made:.0f} s: {size:.0f} bytes each, {count * size / 1e6:.0f} MB")
    place = garden.places.all()[0]
    begun = time.perf_counter()
    refresh_if_stale(place.pk)
    print(f"Working out one place of them: {time.perf_counter() - begun:.1f} s\n")
    root = f"/g/{garden.pk}"
    pages = {
        "A place": f"{root}/places/{place.pk}/",
        "Today": f"{root}/",
        "Round": f"{root}/round/",
        "Loggers": f"{root}/loggers/",
        "Flags": f"{root}/flags/",
    }
    with override_settings(ALLOWED_HOSTS=["testserver"]):
        client = Client()
        client.force_login(person, backend="allauth.account.auth_backends.AuthenticationBackend")
        medians = measured(client, pages, LIMIT_MS)
    garden.delete()
    return 1 if medians["A place"] > LIMIT_MS else 0
