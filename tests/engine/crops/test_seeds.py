"""Seed for a row, a bed, or a number of plants."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from cloche_engine.crops import seeds
from cloche_engine.crops.catalogue import catalogue, crop

KEYS = st.sampled_from(sorted(catalogue()))


def test_peas_two_inches_apart_along_a_row() -> None:
    """Common practice, no source: two inches apart in the row; ten metres are two hundred stations and one."""
    assert seeds.stations_along(crop("pea"), 10.0) == 201
    assert seeds.need(crop("pea"), 201, 0.9) == seeds.Need(201, 1, 201, int(201 * 0.9 * 0.9))


def test_more_seeds_go_into_a_station_where_soil_is_cold() -> None:
    """Common practice, no source: two a station thinned to one, more where soil is cold. By hand: 1 - 0.5³ is the first of
    1 - 0.5ⁿ that passes 0.85."""
    choi = crop("pak_choi")
    assert [seeds.need(choi, 1, share).per_station for share in (0.95, 0.7, 0.5, 0.3)] == [2, 2, 2, 3]


def test_germination_rate_is_seedlings_over_seeds() -> None:
    """Common practice, no source: in cold soil half may be all you get; a hundred seeds alone in their stations leave half."""
    single = replace(crop("parsnip"), per_station=1, start="set")
    assert seeds.need(single, 100, 0.5).plants == 45


def test_a_bed_holds_what_its_spacing_says() -> None:
    """Common practice, no source: at most sixteen carrots on a square foot."""
    assert seeds.stations_on(crop("carrot"), 0.3048**2) <= 16
    assert seeds.stations_on(crop("pumpkin"), 0.01) == 1


@given(key=KEYS, plants=st.integers(1, 500), share=st.floats(0.05, 1.0))
def test_the_plants_asked_for_are_left(key: str, plants: int, share: float) -> None:
    grown = crop(key)
    stations = seeds.stations_for(grown, plants, share)
    assert seeds.need(grown, stations, share).plants >= plants - 1
    assert seeds.need(grown, max(stations - 2, 0), share).plants < plants


@given(key=KEYS, low=st.floats(0.01, 1.0), high=st.floats(0.01, 1.0))
def test_better_seed_never_needs_more_of_it(key: str, low: float, high: float) -> None:
    low, high = sorted((low, high))
    worse, better = (seeds.need(crop(key), 50, share) for share in (low, high))
    assert better.seeds <= worse.seeds


@pytest.mark.parametrize("share", [0.0, 1.0])
def test_dead_seed_and_perfect_seed(share: float) -> None:
    wanted = seeds.need(crop("lettuce"), 10, share)
    assert wanted.plants == (9 if share else 0)
    assert seeds.stations_for(crop("lettuce"), 10, 0.0) == 0
