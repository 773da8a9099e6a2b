"""Typical years in the EPW format, made up here line by line as the format's description has it."""

from datetime import datetime, timedelta

import numpy as np
import pytest

from cloche_engine.weather.stations import NotAnEpw, typical_year

HEAD = ["LOCATION,Upper Field,-,XYZ,made up,000000,48.30,14.40,1.0,560.0"]
HEAD += ["DESIGN CONDITIONS,0", "TYPICAL/EXTREME PERIODS,0", "GROUND TEMPERATURES,0", "HOLIDAYS/DAYLIGHT SAVINGS,No,0,0,0"]
HEAD += ["COMMENTS 1,made up", "COMMENTS 2,made up", "DATA PERIODS,1,1,Data,Sunday, 1/ 1,12/31"]


def year(hours: int = 8760, warmer: float = 0.0) -> str:
    lines = list(HEAD)
    start = datetime(2001, 1, 1)  # noqa: DTZ001 - the format knows no zone
    for hour in range(hours):
        at = start + timedelta(hours=hour)
        air = 9 - 10 * np.cos(2 * np.pi * hour / 8760) + 5 * np.cos(2 * np.pi * (at.hour - 15) / 24) + warmer
        values = [at.year, at.month, at.day, at.hour + 1, 0, "?9", f"{air:.1f}", *["0"] * 28]
        lines.append(",".join(str(v) for v in values))
    return "\n".join(lines) + "\n"


def test_a_typical_year_gives_its_place_and_its_monthly_lows_and_highs() -> None:
    typical = typical_year(year())
    assert typical.name == "Upper Field"
    assert (typical.latitude_deg, typical.longitude_deg, typical.elevation_m) == (48.3, 14.4, 560.0)
    assert typical.low_c[0] == pytest.approx(-5.6, abs=0.5)
    assert typical.high_c[6] == pytest.approx(23.6, abs=0.5)
    assert typical.high_c - typical.low_c == pytest.approx(np.full(12, 10.0), abs=0.4)


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("day,low,high\n1,2,3\n", "LOCATION"),
        (year(hours=100), "100 hours"),
        (year(warmer=300.0), "cannot be"),
        (HEAD[0], "EPW"),
    ],
)
def test_what_is_none_is_refused_in_words(text: str, said: str) -> None:
    with pytest.raises(NotAnEpw, match=said):
        typical_year(text)
