"""Sentences of the plan."""

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
    """Of its crop, with the variety."""
    if not planting.crop_key:
        return _("free")
    crop = crops.crop(planting.crop_key)
    variety = planting.packet.variety if planting.packet else ""
    return f"{crop.name}, {variety}" if variety else crop.name


def crop_name(planting: Planting) -> str:
    """Of its crop alone."""
    return crops.crop(planting.crop_key).name if planting.crop_key else _("free")


def plants_of(planting: Planting) -> str:
    """Of its crop, more than one, with the variety."""
    crop = crops.crop(planting.crop_key)
    variety = planting.packet.variety if planting.packet else ""
    return f"{crop.name_plural} ({variety})" if variety else crop.name_plural


def how_many(planting: Planting, patch: beds.Patch | None) -> int | None:
    """Plants that stand there or are to."""
    return planting.number or (patch.plants if patch else None)


def state(planting: Planting, grows: Grows | None, today: date) -> str:
    """What it is doing, in a few words."""
    if planting.ended_on is not None and planting.ended_on <= today:
        return _("gone on {day}").format(day=words.day(planting.ended_on, today))
    if grows is None:
        on = planting.planned_on
        return _("left for later") if on is None else _("left until {day}").format(day=words.day(on, today))
    if planting.planted_on is None:
        planned = planting.planned_on
        if planned is None:
            return _("planned, without a day")
        if planned < today:
            return _("was meant for {day}").format(day=words.day(planned, today))
        return _("planned for {day}").format(day=words.day(planned, today))
    if grows.up > today:
        return _("up about {day}").format(day=words.day(grows.up, today))
    ripe = grows.course.ripe
    if ripe is None:
        return _("growing")
    return _("ready now") if ripe <= today else _("ready about {day}").format(day=words.day(ripe, today))


def seed_line(planting: Planting, patch: beds.Patch, alive: float | None) -> str:
    """Seeds that it takes; more of them where fewer live."""
    if planting.layout == Planting.Layout.BROADCAST:
        return _("about {seeds}, broadcast").format(seeds=words.count(patch.seeds, "seed", "seeds"))
    each = patch.spacing.per_station
    text = words.count(patch.seeds, "seed", "seeds")
    if each > 1:
        text = _("{text}, {each} to a station").format(text=text, each=each)
    if alive is not None and alive < LITTLE_ALIVE:
        more = max(each + 1, round(each * ENOUGH / alive))
        text += " " + _("(about {share} in 100 alive: {more} to a station)").format(share=round(100 * alive), more=more)
    return text


LITTLE_ALIVE, ENOUGH = 0.6, 0.85
"""Below the first share alive more seeds go to a station, as many as if the second were alive (assumption)."""


def too_soon(names: list[str], soon: beds.TooSoon) -> str:
    """A family that comes back too soon."""
    before = crops.crop(soon.before.crop_key).name
    return _("{names}: {before} stood here in {year}; growers wait until {again} with their family.").format(
        names=words.listed(sorted(set(names))), before=before, year=soon.before.year, again=soon.again_from
    )


def event_line(event: PlantEvent, units: Units) -> str:
    """What was seen or done."""
    parts = [str(event.get_kind_display())]
    if event.number is not None:
        parts.append(str(event.number))
    if event.weight_kg is not None:
        parts.append(units.weight_text(event.weight_kg))
    if event.height_m is not None:
        parts.append(units.length_text(event.height_m))
    if event.cause:
        parts.append(_("of {cause}").format(cause=event.get_cause_display()))
    if event.lowest_c is not None:
        parts.append(_("at {temperature} in the night").format(temperature=units.temperature_text(event.lowest_c)))
    return " ".join(parts) + (f": {event.note}" if event.note else "")


def harvested(planting: Planting, units: Units) -> str:
    """All that was picked of it; empty where nothing was."""
    picked = [e for e in planting.events.all() if e.kind in (PlantEvent.Kind.HARVESTED, PlantEvent.Kind.EATEN)]
    number, weight = sum(e.number or 0 for e in picked), sum(e.weight_kg or 0.0 for e in picked)
    parts = ([str(number)] if number else []) + ([units.weight_text(weight)] if weight else [])
    return _("harvested so far: {parts}").format(parts=words.listed(parts)) if parts else ""


RIPE_SIGNS = {
    "radish": lazy("shoulders the size of a thumb show above the ground; pull at once, they turn pithy"),
    "carrot": lazy("shoulders of a finger’s width and full colour; they wait in the ground until frost"),
    "beet": lazy("the size of a golf ball for young ones; they wait"),
    "lettuce": lazy("leaves of a hand’s length can be cut; a heart that lengthens is about to bolt"),
    "head_lettuce": lazy("the head gives a little when pressed"),
    "spinach": lazy("leaves of a hand’s length; cut before the stem lengthens"),
    "pea": lazy("pods are full and still bright; taste one"),
    "snow_pea": lazy("pods are flat, with seeds just showing"),
    "snap_bean": lazy("pods snap clean and seeds do not bulge"),
    "broad_bean": lazy("pods are padded and the scar of a seed is still green"),
    "sweet_corn": lazy("silks are brown and dry, and a pricked grain runs milky"),
    "tomato": lazy("full colour and a slight give; green ones with a gloss ripen indoors before frost"),
    "pepper": lazy("firm and full-sized when green; colour comes two to three weeks later"),
    "cucumber": lazy("even in colour and still slender; yellow is too late"),
    "squash": lazy("a hand’s length, with skin that a nail marks"),
    "winter_squash": lazy("the stalk is corky and a nail does not mark the skin; in before frost"),
    "pumpkin": lazy("the stalk is corky and a nail does not mark the skin; in before frost"),
    "muskmelon": lazy("it slips from the stalk and smells sweet"),
    "watermelon": lazy("the spot it lies on is butter yellow and the nearest tendril is dry"),
    "onion": lazy("half of the tops have fallen over; lift and dry"),
    "onion_sets": lazy("half of the tops have fallen over; lift and dry"),
    "garlic": lazy("a third of the leaves are yellow; lift one and look"),
    "cabbage": lazy("the head is hard"),
    "cauliflower": lazy("the curd is full and still tight"),
    "broccoli": lazy("buds are full and not yet yellow"),
    "kohlrabi": lazy("the size of a tennis ball at most"),
    "turnip": lazy("the size of a golf to a tennis ball"),
    "leek": lazy("as thick as a thumb; they stand until they are wanted"),
    "eggplant": lazy("the skin shines; dull is too late"),
    "okra": lazy("pods of a finger’s length, every other day"),
    "parsnip": lazy("after the first frosts, which make them sweet"),
}
"""What one looks for at the foretold harvest (common practice, no source)."""
LOOKED_FOR_D = 10


def ripe_signs(planting: Planting, grows: Grows, today: date) -> str:
    """From shortly before the foretold harvest on; empty otherwise and for crops without any."""
    ripe, sign = grows.course.ripe, RIPE_SIGNS.get(planting.crop_key)
    if ripe is None or sign is None or planting.planted_on is None or (ripe - today).days > LOOKED_FOR_D:
        return ""
    return _("Ripe when {sign}.").format(sign=sign)
