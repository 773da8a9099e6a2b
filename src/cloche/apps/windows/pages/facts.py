"""A crop's numbers, each with where it comes from."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from cloche.apps.shared import words
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units
from cloche.core.crops.catalogue import Crop

YOURS = "as you say"


@dataclass(frozen=True)
class Fact:
    """A value that can be opened: what, how much, from where; of: the names of the catalogue's values that it shows."""

    what: str
    value: str
    source: str
    of: tuple[str, ...] = ()


def method(crop: Crop) -> str:
    """How it gets into the ground."""
    if crop.winter:
        return "to stand the winter"
    methods = {"direct": "sown in place", "raised": "usually raised and planted out", "either": "sown in place or raised"}
    return methods.get(crop.usual_method, f"planted as {crop.start}s, not sown")


def put(crop: Crop) -> tuple[str, str, str]:
    """What one does with it, has done, and calls it."""
    return ("sow", "sown", "sowing") if crop.start == "seed" else ("plant", "planted", "planting")


def facts(crop: Crop, units: Units, text: Iterable[str] = ()) -> list[Fact]:
    """All of them; text: names of the values that the grower's packet says, which are marked as theirs."""
    yours = set(text)
    return [replace(fact, source=YOURS) if yours.intersection(fact.of) else fact for fact in _all(crop, units)]


def _all(crop: Crop, units: Units) -> list[Fact]:

    def degrees(value_c: float) -> str:
        return f"{units.temperature_text(value_c, 0)}{units.temperature}"

    found = [
        Fact("Wakes at", degrees(crop.minimum_c), crop.advice_source, ("minimum_c",)),
        Fact(
            "Likes",
            f"{degrees(crop.optimum_from_c)} to {degrees(crop.optimum_to_c)}",
            crop.advice_source,
            ("optimum_from_c", "optimum_to_c"),
        ),
        Fact("Stops above", degrees(crop.maximum_c), crop.advice_source),
        *_emergence(crop, units),
        Fact(
            "Stands",
            f"rows {units.length_text(crop.row_m)} apart, {units.length_text(crop.plant_m)} in the row",
            crop.growing_source,
            ("row_m", "plant_m"),
        ),
        Fact(
            "Stands frost to",
            f"{degrees(crop.frost_limit_c)} as a seedling, {degrees(crop.frost_planted_c)} hardened, "
            f"{degrees(crop.frost_grown_c)} grown",
            "the first common practice, the others assumptions",
            ("frost_limit_c",),
        ),
    ]
    if crop.winter:
        weeks = words.count(round(crop.winter.ripe_weeks), "week")
        found.append(Fact("Ready", f"about {weeks} after the days have ten hours again", crop.growing_source))
    else:
        found.append(Fact("Ready", f"about {crop.maturity_d:.0f} days after it is up", crop.growing_source, ("maturity_d",)))
    found += _life(crop, degrees)
    if crop.planted_out:
        found += _raising(crop, degrees)
    if crop.heat_sum:
        by_sum = ", ".join(
            f"{crop.heat_sum.days_at(t):.0f} at {degrees(t)}" for t in (10.0, 15.0, 20.0) if t > crop.heat_sum.base_c + 1
        )
        found.insert(4, Fact("By a second source", f"{by_sum} days", crop.heat_sum_source))
    return found


def _life(crop: Crop, degrees) -> list[Fact]:  # type: ignore[no-untyped-def]
    """What makes it grow, and what spoils it."""
    life = crop.life
    grows = f"from a day’s mean of {degrees(life.begins_c)}, best at {degrees(life.best_c)}"
    found = [Fact("Grows", grows, "assumption, within what handbooks give")]
    if crop.heat_limit_c is not None:
        text = f"half is lost where days pass {degrees(crop.heat_limit_c)} while it flowers, sets or heads"
        found.append(Fact("Heat", text, crop.growing_source, ("heat_limit_c",)))
    if life.chill:
        chill = life.chill
        text = f"{chill.days:.0f} days under {degrees(chill.below_c)} in its first {chill.within_d} make it bolt or button"
        found.append(Fact("Cold in youth", text, crop.growing_source))
    long_days = {"flowers": "flowers in lengthening or long days", "bolts": "bolts the sooner the longer the day"}
    if life.long_days:
        found.append(Fact("Length of the day", long_days[life.long_days], crop.growing_source))
    elif life.bulb_lead_d:
        found.append(
            Fact("Length of the day", "bulbs about the longest day, as large as it has grown by then", crop.growing_source)
        )
    if life.regrows:
        again = {"growing point below ground": "comes again while its growing point is below ground"}
        found.append(
            Fact("After a frost", again.get(life.regrows, "shoots again, some twelve days later"), crop.growing_source)
        )
    return found


def _raising(crop: Crop, degrees) -> list[Fact]:  # type: ignore[no-untyped-def]
    text = f"{crop.raise_weeks:.0f} weeks, in {degrees(crop.germinate_c)} until up, then about {degrees(crop.grow_on_c)}"
    out = f"soil of {degrees(crop.plant_soil_c)}, nights of {degrees(crop.plant_night_c)}"
    return [
        Fact("Raised", text, crop.growing_source, ("raise_weeks",)),
        Fact("Planted out into", out, crop.growing_source, ("plant_soil_c", "plant_night_c")),
        Fact("Ready from planting", f"about {crop.maturity_planted_d:.0f} days", "assumption: from the days in place"),
    ]


def _emergence(crop: Crop, units: Units) -> list[Fact]:
    if crop.start != "seed":
        days = crops.days_to_emergence(crop.optimum_c, crop)
        return [Fact("Days to shoots", f"{days:.0f} in soil that suits it", crop.rate_source)]
    return [
        Fact("Days to come up", _table_words(crop, units), crop.rate_source, ("pace",)),
        Fact(
            "Garden soil against laboratory",
            f"{crops.FIELD_FACTOR * crop.field_times:.2g} times as long",
            "assumption, until counts tell",
        ),
        Fact("Share that comes up", "by temperature, against its best", crop.share_source),
        Fact("Keeps", words.count(crop.keeps_y, "year"), "handbooks, from memory"),
    ]


def _table_words(crop: Crop, units: Units) -> str:
    days = crops.days_to_emergence([5.0, 10.0, 15.0, 20.0, 25.0], crop, 1.0)
    shown = [
        f"{d:.0f} at {units.temperature_text(t, 0)}"
        for t, d in zip((5.0, 10.0, 15.0, 20.0, 25.0), days, strict=True)
        if d < 400
    ]
    return f"{', '.join(shown)} in the laboratory"
