"""Sowing what was meant, looking at what is overdue, counting, last days of windows, trials to read, hotbeds to top up."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date, timedelta
from urllib.parse import urlencode

from django.urls import reverse

from cloche.apps.covers.forms import WARMED
from cloche.apps.covers.pages.trial import pairs_of, trials_in
from cloche.apps.forecasts import selectors as windows
from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.forecasts.selectors import Ground
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.sowings import selectors as sowings
from cloche.apps.sowings.models import Intention, Sowing
from cloche.apps.today.jobs.job import DAY_H, MORNING_H, Job
from cloche.apps.today.pages.after import AfterLine
from cloche.apps.windows.pages.warmth import Grounds
from cloche.bridge.services import crops, hotbeds
from cloche.bridge.services.planting import BENCHES
from cloche.bridge.values.units import Units

CLOSING_D, TOP_UP_D, SOWN_AGO_D = 7, 12, 40
AHEAD_D = (4, 16)
"""So many days before a sowing a bed is covered: a week or more (common practice, no source)."""


def intended(garden: Garden, today: date) -> Iterator[Job]:
    """What was meant for today or before, and what the ground says of it now."""
    meant = [one for one in sowings.intended_in(garden) if one.sow_on <= today]
    if not meant:
        return
    keys = {(one.place_id, one.crop_key) for one in meant}
    rows = CropOutlook.objects.filter(place__garden=garden, method=CropOutlook.Method.DIRECT).only(
        "place_id", "crop_key", "sow_now", "half_d", "share", "windows", "main_limit"
    )
    outlooks = {(row.place_id, row.crop_key): row for row in rows if (row.place_id, row.crop_key) in keys}
    for one in meant:
        yield _meant(one, outlooks.get((one.place_id, one.crop_key)), today)


def warming(garden: Garden, grounds: Grounds, free: list[str], today: date, units: Units) -> Iterator[Job]:
    """Covers to put on ahead of a sowing that is meant, where the bare bed will be too cold for it and a cover is free."""
    by_place = {place.pk: ground for place, ground in grounds}
    for one in sowings.intended_in(garden):
        ground, days = by_place.get(one.place_id), (one.sow_on - today).days
        if ground is None or not free or not AHEAD_D[0] <= days <= AHEAD_D[1] or _is_covered(one, ground):
            continue
        crop = crops.crop(one.crop_key)
        wanted_c = crop.minimum_c if garden.sowing_rule == Garden.SowingRule.MINIMUM else crop.optimum_from_c
        week = ground.data["far_mid_c"][days : days + 7]
        if week and sum(week) / len(week) < wanted_c:
            told, wants = (units.temperature_text(value, 0) for value in (sum(week) / len(week), wanted_c))
            why = (
                f"Bare it would lie at {told} on {words.day(one.sow_on)}, when {crop.name_plural} are meant; they want {wants}."
            )
            yield _to_warm(one, days, free, why)


def _is_covered(one: Intention, ground: Ground) -> bool:
    planned = one.place.cover_periods.filter(first__lte=one.sow_on).exclude(last__lt=one.sow_on).exists()
    return planned or bool(ground.forecast.watch.get("covered", True))


def _to_warm(one: Intention, days: int, free: list[str], why: str) -> Job:
    place = one.place
    warm = min((d for d, _ in WARMED), key=lambda d: abs(d - days))
    query = urlencode({"place": place.pk, "crop": one.crop_key, "warm": warm})
    address = f"{reverse('covers', args=[place.garden_id])}?{query}"
    do = f"Warm it with {words.listed(free, 1)}."
    return Job(f"warm:{one.pk}", "today", DAY_H, do, why, place.name, place.pk, ("See what it buys", address))


def _meant(one: Intention, outlook: CropOutlook | None, today: date) -> Job:
    name = crops.crop(one.crop_key).name_plural
    when = "today" if one.sow_on == today else f"since {words.day(one.sow_on, today)}"
    why = "You meant to."
    if outlook is not None and outlook.half_d is not None:
        up = f"half up in {outlook.half_d:.0f} days, {outlook.share * 100:.0f} of 100"
        why = f"You meant to, {_ground_says(outlook, today)}: {up}."
    address = f"{reverse('new_sowing', args=[one.place.garden_id])}?{urlencode({'place': one.place_id, 'crop': one.crop_key})}"
    return Job(
        f"sow:{one.pk}", when, DAY_H - 1, f"Sow {name}.", why, one.place.name, one.place_id, link=("Write it down", address)
    )


def _ground_says(outlook: CropOutlook, today: date) -> str:
    if outlook.sow_now:
        return "and the ground agrees"
    if not outlook.windows:
        return f"but no window is in sight ({outlook.main_limit})"
    opens = words.day(date.fromisoformat(outlook.windows[0]["earliest"]), today)
    limit = outlook.windows[0]["opens_after"]
    return f"but its window opens {opens}" + (f", till then {limit}" if limit else "")


def awaited(garden: Garden, made: list[Sowing], today: date) -> Iterator[Job]:
    """Sowings that should show by now."""
    address = reverse("sowings", args=[garden.pk])
    for sowing in made:
        if sowing.outlook and not sowing.finished and not any(count.up for count in sowing.counts.all()):
            yield from _awaited(sowing, today, address)


def _awaited(sowing: Sowing, today: date, address: str) -> Iterator[Job]:
    found = sowing.outlook or {}
    name, place = crops.crop(sowing.crop_key).name_plural, sowing.place
    overdue = date.fromisoformat(found["overdue"]) if found.get("overdue") else None
    half = date.fromisoformat(found["half"][1]) if found["half"][1] else None
    if overdue is not None and overdue < today:
        text = words.day(overdue, today)
        why = f"Silence after {text} means that most of it failed: cold, old seed, a crust, too deep, or eaten."
        yield Job(
            f"overdue:{sowing.pk}",
            "by day",
            DAY_H,
            f"Scratch a little free and look for the {name}.",
            why,
            place.name,
            place.pk,
            ("Count", address),
        )
    elif half is not None and half <= today:
        why = f"Half of them should show since {words.day(half, today)}; a count teaches Cloche your ground."
        yield Job(f"count:{sowing.pk}", "by day", DAY_H, f"Count the {name}.", why, place.name, place.pk, ("Count", address))


def closing(garden: Garden, made: list[Sowing], today: date) -> Iterator[Job]:
    """Windows whose last sensible day is within the week, of crops not sown lately."""
    lately = {row.crop_key for row in made if row.sown_on > today - timedelta(days=SOWN_AGO_D)}
    for key, rows in windows.outlooks_by_crop(garden).items():
        found = _last_chance([row for row in rows if row.sown and not row.hopeless and row.place.kind not in BENCHES])
        if found is None or key in lately:
            continue
        day, place, again = found
        if (day - today).days <= CLOSING_D:
            name = crops.crop(key).name_plural
            address = f"{reverse('new_sowing', args=[garden.pk])}?{urlencode({'place': place.pk, 'crop': key})}"
            text = words.sentence(words.day(day, today))
            why = f"{text} is the last sensible day anywhere here{_again_words(again, today)}."
            yield Job(
                f"last:{key}",
                f"by {words.day(day, today)}",
                DAY_H,
                f"Sow {name}, or {'wait for the next window' if again else 'leave them for this season'}.",
                why,
                place.name,
                place.pk,
                ("Write it down", address),
            )


def _last_chance(rows: list[CropOutlook]) -> tuple[date, Place, tuple[date, Place] | None] | None:
    """Of a crop's outlooks the last day of the windows that are open and where, and the first that opens later anywhere; None
    where one is open with no end in sight, or none is open."""
    now = [row for row in rows if row.windows and row.sow_now]
    if not now or any(row.windows[0]["open_ended"] for row in now):
        return None
    day, place = max(((date.fromisoformat(row.windows[0]["last"]), row.place) for row in now), key=lambda pair: pair[0])
    later = [
        (date.fromisoformat(window["earliest"]), row.place) for row in rows for window in row.windows[1 if row.sow_now else 0 :]
    ]
    if any(first <= day for first, _ in later):
        return None
    return day, place, min(later, key=lambda pair: pair[0], default=None)


def _again_words(again: tuple[date, Place] | None, today: date) -> str:
    if again is None:
        return "; after it too little season is left or heat comes"
    return f"; the next window is from {words.day(again[0], today)} in {again[1].name}"


def after_frost(garden: Garden, lines: list[AfterLine]) -> Iterator[Job]:
    """To look over what a night has hurt, once for the garden."""
    hurt = [line for line in lines if line.harm != "unhurt"]
    if hurt:
        named = words.listed([f"{line.name} in {line.place}" for line in hurt], 2)
        first = hurt[0]
        link = ("What to look for", reverse("after_frost", args=[garden.pk]))
        do = f"Look over {named} after the frost."
        yield Job("after_frost", "by day", DAY_H, do, first.text, first.place, first.place_pk, link)


def trials(garden: Garden, today: date) -> Iterator[Job]:
    """Running trials without a pair today."""
    for trial in trials_in(garden):
        if trial.ended_on is None and not pairs_of(trial, since=today):
            why = "Both within a few minutes, at the same depth: a pair a day settles it soonest."
            address = reverse("trial", args=[garden.pk, trial.pk])
            do = f"Read it and {trial.bare.name} together."
            link = ("Read both", address)
            yield Job(
                f"trial:{trial.pk}", "morning and evening", MORNING_H, do, why, trial.covered.name, trial.covered_id, link
            )


def hotbed(ground: Ground, today: date) -> Iterator[Job]:
    """A hotbed about to fade."""
    place = ground.place
    times = hotbeds.times_of(ground.data, ground.forecast.day)
    if times.fades is not None and 0 <= (times.fades - today).days <= TOP_UP_D:
        why = f"It has sunk and will fall too cool about {words.day(times.fades, today)}; it is topped up once."
        address = reverse("hotbed", args=[place.garden_id, place.pk])
        yield Job(
            f"top_up:{place.pk}",
            "this week",
            DAY_H,
            "Top the hotbed up.",
            why,
            place.name,
            place.pk,
            ("Write it down", address),
        )
