"""How warm and how bright a tray stands: from its forecast, read by every page of the bench."""

from __future__ import annotations

from dataclasses import dataclass

from cloche.apps.forecasts.selectors import Ground
from cloche.bridge.values.stored import HeatOutlook, LightOutlook
from cloche.core.crops.catalogue import Crop
from cloche.core.light.habit import Habit, habit_of

LOOKED_D = 7


@dataclass(frozen=True)
class Climate:
    """Of the coming week. air_c: mean about the leaves [°C]; roots_c: at seed depth; window_mol, lamp_mol: daily light, None
    where neither window nor lamp is told; heat: what the heater does."""

    air_c: float
    roots_c: float
    window_mol: float | None
    lamp_mol: float
    heat: HeatOutlook | None

    @property
    def mol(self) -> float | None:
        """All its light a day."""
        return None if self.window_mol is None else self.window_mol + self.lamp_mol


def climate_of(ground: Ground) -> Climate:
    """Means over the coming week."""
    data = ground.data
    around = data.around_c[:LOOKED_D]
    roots = data.far_mid_c[:LOOKED_D]
    roots_c = sum(roots) / len(roots)
    air_c = sum(around) / len(around) if around else roots_c
    light = data.light
    return Climate(air_c, roots_c, _window(light), _lamp(light), data.heat)


def _window(light: LightOutlook | None) -> float | None:
    return sum(day[1] for day in light.window[:LOOKED_D]) / LOOKED_D if light else None


def _lamp(light: LightOutlook | None) -> float:
    return sum(light.lamp[:LOOKED_D]) / LOOKED_D if light else 0.0


def leaves_c(climate: Climate) -> float:
    """Warmth that drives the leaves: the air, and half of what warm roots are above it."""
    return climate.air_c + max(climate.roots_c - climate.air_c, 0.0) / 2


def habit(climate: Climate, crop: Crop) -> Habit | None:
    """What warmth and light will make of a crop's seedlings; None where the light is not told."""
    return None if climate.mol is None else habit_of(climate.mol, leaves_c(climate), crop.season)
