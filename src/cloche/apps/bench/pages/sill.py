"""What a sill or shelf bears by its light, what water does to its roots, what heat makes grow: sentences of a tray's page."""

from __future__ import annotations

from datetime import date, timedelta

from django.utils.translation import gettext as _

from cloche.apps.bench import texts
from cloche.apps.bench.climate import Climate
from cloche.apps.bench.life import Life
from cloche.apps.bench.pages.bench import SHOWS
from cloche.apps.forecasts.selectors import Ground
from cloche.apps.gardens.models import Garden
from cloche.apps.shared import words
from cloche.bridge.services import watering
from cloche.bridge.values.units import Units
from cloche.core.light.habit import wanted_mol

A_LITRE, TELLS_K, LEAST_K = 1.0, 1.5, 0.5
COOL_C, WARM_C, SOON_D = 12.0, 17.0, 7
"""Bright and cool for hardy seedlings, as cool as tender ones are kept for sturdiness (common practice, no source)."""
GROWN_D = 14


def bears(ground: Ground, climate: Climate, units: Units, today: date) -> list[str]:
    """From when its light keeps seedlings stocky, and what each school does before; nothing where no light is told."""
    light = ground.data.light
    if light is None or not light.weeks:
        return []
    lines = []
    for season, warm_c, text in (
        ("cool", COOL_C, _("Hardy seedlings kept near {warm} stay stocky here {when}.")),
        ("warm", WARM_C, _("Tender ones near {warm} do so {when}.")),
    ):
        wanted = wanted_mol(warm_c, season)
        week = next((i for i, mol in enumerate(light.weeks) if mol + climate.lamp_mol >= wanted), None)
        when = _("only with more light, for half a year at least") if week is None else _when(7 * week, today)
        lines.append(text.format(warm=units.temperature_text(warm_c, 0), when=when))
    if light.ten_d:
        day = words.day(today + timedelta(days=light.ten_d), today)
        text = _(
            "Days have ten hours again from {day}; until then growers either wait, light them with a lamp, or let them "
            "come up warm and move them to the brightest cool place at once. What comes up now waits rather than grows."
        )
        lines.append(text.format(day=day))
    return lines


def _when(days: int, today: date) -> str:
    if days < SOON_D:
        return _("now")
    return _("from about {day}").format(day=words.day(today + timedelta(days=days), today))


def water_text(climate: Climate, units: Units) -> str:
    """What a litre of cold water does to a tray, and one of tempered water."""
    tray = (A_LITRE, watering.TRAY_M2, watering.TRAY_DEPTH_M)
    cold, mild = (watering.dipped_c(climate.roots_c, c, *tray) for c in (watering.COLD_TAP_C, watering.TEMPERED_C))
    dip, hours = climate.roots_c - cold, watering.back_h(climate.roots_c - cold, watering.TRAY_DEPTH_M)
    if dip < TELLS_K:
        return ""
    tap, warm = (units.temperature_text(value, 0) for value in (watering.COLD_TAP_C, watering.TEMPERED_C))
    values = {
        "tap": tap,
        "warm": warm,
        "dip": units.difference_text(dip, 0),
        "hours": words.count(round(hours), "hour", "hours"),
    }
    less = climate.roots_c - mild
    if less < LEAST_K:
        text = _("A litre of water at {tap} on a tray cools its roots by {dip}, for about {hours}; at {warm} hardly.")
        return text.format(**values)
    text = _("A litre of water at {tap} on a tray cools its roots by {dip}, for about {hours}; at {warm} by {mild}.")
    return text.format(mild=units.difference_text(less, 0), **values)


def growth_lines(ground: Ground, climate: Climate, lives: list[Life], garden: Garden, units: Units, today: date) -> list[str]:
    """Of what is up there, how much heat makes it grow in the coming fortnight, against its energy."""
    heat, data = climate.heat, ground.data
    if heat is None:
        return []
    from cloche.bridge.services.bench_growth import growth_days

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
            "{name} grow as much in the coming fortnight as in {more} of their best days with this heat, {less} without: "
            "{energy}."
        )
        values = {"name": words.sentence(life.crop.name_plural), "more": f"{with_heat:.1f}", "less": f"{without:.1f}"}
        lines.append(text.format(energy=energy, **values))
    return lines
