"""A stand-in for a weather provider: its own process on loopback, JSON over HTTP.

    GET /v1/site?latitude=48.3&longitude=14.4&elevation=560&zone=Europe/Vienna

answers with the current hour, seven days ahead that err the more the further they lie, each with the runs of an ensemble that
stray as much, and thirty years of days. The same sky is told by the open standard below /edr/ (see `edr_service`). Run as
`python -m cloche.demo.weather_service --port 8077 --day-offset 120`.
"""

from __future__ import annotations

import argparse
import json
import math
from datetime import UTC, date, datetime, timedelta
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any
from urllib.parse import parse_qs, urlsplit
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

import numpy as np

from cloche.demo import edr_service, sky

FORECAST_D, YEARS = 7, 30
ERROR_K, ERROR_GROWTH_K_PER_D = 0.9, 0.35
"""Error of a day's mean one day ahead and what each further day adds: about what regional forecasts manage (assumption)."""


def report(latitude: float, longitude: float, elevation: float, zone: ZoneInfo, now: datetime, seed: int = 7) -> dict[str, Any]:
    """Return the service's answer for a site at an instant."""
    today = now.astimezone(zone).date()
    climate = sky.climate_at(latitude, longitude, elevation)
    truth = sky.history(latitude, longitude, climate, today + timedelta(days=FORECAST_D), seed)
    first = date(today.year - YEARS, 1, 1)
    behind, here = truth.rows(first, today - timedelta(days=1)), (today - sky.BEGINS).days
    hour = now.astimezone(zone).hour + 0.5
    swing = math.cos(2 * math.pi * (hour - 15) / 24)
    mean, half = (truth.high_c[here] + truth.low_c[here]) / 2, (truth.high_c[here] - truth.low_c[here]) / 2
    return {
        "site": {"latitude": latitude, "longitude": longitude},
        "simulated": True,
        "issued": now.astimezone(UTC).isoformat(timespec="seconds"),
        "current": {"air_c": round(float(mean + half * swing), 1)},
        "forecast": _ahead(truth, today, seed),
        "daily": {
            "first": first.isoformat(),
            "low_c": _short(truth.low_c[behind]),
            "high_c": _short(truth.high_c[behind]),
            "rain_mm": _short(truth.rain_mm[behind]),
        },
    }


def days_ahead(truth: sky.History, today: date, seed: int) -> dict[date, tuple[float, float, float, float]]:
    """Return low, high, rain and wind of today and coming days. Errors of one forecast persist from day to day."""
    rng = np.random.default_rng([seed, today.toordinal()])
    days, error = {}, 0.0
    for lead in range(FORECAST_D + 1):
        row = (today + timedelta(days=lead) - sky.BEGINS).days
        sd = 0.0 if lead == 0 else ERROR_K + ERROR_GROWTH_K_PER_D * (lead - 1)
        error = 0.6 * error + sd * math.sqrt(1 - 0.36) * float(rng.standard_normal())
        low, high, rain, wind = (float(v[row]) for v in (truth.low_c, truth.high_c, truth.rain_mm, truth.wind_m_s))
        days[today + timedelta(days=lead)] = (low + error, high + error, rain, wind)
    return days


def of_run(seed: int, run: int) -> int:
    """Return the seed of one ensemble run; the first is the forecast itself."""
    return seed + 1000 * run


def _ahead(truth: sky.History, today: date, seed: int) -> list[dict[str, Any]]:
    days = []
    by_run = [days_ahead(truth, today, of_run(seed, run)) for run in range(edr_service.MANY)]
    for day, (low, high, rain, wind) in days_ahead(truth, today, seed).items():
        sky_word = "overcast" if rain > 2 else "broken" if high - low < 9 else "clear"
        day_ahead = {"day": day.isoformat(), "low_c": round(low, 1), "high_c": round(high, 1), "sky": sky_word}
        runs = [[*(round(value, 1) for value in run[day][:3])] for run in by_run] if day > today else []
        days.append(day_ahead | {"rain_mm": round(rain, 1), "wind_m_s": round(wind, 1), "runs": runs})
    return days


def _short(values: sky.Array) -> list[float]:
    return [round(float(v), 1) for v in values]


class Handler(BaseHTTPRequestHandler):
    """Handles one request."""

    day_offset = 0
    seed = 7

    def do_GET(self) -> None:
        """Answer /v1/site and everything below /edr/."""
        url = urlsplit(self.path)
        if url.path.startswith("/edr"):
            self._by_the_standard(url.path.removeprefix("/edr"), url.query)
            return
        if url.path != "/v1/site":
            self._answer(404, {"error": "Ask for /v1/site."})
            return
        try:
            words = {key: values[0] for key, values in parse_qs(url.query).items()}
            place = [float(words[key]) for key in ("latitude", "longitude", "elevation")]
            zone = ZoneInfo(words.get("zone", "UTC"))
        except (KeyError, ValueError, ZoneInfoNotFoundError) as wrong:
            self._answer(400, {"error": f"latitude, longitude, elevation and zone are needed: {wrong}"})
            return
        now = datetime.now(UTC) + timedelta(days=self.day_offset)
        latitude, longitude, elevation = place
        self._answer(200, report(latitude, longitude, elevation, zone, now, self.seed))

    def _by_the_standard(self, path: str, query: str) -> None:
        words = {key: values[0] for key, values in parse_qs(query).items()}
        now = datetime.now(UTC) + timedelta(days=self.day_offset)
        root = f"http://{self.headers.get('Host', '127.0.0.1')}/edr"
        try:
            self._answer(200, edr_service.answer(path, words, root, now, self.seed))
        except edr_service.Unasked as wrong:
            self._answer(400, {"code": "400", "description": str(wrong)})
        except LookupError:
            self._answer(404, {"code": "404", "description": "There is no such page."})

    def _answer(self, status: int, body: dict[str, Any]) -> None:
        text = json.dumps(body).encode()
        self.send_response(status)
        self.send_header("Content-Type", "application/json")
        self.send_header("Content-Length", str(len(text)))
        self.end_headers()
        self.wfile.write(text)

    def log_message(self, format: str, *args: Any) -> None:  # noqa: A002 - the library's name
        """Log nothing."""


def main() -> None:
    """Serve until stopped."""
    words = argparse.ArgumentParser(description=__doc__)
    words.add_argument("--host", default="127.0.0.1")
    words.add_argument("--port", type=int, required=True)
    words.add_argument("--day-offset", type=int, default=0)
    words.add_argument("--seed", type=int, default=7)
    args = words.parse_args()
    Handler.day_offset, Handler.seed = args.day_offset, args.seed
    ThreadingHTTPServer((args.host, args.port), Handler).serve_forever()


if __name__ == "__main__":
    main()
