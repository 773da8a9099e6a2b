"""The pages of a garden as its grower gets them: their text, and the typed facts behind it."""

from __future__ import annotations

import html
import re
from dataclasses import dataclass, field
from datetime import date
from functools import cached_property
from typing import Any

from django.urls import reverse

from bench.agree.gardens import World
from cloche.apps.forecasts.models import CropOutlook, Forecast
from cloche.apps.forecasts.selectors import Ground, grounds_in
from cloche.apps.gardens.selectors import units_of
from cloche.apps.places.models import Place
from cloche.apps.places.selectors import PlaceCover, cover_on, covers_on
from cloche.apps.plants.models import Planting
from cloche.apps.plants.selectors import plantings_in
from cloche.apps.sowings.models import Sowing
from cloche.apps.sowings.selectors import Progress, progress_of, sowings_in
from cloche.apps.today.jobs.job import Job
from cloche.apps.today.selectors import jobs_in
from cloche.bridge.values.units import Units
from cloche_engine.places.kinds import BENCHES, place_kinds

EVERY_GARDEN = (
    *("today", "week", "ground", "what_wakes", "windows", "windows_csv", "sowings", "bench", "opening", "covers", "plan"),
    *("years", "rooms", "own_covers", "trials", "seed_box", "garden", "heat_gains", "round", "history"),
)
"""Pages by the names of their addresses."""
_NOT_SEEN = re.compile(r"<(script|style|svg)\b.*?</\1>", re.DOTALL)
_INLINE = re.compile(r"</?(a|b|em|i|span|strong|small|output)\b[^>]*>")


def plain(page: str) -> str:
    """What a reader sees of a page: without tags and scripts, its spaces evened."""
    seen = _INLINE.sub("", _NOT_SEEN.sub(" ", page))
    return re.sub(r"\s+", " ", html.unescape(re.sub(r"<[^>]+>", " ", seen)))


@dataclass(frozen=True)
class Shown:
    """A page: where, its text, and the context that its template had."""

    path: str
    text: str
    context: Any

    def __getitem__(self, name: str) -> Any:
        return self.context[name]


@dataclass
class Pages:
    """Every page of a garden, each asked for once. errors: what did not answer."""

    world: World
    errors: list[str] = field(default_factory=list)
    _shown: dict[str, Shown | None] = field(default_factory=dict)

    def page(self, name: str, *words: Any, **query: Any) -> Shown | None:
        """A page; None where it did not answer, which is noted."""
        path = reverse(name, args=[self.garden.pk, *words])
        key = f"{path}?{query}"
        if key not in self._shown:
            self._shown[key] = self._ask(path, query)
        return self._shown[key]

    def _ask(self, path: str, query: dict[str, Any]) -> Shown | None:
        try:
            answer = self.world.client.get(path, query)
            body = b"".join(answer).decode() if answer.streaming else answer.content.decode()
        except Exception as fault:  # noqa: BLE001 - every fault of a page is counted
            self.errors.append(f"{path}: {type(fault).__name__}: {fault}")
            return None
        if answer.status_code != 200:
            self.errors.append(f"{path} {query}: {answer.status_code}")
            return None
        return Shown(path, plain(body), answer.context)

    @property
    def garden(self) -> Any:
        return self.world.garden

    @property
    def today(self) -> date:
        return self.world.today

    @cached_property
    def units(self) -> Units:
        return units_of(self.world.person)

    @cached_property
    def places(self) -> list[Place]:
        return list(self.garden.places.all())

    @cached_property
    def grounds(self) -> dict[int, Ground]:
        return {place.pk: ground for place, ground in grounds_in(self.garden) if ground is not None}

    @cached_property
    def forecasts(self) -> dict[int, Forecast]:
        return {forecast.place_id: forecast for forecast in Forecast.objects.filter(place__in=self.places)}

    @cached_property
    def outlooks(self) -> list[CropOutlook]:
        return list(CropOutlook.objects.filter(place__in=self.places).select_related("place"))

    @cached_property
    def beds(self) -> list[Place]:
        """Places into which something can be sown for good."""
        return [place for place in self.places if place.kind not in BENCHES]

    @cached_property
    def outdoors(self) -> list[Place]:
        return [place for place in self.places if not place_kinds()[place.kind].indoors]

    @cached_property
    def sowings(self) -> list[Sowing]:
        return list(sowings_in(self.garden))

    @cached_property
    def progress(self) -> dict[int, Progress]:
        return {sowing.pk: progress_of(sowing, self.today) for sowing in self.sowings}

    @cached_property
    def plantings(self) -> list[Planting]:
        return list(plantings_in(self.garden))

    @cached_property
    def jobs(self) -> list[Job]:
        return jobs_in(self.garden, self.units, self.world.now)

    def job_of(self, kind: str, subject: Any) -> Job | None:
        """Today's job of a kind about something."""
        return next((job for job in self.jobs if str(job.kind) == kind and job.subject == str(subject)), None)

    def cover_on_place(self, place: Place) -> PlaceCover | None:
        return cover_on(place, self.today)

    def all_covers(self, place: Place) -> list[PlaceCover]:
        return covers_on(place, self.today)

    def temperature(self, value_c: float, digits: int = 1) -> str:
        return self.units.temperature_text(value_c, digits)

    @property
    def shown(self) -> list[Shown]:
        """All pages that were asked for and answered."""
        return [page for page in self._shown.values() if page is not None]

    def ask_for_all(self) -> None:
        """Every page that a grower opens, also those that no invariant looks into."""
        for name in EVERY_GARDEN:
            self.page(name)
        for place in self.places:
            self.page("place", place.pk)
            self.page("tray", place.pk)
            self.page("edit_place", place.pk)
        for place in self.outdoors:
            self.page("bed_plan", place.pk)
            self.page("cover_timetable", place.pk)
            self.page("put_on", place.pk)
        for outlook in self.outlooks[::4]:
            self.page("crop_in_place", outlook.place_id, outlook.crop_key)
        for sowing in self.sowings:
            self.page("life", sowing.pk)
        for planting in self.plantings:
            self.page("planting", planting.pk)
