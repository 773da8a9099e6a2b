"""From what was written down to when a cover stood open."""

from datetime import datetime, timedelta

import pytest

from cloche_engine.covers.periods import Noted
from cloche_engine.forecast.places import situation_of
from cloche_engine.inputs import CoverSpan, Operation
from cloche_engine.places.kinds import OPENED_BY
from cloche_engine.site.estimate import normals_at
from tests.engine.forecast.test_forecasting import inputs

MIDNIGHT = datetime.fromisoformat("2026-04-01T00:00:00+01:00")


def noted(*done: tuple[str, float, float]) -> tuple[Noted, ...]:
    operations = [Operation(work, MIDNIGHT + timedelta(hours=hour), amount) for work, hour, amount in done]
    request = inputs(kind="frame", covers=[CoverSpan("glass_frame")], operations=operations)
    situation = situation_of(request, normals_at(48.0, 15.0, 300.0), MIDNIGHT)
    assert not situation.place.bed.events
    return situation.place.covers[0].noted


@pytest.mark.parametrize(
    ("done", "spans"),
    [
        ([("opened", 34.0, 0.0), ("shut", 40.0, 0.0)], [(34.0, 40.0, OPENED_BY), (40.0, 48.0, 0.0)]),
        ([("opened", 34.0, 0.9)], [(34.0, 42.0, 0.9)]),  # nobody wrote that it was shut
        ([("opened", 43.0, 0.0)], [(43.0, 48.0, OPENED_BY)]),  # late in the day: until midnight
        ([("shut", 30.0, 0.0)], [(30.0, 48.0, 0.0)]),
        ([("shut", 40.0, 0.0), ("opened", 34.0, 0.0)], [(34.0, 40.0, OPENED_BY), (40.0, 48.0, 0.0)]),  # in whatever order
        ([("opened", 34.0, 0.0), ("opened", 34.0, 0.0)], [(34.0, 42.0, OPENED_BY)]),  # twice in one minute
    ],
)
def test_it_stands_so_until_it_was_seen_otherwise_or_the_day_is_over(
    done: list[tuple[str, float, float]], spans: list[tuple[float, float, float]]
) -> None:
    assert noted(*done) == tuple(Noted(*span) for span in spans)
