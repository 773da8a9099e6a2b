"""Frost damage to growing crops as forecast, worst first."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from cloche.apps.forecasts.models import CropOutlook
from cloche.apps.forecasts.selectors import Outlooks
from cloche.apps.places.models import Place
from cloche.apps.windows.pages.ground import Grounds
from cloche.bridge.services import crops
from cloche_engine.results import FrostedSowing, Harm, Window

SHOWN_D = 3


WORST_FIRST = (Harm.LOST, Harm.REGROWS, Harm.MARKED, Harm.UNHURT)


@dataclass(frozen=True)
class Frosted:
    """A sowing with its frost damage and the windows for sowing it again there."""

    place: Place
    what: FrostedSowing
    windows: list[Window]

    @property
    def name(self) -> str:
        """Return the crop's plural name."""
        return crops.crop(self.what.crop_key).name_plural


def frosted_in(grounds: Grounds, today: date, outlooks: Outlooks = ()) -> list[Frosted]:
    """Return damaged sowings, worst first.

    `outlooks` are the garden's, passed in where already loaded.
    """
    cold = [
        (place, sowing)
        for place, ground in grounds
        if ground is not None and ground.forecast.watch is not None
        for sowing in ground.forecast.watch.frosted
        if (today - sowing.morning).days <= SHOWN_D
    ]
    again = _windows(cold, outlooks)
    frosted = [Frosted(place, sowing, again.get((place.pk, sowing.crop_key), [])) for place, sowing in cold]
    return sorted(frosted, key=lambda row: (WORST_FIRST.index(row.what.harm), row.place.name, row.name))


def _windows(cold: list[tuple[Place, FrostedSowing]], outlooks: Outlooks) -> dict[tuple[int, str], list[Window]]:
    """Return the windows for sowing in place; queries only for crops that are better raised otherwise."""
    direct = CropOutlook.Method.DIRECT
    windows = {(outlook.place_id, outlook.crop_key): outlook.windows for outlook in outlooks if outlook.method == direct}
    lacking = [(place.pk, sowing.crop_key) for place, sowing in cold if (place.pk, sowing.crop_key) not in windows]
    if lacking:
        places, keys = zip(*lacking, strict=True)
        rows = CropOutlook.objects.filter(place_id__in=set(places), crop_key__in=set(keys), method=direct)
        windows |= {(row[0], row[1]): row[2] for row in rows.values_list("place_id", "crop_key", "windows")}
    return windows
