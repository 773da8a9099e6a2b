"""What the last nights' frost did to each sowing that was up: facts."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.forecasts.selectors import Outlooks
from cloche.apps.places.models import Place
from cloche.apps.windows.pages.warmth import Grounds
from cloche.bridge.services import crops
from cloche.bridge.values.stored import FrostedSowing, Harm, Window

SHOWN_D = 3
WORST_FIRST = (Harm.LOST, Harm.REGROWS, Harm.MARKED, Harm.UNHURT)


@dataclass(frozen=True)
class Frosted:
    """A sowing, what a night did to it, and the windows in which it could be sown there again."""

    place: Place
    what: FrostedSowing
    windows: list[Window]

    @property
    def name(self) -> str:
        """Of its crop, more than one."""
        return crops.crop(self.what.crop_key).name_plural


def frosted_in(grounds: Grounds, today: date, outlooks: Outlooks = ()) -> list[Frosted]:
    """All sowings that were up in a night that was cold enough, the worst hurt first. outlooks: of the garden, where they are
    at hand."""
    cold = [
        (place, one)
        for place, ground in grounds
        if ground is not None and ground.forecast.watch is not None
        for one in ground.forecast.watch.frosted
        if (today - one.morning).days <= SHOWN_D
    ]
    again = _windows(cold, outlooks)
    found = [Frosted(place, one, again.get((place.pk, one.crop_key), [])) for place, one in cold]
    return sorted(found, key=lambda one: (WORST_FIRST.index(one.what.harm), one.place.name, one.name))


def _windows(cold: list[tuple[Place, FrostedSowing]], outlooks: Outlooks) -> dict[tuple[int, str], list[Window]]:
    """Of sowing in place; a query only for crops that do better otherwise."""
    direct = CropOutlook.Method.DIRECT
    found = {(one.place_id, one.crop_key): one.windows for one in outlooks if one.method == direct}
    lacking = [(place.pk, one.crop_key) for place, one in cold if (place.pk, one.crop_key) not in found]
    if lacking:
        places, keys = zip(*lacking, strict=True)
        rows = CropOutlook.objects.filter(place_id__in=set(places), crop_key__in=set(keys), method=direct)
        found |= {(row[0], row[1]): row[2] for row in rows.values_list("place_id", "crop_key", "windows")}
    return found
