"""Comparison of years: soil, frosts, sowings, winter survival and signs."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from datetime import date, timedelta

from django.db.models import Count
from django.utils.translation import gettext as _
from django.utils.translation import ngettext

from cloche.apps.forecasts import selectors as forecasts
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.plants.models import PlantEvent
from cloche.apps.plants.selectors import cold_seen, events_in
from cloche.apps.shared import words
from cloche.apps.sowings.models import Sowing
from cloche.apps.sowings.selectors import sowings_in
from cloche.apps.weather.selectors import weather_days
from cloche.apps.years.models import Sign
from cloche.bridge.services import crops
from cloche.bridge.services import years as service
from cloche.bridge.services.years import SPRING_D, Spring
from cloche.bridge.values.units import Units
from cloche.drawing import years as drawing
from cloche_engine.inputs import Day

MOST_YEARS, MOST_SIGNS, MOST_NIGHTS = 6, 30, 8
CAME_UP = 0.3
"""A sowing of which less came up has failed (assumption)."""


@dataclass(frozen=True)
class Compared:
    """Figures of a year as text; empty if unknown."""

    name: str
    warmth: str
    warm_week: str
    last_frost: str
    lowest: str
    highest: str
    rain: str


@dataclass(frozen=True)
class SownThen:
    """A sowing of the crop shown."""

    sown: str
    place: str
    half: str
    of_100: str


@dataclass(frozen=True)
class Stood:
    """Cold that a crop survived here, and its resulting limit."""

    name: str
    lines: list[str]
    limit: str


@dataclass(frozen=True)
class SignLine:
    """A phenological sign over the years."""

    name: str
    days: list[tuple[int, str]]
    foretells: str


@dataclass(frozen=True)
class YearsPage:
    """Context of years/years.html; `crops` lists sown crops as key and name."""

    headline: str
    sub: str
    picture: drawing.YearsPicture | None
    compared: list[Compared]
    this: list[str]
    crops: list[tuple[str, str]]
    crop_key: str
    sown: list[SownThen]
    stood: list[Stood]
    winter: list[str]
    signs: list[SignLine]


def years_page(place: Place, crop_key: str, units: Units, today: date) -> YearsPage:
    """Build the comparison for a place, with the garden's sowings of one crop."""
    garden = place.garden
    days = weather_days(garden)
    past = [day for day in days if day.day < today and not day.lead_d]
    springs = _springs(place, past, today)
    sowings = sowings_in(garden).defer("outlook")
    numbers = dict(sowings.order_by().values_list("crop_key").annotate(Count("pk")))
    signs = list(Sign.objects.filter(garden=garden).order_by("on", "id"))
    known = [spring for spring in springs if any(value is not None for value in spring.soil_c)]
    sown_keys = sorted(numbers, key=lambda key: crops.crop(key).name)
    key = crop_key if crop_key in numbers else max(numbers, key=lambda key: (numbers[key], key), default="")
    here = list(sowings.filter(place=place))
    return YearsPage(
        headline=_headline(place, springs),
        sub=_("{place}, soil at {depth}; thick and warm in colour where the soil was.").format(
            place=place.name, depth=units.length_text(place.seed_depth_m)
        ),
        picture=_picture(known, here, signs, garden, today) if known else None,
        compared=[_compared(spring, past, garden, units, today) for spring in reversed(springs)],
        this=_this(springs, units, today),
        crops=[(key, crops.crop(key).name_plural) for key in sown_keys],
        crop_key=key,
        sown=[_sown(sowing, today) for sowing in sowings.filter(crop_key=key)],
        stood=_stood(garden, units),
        winter=_winter(garden, today),
        signs=_signs(signs, place, springs, units),
    )


def _south(garden: Garden) -> bool:
    return garden.latitude_deg < 0


def first_of(garden: Garden, today: date) -> date:
    """Return the first day of the garden's current year."""
    first = service.begins_on(today.year, _south(garden))
    return first if first <= today else service.begins_on(today.year - 1, _south(garden))


def _springs(place: Place, past: list[Day], today: date) -> list[Spring]:
    garden = place.garden
    latest = first_of(garden, today)
    firsts = [service.begins_on(latest.year - back, _south(garden)) for back in range(MOST_YEARS)]
    kept_c = forecasts.kept_soil(place, firsts[-1].year)
    soils = {first: [kept_c.get(first + timedelta(days=i)) for i in range(365)] for first in firsts}
    soils[latest] = [v if latest + timedelta(days=i) < today else None for i, v in enumerate(soils[latest])]
    kept = {first: values for first, values in soils.items() if first == latest or any(v is not None for v in values)}
    return service.springs_of(kept, {day.day: day.low_c for day in past}, today)


def year_name(first: date) -> str:
    """Name a year 2026, or 2026/27 where it begins in July."""
    return str(first.year) if first.month == 1 else f"{first.year}/{(first.year + 1) % 100:02}"


def _headline(place: Place, springs: list[Spring]) -> str:
    now = springs[-1]
    if now.ahead_d is None:
        return _("{place}, year by year.").format(place=place.name)
    if abs(now.ahead_d) <= 1:
        return _("{place} is where it usually is by now.").format(place=place.name)
    number = abs(now.ahead_d)
    ahead = ngettext(
        "{place} is {number} day ahead of its usual spring.", "{place} is {number} days ahead of its usual spring.", number
    )
    behind = ngettext(
        "{place} is {number} day behind its usual spring.", "{place} is {number} days behind its usual spring.", number
    )
    return (ahead if now.ahead_d > 0 else behind).format(place=place.name, number=number)


def _this(springs: list[Spring], units: Units, today: date) -> list[str]:
    now, others = springs[-1], [spring for spring in springs[:-1] if spring.warmth is not None]
    lines = []
    if now.warmth is not None:
        sum_text = units.degree_days_text(now.warmth)
        if others:
            usual = sum(other.warmth or 0.0 for other in others) / len(others)
            lines.append(
                ngettext(
                    "{warmth} above {base} at seed depth so far; the mean of {number} other year is {usual}.",
                    "{warmth} above {base} at seed depth so far; the mean of {number} other years is {usual}.",
                    len(others),
                ).format(
                    warmth=sum_text,
                    base=units.temperature_text(5.0, 0),
                    usual=units.degree_days_text(usual),
                    number=len(others),
                )
            )
        else:
            lines.append(
                _("{warmth} above {base} at seed depth so far.").format(warmth=sum_text, base=units.temperature_text(5.0, 0))
            )
    if now.warm_week is not None:
        lines.append(
            _("The first week of {warm} began on {day}.").format(
                warm=units.temperature_text(10.0, 0), day=words.day(now.warm_week, today)
            )
        )
    if now.last_frost is not None:
        lines.append(_("The last air frost so far was on {day}.").format(day=words.day(now.last_frost, today)))
    return lines


def _picture(
    springs: list[Spring], sowings: list[Sowing], signs: list[Sign], garden: Garden, today: date
) -> drawing.YearsPicture:
    rows = []
    for spring in reversed(springs):
        known = ((spring.warm_week, _("first warm week"), 1), (spring.last_frost, _("last frost"), 0))
        marks = [(day, text, level) for day, text, level in known if day]
        end = spring.first + timedelta(days=SPRING_D)
        then = [
            (s.sown_on, crops.crop(s.crop_key).name_plural, _came_up(s)) for s in sowings if spring.first <= s.sown_on <= end
        ]
        seen = [(sign.on, sign.name) for sign in signs if spring.first <= sign.on <= end]
        rows.append(drawing.YearGiven(year_name(spring.first), spring.first, spring.soil_c, marks, then[:8], seen))
    months = [(i, words.short_month(day)) for i, day in drawing.month_days(springs[-1].first, SPRING_D)]
    return drawing.years(rows, SPRING_D, today, months)


def _came_up(sowing: Sowing) -> bool | None:
    """Return whether a sowing emerged; None while nobody has counted."""
    counts = [count.up for count in sowing.counts.all()]
    if not counts:
        return False if sowing.finished else None
    return max(counts) >= CAME_UP * sowing.seeds if sowing.seeds else max(counts) > 0


def _compared(spring: Spring, past: list[Day], garden: Garden, units: Units, today: date) -> Compared:
    end = spring.first + timedelta(days=365)
    days = [day for day in past if spring.first <= day.day < end]
    rain = [day.rain_mm for day in days if day.rain_mm is not None]
    return Compared(
        name=year_name(spring.first),
        warmth="" if spring.warmth is None else units.degree_days_text(spring.warmth),
        warm_week=words.day(spring.warm_week) if spring.warm_week else "",
        last_frost=words.day(spring.last_frost) if spring.last_frost else "",
        lowest=units.temperature_text(min(day.low_c for day in days)) if days else "",
        highest=units.temperature_text(max(day.high_c for day in days)) if days else "",
        rain=units.rain_text(sum(rain), rough=True) if rain else "",
    )


def _sown(sowing: Sowing, today: date) -> SownThen:
    counts = list(sowing.counts.all())
    most = max((count.up for count in counts), default=None)
    half = next((count.on for count in counts if most and count.up >= most / 2), None)
    share = "" if most is None or not sowing.seeds else f"{100 * most / sowing.seeds:.0f}"
    days = "" if half is None else words.count((half - sowing.sown_on).days, "day", "days")
    return SownThen(words.day(sowing.sown_on, today), sowing.place.name, days, share)


def _stood(garden: Garden, units: Units) -> list[Stood]:
    """Return what survived or died of cold by crop, and its limit."""
    stood = []
    for seen in cold_seen(garden):
        lines = [
            _("{count} {what} at {low} in {place}, {day}").format(
                count=event.number,
                what=_("survived") if event.kind == PlantEvent.Kind.STOOD else _("died"),
                low=units.temperature_text(event.lowest_c),
                place=event.place,
                day=words.day_with_year(event.on),
            )
            for event in seen.events[-MOST_NIGHTS:]
        ]
        if more := len(seen.events) - len(lines):
            lines.insert(0, ngettext("{number} earlier night", "{number} earlier nights", more).format(number=more))
        limit, listed = (units.temperature_text(value) for value in (seen.limit.limit_c, seen.limit.listed_c))
        text = _("assumed to survive about {limit} here, give or take {sd}; the list says {listed}").format(
            limit=limit, sd=units.difference_text(seen.limit.sd_k), listed=listed
        )
        stood.append(Stood(crops.crop(seen.crop_key).name, lines, text))
    return sorted(stood, key=lambda row: row.name)


def _winter(garden: Garden, today: date) -> list[str]:
    """Describe when days fell below ten hours, and when growth resumed."""
    first = first_of(garden, today)
    span = service.short_days(first.year - 1 if first.month == 1 else first.year, garden.latitude_deg)
    if span is None:
        return [_("Days have more than ten hours of light all year here.")]
    lines = [
        _("Days were shorter than ten hours from {gone} to {back}.").format(
            gone=words.day(span[0], today), back=words.day(span[1], today)
        )
    ]
    grows = [
        (event.on, crops.crop(event.planting.crop_key).name_plural)
        for event in events_in(garden).filter(kind=PlantEvent.Kind.GROWS, on__range=(span[0], today))
    ]
    for on, name in sorted(grows):
        days = (on - span[1]).days
        text = (
            _("{name} started growing again on {day}, {days} after days reached ten hours.")
            if days >= 0
            else _("{name} started growing again on {day}, {days} before days reached ten hours.")
        )
        lines.append(
            text.format(name=words.sentence(name), day=words.day(on, today), days=words.count(abs(days), "day", "days"))
        )
    return lines


def _signs(signs: list[Sign], place: Place, springs: list[Spring], units: Units) -> list[SignLine]:
    """Return signs over the years with soil temperature and lead over the first warm week."""
    by_name: dict[str, list[Sign]] = defaultdict(list)
    for sign in signs[-MOST_SIGNS:]:
        by_name[sign.name.strip().lower()].append(sign)
    lines = []
    for rows in by_name.values():
        days, ahead = [], []
        for sign in rows:
            spring = next((spring for spring in springs if spring.first <= sign.on < spring.first + timedelta(days=366)), None)
            soil = spring.soil_c[(sign.on - spring.first).days] if spring else None
            text = words.day_with_year(sign.on)
            days.append(
                (
                    sign.pk,
                    text if soil is None else _("{day} (soil {soil})").format(day=text, soil=units.temperature_text(soil)),
                )
            )
            if spring and spring.warm_week:
                ahead.append((spring.warm_week - sign.on).days)
        lines.append(SignLine(rows[0].name, days, _foretells(ahead, units)))
    return lines


def _foretells(ahead: list[int], units: Units) -> str:
    if not ahead:
        return ""
    mean = round(sum(ahead) / len(ahead))
    text = (
        ngettext(
            "the first week of {warm} begins about {number} day later",
            "the first week of {warm} begins about {number} days later",
            abs(mean),
        )
        if mean >= 0
        else ngettext(
            "the first week of {warm} began about {number} day before",
            "the first week of {warm} began about {number} days before",
            abs(mean),
        )
    )
    return text.format(warm=units.temperature_text(10.0, 0), number=abs(mean))
