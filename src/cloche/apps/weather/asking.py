"""Choice of weather providers and their order.

The next one is tried where one fails, a provider that keeps failing is paused, and each grid cell is queried once.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.db import transaction
from django.utils.translation import gettext as _

from cloche.apps.gardens.models import Garden
from cloche.apps.shared import words
from cloche.apps.weather.edr import CELL_DEG, EdrProvider
from cloche.apps.weather.models import ProviderState, WeatherCell
from cloche.apps.weather.provider import HttpProvider, NoAnswer, NotHere, Provider, ProviderAnswer, answer_from
from cloche.apps.work import turns

COLLECTIONS = "/collections/"
FAILS, PAUSE, LONGEST = 3, timedelta(minutes=5), timedelta(hours=2)
"""After so many failures on end a provider is left alone, twice as long each time."""
FRESH = timedelta(minutes=15)
"""So long what a cell was told is told again to a garden beside it."""
KEPT = timedelta(days=2)


def provider() -> Provider | None:
    """Return this installation's provider, if any.

    A URL within a collection is queried by the OGC standard; several of one service, joined by commas, are combined.
    """
    providers = [_provider_at(address) for address in settings.CLOCHE_WEATHER_URL.split()]
    return InTurn(providers) if providers else None


def _provider_at(address: str) -> Guarded:
    if COLLECTIONS in address:
        return Guarded(address, ByCell(address, EdrProvider(address.split(","))))
    return Guarded(address, HttpProvider(address))


@dataclass(frozen=True)
class InTurn:
    """Provider that uses the first of several to answer."""

    providers: list[Guarded]

    def ask(self, garden: Garden) -> ProviderAnswer:
        """Return the first answer. Raises NoAnswer with the last failure."""
        for provider in self.providers[:-1]:
            try:
                return provider.ask(garden)
            except NoAnswer:
                continue
        return self.providers[-1].ask(garden)


@dataclass(frozen=True)
class Guarded:
    """Provider that is paused after repeated failures, whoever asked."""

    address: str
    provider: Provider

    def ask(self, garden: Garden) -> ProviderAnswer:
        """Return the answer. Raises NoAnswer, at once while paused."""
        now = turns.database_now()
        state = ProviderState.objects.filter(address=self.address).first()
        if state is not None and state.rests_until is not None and now < state.rests_until <= now + LONGEST:
            until = words.clock(state.rests_until.astimezone(garden.timezone))
            raise NoAnswer(
                _("The weather service failed {count} and will be tried again at {until}. {failure}").format(
                    count=words.count(state.failures, "time", "times"), until=until, failure=state.failure
                )
            )
        try:
            answer = self.provider.ask(garden)
        except NotHere:
            raise
        except NoAnswer as failure:
            self._failed(now, str(failure))
            raise
        if state is not None and state.failures:
            ProviderState.objects.filter(address=self.address).update(failures=0, rests_until=None, failure="")
        return answer

    @transaction.atomic
    def _failed(self, now: datetime, failure: str) -> None:
        ProviderState.objects.get_or_create(address=self.address)
        state = ProviderState.objects.select_for_update().get(address=self.address)
        state.failures += 1
        state.failure = failure[:200]
        if state.failures >= FAILS:
            state.rests_until = now + min(PAUSE * 2 ** min(state.failures - FAILS, 10), LONGEST)
        state.save()


@dataclass(frozen=True)
class ByCell:
    """Provider that is queried once for all gardens in a grid cell and time zone."""

    address: str
    provider: Provider

    def ask(self, garden: Garden) -> ProviderAnswer:
        """Return the cell's answer. Raises NoAnswer."""
        now = turns.database_now()
        row, column = (round(value / CELL_DEG) for value in (garden.latitude_deg, garden.longitude_deg))
        where: dict[str, Any] = {"address": self.address, "row": row, "column": column, "zone": garden.timezone_name}
        kept = WeatherCell.objects.filter(**where, asked_at__gt=now - FRESH, asked_at__lte=now).first()
        if kept is not None:
            return answer_from(kept.answer)
        answer = self.provider.ask(garden)
        WeatherCell.objects.filter(asked_at__lt=now - KEPT).delete()
        WeatherCell.objects.update_or_create(**where, defaults={"asked_at": now, "answer": _plain(answer)})
        return answer


def _plain(answer: ProviderAnswer) -> dict[str, Any]:
    """Convert an answer back to its JSON form."""
    return {
        "issued": answer.issued.isoformat(),
        "current": {"air_c": answer.current_c},
        "forecast": answer.ahead,
        "daily": answer.past,
        "simulated": answer.simulated,
    }
