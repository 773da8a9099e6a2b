"""What stands in a place, for its warnings: seed that was counted and closed is alive, what never came up is not."""

from dataclasses import replace
from datetime import date
from zoneinfo import ZoneInfo

from cloche_engine.forecast.watching import growing_in
from cloche_engine.hazards.air_limits import Stage
from cloche_engine.inputs import ForecastInputs, SownBatch
from cloche_engine.results import SowingOutlook

TODAY = date(2026, 5, 4)
HALF = (date(2026, 4, 18), date(2026, 4, 20), date(2026, 4, 25))
NEVER = (None, None, None)
OUTLOOK = SowingOutlook([], NEVER, HALF, NEVER, date(2026, 5, 10), 0.8, [], (0.0, 1.0, 0.0, 1.0), (0.0, 1.0, 0.0, 1.0))


def stages(*sown: SownBatch) -> list[tuple[str, Stage]]:
    inputs = ForecastInputs(
        kind="open",
        seed_depth_m=0.05,
        latitude_deg=48.0,
        longitude_deg=8.0,
        elevation_m=500.0,
        timezone=ZoneInfo("Europe/Berlin"),
        today=TODAY,
        readings=[],
        weather=[],
        typed_normals=None,
        seed=1,
        sown=sown,
    )
    return [
        (growing.crop_key, growing.stage)
        for growing in growing_in(inputs, {sowing.number: sowing.outlook for sowing in sown if sowing.outlook})
    ]


PEAS = SownBatch(1, "pea", date(2026, 4, 1), 0.03, 100, 0.9, outlook=OUTLOOK)


def test_a_count_that_is_closed_leaves_living_plants() -> None:
    closed = replace(PEAS, counts=((date(2026, 4, 22), 48),), over=True)
    assert stages(closed) == [("pea", Stage.SEEDLING)]


def test_what_was_closed_without_one_up_stands_nowhere() -> None:
    assert stages(replace(PEAS, over=True)) == []
    assert stages(replace(PEAS, counts=((date(2026, 4, 22), 0),), over=True)) == []


def test_what_is_overdue_and_never_seen_is_not_taken_to_stand() -> None:
    overdue = replace(PEAS, outlook=replace(OUTLOOK, overdue=date(2026, 5, 1)))
    assert stages(overdue) == [("pea", Stage.LYING)]
    assert stages(replace(overdue, counts=((date(2026, 4, 24), 30),))) == [("pea", Stage.SEEDLING)]
