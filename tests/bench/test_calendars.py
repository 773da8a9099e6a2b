"""Windows that any grower would sign: days on which sowing is plainly sensible or plainly not, at six of twenty sites.

Data: bench/data/calendar_*.csv, common practice, no source. The benchmark prints every probe that is missed.
"""

from datetime import date
from functools import cache
from itertools import pairwise
from pathlib import Path
from zoneinfo import ZoneInfo

import pytest

from bench import calendars
from cloche_engine.results import CropDays

APRIL, JANUARY, OCTOBER, JULY = (date(calendars.YEAR - 1 + (m < 7), m, 1) for m in (4, 1, 10, 7))
GAP_D = 21


@cache
def sites() -> dict[str, dict[str, str]]:
    return {
        key: row
        for path in (calendars.SITES, calendars.OWN_SITES, calendars.WIDE_SITES)
        for key, row in calendars.read_sites(path).items()
    }


TRIED = "ACGMQU"
"""Continental, humid and subtropical, a warm plain, a humid coast, a desert, a cool coast; the benchmark has all."""


@cache
def held() -> dict[str, list[bool]]:
    """By file of probes, whether each holds."""
    shares = {}
    for path in (calendars.PROBES, calendars.OWN_PROBES, calendars.WIDE_PROBES):
        probes = [read_probe for read_probe in calendars.read_probes(path) if read_probe.site in TRIED]
        given = calendars.chances(sites(), probes)
        shares[path.name] = [probe.holds(chance) for probe, chance in zip(probes, given, strict=True)]
    return shares


@pytest.mark.parametrize("path", [calendars.PROBES, calendars.OWN_PROBES, calendars.WIDE_PROBES], ids=["usual", "more", "wide"])
def test_nineteen_days_of_twenty_are_judged_as_growers_would(path: Path) -> None:
    shares = held()[path.name]
    assert len(shares) > 40
    assert sum(shares) / len(shares) >= 0.95


@cache
def given(site: str, today: date) -> list[CropDays]:
    wanted = ("snap_bean", "squash", "sweet_corn", "pea", "onion_sets", "garlic_autumn", "lettuce", "spinach", "radish", "kale")
    return calendars.given((sites()[site], today, (*((key, "sown") for key in wanted), ("tomato", "planted_out"))))


def spans(site: str, today: date, key: str) -> list[tuple[date, date]]:
    row = next(row for row in given(site, today) if row.crop_key == key and row.better)
    return [(window.earliest, window.last) for window in row.windows]


@pytest.mark.parametrize("key", ["snap_bean", "squash", "sweet_corn", "tomato"])
def test_warm_crops_have_a_window_by_the_sea_at_fifty_two_north(key: str) -> None:
    (first, last), *_ = spans("B", APRIL, key)
    assert date(2027, 5, 1) <= first <= date(2027, 6, 15)
    assert last > first


@pytest.mark.parametrize("site", ["A", "B", "D"])
def test_garlic_goes_in_in_autumn_where_it_is_grown(site: str) -> None:
    (first, last), *_ = spans(site, JULY, "garlic_autumn")
    assert date(2026, 8, 25) <= first <= date(2026, 10, 15)
    assert last.month in (10, 11, 12)


@pytest.mark.parametrize(("site", "before"), [("A", date(2027, 4, 20)), ("C", date(2027, 3, 5)), ("D", date(2027, 4, 10))])
def test_peas_go_in_in_early_spring(site: str, before: date) -> None:
    (first, last), *_ = spans(site, JANUARY, "pea")
    assert first <= before
    assert last < date(2027, 6, 10)


@pytest.mark.parametrize("site", ["A", "B", "C", "D"])
def test_nobody_plants_bulbing_onions_in_july(site: str) -> None:
    for first, last in spans(site, APRIL, "onion_sets"):
        assert last < date(2027, 6, 25) or first > date(2027, 8, 31)


def test_no_window_is_broken_by_the_noise_of_a_few_dozen_courses() -> None:
    """Gaps of three weeks or less between two windows of one crop: fewer than one in two hundred windows."""
    count, gaps = 0, 0
    for site, today in (("A", APRIL), ("B", APRIL), ("C", JANUARY), ("D", APRIL), ("F", JULY), ("G", OCTOBER)):
        for row in given(site, today):
            ends = [(w.earliest, w.last) for w in row.windows]
            count += len(ends)
            gaps += sum((b[0] - a[1]).days - 1 <= GAP_D for a, b in pairwise(ends))
    assert count > 50
    assert gaps * 200 < count


def test_a_day_is_told_from_the_last_first_of_a_quarter_before_it() -> None:
    probe = calendars.Probe("A", "pea", "sown", date(2027, 4, 1), True)
    assert probe.told_on == date(2027, 1, 1)
    assert calendars.Probe("A", "pea", "sown", date(2027, 1, 1), True).told_on == date(2026, 10, 1)
    assert ZoneInfo(sites()["A"]["timezone"])


def test_what_is_missed_is_printed_with_the_chance_given(capsys: pytest.CaptureFixture[str]) -> None:
    probes = [calendars.Probe("A", "pea", "sown", date(2027, 4, day), sensible) for day, sensible in ((15, True), (16, False))]
    calendars.score(probes, [0.42, 0.49])
    assert capsys.readouterr().out == "A pea sown 04-15: sensible, chance given 0.42\ncalendars: 1 of 2 (50.0%)\n"
