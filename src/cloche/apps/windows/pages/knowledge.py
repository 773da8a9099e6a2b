"""How well Cloche knows a place, in sentences with figures."""

from __future__ import annotations

from dataclasses import dataclass

from django.utils.translation import gettext as _

from cloche.apps.forecasts.selectors import Ground
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche_engine.results import PlaceForecast, Triple
from cloche_engine.soil.bed import BELIEVABLE
from cloche_engine.weather.scenarios import FEWEST_YEARS

AS_FAR_AS_CAN_BE = 0.85
FAR_OFF = lazy(
    "The readings could hardly differ more from what you entered. Are its mulch, its cover and the depth of the probe correct?"
)
LEARNED = {
    "sun": (lazy("it absorbs more sun"), lazy("it absorbs less sun")),
    "convection": (lazy("the wind cools it more"), lazy("it is sheltered")),
    "evaporation": (lazy("it loses more heat by evaporation"), lazy("it loses little heat by evaporation")),
    "conduction": (lazy("its soil conducts heat quickly"), lazy("its soil conducts heat slowly")),
    "surface_resistance": (lazy("its surface insulates"), lazy("its surface is bare and firm")),
    "light": (lazy("its cover lets through more light"), lazy("its cover lets through less light")),
    "exchange": (lazy("its cover leaks more air"), lazy("its cover leaks less air")),
    "loss": (lazy("its cover keeps less warmth"), lazy("its cover keeps more warmth")),
    "heat": (lazy("its heat is stronger"), lazy("its heat is weaker")),
}
"""What each learned factor means when it is clearly above or below the usual."""


@dataclass(frozen=True)
class Knowledge:
    """Sentences on how well the place is known."""

    headline: str
    rests_on: str
    record: str
    learned: str
    wetter: str
    weather: str
    strange: str


def knowledge_of(ground: Ground, units: Units) -> Knowledge:
    """Describe the forecast's record and what was learned."""
    data = ground.data
    week, fortnight = (units.difference_text(data.band_k[day]) for day in (7, 14))
    readings = data.readings_used
    if readings == 0:
        headline = _("No readings yet, so this is what a place of its kind usually does.")
    elif readings < 8:
        headline = _(
            "Cloche is just getting to know this place: four or five more days with two readings will narrow the band."
        )
    else:
        headline = _("Tomorrow’s soil temperature is known to within about ±{difference}.").format(
            difference=units.difference_text(data.band_k[1])
        )
    rests = _("Eight times in ten, the daily mean is within ±{week} a week ahead and ±{fortnight} two weeks ahead. ").format(
        week=week, fortnight=fortnight
    )
    rests += _("The forecast is based on {count} from the last two months").format(
        count=words.count(readings, "reading", "readings")
    )
    rests += _(" and on the air temperatures of {count} of the last fifteen.").format(
        count=words.count(data.weather_days, "day", "days")
    )
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
    """Describe the record: each reading was predicted before it was used."""
    checks = data.checks
    if not checks:
        return ""
    parts = []
    for lead_d, _count, error_k, _unused in checks:
        ahead = _("a day") if lead_d == 1 else _("a week") if lead_d == 7 else _("{lead_d} days").format(lead_d=f"{lead_d:.0f}")
        parts.append(_("{difference} {ahead} ahead").format(difference=units.difference_text(error_k), ahead=ahead))
    count, inside = checks[0][1], checks[0][3]
    left = _(", not counting the ringed ones") if data.strange else ""
    text = _("Each reading is forecast before it is used, with the actual weather. The error was {listed}.").format(
        listed=words.listed(parts)
    )
    return _("{text} Of {count} forecast a day ahead, {inside} were within the band{left}.").format(
        text=text, count=words.count(int(count), "reading", "readings"), inside=f"{inside:.0%}", left=left
    )


def _learned_words(data: PlaceForecast, units: Units) -> str:
    """Describe clear differences between the place and its description."""
    if not data.readings_used:
        return ""
    lines = []
    for name, (more, less) in LEARNED.items():
        low, middle, high = data.parameters.get(name, (1.0, 1.0, 1.0))
        if low > 1.0:
            lines.append(_("{more} ({middle} times the usual)").format(more=more, middle=number_text(f"{middle:.1f}")))
        elif high < 1.0:
            lines.append(_("{less} ({middle} times the usual)").format(less=less, middle=number_text(f"{middle:.1f}")))
    for name, where in (("deep_k", _("its soil at depth")), ("room_k", _("its room"))):
        low, middle, high = data.parameters.get(name, (0.0, 0.0, 0.0))
        if low > 0 or high < 0:
            lines.append(
                _("{where} is {difference} {part} than assumed").format(
                    where=where, difference=units.difference_text(abs(middle)), part=_("warmer") if middle > 0 else _("colder")
                )
            )
    text = _("How it differs from usual: {listed}.").format(listed=words.listed(lines)) if lines else ""
    return f"{text} {FAR_OFF}" if any(_far(name, data.parameters) for name in BELIEVABLE) else text


def _far(name: str, parameters: dict[str, Triple]) -> bool:
    """Return whether a parameter is at the limit of its range."""
    middle = parameters.get(name, (1.0, 1.0, 1.0))[1]
    return max(middle, 1 / middle) > AS_FAR_AS_CAN_BE * BELIEVABLE[name]


def _wetter_words(data: PlaceForecast) -> str:
    """Describe water that the readings imply and nobody recorded."""
    low, _unused, high = data.parameters.get("wetter", (0.0, 0.0, 0.0))
    if low > 0:
        return _("In recent days it has warmed as if wetter or more shaded than before. Was it watered, or is it overgrown?")
    return _("In recent days it has warmed as if drier or barer than before. Was it cleared?") if high < 0 else ""


def _normals_words(data: PlaceForecast) -> str:
    sources = {
        "typed": _(
            "Beyond the days with known air temperatures, the forecast uses the monthly normals entered for this garden."
        ),
        "record": _("Beyond the days with known air temperatures, the forecast uses this garden’s own weather record."),
        "region": _(
            "Beyond the days with known air temperatures, the forecast uses the regional climate, which may "
            "be a degree or two off. Enter monthly normals, or import a year of daily lows and highs, to "
            "improve it."
        ),
        "guess": _(
            "Beyond the days with known air temperatures, the forecast is a rough estimate from the "
            "latitude. Enter monthly normals, or import a year of daily lows and highs, to improve it."
        ),
    }
    years = data.replayed_years
    if years >= FEWEST_YEARS:
        return _(
            "Beyond the days with known air temperatures, the forecast replays the weather of {years} earlier years here."
        ).format(years=years)
    return sources[data.normals_source]


def _strange_words(data: PlaceForecast) -> str:
    number = len(data.strange)
    if not number:
        return ""
    verb, kept = (_("is"), _("It is kept and used")) if number == 1 else (_("are"), _("They are kept and used"))
    text = _("{count} {verb} far from the rest (ringed).").format(count=words.count(number, "reading", "readings"), verb=verb)
    text += _(" Had the probe settled, at that depth, in the soil?")
    return _("{text} {kept}, but with little weight.").format(text=text, kept=kept)
