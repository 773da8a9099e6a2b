"""Towns of the earth by their names, the largest first."""

from __future__ import annotations

import lzma
import re
import unicodedata
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

FILE = Path(__file__).parent / "data" / "towns.xz"
CREDIT = "GeoNames, CC BY 4.0"
LARGE, FEW = 50_000, 3
"""A town of so many people is found by every name in Latin letters; a smaller one by few besides its own."""
SHOWN = 8
EARTH_KM = 6371.0
TOWN_REACH_KM = 10.0
"""Over what distance a town warms the nights about it less and less (of 5, 10 and 20 km the best at stations' frost dates)."""


@dataclass(frozen=True)
class Town:
    """A town and its position [°].

    Attributes
    ----------
    lies_in : str
        State, where it is known, and country.
    codes, also : str, tuple of str
        Their abbreviations and the other names of the town, both normalised.
    thousands : int
        Population in thousands.
    """

    name: str
    lies_in: str
    latitude_deg: float
    longitude_deg: float
    codes: str = ""
    also: tuple[str, ...] = ()
    thousands: int = 0

    def is_in(self, where: str) -> bool:
        """Return whether the town lies in a country or state.

        Parameters
        ----------
        where : str
            A country, a state, the beginning of one or its letters, plain.
        """
        parts = [plain(self.lies_in), *(plain(part) for part in self.lies_in.split(","))]
        return where in self.codes.split() or any(part.startswith(where) for part in parts)


def plain(name: str) -> str:
    """Normalise a name for searching: lower case, no accents, single spaces.

    Parameters
    ----------
    name : str
        As people write it.
    """
    bare = unicodedata.normalize("NFKD", name.casefold())
    letters = "".join(c if c.isalnum() else " " for c in bare if not unicodedata.combining(c))
    return " ".join(letters.split())


def is_latin(name: str) -> bool:
    """Return whether a name is written in Latin letters.

    Parameters
    ----------
    name : str
        As people write it.
    """
    return all(unicodedata.name(c, "").startswith("LATIN") for c in name if c.isalpha())


def pack(rows: list[Town]) -> bytes:
    """Encode towns as a small file with one line each, in their order.

    Parameters
    ----------
    rows : list of Town
        The largest first.
    """
    lines = [
        "\t".join(("|".join((plain(t.name), *t.also)), t.name, t.lies_in, t.codes, *(f"{value:g}" for value in _numbers(t))))
        for t in rows
    ]
    return lzma.compress("\n".join(["", *lines, ""]).encode(), preset=9 | lzma.PRESET_EXTREME)


def _numbers(town: Town) -> tuple[float, float, float]:
    return town.latitude_deg, town.longitude_deg, town.thousands


@lru_cache(maxsize=1)
def shipped() -> str:
    """Return the lines that come with the application."""
    return lzma.decompress(FILE.read_bytes()).decode()


def find(text: str, most: int = SHOWN, lines: str | None = None) -> list[Town]:
    """Return the towns whose name begins with the text, the largest first.

    A country or state may follow after a comma.

    Parameters
    ----------
    text : str
        As typed: “portl”, “Portland, Oregon”.
    most : int
        How many at most.
    lines : str, optional
        Others than the shipped ones.

    Returns
    -------
    list of Town
        Whole names before beginnings, own names before others.
    """
    name, _comma, where = (plain(part) for part in text.partition(","))
    if not name:
        return []
    lines = shipped() if lines is None else lines
    ranked: list[list[Town]] = [[], [], [], []]
    seen = set[int]()
    for match in re.finditer(rf"[\n|]{re.escape(name)}(?=([|\t])?)", lines):
        start = lines.rfind("\n", 0, match.start() + 1) + 1
        if start in seen or lines.find("\t", start) < match.start():
            continue
        town = _town(lines[start : lines.find("\n", start)])
        if where and not town.is_in(where):
            continue
        seen.add(start)
        ranked[2 * (not match[1]) + (match.start() >= start)].append(town)
        if len(ranked[0]) >= most:
            break
    return [town for rank in ranked for town in rank][:most]


def _town(line: str) -> Town:
    names, name, lies_in, codes, latitude, longitude, thousands = line.split("\t")
    return Town(name, lies_in, float(latitude), float(longitude), codes, tuple(names.split("|")[1:]), int(thousands))


@lru_cache(maxsize=1)
def _everywhere() -> tuple[NDArray[np.float64], list[str]]:
    lines = shipped().strip("\n").split("\n")
    return np.array([line.rsplit("\t", 3)[1:] for line in lines], dtype=np.float64), lines


def _away_km(latitude_deg: float, longitude_deg: float) -> NDArray[np.float64]:
    """Return the distance of each town from a point along the ground, (towns,) [km]."""
    there, here = np.radians(_everywhere()[0][:, :2]), np.radians([latitude_deg, longitude_deg])
    half = np.sin((there - here) / 2) ** 2
    share = half[:, 0] + np.cos(here[0]) * np.cos(there[:, 0]) * half[:, 1]
    return np.asarray(2 * EARTH_KM * np.arcsin(np.sqrt(np.minimum(share, 1.0))))


def nearest(latitude_deg: float, longitude_deg: float) -> tuple[Town, float]:
    """Return the town nearest to a point and its distance [km].

    Parameters
    ----------
    latitude_deg : float
        North positive [°].
    longitude_deg : float
        East positive [°].

    Returns
    -------
    away_km : float
        Along the ground [km].
    """
    away_km = _away_km(latitude_deg, longitude_deg)
    at = int(away_km.argmin())
    return _town(_everywhere()[1][at]), float(away_km[at])


def people_near(latitude_deg: float, longitude_deg: float) -> float:
    """Return the population around a point.

    The town at the point counts in full, others less with distance.

    Parameters
    ----------
    latitude_deg : float
        North positive [°].
    longitude_deg : float
        East positive [°].

    Returns
    -------
    float
        Sum over towns of their people times exp(-distance / TOWN_REACH_KM).
    """
    thousands = _everywhere()[0][:, 2]
    return float(1000 * thousands @ np.exp(-_away_km(latitude_deg, longitude_deg) / TOWN_REACH_KM))
