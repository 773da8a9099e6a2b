"""Making the few things that tests need, with names that say what they are."""

from __future__ import annotations

import io
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from typing import Any

import psycopg
from django.db import connection
from PIL import Image

from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.places.models import Place
from cloche.apps.readings.models import Reading
from cloche.apps.today.flows import want
from cloche.apps.weather.models import DailyWeather
from cloche.apps.work import turns
from cloche_engine.results import Window


def make_person(name: str, **values: Any) -> User:
    return User.objects.create_user(name, password="a-long-password", **values)


def make_garden(owner: User, name: str = "Test plot", **values: Any) -> Garden:
    site = {"latitude_deg": 48.0, "longitude_deg": 15.0, "elevation_m": 300.0, "timezone_name": "Europe/Vienna"}
    garden = Garden.objects.create(name=name, **(site | values))
    Membership.objects.create(garden=garden, user=owner, role=Membership.Role.OWNER)
    return garden


def make_place(garden: Garden, name: str = "North bed", **values: Any) -> Place:
    return Place.objects.create(garden=garden, name=name, walking_order=garden.places.count(), **values)


def make_reading(place: Place, at: datetime, temperature_c: float = 8.0, **values: Any) -> Reading:
    values.setdefault("depth_m", place.seed_depth_m)
    return Reading.objects.create(place=place, taken_at=at, temperature_c=temperature_c, **values)


def read_twice_daily(place: Place, days: int, until: datetime, early_c: float, late_c: float) -> None:
    """So many days of a 07:30 and a 16:30 reading (UTC+2), ending with the last round before `until`."""
    first = (until - timedelta(days=days)).date()
    for offset in range(days):
        for hour, value in ((5, early_c), (14, late_c)):
            at = datetime.combine(first + timedelta(days=offset), datetime.min.time(), tzinfo=UTC)
            make_reading(place, at + timedelta(hours=hour, minutes=30), value)


def write_air(garden: Garden, first: date, days: int, low_c: float = 4.0, high_c: float = 14.0) -> None:
    DailyWeather.objects.bulk_create(
        DailyWeather(garden=garden, day=first + timedelta(days=i), low_c=low_c, high_c=high_c) for i in range(days)
    )


def picture(width: int, height: int, kind: str = "JPEG", **values: Any) -> bytes:
    """A small picture of a gradient, as a camera would send it."""
    out = io.BytesIO()
    Image.linear_gradient("L").resize((width, height)).convert("RGB").save(out, kind, **values)
    return out.getvalue()


@contextmanager
def turn_of_another(kind: int) -> Iterator[None]:
    """Somebody else's session has the turn."""
    known = connection.settings_dict
    where = {"host": known["HOST"], "port": known["PORT"], "dbname": known["NAME"]}
    with psycopg.connect(**where, user=known["USER"], password=known["PASSWORD"], autocommit=True) as session:
        session.execute("SELECT pg_advisory_lock(%s, %s)", [turns.TURNS, kind])
        yield
        session.execute("SELECT pg_advisory_unlock(%s, %s)", [turns.TURNS, kind])


def make_window(first: str, last: str, best: tuple[str, str] | None = None, **values: Any) -> Window:
    """A window of a stored outlook."""
    start, end, (best_from, best_to) = date.fromisoformat(first), date.fromisoformat(last), best or (first, last)
    usual = Window(start, date.fromisoformat(best_from), date.fromisoformat(best_to), end, None, None, 0.9, False)
    return replace(usual, **values)


def wants_mail(membership: Membership, email: str) -> None:
    """Somebody has the day sent at six."""
    membership.user.email = email
    membership.user.save()
    want(membership, 6)
