"""What the bench says, in sentences."""

from __future__ import annotations

from datetime import date

from django.utils.translation import gettext as _

from cloche.apps.bench.life import Life
from cloche.apps.bench.selectors import Climate, leaves_c
from cloche.apps.places.models import HeatPeriod, Lamp
from cloche.apps.shared import words
from cloche.bridge.values.clocks import spans_text
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche_engine.crops.catalogue import Crop
from cloche_engine.light.habit import Habit, coolest_for
from cloche_engine.results import Fault, HeatAlarm, HeatOutlook
from cloche_engine.windows.raised_life import Due, HeatOffRule

HOLDS, LEAST_TOLD, ALWAYS_ON = 0.7, 0.1, 0.95
TELLS_K = 2.0
"""So many degrees too warm for their light are worth a word (common practice, no source)."""


def due_text(life: Life, what: Due, on: date, today: date, units: Units) -> str:
    """Return a due step without its place, such as “take tomatoes off the heat; half of them are up”."""
    name, cell = life.crop.name_plural, life.sowing.cell_m
    if what is Due.HEAT_OFF:
        cool = units.temperature_text(life.crop.grow_on_c, 0)
        return _("Take {name} off the heat and move them to a bright place near {cool}: {why}.").format(
            name=name, cool=cool, why=_why_off(life, on, today)
        )
    if what is Due.TURN_DOWN:
        set_point = units.temperature_text(life.lower_c or 0.0, 0)
        return _("Turn the thermostat down to {set_point}. {name} will grow more slowly and sturdier.").format(
            name=words.sentence(name), set_point=set_point
        )
    if what is Due.POT_ON:
        wide = _(" of {length}").format(length=units.length_text(cell)) if cell else ""
        return _("Pot {name} on: by then their roots will fill a cell{wide}.").format(name=name, wide=wide)
    if what is Due.HARDEN:
        return _("Start hardening off {name}. Leave them outside a little longer each day.").format(name=name)
    if what is Due.PUT_OUT:
        return _("Put {name} out again. The coming night is mild enough for them.").format(name=name)
    where = _(" in {bed}").format(bed=life.out[1].name) if life.out else ""
    return _("{name} can be planted out{where}.").format(name=words.sentence(name), where=where)


def placed(life: Life, text: str) -> str:
    """Return the step with its place in front."""
    return _("{place}: {text}").format(place=life.sowing.place.name, text=text)


def _why_off(life: Life, on: date, today: date) -> str:
    if life.rule is HeatOffRule.FIRST:
        return _("the first are up") if on <= today else _("the first will be up by then")
    if life.rule is HeatOffRule.HALF:
        return _("half of them are up") if on <= today else _("half will be up by then")
    return _("the first true leaf is out") if life.raised.leaf_on else _("all have been up for a few days")


def due_why(what: Due) -> str:
    """Return the reason for a step."""
    return {
        Due.HEAT_OFF: _("Germination needs warmth and growth needs less. Seedlings that are kept warm grow leggy."),
        Due.TURN_DOWN: _("Seedlings that stay on the heat need less of it once they are up."),
        Due.POT_ON: _("Once roots circle a full cell, growth stops."),
        Due.HARDEN: _(
            "Give them an hour or two outside in a sheltered spot on the first day, and the whole day and a "
            "mild night by the eighth. Soft, tall seedlings are the first to die in a frost: give them a fortnight."
        ),
        Due.PUT_OUT: _("Indoors they turn soft and leggy; outdoors they stay hardened."),
        Due.PLANT: _("Soil and nights suit them now. Water them in, and cover them if a cold night is forecast."),
    }[what]


def alarm_text(alarm: HeatAlarm, units: Units) -> tuple[str, str]:
    """Return what to do about a heater, and why."""
    seen, expected, without = (units.temperature_text(v, 0) for v in (alarm.seen_c, alarm.expected_c, alarm.without_c))
    values = {"seen": seen, "expected": expected, "without": without}
    if alarm.fault is Fault.HOT:
        do = _("Switch the heat off and check it: it does not stop by itself.")
        why = _(
            "Two readings in a row are far above the temperature at which the heat should stop, now {seen}. "
            "Has the probe slipped out, or is the switch stuck?"
        )
    elif alarm.fault is Fault.COLD:
        do = _("Check the heater: it does not seem to heat.")
        why = _(
            "Two readings in a row are as cold as without heat: {seen}. It should be about {expected} with "
            "heat and {without} without."
        )
    else:
        do = _("Check the probe: its readings do not change.")
        why = _(
            "It has shown {seen} for half a day, although the tray should warm and cool. Is the probe still "
            "in the mix, and is the logger working?"
        )
    return do, why.format(**values)


def when(on: date, today: date) -> str:
    """Return the date of a step, today if it is past."""
    return _("Now") if on <= today else words.sentence(words.day(on, today))


def heat_text(period: HeatPeriod, units: Units) -> str:
    """Return a heat source in words: heat mat, 20 W, thermostat 18–21°."""
    parts = [str(HeatPeriod.Kind(period.source).label)]
    if period.source == HeatPeriod.Kind.HOUSE:
        least = units.temperature_text(period.start_c, 0)
        return _("{source}: at least {least}").format(source=words.sentence(parts[0]), least=least)
    if period.power_w:
        parts.append(_("{watts} W").format(watts=f"{period.power_w:.0f}"))
    if period.lift_k:
        parts.append(_("warms {lift} above the room").format(lift=units.difference_text(period.lift_k, 0)))
    if period.control == HeatPeriod.Control.THERMOSTAT:
        low, high = (units.temperature_text(value, 0) for value in (period.start_c, period.stop_c))
        parts.append(_("on below {low}, off above {high}").format(low=low, high=high))
    elif period.control == HeatPeriod.Control.TIMER:
        parts.append(_("on {spans}").format(spans=spans_text(period.spans)))
    elif period.control == HeatPeriod.Control.SELF:
        parts.append(_("self-regulating"))
    else:
        parts.append(_("always on"))
    return words.sentence(", ".join(parts))


def kwh_a_day(heat: HeatOutlook) -> float:
    """Return the mean energy of a heater in the coming fortnight [kWh a day]."""
    return sum(heat.kwh) / len(heat.kwh)


def heat_does(climate: Climate, units: Units, price: float | None) -> str:
    """Return the operation of a heater in the coming fortnight: on 41 % of the day, 0.41 kWh."""
    heat = climate.heat
    if heat is None:
        return ""
    days = len(heat.duty)
    duty, kwh = sum(day[1] for day in heat.duty) / days, kwh_a_day(heat)
    lift = climate.roots_c - sum(heat.without_c[:7]) / 7
    text = _("It keeps the roots {lift} warmer and is on for {share}% of the day: {energy} a day.").format(
        lift=units.difference_text(lift, 0), share=f"{100 * duty:.0f}", energy=energy_text(kwh, price)
    )
    if heat.ruled and heat.holds < HOLDS:
        start = units.temperature_text(heat.ruled[0], 0)
        if duty >= ALWAYS_ON:
            return f"{text} " + _("It is too weak to hold {start}. Insulate below, cover above or add heat.").format(
                start=start
            )
        roots = units.temperature_text(climate.roots_c, 0)
        text += " " + _(
            "The roots stay at {roots}, below {start}, although the heat is not always on: its probe is "
            "warmer than they are. Move the probe into the mix beside the roots, or raise the set-point."
        ).format(roots=roots, start=start)
    return text


def energy_text(kwh: float, price: float | None) -> str:
    """Return an energy, with its cost if a price is known."""
    text = _("{kwh} kWh").format(kwh=number_text(f"{kwh:.2f}") if kwh < 10 else number_text(f"{kwh:.0f}"))
    return text if price is None else _("{text}, costing {cost}").format(text=text, cost=number_text(f"{kwh * price:.2f}"))


def lamp_text(lamp: Lamp) -> str:
    """Return a lamp in words: LED, 30 W, 6–20."""
    kind = str(Lamp.Kind(lamp.kind).label)
    return _("{kind}, {watts} W, lit {spans}").format(kind=kind, watts=f"{lamp.watts:.0f}", spans=spans_text(lamp.spans))


def light_text(climate: Climate) -> str:
    """Return the daily light and where it comes from."""
    if climate.mol is None:
        return _(
            "Enter the window, greenhouse or lamp that lights the tray, and Cloche shows whether seedlings will grow leggy."
        )
    window, lamp = climate.window_mol or 0.0, climate.lamp_mol
    if lamp and window >= LEAST_TOLD:
        return _("Light: {all} mol/m² a day, {window} of daylight and {lamp} from the lamp.").format(
            all=number_text(f"{climate.mol:.0f}"), window=number_text(f"{window:.1f}"), lamp=number_text(f"{lamp:.1f}")
        )
    text = _("Light: {all} mol/m² a day from the lamp.") if lamp else _("Light: {all} mol/m² of daylight a day.")
    return text.format(all=number_text(f"{climate.mol:.1f}"))


def habit_text(crop: Crop, climate: Climate, habit: Habit | None, units: Units) -> str:
    """Return the effect of warmth and light, and what to do."""
    if habit is None or habit is Habit.STOCKY or climate.mol is None:
        return ""
    cool_c = coolest_for(climate.mol, crop.season)
    if habit is Habit.SOFT and leaves_c(climate) - cool_c < TELLS_K:
        return ""
    warm, cool = (units.temperature_text(value, 0) for value in (leaves_c(climate), cool_c))
    values = {"name": words.sentence(crop.name_plural), "warm": warm, "cool": cool, "mol": number_text(f"{climate.mol:.1f}")}
    if habit is Habit.STARVED:
        return _(
            "{name} get too little light, {mol} mol/m² a day. Add a lamp, move them to the brightest window, or sow later."
        ).format(**values)
    text = {
        Habit.LEGGY: _(
            "{name} will grow leggy: {warm} is too warm for {mol} mol/m² a day. Keep them near {cool}, or give them more light."
        ),
        Habit.SOFT: _("{name} grow a little soft at {warm} with {mol} mol/m² a day. Nearer {cool} they would stay stocky."),
    }
    return text[habit].format(**values)
