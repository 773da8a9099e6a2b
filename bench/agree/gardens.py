"""Random gardens made through the application's own forms, and random steps that growers take in them."""

from __future__ import annotations

import random
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, date, datetime, time, timedelta
from math import cos, pi
from typing import Any

from django.forms import BooleanField, DateTimeField
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden, Membership, User
from cloche.apps.places.models import Place
from cloche.apps.shared import clock
from cloche.apps.sowings.models import Sowing, Step
from cloche_engine.places.kinds import place_kinds

SITES = (
    (35.0, -90.0, 100.0, "America/Chicago"),
    (45.0, 9.0, 200.0, "Europe/Rome"),
    (53.0, -2.0, 50.0, "Europe/London"),
    (60.0, 25.0, 20.0, "Europe/Helsinki"),
    (-38.0, 145.0, 80.0, "Australia/Melbourne"),
    (-41.0, 173.0, 30.0, "Pacific/Auckland"),
    (9.0, 38.7, 2300.0, "Africa/Addis_Ababa"),
)
CROPS = ("pea", "lettuce", "carrot", "tomato", "spinach", "cucumber", "radish", "kale", "pepper", "okra", "potato_early")
LEAP_DAY = date(2028, 2, 29)
KINDS = tuple(place_kinds())


@dataclass
class World:
    """A garden, its person's browser, and the steps that were taken. refused: forms that did not take what was typed."""

    garden: Garden
    person: User
    client: Client
    draw: random.Random
    now: datetime
    steps: list[str] = field(default_factory=list)
    refused: list[str] = field(default_factory=list)

    @property
    def today(self) -> date:
        """By the garden's clock."""
        return self.now.astimezone(self.garden.timezone).date()

    def send(self, page_name: str, words: list[Any], **typed: Any) -> bool:
        """Fill in the form of a page as it is offered, change some of its fields, and send it; whether it was taken."""
        path = reverse(page_name, args=[self.garden.pk, *words])
        page = self.client.get(path)
        form = page.context["form"]
        data = {form.add_prefix(field): value for field, value in filled(form).items()}
        data |= {form.add_prefix(field): value for field, value in typed.items() if value is not None}
        return self.post(path, data)

    def post(self, path: str, data: dict[str, Any] | None = None) -> bool:
        """Send; whether it was taken."""
        answer = self.client.post(path, data or {})
        if answer.status_code not in (200, 302):
            self.refused.append(f"{path} {answer.status_code}")
        return bool(answer.status_code == 302)


def filled(form: Any) -> dict[str, Any]:
    """What a form offers to begin with, as a browser would send it."""
    data: dict[str, Any] = {}
    for name, shown in form.fields.items():
        value = form[name].value()
        if isinstance(shown, BooleanField):
            data |= {name: "on"} if value else {}
        elif isinstance(value, (date, time)) and not isinstance(shown, DateTimeField):
            data[name] = value.isoformat()[:10] if isinstance(value, date) else value.strftime("%H:%M")
        elif value is not None:
            data[name] = value
    return data


def make(number: int, seed: int) -> World:
    """A garden by its number, the same every time; its clock stands at a random hour of a random day."""
    draw = random.Random(f"{seed}-{number}")  # noqa: S311 - made up, not secret
    latitude, longitude, height, zone = SITES[number % len(SITES)]
    day = LEAP_DAY if number % 17 == 0 else date(2027, 1, 1) + timedelta(days=draw.randrange(700))
    now = datetime(day.year, day.month, day.day, draw.randrange(24), draw.randrange(60), tzinfo=UTC)
    clock.now = lambda: now
    fahrenheit = number % 3 == 0
    scales = {"temperature_unit": "F" if fahrenheit else "C", "length_unit": "in" if fahrenheit else "cm"}
    person = User.objects.create_user(f"grower-{seed}-{number}", password=None, **scales)
    site = {"latitude_deg": latitude, "longitude_deg": longitude, "elevation_m": height, "timezone_name": zone}
    garden = Garden.objects.create(name=f"Garden {number}", crops=sorted(draw.sample(CROPS, 6)), **site)
    Membership.objects.create(garden=garden, user=person, role=Membership.Role.OWNER)
    client = Client()
    client.force_login(person, backend="allauth.account.auth_backends.AuthenticationBackend")
    world = World(garden, person, client, draw, now)
    _create_garden(world)
    return world


def _create_garden(world: World) -> None:
    draw, garden = world.draw, world.garden
    if draw.random() < 0.7:
        _weather(world)
    if draw.random() < 0.5:
        world.send("rooms", [], name="Back room", kind=draw.choice(["shed", "living", "garage"]))
    for name, kind in zip(
        ("Ash", "Birch", "Cedar"), [KINDS[draw.randrange(len(KINDS))], "open", draw.choice(KINDS)], strict=True
    ):
        world.send("new_place", [], name=name, kind=kind, within=draw.choice(["", "", "", "greenhouse"]))
    for place in garden.places.all():
        for _ in range(draw.choice([0, 1, 3])):
            _read(world, place)
        if place.kind == "hotbed" and draw.random() < 0.7:
            _hotbed(world, place)
        _cover(world, place)
        _heat(world, place)
        _sow(world, place)


def usual_c(world: World, on: date) -> float:
    """Air of a usual day [°C]."""
    latitude = world.garden.latitude_deg
    warmest = 200 if latitude >= 0 else 17
    middle, swing = 27.0 - 0.35 * abs(latitude), 0.22 * abs(latitude)
    return middle + swing * cos(2 * pi * (on.timetuple().tm_yday - warmest) / 365.25)


def _scale(world: World, value_c: float) -> str:
    return f"{value_c * 1.8 + 32 if world.person.temperature_unit == 'F' else value_c:.1f}"


def _weather(world: World) -> None:
    for back in range(6, 0, -1):
        on = world.today - timedelta(days=back)
        low = usual_c(world, on) - 5 + world.draw.gauss(0, 2)
        world.send("weather", [], day=on.isoformat(), low=_scale(world, low), high=_scale(world, low + 9))


def _read(world: World, place: Place) -> None:
    at = world.now - timedelta(hours=world.draw.randrange(1, 120))
    local = at.astimezone(world.garden.timezone)
    value = usual_c(world, local.date()) + world.draw.gauss(0, 2)
    data = {
        "temperature": _scale(world, min(max(value, -8.0), 40.0)),
        "depth": "2" if world.person.length_unit == "in" else "5",
    }
    data |= {"day": local.date().isoformat(), "time": local.strftime("%H:%M")}
    world.post(reverse("add_reading", args=[world.garden.pk, place.pk]), data)


def _hotbed(world: World, place: Place) -> None:
    filled_on = world.today - timedelta(days=world.draw.choice([2, 10, 30, 80]))
    world.send("hotbed", [place.pk], filled_on=filled_on.isoformat(), soil=world.draw.choice(["0", "6"]))


def _cover(world: World, place: Place) -> None:
    if place_kinds()[place.kind].indoors or world.draw.random() < 0.5:
        return
    first = world.today - timedelta(days=world.draw.choice([-5, 0, 4, 30]))
    cover = world.draw.choice(["fleece", "film_tunnel", "glass_frame", "film_on_soil", "bell"])
    world.send("new_cover", [place.pk], cover=cover, first=first.isoformat(), opens=world.draw.choice(["closed", "above"]))
    if world.draw.random() < 0.3:
        covered = world.draw.choice([None, "60"])
        world.send("new_cover", [place.pk], cover="fleece", first=first.isoformat(), both="on", covered=covered)


def _heat(world: World, place: Place) -> None:
    if not place_kinds()[place.kind].heat or world.draw.random() < 0.4:
        return
    first = world.today - timedelta(days=world.draw.choice([0, 5, 25]))
    control = world.draw.choice(["always", "thermostat"])
    world.send(
        "new_heat", [place.pk], source="mat", first=first.isoformat(), control=control, watts=world.draw.choice(["", "20"])
    )


def _sow(world: World, place: Place) -> None:
    for _ in range(world.draw.choice([0, 1, 2])):
        on = world.today - timedelta(days=world.draw.choice([0, 6, 15, 40, 70]))
        crop, seeds = world.draw.choice(world.garden.crops), world.draw.choice(["", "20", "50"])
        world.send("new_sowing", [], place=place.pk, crop_key=crop, sown_on=on.isoformat(), seeds=seeds)


def _count(world: World) -> None:
    for sowing in Sowing.objects.filter(place__garden=world.garden, finished=False, removed_at=None):
        most = sowing.seeds or 30
        up = min(world.draw.choice([0, most // 4, most // 2, most]), most)
        world.post(reverse("count", args=[world.garden.pk, sowing.pk]), {"on": world.today.isoformat(), "up": up})


def _move(world: World) -> None:
    places = list(world.garden.places.all())
    for sowing in Sowing.objects.filter(place__garden=world.garden, removed_at=None)[:1]:
        to = world.draw.choice([place for place in places if place != sowing.place])
        kind = world.draw.choice([Step.Kind.MOVED, Step.Kind.PLANTED])
        world.send("life", [sowing.pk], kind=kind, on=world.today.isoformat(), place=to.pk)


def _heat_off(world: World) -> None:
    for sowing in Sowing.objects.filter(place__garden=world.garden, removed_at=None)[:1]:
        world.send("life", [sowing.pk], kind=Step.Kind.HEAT_OFF, on=world.today.isoformat())


def _plan(world: World) -> None:
    for place in world.garden.places.all():
        if place_kinds()[place.kind].indoors:
            continue
        planned = world.today + timedelta(days=world.draw.choice([0, 10, 60]))
        crop, origin = world.draw.choice(world.garden.crops), world.draw.choice(["sown", "raised"])
        world.send("new_planting", [place.pk], crop_key=crop, origin=origin, planned_on=planned.isoformat(), number="8")


def _intend(world: World) -> None:
    place = world.garden.places.exclude(kind__in=[k for k, v in place_kinds().items() if v.indoors]).first()
    if place is not None:
        on = world.today.isoformat()
        crop = world.draw.choice(world.garden.crops)
        world.send("put_on", [place.pk], first=on, cover="fleece", crop=crop, sow_on=on)


def _off(world: World) -> None:
    for place in world.garden.places.all():
        for period in place.cover_periods.filter(last=None)[:1]:
            world.post(reverse("take_cover_off", args=[world.garden.pk, place.pk, period.pk]))


def _finish(world: World) -> None:
    for sowing in Sowing.objects.filter(place__garden=world.garden, finished=False, removed_at=None)[:1]:
        world.post(reverse("finish_sowing", args=[world.garden.pk, sowing.pk]))


def _trial(world: World) -> None:
    two = list(world.garden.places.exclude(kind__in=[k for k, v in place_kinds().items() if v.indoors])[:2])
    if len(two) == 2:
        world.send("trials", [], covered=two[0].pk, bare=two[1].pk)


STEPS: tuple[Callable[[World], None], ...] = (_count, _move, _heat_off, _plan, _intend, _off, _finish, _trial)


def steps(world: World) -> None:
    """A few of the steps, in random order."""
    for step in world.draw.sample(STEPS, world.draw.choice([1, 3, 5])):
        step(world)
        world.steps.append(step.__name__.lstrip("_"))
    world.garden.refresh_from_db()
