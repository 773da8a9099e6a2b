"""Rooms that trays stand in, and what their light and air make of plants."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, timedelta

from django.utils.translation import gettext as _

from cloche.apps.bench import texts
from cloche.apps.bench.life import Life
from cloche.apps.bench.pages.bench import SHOWS
from cloche.apps.bench.selectors import Climate, rooms_in
from cloche.apps.forecasts.selectors import Ground
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Room, RoomAir
from cloche.apps.shared import words
from cloche.bridge.services import trays
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche_engine.light.habit import wanted_mol

SHOWN_AIR = 12


@dataclass(frozen=True)
class RoomLine:
    """A room with its kind, temperatures and places."""

    room: Room
    what: str
    places: list[str]


def room_lines(garden: Garden, units: Units) -> list[RoomLine]:
    """Return all rooms of a garden."""
    return [
        RoomLine(room, _what(room, units), [place.name for place in room.places.filter(removed_at__isnull=True)])
        for room in rooms_in(garden)
    ]


def _what(room: Room, units: Units) -> str:
    kind = str(Room.Kind(room.kind).label)
    if room.night_c is None or room.day_c is None:
        return kind
    night, day = (units.temperature_text(value, 0) for value in (room.night_c, room.day_c))
    return _("{kind}, {night} at night to {day} by day").format(kind=kind, night=night, day=day)


def logger_lines(room: Room, units: Units, now: datetime) -> list[str]:
    """Return the probes in a room and their latest values."""
    zone, lines = room.garden.timezone, []
    for probe in room.probes.filter(until__isnull=True).select_related("device"):
        heard = _("nothing received yet")
        if probe.last_at and probe.last_c is not None:
            local = probe.last_at.astimezone(zone)
            heard = _("{value}, {day} {clock}").format(
                value=units.temperature_text(probe.last_c),
                day=words.day(local.date(), now.astimezone(zone).date()),
                clock=words.clock(local),
            )
        lines.append(_("{logger} is here: {heard}.").format(logger=probe.device.name, heard=heard))
    return lines


def air_lines(room: Room, units: Units) -> list[tuple[int, str]]:
    """Return the latest air readings."""
    zone = room.garden.timezone
    lines = []
    for air in room.air.all()[:SHOWN_AIR]:
        local = air.at.astimezone(zone)
        text = _("{day}, {clock}: {value} ({what})").format(
            day=words.day(local.date()),
            clock=words.clock(local),
            value=units.temperature_text(air.temperature_c),
            what=RoomAir.What(air.what).label,
        )
        lines.append((air.pk, text))
    return lines


A_LITRE, TELLS_K, LEAST_K = 1.0, 1.5, 0.5
COOL_C, WARM_C, SOON_D = 12.0, 17.0, 7
"""Bright and cool for hardy seedlings, as cool as tender ones are kept for sturdiness (common practice, no source)."""
GROWN_D = 14


def bears(ground: Ground, climate: Climate, units: Units, today: date) -> list[str]:
    """Return from when its light keeps seedlings stocky, and what each school does before then.

    The list is empty if no light is known.
    """
    light = ground.data.light
    if light is None or not light.weeks:
        return []
    lines = []
    for season, warm_c, text in (
        ("cool", COOL_C, _("Hardy seedlings kept near {warm} stay stocky here {when}.")),
        ("warm", WARM_C, _("Tender seedlings near {warm} stay stocky {when}.")),
    ):
        wanted = wanted_mol(warm_c, season)
        week = next((i for i, mol in enumerate(light.weeks) if mol + climate.lamp_mol >= wanted), None)
        when = _("only with more light, for at least half a year") if week is None else _when(7 * week, today)
        lines.append(text.format(warm=units.temperature_text(warm_c, 0), when=when))
    if light.ten_d:
        day = words.day(today + timedelta(days=light.ten_d), today)
        text = _(
            "Days are longer than ten hours again from {day}. Until then growers either wait, use a lamp, or "
            "germinate in the warm and move the seedlings at once to the brightest cool place. Seedlings "
            "that come up now hardly grow."
        )
        lines.append(text.format(day=day))
    return lines


def _when(days: int, today: date) -> str:
    if days < SOON_D:
        return _("now")
    return _("from about {day}").format(day=words.day(today + timedelta(days=days), today))


def water_text(climate: Climate, units: Units, water_c: float = trays.COLD_TAP_C) -> str:
    """Return the effect of a litre of cold water on a tray, and of a litre of tempered water."""
    tray = (A_LITRE, trays.TRAY_M2, trays.TRAY_DEPTH_M)
    cold, mild = (trays.dipped_c(climate.roots_c, c, *tray) for c in (water_c, trays.TEMPERED_C))
    dip, hours = climate.roots_c - cold, trays.back_h(climate.roots_c - cold, trays.TRAY_DEPTH_M)
    tap, warm = (units.temperature_text(value, 0) for value in (water_c, trays.TEMPERED_C))
    if dip < TELLS_K:
        return _("A litre of water at {tap} hardly cools the roots of a tray.").format(tap=tap)
    values = {
        "tap": tap,
        "warm": warm,
        "dip": units.difference_text(dip, 0),
        "hours": words.count(round(hours), "hour", "hours"),
    }
    less = climate.roots_c - mild
    if less < LEAST_K:
        text = _(
            "A litre of water at {tap} on a tray cools its roots by {dip} for about {hours}; water at {warm} hardly cools them."
        )
        return text.format(**values)
    text = _(
        "A litre of water at {tap} on a tray cools its roots by {dip} for about {hours}; water at {warm} cools them by {mild}."
    )
    return text.format(mild=units.difference_text(less, 0), **values)


def growth_lines(ground: Ground, climate: Climate, lives: list[Life], garden: Garden, units: Units, today: date) -> list[str]:
    """Return how much heat advances the seedlings in the coming fortnight, and its energy."""
    heat, data = climate.heat, ground.data
    if heat is None:
        return []
    from cloche.bridge.services.trays import growth_days

    air = (data.around_c or data.far_mid_c)[:GROWN_D]
    lines = []
    for life in lives:
        if life.up < SHOWS:
            continue
        with_heat, without = (
            growth_days(life.crop.key, air, roots[:GROWN_D], today, garden.latitude_deg)
            for roots in (data.far_mid_c, heat.without_c)
        )
        energy = texts.energy_text(sum(heat.kwh[:GROWN_D]), garden.price_kwh)
        text = _(
            "Over the coming two weeks {name} grow as much as in {more} of their best days with this heat, "
            "and {less} without: {energy}."
        )
        values = {"name": life.crop.name_plural, "more": number_text(f"{with_heat:.1f}"), "less": number_text(f"{without:.1f}")}
        lines.append(text.format(energy=energy, **values))
    return lines
