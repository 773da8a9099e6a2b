"""Warnings and advice about plantings: cold nights, companions, and fruit that ripens indoors."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date, timedelta

from django.utils.translation import gettext as _

from cloche.apps.forecasts import selectors as forecasts
from cloche.apps.plan.courses import Grows
from cloche.apps.plants.models import Planting
from cloche.apps.shared import words
from cloche.apps.windows import prospects
from cloche.bridge.services import crops
from cloche.bridge.values.units import Units

BESIDE = {
    "nightshades": ("marigold", "basil"),
    "brassicas": ("nasturtium", "sweet_alyssum"),
    "cucurbits": ("borage", "nasturtium"),
    "legumes": ("calendula",),
    "daisies": ("sweet_alyssum",),
    "umbellifers": ("calendula", "phacelia"),
    "alliums": ("phacelia",),
}
"""By family (common practice, no source): they feed hoverflies and bees, or draw aphids and whitefly away."""
INDOORS = ("tomato", "tomatillo", "pepper", "chili", "winter_squash", "pumpkin")
"""Fruit that goes on ripening when it is picked before frost (common practice, no source)."""
RIPENS_C, RIPENS_D = (15.0, 21.0), (7, 28)
LOOKED_D = 60


def beside(planting: Planting, today: date) -> str:
    """Name companion flowers for a crop with the days for planting them, or return an empty string."""
    keys = BESIDE.get(crops.crop(planting.crop_key).family, ())
    if not keys:
        return ""
    windows = {row.crop_key: row.windows for row in forecasts.outlooks_at(planting.place) if row.crop_key in keys}
    names = []
    for key in keys:
        name = crops.crop(key).name_plural
        first = windows[key][0].earliest if windows.get(key) else None
        names.append(name if first is None else _("{flower} (from {day})").format(flower=name, day=words.day(first, today)))
    return _("Flowers that growers plant beside it: {names}.").format(names=words.listed(names))


def ripens_indoors(planting: Planting, grows: Grows, units: Units, today: date) -> str:
    """Advise picking before the frost and ripening indoors where frost comes before the whole crop is ripe."""
    frosts = forecasts.frosts_of(planting.place.garden)
    if planting.crop_key not in INDOORS or planting.planted_on is None or frosts is None or frosts.autumn is None:
        return ""
    early = frosts.autumn[0]
    near = today - timedelta(days=14) <= early <= today + timedelta(days=LOOKED_D)
    if not near or (grows.until is not None and grows.until <= early):
        return ""
    low, high = (units.temperature_text(value, 0) for value in RIPENS_C)
    return _(
        "Frost is possible from {day} on. Pick full-grown fruit before then. It ripens indoors at {low} "
        "to {high}, in the dark or the light, within {weeks_from} to {weeks_to} weeks."
    ).format(day=words.day(early, today), low=low, high=high, weeks_from=RIPENS_D[0] // 7, weeks_to=RIPENS_D[1] // 7)


def of_plantings(plantings: Iterable[Planting], today: date) -> list[str]:
    """Warn of each planned planting that would more likely fail than succeed on its day, in one query."""
    meant = [
        planting
        for planting in plantings
        if planting.crop_key and planting.planted_on is None and planting.planned_on is not None
    ]
    outlooks = prospects.outlooks_of([(planting.place_id, planting.crop_key) for planting in meant])
    risks = []
    for planting in meant:
        outlook = outlooks.get((planting.place_id, planting.crop_key, planting.is_seeded))
        on = max(planting.planned_on or today, today)
        judged = prospects.prospect_on(outlook, on, today) if outlook else None
        if outlook is None or judged is None or not judged.is_risky:
            continue
        name = words.sentence(crops.crop(planting.crop_key).name_plural)
        text = prospects.warning(judged, name, today)
        better = prospects.better_than(outlook, judged, today)
        if better is not None:
            chance = words.likely(better.chance)
            text += " " + _("{day} would be better: it succeeds {likely}.").format(
                day=words.sentence(words.day(better.on, today)), likely=chance
            )
        risks.append(text)
    return risks
