"""Texts about plantings."""

from __future__ import annotations

from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.plan.courses import Grows
from cloche.apps.plants.models import PlantEvent, Planting
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.bridge.services import beds, crops
from cloche.bridge.values.units import Units


def name_of(planting: Planting) -> str:
    """Return the crop's name with the variety."""
    if not planting.crop_key:
        return _("free")
    crop = crops.crop(planting.crop_key)
    variety = planting.packet.variety if planting.packet else ""
    return f"{crop.name}, {variety}" if variety else crop.name


def crop_name(planting: Planting) -> str:
    """Return the crop's name without the variety."""
    return crops.crop(planting.crop_key).name if planting.crop_key else _("free")


def plants_of(planting: Planting) -> str:
    """Return the crop's plural name with the variety."""
    crop = crops.crop(planting.crop_key)
    variety = planting.packet.variety if planting.packet else ""
    return f"{crop.name_plural} ({variety})" if variety else crop.name_plural


def how_many(planting: Planting, patch: beds.Patch | None) -> int | None:
    """Return how many plants stand or are planned there, or None."""
    return planting.number or (patch.plants if patch else None)


def state(planting: Planting, grows: Grows | None, today: date) -> str:
    """Describe the state of a planting in a few words."""
    if planting.ended_on is not None and planting.ended_on <= today:
        return _("finished on {day}").format(day=words.day(planting.ended_on, today))
    if grows is None:
        on = planting.planned_on
        return _("kept for later") if on is None else _("until {day}").format(day=words.day(on, today))
    if planting.planted_on is None:
        planned = planting.planned_on
        if planned is None:
            return _("planned, without a date")
        if planned < today:
            return _("planned for {day}").format(day=words.day(planned, today))
        return _("planned for {day}").format(day=words.day(planned, today))
    if grows.up > today:
        return _("up about {day}").format(day=words.day(grows.up, today))
    ripe = grows.course.ripe
    if ripe is None:
        return _("growing")
    return _("ready now") if ripe <= today else _("ready about {day}").format(day=words.day(ripe, today))


def seed_line(planting: Planting, patch: beds.Patch, alive: float | None) -> str:
    """Describe the seed needed, more where the viability is low."""
    if planting.layout == Planting.Layout.BROADCAST:
        return _("about {seeds}, broadcast").format(seeds=words.count(patch.seeds, "seed", "seeds"))
    each = patch.spacing.per_station
    text = words.count(patch.seeds, "seed", "seeds")
    if each > 1:
        text = _("{text}, {each} per station").format(text=text, each=each)
    if alive is not None and alive < LITTLE_ALIVE:
        more = max(each + 1, round(each * ENOUGH / alive))
        text += " " + _("(about {share}% viable: {more} per station)").format(share=round(100 * alive), more=more)
    return text


LITTLE_ALIVE, ENOUGH = 0.6, 0.85
"""Below the first share alive more seeds go to a station, as many as if the second were alive (assumption)."""


def too_soon(names: list[str], soon: beds.TooSoon) -> str:
    """Warn that a crop family returns to the bed too soon."""
    before = crops.crop(soon.before.crop_key).name
    return _("{names}: {before} grew here in {year}. Growers wait until {again} before they grow that family again.").format(
        names=words.listed(sorted(set(names))), before=before, year=soon.before.year, again=soon.again_from
    )


def event_line(event: PlantEvent, units: Units) -> str:
    """Describe an observation or a task done."""
    parts = [str(event.get_kind_display())]
    if event.number is not None:
        parts.append(str(event.number))
    if event.weight_kg is not None:
        parts.append(units.weight_text(event.weight_kg))
    if event.height_m is not None:
        parts.append(units.length_text(event.height_m))
    if event.cause:
        parts.append(_("from {cause}").format(cause=event.get_cause_display()))
    if event.lowest_c is not None:
        parts.append(_("at {temperature} in the night").format(temperature=units.temperature_text(event.lowest_c)))
    return " ".join(parts) + (f": {event.note}" if event.note else "")


def harvested(planting: Planting, units: Units) -> str:
    """Return the total harvest, or an empty string."""
    picked = [e for e in planting.events.all() if e.kind in (PlantEvent.Kind.HARVESTED, PlantEvent.Kind.EATEN)]
    number, weight = sum(e.number or 0 for e in picked), sum(e.weight_kg or 0.0 for e in picked)
    parts = ([str(number)] if number else []) + ([units.weight_text(weight)] if weight else [])
    return _("harvested so far: {parts}").format(parts=words.listed(parts)) if parts else ""


RIPE_SIGNS = {
    "radish": lazy("shoulders the size of a thumb show above the ground; pull at once, because they turn pithy"),
    "carrot": lazy("the shoulders are a finger’s width and fully coloured; they can stay in the ground until frost"),
    "beet": lazy("young ones are the size of a golf ball; they can wait"),
    "lettuce": lazy("leaves are a hand’s length; when a heart lengthens, it is about to bolt"),
    "head_lettuce": lazy("the head gives a little when pressed"),
    "spinach": lazy("leaves are a hand’s length; cut before the stem lengthens"),
    "pea": lazy("the pods are full and still bright; taste one"),
    "snow_pea": lazy("the pods are flat and the seeds just show"),
    "snap_bean": lazy("the pods snap cleanly and the seeds do not bulge"),
    "broad_bean": lazy("the pods are padded and the scar on each seed is still green"),
    "sweet_corn": lazy("the silks are brown and dry, and a pricked kernel runs milky"),
    "tomato": lazy("they have full colour and give slightly; glossy green ones ripen indoors, so pick them before frost"),
    "pepper": lazy("they are firm and full-sized while green; colour comes two to three weeks later"),
    "cucumber": lazy("they are even in colour and still slender; yellow is too late"),
    "squash": lazy("they are a hand’s length, and a thumbnail marks the skin"),
    "winter_squash": lazy("the stalk is corky and your thumbnail does not mark the skin; bring them in before the first frost"),
    "pumpkin": lazy("the stalk is corky and your thumbnail does not mark the skin; bring them in before the first frost"),
    "muskmelon": lazy("the fruit slips from the stalk and smells sweet"),
    "watermelon": lazy("the spot on the ground is butter yellow and the nearest tendril is dry"),
    "onion": lazy("half of the tops have fallen over; lift and dry them"),
    "onion_sets": lazy("half of the tops have fallen over; lift and dry them"),
    "garlic": lazy("a third of the leaves are yellow; lift one to check"),
    "cabbage": lazy("the head is hard"),
    "cauliflower": lazy("the curd is full and still tight"),
    "broccoli": lazy("the buds are full and not yet yellow"),
    "kohlrabi": lazy("they are no larger than a tennis ball"),
    "turnip": lazy("they are between the size of a golf ball and a tennis ball"),
    "leek": lazy("they are as thick as a thumb; they can stay in the ground until needed"),
    "eggplant": lazy("the skin shines; dull is too late"),
    "okra": lazy("the pods are a finger’s length; pick every other day"),
    "parsnip": lazy("after the first frosts, which make them sweet"),
}
"""What one looks for at the foretold harvest (common practice, no source)."""
LOOKED_FOR_D = 10


def ripe_signs(planting: Planting, grows: Grows, today: date) -> str:
    """Return the signs of ripeness from shortly before the expected harvest on, or an empty string."""
    ripe, sign = grows.course.ripe, RIPE_SIGNS.get(planting.crop_key)
    if ripe is None or sign is None or planting.planted_on is None or (ripe - today).days > LOOKED_FOR_D:
        return ""
    return _("Ripe when {sign}.").format(sign=sign)
