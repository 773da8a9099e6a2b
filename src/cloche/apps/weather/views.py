"""Views of the weather."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.translation import gettext as _
from django.views.decorators.http import require_POST

from cloche.apps.gardens.access import LOGS, GardenRequest, in_garden
from cloche.apps.gardens.models import Garden
from cloche.apps.gardens.selectors import units_of
from cloche.apps.shared import clock, words
from cloche.apps.shared.history import done
from cloche.apps.shared.http import INVALID
from cloche.apps.weather import flows as weather
from cloche.apps.weather import selectors as weather_selectors
from cloche.apps.weather.forms import WeatherForm
from cloche.apps.weather.models import DailyWeather
from cloche_engine.inputs import Day

SHOWN = timedelta(days=21)


def _line_of_day(request: HttpRequest, garden: Garden, words: dict[str, Any]) -> DailyWeather | None:
    """Return the record of the day in the URL or form, or None."""
    day = words.get("day") or _day_typed(request.POST.get("day", ""))
    return garden.weather.filter(day=day).first() if day else None


def _day_typed(text: str) -> date | None:
    try:
        return date.fromisoformat(text)
    except ValueError:
        return None


@in_garden(writing=LOGS, own=_line_of_day)
def weather_page(request: GardenRequest) -> HttpResponse:
    """Show past weather and the forecast, and record a day."""
    units = units_of(request.user)
    today = clock.today(request.garden.timezone)
    day = _day_queried(request, today - timedelta(days=1))
    before = _day_queried(request, today, "shown")
    report = list(weather_selectors.reported_days(request.garden, since=min(day, before, today - SHOWN)))
    known = weather_selectors.known_day(request.garden, day, report) or day
    form = WeatherForm(request.POST or None, units=units, garden=request.garden, known=known)
    if request.method == "GET" and "shown" in request.GET:
        form.keep_typed(request.GET, weather_selectors.known_day(request.garden, before, report) or before)
    if form.is_valid():
        data = form.cleaned_data
        also = {"rain_mm": data["rain"], "wind_m_s": data["wind"], "snow_m": data["snow"]}
        weather.record_day(request.garden, data["day"], data["low"], data["high"], sky=data["sky"], **also)
        messages.success(request, _("{sentence} saved.").format(sentence=words.sentence(words.day(data["day"]))))
        return redirect("weather", request.garden.pk)
    rows = weather_selectors.weather_around(request.garden, today, back=SHOWN.days, ahead=16)
    beside = weather_selectors.originals(request.garden, [row.day for row in rows], report)
    lines = [_weather_line(row, units) | {"beside": _beside(row, beside.get(row.day), units, today)} for row in rows]
    newest = request.garden.weather.filter(day__lte=today).order_by("-day").values_list("day", flat=True).first()
    context = {
        "form": form,
        "units": units,
        "coming": [line for line in reversed(lines) if line["day"] > today],
        "past": _past([line for line in lines if line["day"] <= today], report, units, today),
        "total": request.garden.weather.count(),
        "newest": words.day(newest, today) if newest else "",
        "forecast_days": [_forecast_line(day, units) for day in weather_selectors.forecast_days(request.garden, today)],
        "report": weather_selectors.report_words(request.garden, clock.now()),
        "missing": newest is None or newest < today - timedelta(days=2),
    }
    return render(request, "weather/weather.html", context, status=INVALID if form.errors else 200)


def _day_queried(request: GardenRequest, usual: date, name: str = "day") -> date:
    """Return the day in the URL, or the usual one."""
    try:
        return date.fromisoformat(request.GET.get(name, ""))
    except ValueError:
        return usual


def _past(written: list[dict[str, Any]], report: list[Day], units: Any, today: date) -> list[dict[str, Any]]:
    """Return past days, latest first, as recorded or from the provider."""
    there = {line["day"] for line in written}
    missing = (d for d in report if d.lead_d == 0 and d.day not in there and today - SHOWN <= d.day < today)
    filled = [_day_line(day, units) | {"beside": _("from the service"), "from_service": True} for day in missing]
    return sorted([*written, *filled], key=lambda line: line["day"], reverse=True)


def _weather_line(row: DailyWeather, units: Any) -> dict[str, Any]:
    return _day_line(weather_selectors.day_of(*(getattr(row, name) for name in DailyWeather.LINE)), units)


def _beside(row: DailyWeather, was: weather_selectors.Original | None, units: Any, today: date) -> str:
    """Describe the original of a corrected day: first value, author and the provider's value."""
    if was is None:
        return ""
    text = []
    if was.first is not None and was.at is not None:
        by = f"{was.by}, " if was.by else ""
        text.append(
            _("first {span}; changed by {by}{day}").format(
                span=_span(was.first, units), by=by, day=words.day(was.at.date(), today)
            )
        )
    if was.service is not None and _span(was.service, units) != _span((row.low_c, row.high_c), units):
        text.append(_("the service has {span}").format(span=_span(was.service, units)))
    return "; ".join(text)


def _span(pair: tuple[float, float], units: Any) -> str:
    return _("{temperature} to {temperature2}").format(
        temperature=units.temperature_text(pair[0]), temperature2=units.temperature_text(pair[1])
    )


def _forecast_line(day: Day, units: Any) -> dict[str, Any]:
    return _day_line(day, units) | {"beside": _runs(day, units)}


def _runs(day: Day, units: Any) -> str:
    apart = weather_selectors.lows_apart(day)
    return _("the service has {span} for the low, eight times in ten").format(span=_span(apart, units)) if apart else ""


def _day_line(day: Day, units: Any) -> dict[str, Any]:
    snow = _("{length} of snow").format(length=units.length_text(day.snow_m)) if day.snow_m else ""
    wind = "" if day.wind_m_s is None else _("wind {wind}").format(wind=units.wind_text(day.wind_m_s))
    also = [day.sky or "", "" if day.rain_mm is None else units.rain_text(day.rain_mm), wind, snow]
    low, high = units.temperature_text(day.low_c), units.temperature_text(day.high_c)
    when = words.day_with_weekday(day.day)
    return {"day": day.day, "when": when, "low": low, "high": high, "rain": ", ".join(part for part in also if part)}


@require_POST
@in_garden(writing=LOGS, own=_line_of_day)
def remove_weather(request: GardenRequest, day: Any) -> HttpResponse:
    """Remove a day's weather."""
    line = request.garden.weather.filter(day=day).first()
    if line is not None:
        units = units_of(request.user)
        weather.remove_day(request.garden, day)
        was = _("{temperature} to {temperature2}").format(
            temperature=units.temperature_text(line.low_c), temperature2=units.temperature_text(line.high_c)
        )
        text = _("{sentence} removed. It was {was}.").format(sentence=words.sentence(words.day(day)), was=was)
        done(request, text, reverse("put_back_weather", args=[request.garden.pk, day]))
    return redirect("weather", request.garden.pk)


@require_POST
@in_garden(writing=LOGS, own=_line_of_day)
def put_back_weather(request: GardenRequest, day: Any) -> HttpResponse:
    """Restore a day's weather unless it was recorded again."""
    if weather.put_back_day(request.garden, day):
        messages.success(request, _("{sentence} restored.").format(sentence=words.sentence(words.day(day))))
    else:
        messages.error(request, _("That day has been entered again, or was never removed."))
    return redirect("weather", request.garden.pk)
