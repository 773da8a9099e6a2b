"""Another server of the open standard, read as it is: pygeoapi from the package index serves a month of the station on
loopback, and its days are to be the station's own: `./run bench edr`. Needs a network the first time."""

from __future__ import annotations

import csv
import os
import subprocess
import sys
import time
from collections import defaultdict
from datetime import UTC, date, datetime, timedelta
from pathlib import Path
from urllib.request import urlopen

from cloche.supervisor.ports import free_port

STATION = Path(__file__).parent / "data" / "station_hourly_2025.csv"
PACKAGES = ("pygeoapi==0.21.0", "xarray==2026.9.0", "netCDF4==1.7.5.1.post1", "fsspec")
FIRST, LAST, STANDS = date(2025, 4, 1), date(2025, 4, 28), datetime(2025, 4, 20, 6, tzinfo=UTC)
"""Days that it serves, and when it is asked."""
MOST_OF_IT, CLOSE_K, CLOSE_MM = 26, 0.01, 0.5
MADE = """
import csv, sys
import numpy as np, xarray as xr
rows = [r for r in csv.DictReader(open(sys.argv[1])) if sys.argv[3] <= r["hour_centre_local_standard"] < sys.argv[4]]
times = np.array([r["hour_centre_local_standard"].replace(" ", "T") for r in rows], dtype="datetime64[ns]")
value = lambda name: np.tile(np.array([float(r[name] or "nan") for r in rows])[:, None, None], (1, 3, 3))
about = lambda name, unit: {"standard_name": name, "long_name": name.replace("_", " ").capitalize(), "units": unit}
cube = {"air_temperature": ("air_c", "Cel"), "precipitation_amount": ("precipitation_mm", "mm")}
xr.Dataset(
    {name: (("time", "lat", "lon"), value(column), about(name, unit)) for name, (column, unit) in cube.items()},
    coords={"time": times, "lat": [47.8, 48.0, 48.2], "lon": [14.8, 15.0, 15.2]},
).to_netcdf(sys.argv[2])
"""
SERVED = """server: {{bind: {{host: 127.0.0.1, port: {port}}}, url: "http://127.0.0.1:{port}", mimetype: application/json,
  encoding: utf-8, language: en-US,
  limits: {{default_items: 10, max_items: 100000}}, map: {{url: "http://127.0.0.1/", attribution: none}}}}
logging: {{level: ERROR}}
metadata:
  identification: {{title: Station, description: Station, keywords: [weather], terms_of_service: none, url: "http://127.0.0.1/"}}
  license: {{name: none, url: "http://127.0.0.1/"}}
  provider: {{name: Station, url: "http://127.0.0.1/"}}
  contact: {{name: Station, email: station@example.org, url: "http://127.0.0.1/"}}
resources:
  station:
    {{type: collection, title: Station, description: Hours of a station, keywords: [weather], links: [],
    extents: {{spatial: {{bbox: [14.8, 47.8, 15.2, 48.2], crs: "http://www.opengis.net/def/crs/OGC/1.3/CRS84"}},
    temporal: {{begin: {first}T00:00:00Z, end: {last}T23:00:00Z}}}},
    providers: [{{type: edr, name: xarray-edr, data: {data}, x_field: lon, y_field: lat, time_field: time,
    format: {{name: netcdf, mimetype: application/x-netcdf}}}}]}}
"""


def main() -> int:
    """Print how the days agree; 1 where they do not."""
    place = Path(os.environ["CLOCHE_STATE"]) / "pygeoapi"
    served = _serve(place, free_port())
    try:
        by_day = _days_of(served[1])
    finally:
        served[0].terminate()
        served[0].wait()
    own = station_days()
    days = sorted(day for day in by_day if day in own)
    worst = max(abs(a - b) for day in days for a, b in zip(by_day[day][:2], own[day][:2], strict=True))
    # An hour's rain fell before the instant at which it stands: that of midnight is the day's before.
    rain = abs(sum(by_day[day][2] for day in days) - sum(own[day][2] for day in days))
    print(f"{PACKAGES[0]}: {len(days)} days read, their lows and highs within {worst:.3f} K of the station's;")
    print(f"{rain:.2f} mm of rain more or less in all of them.")
    return int(len(days) < MOST_OF_IT or worst > CLOSE_K or rain > CLOSE_MM)


def station_days() -> dict[date, tuple[float, float, float]]:
    """Low, high [°C] and rain [mm] of the station's own days, by the clock that it writes."""
    hours: dict[date, list[tuple[float, float]]] = defaultdict(list)
    with STATION.open(encoding="utf-8") as file:
        for row in csv.DictReader(file):
            day = date.fromisoformat(row["hour_centre_local_standard"][:10])
            if FIRST <= day <= LAST:
                hours[day].append((float(row["air_c"]), float(row["precipitation_mm"])))
    return {
        day: (min(air for air, _ in values), max(air for air, _ in values), sum(rain for _, rain in values))
        for day, values in hours.items()
    }


def _serve(place: Path, port: int) -> tuple[subprocess.Popen[bytes], str]:
    """It, and the address of its collection."""
    python = place / "bin" / "python"
    uv = str(Path(sys.executable).parent / "uv")
    if not python.exists():
        subprocess.run([uv, "venv", "-q", "--python", sys.executable, str(place)], check=True)  # noqa: S603
        subprocess.run([uv, "pip", "install", "-q", "--python", str(python), *PACKAGES], check=True)  # noqa: S603
    data, config, description = place / "station.nc", place / "served.yml", place / "openapi.yml"
    after = (LAST + timedelta(days=1)).isoformat()
    subprocess.run([str(python), "-c", MADE, str(STATION), str(data), FIRST.isoformat(), after], check=True)  # noqa: S603
    config.write_text(SERVED.format(port=port, data=data, first=FIRST, last=LAST))
    env = os.environ | {"PYGEOAPI_CONFIG": str(config), "PYGEOAPI_OPENAPI": str(description)}
    words = [str(place / "bin" / "pygeoapi")]
    made = [*words, "openapi", "generate", str(config), "--output-file", str(description)]
    subprocess.run(made, env=env, check=True, stdout=subprocess.DEVNULL)  # noqa: S603
    serving = subprocess.Popen([*words, "serve"], env=env, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)  # noqa: S603
    url = f"http://127.0.0.1:{port}/collections/station"
    while serving.poll() is None:
        try:
            with urlopen(f"{url}?f=json"):  # noqa: S310 - our own
                return serving, url
        except OSError:
            time.sleep(0.2)
    raise AssertionError("pygeoapi did not start")


def _days_of(url: str) -> dict[date, tuple[float, float, float]]:
    """What the provider makes of it, by day."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "cloche.config.settings.test")
    import django

    django.setup()
    from cloche.apps.gardens.models import Garden
    from cloche.apps.shared import clock
    from cloche.apps.weather.edr import EdrProvider

    clock.now = lambda: STANDS
    answer = EdrProvider([url]).ask(Garden(name="Plot", latitude_deg=48.0, longitude_deg=15.0, timezone_name="UTC"))
    first, past = date.fromisoformat(answer.past["first"]), answer.past
    behind = zip(past["low_c"], past["high_c"], past["rain_mm"], strict=True)
    by_day = {first + timedelta(days=i): values for i, values in enumerate(behind)}
    ahead = {date.fromisoformat(row["day"]): (row["low_c"], row["high_c"], row["rain_mm"]) for row in answer.ahead}
    return by_day | ahead
