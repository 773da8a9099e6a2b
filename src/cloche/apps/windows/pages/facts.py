"""Values of a crop with their sources."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from django.utils.translation import gettext as _

from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.bridge.services import crops
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche_engine.crops.catalogue import Crop

YOURS = lazy("your own value")

FIELD_OILSEEDS = ("brassicas", "flaxes", "daisies")
"""Families whose seedlings lift their growing point out of the soil (common practice, no source)."""


@dataclass(frozen=True)
class Fact:
    """A value with its source; `of` names the catalogue fields it shows."""

    what: str
    value: str
    source: str
    of: tuple[str, ...] = ()


def method(crop: Crop) -> str:
    """Describe how a crop is started."""
    if crop.winter:
        return _("to overwinter")
    methods = {
        "direct": _("sown in place"),
        "raised": _("usually raised and planted out"),
        "either": _("sown in place or raised"),
    }
    return methods.get(crop.usual_method, f"planted as {crop.start}s, not sown")


def put(crop: Crop) -> tuple[str, str, str]:
    """Return verb, past participle and noun for putting a crop into the ground."""
    return (_("sow"), _("sown"), _("sowing")) if crop.start == "seed" else (_("plant"), _("planted"), _("planting"))


def facts(crop: Crop, units: Units, text: Iterable[str] = ()) -> list[Fact]:
    """Return all values of a crop; fields in `text` come from the grower's packet and are marked."""
    yours = set(text)
    return [replace(fact, source=YOURS) if yours.intersection(fact.of) else fact for fact in _all(crop, units)]


def _all(crop: Crop, units: Units) -> list[Fact]:

    def degrees(value_c: float) -> str:
        return f"{units.temperature_text(value_c, 0)}{units.temperature}"

    facts = [
        Fact(_("Minimum temperature"), degrees(crop.minimum_c), crop.advice_source, ("minimum_c",)),
        Fact(
            _("Ideal temperature"),
            _("{degrees} to {degrees2}").format(degrees=degrees(crop.optimum_from_c), degrees2=degrees(crop.optimum_to_c)),
            crop.advice_source,
            ("optimum_from_c", "optimum_to_c"),
        ),
        Fact(_("Maximum temperature"), degrees(crop.maximum_c), crop.advice_source),
        *_emergence(crop, units),
        Fact(
            _("Size"),
            _("rows {length} apart, {length2} in the row").format(
                length=units.length_text(crop.row_m), length2=units.length_text(crop.plant_m)
            ),
            crop.growing_source,
            ("row_m", "plant_m"),
        ),
        Fact(
            _("Frost tolerance"),
            (
                _("{degrees} as a seedling, {degrees2} hardened, {degrees3} full-grown")
                if crop.hardiness == "tender"
                else _("{degrees} as a seedling, {degrees2} hardened, {degrees3} full-grown (screen-height air temperature)")
            ).format(
                degrees=degrees(crop.frost_limit_c),
                degrees2=degrees(crop.frost_planted_c),
                degrees3=degrees(crop.frost_grown_c),
            ),
            _("the first common practice, the others assumptions"),
            ("frost_limit_c",),
        ),
    ]
    if crop.winter:
        weeks = words.count(round(crop.winter.ripe_weeks), "week", "weeks")
        facts.append(
            Fact(_("Harvest"), _("about {weeks} after days reach ten hours again").format(weeks=weeks), crop.growing_source)
        )
    else:
        facts.append(
            Fact(
                _("Harvest"),
                _("about {maturity_d} days after emergence").format(maturity_d=f"{crop.maturity_d:.0f}"),
                crop.growing_source,
                ("maturity_d",),
            )
        )
    facts += _life(crop, degrees)
    if crop.planted_out:
        facts += _raising(crop, degrees)
    if crop.heat_sum:
        by_sum = ", ".join(
            _("{days_at} at {degrees}").format(days_at=f"{crop.heat_sum.days_at(t):.0f}", degrees=degrees(t))
            for t in (10.0, 15.0, 20.0)
            if t > crop.heat_sum.base_c + 1
        )
        facts.insert(4, Fact(_("By a second source"), _("{by_sum} days").format(by_sum=by_sum), crop.heat_sum_source))
    return facts


def _life(crop: Crop, degrees) -> list[Fact]:  # type: ignore[no-untyped-def]
    """Return the values for growth and damage."""
    life = crop.life
    grows = _("from a daily mean of {degrees}, best at {degrees2}").format(
        degrees=degrees(life.begins_c), degrees2=degrees(life.best_c)
    )
    facts = [Fact(_("Growth"), grows, _("assumption, within the range of handbooks"))]
    if crop.heat_limit_c is not None:
        text = _("half is lost if days exceed {degrees} while it flowers, sets or heads").format(
            degrees=degrees(crop.heat_limit_c)
        )
        facts.append(Fact(_("Heat tolerance"), text, crop.growing_source, ("heat_limit_c",)))
    if life.chill:
        chill = life.chill
        text = _("{days} days below {degrees} in the first {within_d} days make it bolt or button").format(
            days=f"{chill.days:.0f}", degrees=degrees(chill.below_c), within_d=chill.within_d
        )
        facts.append(Fact(_("Cold when young"), text, crop.growing_source))
    long_days = {"flowers": _("flowers in lengthening or long days"), "bolts": _("bolts sooner the longer the day")}
    if life.long_days:
        facts.append(Fact(_("Day length"), long_days[life.long_days], crop.growing_source))
    elif life.bulb_lead_d:
        facts.append(
            Fact(_("Day length"), _("forms bulbs around the longest day, at the size reached by then"), crop.growing_source)
        )
    if life.regrows:
        again = {
            "below_ground": _("regrows while its growing point is below ground"),
            "shoots": _("shoots again after about twelve days"),
        }
        facts.append(Fact(_("After a frost"), again[life.regrows], crop.growing_source))
    elif crop.family in FIELD_OILSEEDS:
        text = _("a seedling frozen to the ground is lost: its growing point is above the soil")
        facts.append(Fact(_("After a frost"), text, _("common practice, no source")))
    if crop.family in (*FIELD_OILSEEDS, "grasses", "legumes") and crop.start == "seed" and crop.sown_direct:
        text = _("near its minimum, treated seed and a little phosphate beside the seed help; keep fertiliser from touching it")
        facts.append(Fact(_("In cold soil"), text, _("common practice, no source")))
    return facts


def _raising(crop: Crop, degrees) -> list[Fact]:  # type: ignore[no-untyped-def]
    text = _("{raise_weeks} weeks, at {degrees} until up, then about {degrees2}").format(
        raise_weeks=f"{crop.raise_weeks:.0f}", degrees=degrees(crop.germinate_c), degrees2=degrees(crop.grow_on_c)
    )
    out = _("soil of {degrees}, nights of {degrees2}").format(
        degrees=degrees(crop.plant_soil_c), degrees2=degrees(crop.plant_night_c)
    )
    return [
        Fact(_("Raising"), text, crop.growing_source, ("raise_weeks",)),
        Fact(_("Planting out"), out, crop.growing_source, ("plant_soil_c", "plant_night_c")),
        Fact(
            _("Harvest after planting"),
            _("about {maturity_planted_d} days").format(maturity_planted_d=f"{crop.maturity_planted_d:.0f}"),
            _("assumption, from the days when sown in place"),
        ),
    ]


def _emergence(crop: Crop, units: Units) -> list[Fact]:
    if crop.start != "seed":
        days = crops.days_to_emergence(crop.optimum_c, crop)
        return [Fact(_("Days to shoots"), _("{days} in suitable soil").format(days=f"{days:.0f}"), crop.rate_source)]
    return [
        Fact(_("Days to emergence"), _table_words(crop, units), crop.rate_source, ("pace",)),
        Fact(
            _("Garden soil compared with the laboratory"),
            _("{field_factor} times as long").format(field_factor=number_text(f"{crops.FIELD_FACTOR * crop.field_times:.2g}")),
            _("assumption, until counts show"),
        ),
        Fact(_("Share that comes up"), _("by temperature, compared with its best"), crop.share_source),
        Fact(_("Storage life"), words.count(crop.keeps_y, "year", "years"), _("handbooks, from memory")),
    ]


def _table_words(crop: Crop, units: Units) -> str:
    days = crops.days_to_emergence([5.0, 10.0, 15.0, 20.0, 25.0], crop, 1.0)
    shown = [
        _("{d} at {temperature}").format(d=f"{d:.0f}", temperature=units.temperature_text(t, 0))
        for t, d in zip((5.0, 10.0, 15.0, 20.0, 25.0), days, strict=True)
        if d < 400
    ]
    return _("{join} in the laboratory").format(join=", ".join(shown))
