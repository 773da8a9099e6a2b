"""Questions about forecasts and windows."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from cloche.apps.forecasts.forecast_cache import RECORDS, BriefOutlook, fill
from cloche.apps.forecasts.models import CropOutlook, Forecast, SoilYear, WindowChange
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche_engine.layout import FIELD_STEP_H
from cloche_engine.results import MODEL_VERSION, FrostDates, PlaceForecast, Window
from cloche_engine.windows.limits import Limit

Outlooks = Sequence[BriefOutlook]
"""Of a garden, from `outlooks_in`."""
HEAVY = ("days", "members", "sowing_rules")
"""What only a crop's own page reads."""
SOIL = (Limit.COLD, Limit.HOT, Limit.UNCOMFORTABLE)
"""Limits of the soil's own warmth."""


@dataclass(frozen=True)
class Ground:
    """A finished forecast with its times; no value is None."""

    place: Place
    forecast: Forecast

    @property
    def data(self) -> PlaceForecast:
        """Stored results."""
        ground: PlaceForecast = self.forecast.ground
        return ground

    @property
    def start(self) -> datetime:
        """First hour of `near`."""
        return self.data.start

    @property
    def end(self) -> datetime:
        """End of the last hour of `near`."""
        return self.start + timedelta(hours=len(self.data.near_mid_c))

    def soil_at(self, at: datetime) -> float:
        """Return expected soil at seed depth at an instant, or at the nearest end of `near` [°C]."""
        return float(_at(self.data.near_mid_c, (at - self.start) / timedelta(hours=1)))

    def day_mean(self, at: datetime) -> float:
        """Return the mean of the 24 hours around an instant [°C]."""
        middle = int((at - self.start) / timedelta(hours=1))
        hours = self.data.near_mid_c[max(0, middle - 12) : middle + 12] or self.data.near_mid_c[-24:]
        return float(sum(hours) / len(hours))

    def profile_at(self, at: datetime) -> list[float]:
        """Return the soil at field_depths_m at an instant [°C]."""
        column = (at - self.start) / timedelta(hours=FIELD_STEP_H)
        return [float(_at(row, column)) for row in self.data.field_c]

    def mean_in(self, days: int) -> float:
        """Return the expected mean some days after the forecast's own day [°C]."""
        return float(self.data.far_mid_c[days])

    def stale(self, today: date) -> bool:
        """Return whether evidence or the date has changed since."""
        return (
            self.forecast.day != today
            or self.forecast.input_revision != self.place.input_revision
            or self.forecast.model_version != MODEL_VERSION
        )


def _at(values: list[float], index: float) -> float:
    return values[max(0, min(len(values) - 1, int(index)))]


def ground_of(place: Place) -> Ground | None:
    """Return the latest finished forecast of a place, or None."""
    forecast = Forecast.objects.filter(place=place).defer(*RECORDS).first()
    if forecast is None:
        return None
    fill([forecast])
    return Ground(place, forecast) if forecast.ground else None


def grounds_in(garden: Garden) -> list[tuple[Place, Ground | None]]:
    """Return every place in walking order with its latest forecast, in at most two queries."""
    places = list(garden.places.select_related("forecast").defer(*(f"forecast__{name}" for name in RECORDS)))
    fill(place.forecast for place in places if hasattr(place, "forecast"))
    return [(place, _ground(place)) for place in places]


def _ground(place: Place) -> Ground | None:
    forecast = getattr(place, "forecast", None)
    return Ground(place, forecast) if forecast and forecast.ground else None


def frosts_of(garden: Garden) -> FrostDates | None:
    """Return the site's frost dates from its latest forecast."""
    rows = Forecast.objects.filter(place__in=garden.places.all()).order_by("-made_at")
    return rows.values_list("frosts", flat=True).first()


def outlooks_at(place: Place) -> list[CropOutlook]:
    """Return windows and ribbons of every crop in a place by the suitable method, without single days."""
    return list(place.outlooks.filter(better=True).defer(*HEAVY).order_by("id"))


def outlooks_by_crop(garden: Garden) -> dict[str, list[CropOutlook]]:
    """Return the outlooks of every crop in all places in walking order, without single days, in two queries."""
    by_place: dict[int, list[CropOutlook]] = {}
    for row in CropOutlook.objects.filter(place__garden=garden, better=True).defer(*HEAVY).order_by("id"):
        by_place.setdefault(row.place_id, []).append(row)
    by_crop: dict[str, list[CropOutlook]] = {}
    for place in garden.places.all():
        for row in by_place.get(place.pk, ()):
            row.place = place
            by_crop.setdefault(row.crop_key, []).append(row)
    return by_crop


@dataclass(frozen=True)
class Sown:
    """A crop that is best sown in place somewhere and has a chance there."""

    place: Place
    windows: list[Window]
    sow_now: bool


def sown_windows(places: Iterable[Place], outlooks: Outlooks) -> dict[str, list[Sown]]:
    """Return by crop the places where it is best sown directly and has a chance."""
    by_place: dict[int, list[BriefOutlook]] = {}
    for row in outlooks:
        if row.method == CropOutlook.Method.DIRECT and not row.hopeless:
            by_place.setdefault(row.place_id, []).append(row)
    by_crop: dict[str, list[Sown]] = {}
    for place in places:
        for row in by_place.get(place.pk, ()):
            by_crop.setdefault(row.crop_key, []).append(Sown(place, row.windows, row.sow_now))
    return by_crop


def elsewhere(place: Place, crop_key: str) -> list[CropOutlook]:
    """Return the same crop in the garden's other places in walking order, in one query."""
    others = Place.objects.filter(garden=place.garden_id).exclude(pk=place.pk)
    rows = CropOutlook.objects.filter(place__in=others, crop_key=crop_key, better=True).select_related("place").defer(*HEAVY)
    return list(rows.order_by("place__walking_order", "place_id"))


def methods_of(place: Place, crop_key: str) -> list[CropOutlook]:
    """Return one crop in a place with all days for each method, the suitable one first."""
    rows = place.outlooks.filter(crop_key=crop_key).order_by("-better", "id")
    return [row for row in rows if row.days is not None]


def sown_everywhere(garden: Garden, crop_key: str) -> list[CropOutlook]:
    """Return a directly sown crop with all days wherever it has a chance, in one query."""
    current = garden.places.values_list("pk", flat=True)
    rows = CropOutlook.objects.filter(place_id__in=current, crop_key=crop_key, method=CropOutlook.Method.DIRECT, hopeless=False)
    rows = rows.select_related("place").order_by("place__walking_order", "place_id")
    return [row for row in rows if row.days is not None]


def open_now(outlooks: Outlooks) -> dict[int, dict[str, float]]:
    """Return by place the crops that can be sown today with days to half emergence, quickest first."""
    rows = [(row.half_d, row.place_id, row.crop_key) for row in outlooks if row.sow_now and row.half_d is not None]
    by_place: dict[int, dict[str, float]] = {}
    for half_d, place_id, key in sorted(rows, key=lambda row: row[0]):
        by_place.setdefault(place_id, {})[key] = float(half_d)
    return by_place


def held_now(outlooks: Outlooks) -> dict[int, set[str]]:
    """Return by place the crops that cannot be sown today for a reason other than cold soil."""
    by_place: dict[int, set[str]] = {}
    for row in outlooks:
        if row.method == CropOutlook.Method.DIRECT and not row.sow_now and not row.hopeless:
            reason = row.windows[0].opens_after if row.windows else row.main_limit
            if reason and reason not in SOIL:
                by_place.setdefault(row.place_id, set()).add(row.crop_key)
    return by_place


def next_openings(outlooks: Outlooks) -> list[tuple[date, int, str]]:
    """Return (first day, place, crop) of every future sowing window, earliest first."""
    rows = [row for row in outlooks if row.method == CropOutlook.Method.DIRECT and not row.sow_now and row.windows]
    return sorted((row.windows[0].earliest, row.place_id, row.crop_key) for row in rows)


def moved_since(garden: Garden, since: datetime) -> list[WindowChange]:
    """Return windows that moved since an instant, each once with its former and present dates, in walking order."""
    current = garden.places.values_list("pk", flat=True)
    rows = WindowChange.objects.filter(place_id__in=current, at__gte=since).select_related("place")
    changes: dict[tuple[int, str, str], WindowChange] = {}
    for row in rows.order_by("place__walking_order", "place_id", "at", "id"):
        first = changes.setdefault((row.place_id, row.crop_key, row.method), row)
        first.after = row.after
    return [row for row in changes.values() if row.before != row.after]


def leaning(outlooks: Outlooks, until: date) -> dict[int, int]:
    """Return by place the number of windows with a first or last day ahead, up to a day."""
    by_place: dict[int, int] = {}
    for row in outlooks:
        if not row.hopeless:
            edges = [row.windows[0].last if row.sow_now else row.windows[0].earliest] if row.windows else []
            by_place[row.place_id] = by_place.get(row.place_id, 0) + sum(edge <= until for edge in edges)
    return by_place


def kept_soil(place: Place, since: int) -> dict[date, float]:
    """Return stored daily means at seed depth from a year on [°C]."""
    known: dict[date, float] = {}
    for year, mean_c in SoilYear.objects.filter(place=place, year__gte=since).values_list("year", "mean_c"):
        begin = date(year, 1, 1)
        known |= {begin + timedelta(days=i): value for i, value in enumerate(mean_c) if value is not None}
    return known


def kwh_between(place: Place, first: date, until: date) -> float:
    """Return the stored energy of its heat from one day to before another."""
    total = 0.0
    for row in SoilYear.objects.filter(place=place, year__gte=first.year, kwh__isnull=False):
        begin = date(row.year, 1, 1)
        total += sum(value or 0.0 for i, value in enumerate(row.kwh or ()) if first <= begin + timedelta(days=i) < until)
    return total


def daily_soil(place: Place, ground: Ground | None, first: date, days: int) -> list[float | None]:
    """Return daily means at seed depth from stored years and the forecast, None where unknown [°C]."""
    known = kept_soil(place, first.year)
    if ground is not None:
        known |= {ground.forecast.day + timedelta(days=i): value for i, value in enumerate(ground.data.far_mid_c)}
    return [known.get(first + timedelta(days=i)) for i in range(days)]


LOOKED_D, BACK_D = 300, 400
UNKNOWN_C = 12.0
"""Temperature of days of which nothing is known: a mild spring's (assumption)."""


@dataclass(frozen=True)
class Soil:
    """Daily mean topsoil temperature of a place from a day on.

    Stands in for the air among the plants, which differs by 1 or 2 K.
    """

    first: date
    mean_c: list[float]

    def since(self, day: date) -> list[float]:
        """Return the temperatures from a day on; earlier days repeat the first known value."""
        missing = max((self.first - day).days, 0)
        return [self.mean_c[0]] * missing + self.mean_c[max((day - self.first).days, 0) :]


def soil_of(place: Place, ground: Ground | None, today: date) -> Soil:
    """Return the known and forecast soil temperature of a place; gaps repeat the value before them."""
    first = today - timedelta(days=BACK_D)
    values = daily_soil(place, ground, first, BACK_D + LOOKED_D)
    known = next((value for value in values if value is not None), UNKNOWN_C)
    filled: list[float] = []
    for value in values:
        known = known if value is None else value
        filled.append(known)
    return Soil(first, filled)
