"""Server time and queries of every page with the demo's full data."""

from __future__ import annotations

import statistics
import sys
import time

LIMIT_MS = 150.0
TIMES = 15


def main() -> int:
    """Print a row a page; exit 1 when one is slower than the limit. Needs the demo loaded (see `./run bench`)."""
    from django.core.management import call_command
    from django.test import Client, override_settings

    from cloche.apps.gardens.models import Garden, User

    call_command("ready", verbosity=0)
    call_command("load_demo", work=True)
    garden = Garden.objects.order_by("pk").first()
    assert garden is not None
    place = max(garden.places.all(), key=lambda each: each.readings.count())
    root = f"/g/{garden.pk}"
    pages = {
        "Today": f"{root}/",
        "Ground": f"{root}/ground/",
        f"A place ({place.readings.count()} readings)": f"{root}/places/{place.pk}/",
        "A crop in a place": f"{root}/places/{place.pk}/crops/carrot/",
        "What wakes": f"{root}/what-wakes/",
        "Windows": f"{root}/windows/",
        "Round": f"{root}/round/",
        "Loggers": f"{root}/loggers/",
        "Flags": f"{root}/flags/",
        "History": f"{root}/history/",
        "Weather": f"{root}/weather/",
        "Files": f"{root}/files/",
        "Garden": f"{root}/garden/",
    }
    with override_settings(ALLOWED_HOSTS=["testserver"]):
        client = Client()
        client.force_login(User.objects.get(username="demo"), backend="allauth.account.auth_backends.AuthenticationBackend")
        slow = sum(median > LIMIT_MS for median in measured(client, pages).values())
        grown = {queries_of(client, f"{root}/places/{each.pk}/") for each in garden.places.all()}
    readings = sorted(each.readings.count() for each in garden.places.all())
    print(f"\nQueries of a place's page with {readings[0]} to {readings[-1]} readings: {sorted(grown)}")
    print(f"Every page's median under {LIMIT_MS:.0f} ms: {'no' if slow else 'yes'}")
    # A place with a logger is asked about its hours, too; beyond that, more readings must not mean more questions.
    return 1 if slow or max(grown) - min(grown) > 1 else 0


def measured(client, pages: dict[str, str], limit_ms: float = LIMIT_MS) -> dict[str, float]:  # type: ignore[no-untyped-def]
    """Print a row a page; returns each one's median time on the server [ms]."""
    times = {}
    print("| page | median ms | slowest ms | queries |\n|---|---|---|---|")
    for name, url in pages.items():
        client.get(url)
        taken = [_timed(client, url) for _ in range(TIMES)]
        times[name] = statistics.median(taken)
        said = " (too slow)" if times[name] > limit_ms else ""
        print(f"| {name} | {times[name]:.0f}{said} | {max(taken):.0f} | {queries_of(client, url)} |")
    return times


def queries_of(client, url: str) -> int:  # type: ignore[no-untyped-def]
    """How many questions a page asks of the database."""
    from django.db import connection, reset_queries

    connection.force_debug_cursor = True
    reset_queries()
    client.get(url)
    connection.force_debug_cursor = False
    return len(connection.queries)


def _timed(client, url: str) -> float:  # type: ignore[no-untyped-def]
    start = time.perf_counter()
    response = client.get(url)
    assert response.status_code == 200, (url, response.status_code)
    return (time.perf_counter() - start) * 1000


if __name__ == "__main__":
    sys.exit(main())
