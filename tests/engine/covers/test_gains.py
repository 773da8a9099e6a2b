"""What covers buy by the priors alone, against what was measured under them elsewhere.

Ranges and their sources stand in bench/data/covers_measured.csv, all from memory: row cover trials (Wells and Loy 1985,
Hemphill and Mansour 1986), plastic mulch (Lamont 1993), solarisation (Katan 1981, Mahrer 1979), handbooks, and estimates so
marked."""

import csv
from pathlib import Path

import numpy as np
import pytest

from bench.__main__ import MEASURED
from bench.earlier import sooner
from bench.gains import main, scored, weather_of
from cloche_engine.covers.kinds import kinds
from cloche_engine.soil.bed import Bed
from cloche_engine.soil.simulate import Trajectory
from tests.engine.weathers import trajectories, under

ROWS = list(csv.DictReader(MEASURED.read_text(encoding="utf-8").splitlines()))


def test_every_well_known_gain_lies_in_its_range_and_nine_in_ten_of_all() -> None:
    rows = list(scored(ROWS))
    well_known = [row for row in rows if row["confidence"] in ("high", "medium")]
    assert {row["id"] + row["cover"] + row["quantity"] for row in well_known if row["lies"] == "out"} == set()
    assert sum(row["lies"] == "in" for row in rows) >= 0.9 * len(rows)
    assert all(float(row["low"]) < float(row["median"]) < float(row["high"]) for row in rows)


def test_the_table_is_printed_with_its_score(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    few = tmp_path / "few.csv"
    few.write_text("\n".join(MEASURED.read_text(encoding="utf-8").splitlines()[:3]), encoding="utf-8")
    assert main(str(few)) == 0
    *lines, last = capsys.readouterr().out.strip().splitlines()
    assert last == "gains: 2 of 2"
    assert [line.rsplit(",", 1)[1] for line in lines] == ["lies", "in", "in"]
    assert main(str(tmp_path / "none.csv")) == 64


def side_by_side(row_id: str, keys: list[str]) -> list[Trajectory]:
    row = next(row for row in ROWS if row["id"] == row_id)
    return trajectories(weather_of(row)[0], [under(key) for key in keys], Bed())


def test_kinds_in_the_order_of_the_soil_they_give() -> None:
    """Common practice, no source: fleece least, glass and film more, twin wall most; white mulch cools, black warms, clear
    most."""
    order = ["fleece", "film_tunnel", "thermal_tunnel", "glass_frame", "twin_wall_frame"]
    soil = [trajectory.at(0.05)[-24:].mean() for trajectory in side_by_side("S", order)]
    assert soil == sorted(soil)
    mulches = [
        trajectory.at(0.05)[-24:].max() for trajectory in side_by_side("L", ["white_film", "black_film", "film_on_soil"])
    ]
    assert mulches == sorted(mulches)


def test_kinds_in_the_order_of_their_nights() -> None:
    """Common practice, no source: fleece a degree or two, thick fleece more, plain film no more than infrared film, then
    glass."""
    nights = [trajectory.air_c[-24:].min() for trajectory in side_by_side("N", ["fleece", "thick_fleece"])]
    assert nights == sorted(nights)
    order = ["film_tunnel", "thermal_tunnel", "glass_frame", "twin_wall_frame"]
    nights = [trajectory.air_c[-24:].min() for trajectory in side_by_side("N", order)]
    assert nights == sorted(nights)


def test_kinds_in_the_order_of_their_days() -> None:
    days = [
        trajectory.air_c[-24:].max()
        for trajectory in side_by_side("D", ["fleece", "film_tunnel", "glass_frame", "twin_wall_frame"])
    ]
    assert days == sorted(days)


def test_at_noon_the_air_in_every_closed_cover_is_warmer_than_its_soil_at_five_centimetres() -> None:
    closed = [key for key, kind in kinds().items() if not kind.permeable and not kind.lies_on_soil and key != "lid"]
    for key, trajectory in zip(closed, side_by_side("D", closed), strict=True):
        assert trajectory.air_c[-24:].max() > trajectory.at(0.05)[-24:].max() - 0.5, key
        assert float(np.argmax(trajectory.air_c[-24:, 0])) < float(np.argmax(trajectory.at(0.05)[-24:, 0])), key


def test_fleece_brings_bush_beans_forward_by_one_to_two_weeks_not_four() -> None:
    """At 48 degrees north (common practice, no source); a tunnel by more, a frame by most."""
    (beans,) = sooner("48° N, 560 m", ("snap_bean",), comfortable=True)
    fleece, tunnel, frame = beans.earlier_d.values()
    assert fleece is not None
    assert tunnel is not None
    assert frame is not None
    assert 6 <= fleece <= 14
    assert fleece < tunnel < frame < 49
