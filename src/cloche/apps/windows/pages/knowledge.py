"""How well Cloche knows a place, in sentences with their figures."""

from __future__ import annotations

from dataclasses import dataclass

from cloche.apps.forecasts.selectors import Ground
from cloche.apps.shared import words
from cloche.bridge.values.stored import PlaceForecast, Triple
from cloche.bridge.values.units import Units
from cloche.core.soil.bed import BELIEVABLE
from cloche.core.weather.scenarios import FEWEST_YEARS

AS_FAR_AS_CAN_BE = 0.85
FAR_OFF = "That is as far from what is written down as can be: is its mulch, its cover, the depth of the probe told right?"
LEARNED = {
    "sun": ("it takes up more sun", "it takes up less sun"),
    "convection": ("the wind cools it more", "it lies sheltered"),
    "evaporation": ("it loses more warmth by drying", "it loses little warmth by drying"),
    "conduction": ("its soil passes warmth on quickly", "its soil passes warmth on slowly"),
    "surface_resistance": ("its surface insulates", "its surface lies bare and firm"),
    "light": ("its cover lets through more light", "its cover lets through less light"),
    "exchange": ("its cover is draughty", "its cover is tight"),
    "loss": ("its cover keeps less warmth", "its cover keeps more warmth"),
    "heat": ("its heat is stronger", "its heat is weaker"),
}
"""What each learned factor means when it is clearly above or below the usual."""


@dataclass(frozen=True)
class Knowledge:
    """How well Cloche knows the place, in sentences."""

    headline: str
    rests_on: str
    record: str
    learned: str
    wetter: str
    weather: str
    strange: str


def knowledge_of(ground: Ground, units: Units) -> Knowledge:
    """Sentences with the figures they rest on."""
    data = ground.data
    week, fortnight = (units.difference_text(data.band_k[day]) for day in (7, 14))
    readings = data.readings_used
    if readings == 0:
        headline = "No readings yet: this is what a place of its kind usually does."
    elif readings < 8:
        headline = "Just getting to know it: four or five more days of two readings will narrow the band."
    else:
        headline = f"Known to about ±{units.difference_text(data.band_k[1])} for tomorrow."
    rests = f"Eight times in ten the day’s mean lies within ±{week} a week ahead and ±{fortnight} in a fortnight. "
    rests += f"It rests on {words.count(readings, 'reading')} of the last two months"
    rests += f" and on the air of {words.count(data.weather_days, 'day')} of the last fifteen."
    return Knowledge(
        headline,
        rests,
        _record_words(data, units),
        _learned_words(data, units),
        _wetter_words(data),
        _normals_words(data),
        _strange_words(data),
    )


def _record_words(data: PlaceForecast, units: Units) -> str:
    """Its own record: each reading was first foretold, then used."""
    checks = data.checks
    if not checks:
        return ""
    parts = []
    for lead_d, _, error_k, _ in checks:
        ahead = "a day" if lead_d == 1 else "a week" if lead_d == 7 else f"{lead_d:.0f} days"
        parts.append(f"{units.difference_text(error_k)} {ahead} ahead")
    count, inside = checks[0][1], checks[0][3]
    left = ", not counting the ringed" if data.strange else ""
    text = f"Each reading is foretold before it is used, with the weather as it came: off by {words.listed(parts)}."
    return f"{text} Of {words.count(int(count), 'reading')} foretold a day ahead, {inside:.0%} lay within the band{left}."


def _learned_words(data: PlaceForecast, units: Units) -> str:
    """What sets it apart from its description, where that is clear."""
    if not data.readings_used:
        return ""
    found = []
    for name, (more, less) in LEARNED.items():
        low, middle, high = data.parameters.get(name, (1.0, 1.0, 1.0))
        if low > 1.0:
            found.append(f"{more} ({middle:.1f} times the usual)")
        elif high < 1.0:
            found.append(f"{less} ({middle:.1f} times the usual)")
    for name, where in (("deep_k", "deep down it"), ("room_k", "its room")):
        low, middle, high = data.parameters.get(name, (0.0, 0.0, 0.0))
        if low > 0 or high < 0:
            found.append(f"{where} is {units.difference_text(abs(middle))} {'warmer' if middle > 0 else 'colder'} than guessed")
    text = f"What sets it apart: {words.listed(found)}." if found else ""
    return f"{text} {FAR_OFF}" if any(_far(name, data.parameters) for name in BELIEVABLE) else text


def _far(name: str, parameters: dict[str, Triple]) -> bool:
    """Whether it lies as far from its description as can be."""
    middle = parameters.get(name, (1.0, 1.0, 1.0))[1]
    return max(middle, 1 / middle) > AS_FAR_AS_CAN_BE * BELIEVABLE[name]


def _wetter_words(data: PlaceForecast) -> str:
    """What the readings tell of water that nobody wrote down."""
    low, _, high = data.parameters.get("wetter", (0.0, 0.0, 0.0))
    if low > 0:
        return "In the last days it has warmed as if wetter or more shaded than before: was it watered, or is it grown over?"
    return "In the last days it has warmed as if drier or barer than before: was it cleared?" if high < 0 else ""


def _normals_words(data: PlaceForecast) -> str:
    sources = {
        "typed": "Beyond the days whose air is known it follows the monthly normals typed in for this garden.",
        "record": "Beyond the days whose air is known it follows this garden’s own weather record.",
        "guess": "Beyond the days whose air is known it follows a rough guess from the latitude: "
        "type in monthly normals, or bring in a year of daily lows and highs, and it will be surer.",
    }
    years = data.replayed_years
    if years >= FEWEST_YEARS:
        return f"Beyond the days whose air is known it replays the weather of {years} earlier years here."
    return sources[data.normals_source]


def _strange_words(data: PlaceForecast) -> str:
    number = len(data.strange)
    if not number:
        return ""
    verb, kept = ("stands", "It is kept and counts") if number == 1 else ("stand", "They are kept and count")
    asked = f"{words.count(number, 'reading')} {verb} far from the rest (ringed)."
    asked += " Had the probe settled, at that depth, in the soil?"
    return f"{asked} {kept} for little."
