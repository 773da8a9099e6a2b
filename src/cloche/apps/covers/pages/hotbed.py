"""A hotbed through its weeks: when trays, when plants, when it has faded."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date, timedelta

from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors as windows
from cloche.apps.forecasts.inputs import SOWABLE_M
from cloche.apps.places.models import Hotbed, Place
from cloche.apps.places.selectors import filled_on, hot_core
from cloche.apps.shared import words
from cloche.bridge.services import crops, hotbeds
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche.drawing.cover_gain import CoverGain, cover_gain, limits, marks
from cloche_engine.results import PlaceForecast, Triple

BEHIND_D, AHEAD_D = 21, 70
MICE_D, AFTER_D, SPARE_K, MOST_NAMED = 14, 28, 3.0, 5
"""Days from filling for which mice are told of; weeks after it has faded that are looked at; so far above the minimum of a crop
the soil must be."""
CORE_D, COLDER_K = 10, 3.0
"""Days for which a core that was read says something, and by how much it must be colder than the soil to contradict it."""


@dataclass(frozen=True)
class HotbedPage:
    """Context of covers/hotbed.html."""

    headline: str
    uses: list[str]
    learned: str
    ribbon: CoverGain | None = None
    for_trays: list[str] = field(default_factory=list)


def hotbed_page(place: Place, units: Units, today: date) -> HotbedPage:
    """Return the page of a hotbed from its latest forecast."""
    ground = windows.ground_of(place)
    if ground is None:
        return HotbedPage(_("Working out the forecast for {name}…").format(name=place.name), [], "")
    times = hotbeds.times_of(ground.data, ground.forecast.day, filled_on(place))
    learned = _learned(ground.data.parameters) if ground.data.readings_used else ""
    cold = _cold(place, ground, units, today)
    uses = [
        *cold,
        *_bare(place),
        *_uses(times, units, today),
        *_carries(place, ground, times, units, today),
        *_mice(place, today),
    ]
    drawn = _drawn(ground.data, units)
    headline = hot_text(place, units, today) or _headline(place, times, units, today)
    return HotbedPage(headline, uses, learned, drawn, _for_trays(place, times, units, today))


def _bare(place: Place) -> list[str]:
    """Return what a heap without earth on it is good for."""
    bed = Hotbed.objects.filter(place=place).first()
    if bed is None or bed.soil_m >= SOWABLE_M:
        return []
    return [_("There is no soil on it yet, so nothing can be sown into it. Enter the depth of the soil below once it is on.")]


def _mice(place: Place, today: date) -> list[str]:
    """Return advice against mice in the weeks around filling."""
    filled = filled_on(place)
    if filled is not None and (today - filled).days > MICE_D:
        return []
    return [_("Line it with fine wire mesh, below and at the sides: mice and moles come to warm beds.")]


def _carries(place: Place, ground: windows.Ground, times: hotbeds.Times, units: Units, today: date) -> list[str]:
    """Return which of the garden's crops grow on in it as it cools."""
    if times.fades is None or times.fades <= today:
        return []
    first = (times.fades - ground.forecast.day).days
    after = ground.data.far_mid_c[first : first + AFTER_D]
    if not after:
        return []
    mean_c = sum(after) / len(after)
    fit = [crop for crop in crops.of_garden(place.garden.crops) if crop.season == "cool" and crop.minimum_c + SPARE_K <= mean_c]
    if not fit:
        return []
    names = words.listed([crop.name_plural for crop in fit[:MOST_NAMED]])
    return [
        _(
            "As it cools it still carries crops for cool soil: in the weeks after {day} it stays at about {soil}, "
            "enough for {names}."
        ).format(day=words.day(times.fades, today), soil=units.temperature_text(mean_c, 0), names=names)
    ]


def _cold(place: Place, ground: windows.Ground, units: Units, today: date) -> list[str]:
    """Return a warning if the core is colder than the forecast soil above it: the heap has gone cold."""
    note = place.hotbed_notes.filter(core_c__isnull=False, on__gte=today - timedelta(days=CORE_D)).order_by("-on").first()
    soil_c = ground.mean_in(0)
    if note is None or note.core_c is None or note.core_c > soil_c - COLDER_K:
        return []
    return [
        _(
            "On {day} its core was {core}, colder than the forecast of {soil} for the soil. Trust the "
            "thermometer: enter a reading at seed depth to correct the forecast."
        ).format(
            day=words.day(note.on, today),
            core=units.temperature_text(note.core_c, 0),
            soil=units.temperature_text(soil_c, 0),
        )
    ]


def _for_trays(place: Place, times: hotbeds.Times, units: Units, today: date) -> list[str]:
    """Return what its heat means for the trays on it."""
    hot, warm = units.temperature_text(hotbeds.TOO_HOT_C, 0), units.temperature_text(hotbeds.TRAYS_FROM_C, 0)
    text = []
    if times.peak_on >= today and times.peak_c > hotbeds.TOO_HOT_C:
        text.append(
            _(
                "{name} will be at {peak} {when}, and roots suffer above {hot}. Lift trays on laths or take them "
                "off until it cools."
            ).format(
                name=place.name,
                peak=units.temperature_text(times.peak_c, 0),
                when=words.day(times.peak_on, today),
                hot=hot,
            )
        )
    elif times.trays is None or times.trays > today:
        text.append(_("{name} is not at {warm} yet, so it does little for a tray.").format(name=place.name, warm=warm))
    if times.fades and times.fades >= today:
        text.append(_("It will keep trays warm until about {day}.").format(day=words.day(times.fades, today)))
    return text


def _drawn(data: PlaceForecast, units: Units) -> CoverGain:
    """Draw three weeks back and ten ahead with their band, against the tolerance of roots."""
    hours = data.near_mid_c[: BEHIND_D * 24]
    past = [sum(hours[i : i + 24]) / 24 for i in range(0, len(hours), 24)]
    band = [past + side[:AHEAD_D] for side in (data.far_low_c, data.far_mid_c, data.far_high_c)]
    within = limits(band)
    labels = [(value, units.temperature_text(value, 0)) for value in marks(within)]
    return cover_gain(band, band[1], within, hotbeds.TOO_HOT_C, len(past), labels)


def hot_text(place: Place, units: Units, today: date) -> str:
    """Return a warning while the latest core temperature shows that the first flush is not over, else nothing."""
    core = hot_core(place, today)
    text = _("{name} is in its first hot phase, with {core} at the core. Do not sow or plant into it yet.")
    return "" if core is None else text.format(name=place.name, core=units.temperature_text(core.core_c or 0.0, 0))


def _headline(place: Place, times: hotbeds.Times, units: Units, today: date) -> str:
    peak = units.temperature_text(times.peak_c, 0)
    when = words.day(times.peak_on, today)
    passed = _("was hottest") if times.peak_on < today else _("will be hottest")
    if times.plant is None:
        return _("{name} {passed} {when} at {peak}.").format(name=place.name, passed=passed, when=when, peak=peak)
    fit = (
        _("can be planted now")
        if times.plant <= today
        else _("can be planted from {day}").format(day=words.day(times.plant, today))
    )
    return _("{name} {passed} {when} at {peak}; it {fit}.").format(
        name=place.name, passed=passed, when=when, peak=peak, fit=fit
    )


def _uses(times: hotbeds.Times, units: Units, today: date) -> list[str]:
    warm, hot, low = (units.temperature_text(v, 0) for v in (hotbeds.TRAYS_FROM_C, hotbeds.TOO_HOT_C, hotbeds.USEFUL_C))
    text = []
    if times.trays:
        until = words.day(times.plant, today) if times.plant and times.plant > times.trays else _("it cools")
        text.append(
            _("Set seed trays on it from {day}, once it is at {warm}, until {until}.").format(
                day=words.day(times.trays, today), warm=warm, until=until
            )
        )
    else:
        text.append(_("It is not forecast to reach {warm} for trays. Was it wet, deep and firm enough?").format(warm=warm))
    if times.plant:
        tender = (
            _("Plant tender crops straight into it from {day}, when roots meet no more than {hot}.")
            if times.gets_too_hot
            else _("Plant tender crops straight into it from {day}: it never gets too hot for roots.")
        )
        text.append(tender.format(day=words.day(times.plant, today), hot=hot))
    if times.fades:
        text.append(
            _(
                "It will fall below {low} about {day}. Top it up once, one to two weeks before that, after the heap has sunk."
            ).format(low=low, day=words.day(times.fades, today))
        )
    return text


def _learned(parameters: dict[str, Triple]) -> str:
    parts = [("heat", _("the heat")), ("rise", _("the time to heat up")), ("fade", _("the time to cool down"))]
    text = [
        _("{parameters} times {name} ({parameters2} to {parameters3})").format(
            parameters=number_text(f"{parameters[key][1]:.1f}"),
            name=name,
            parameters2=number_text(f"{parameters[key][0]:.1f}"),
            parameters3=number_text(f"{parameters[key][2]:.1f}"),
        )
        for key, name in parts
        if key in parameters
    ]
    return (
        _("Compared with a usual hotbed of its kind, the readings show {listed}.").format(listed=words.listed(text))
        if text
        else ""
    )
