"""Seed needed for a sowing, in a sentence."""

from __future__ import annotations

from dataclasses import dataclass

from django.http import QueryDict
from django.utils.translation import gettext as _

from cloche.apps.shared import words
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import NotANumber, Units, parse_number
from cloche_engine.crops import seeds
from cloche_engine.crops.catalogue import Crop

USUAL_MUCH = "5"
ROW, AREA, PLANTS = "row", "area", "plants"
MOST = 10_000


@dataclass(frozen=True)
class SeedPart:
    """Form values, choices and result."""

    much: str
    of: str
    rate: str
    choices: list[tuple[str, str]]
    text: str
    refused: str


def seed_part(crop: Crop, share: float, query: QueryDict, units: Units, viable: float) -> SeedPart:
    """Calculate the seed needed.

    `query` holds typed values, `share` the emergence of viable seed on the day shown and `viable` the viable share of the
    lot if known.
    """
    much, of = query.get("much", USUAL_MUCH), query.get("of", ROW)
    rate = query.get("rate", f"{100 * viable:.0f}")
    choices = [
        (ROW, _("{far} of row").format(far=_far(units))),
        (AREA, _("{wide} of bed").format(wide=_wide(units))),
        (PLANTS, "plants"),
    ]
    try:
        amount, percent = parse_number(much), parse_number(rate)
    except NotANumber as no_number:
        return SeedPart(much, of, rate, choices, "", str(no_number))
    if not 0 < amount <= MOST:
        return SeedPart(
            much, of, rate, choices, "", _("Enter an amount from 0 to {most}.").format(most=number_text(f"{MOST:,}"))
        )
    if not 0 < percent <= 100:
        return SeedPart(much, of, rate, choices, "", _("Enter a germination rate from 0 to 100%."))
    up = share * percent / 100
    return SeedPart(much, of, rate, choices, _text(crop, _need(crop, amount, of, up, units), up, units), "")


def _need(crop: Crop, amount: float, of: str, up: float, units: Units) -> seeds.Need:
    far_m = 1.0 if units.length == "cm" else 0.3048
    if of == PLANTS:
        return seeds.need(crop, seeds.stations_for(crop, round(amount), up), up)
    if of == AREA:
        return seeds.need(crop, seeds.stations_on(crop, amount * far_m**2), up)
    return seeds.need(crop, seeds.stations_along(crop, amount * far_m), up)


def _text(crop: Crop, need: seeds.Need, up: float, units: Units) -> str:
    if up < 0.01 or not need.stations:
        return _("On that date hardly any seed would come up. More seed would not make up for it.")
    apart, rows = units.length_text(crop.plant_m), units.length_text(crop.row_m)
    where = _("{count} {apart} apart in rows {rows} apart").format(
        count=words.count(need.stations, "station", "stations"), apart=apart, rows=rows
    )
    each = _(", {count} in each, thinned to one").format(count=_things(crop, need.per_station)) if need.per_station > 1 else ""
    return _("{count}: {where}{each}. About {count2} would be left.").format(
        count=_things(crop, need.seeds), where=where, each=each, count2=words.count(need.plants, "plant", "plants")
    )


def _things(crop: Crop, number: int) -> str:
    """Name the seeds, sets or tubers of the crop."""
    named = {
        "set": words.count(number, "set", "sets"),
        "tuber": words.count(number, "tuber", "tubers"),
        "clove": words.count(number, "clove", "cloves"),
    }
    return named.get(crop.start, words.count(number, "seed", "seeds"))


def _far(units: Units) -> str:
    return _("metres") if units.length == "cm" else _("feet")


def _wide(units: Units) -> str:
    return _("square metres") if units.length == "cm" else _("square feet")
