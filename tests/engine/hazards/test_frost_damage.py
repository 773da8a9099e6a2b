"""The morning after a frost, by stage. Common practice, no source, unless named."""

import numpy as np
import pytest

from cloche_engine.crops.catalogue import catalogue, crop
from cloche_engine.hazards.air_limits import Stage, cold_c
from cloche_engine.hazards.frost import Harm, harm, likeliest


@pytest.mark.parametrize(
    ("key", "stage", "felt_c", "expected"),
    [
        ("snap_bean", Stage.SEEDLING, -3.0, Harm.LOST),
        ("squash", Stage.SEEDLING, -2.0, Harm.LOST),
        ("pea", Stage.SEEDLING, -8.5, Harm.REGROWS),
        ("sweet_corn", Stage.SEEDLING, -2.0, Harm.REGROWS),
        ("sweet_corn", Stage.GROWN, -3.0, Harm.LOST),
        ("potato_first_early", Stage.SEEDLING, -4.0, Harm.REGROWS),
        ("lettuce", Stage.SEEDLING, -3.0, Harm.UNHURT),
        ("lettuce", Stage.SEEDLING, -6.7, Harm.MARKED),
        ("cabbage", Stage.GROWN, -8.0, Harm.UNHURT),
        ("snap_bean", Stage.LYING, -6.0, Harm.UNHURT),
    ],
)
def test_what_a_night_does_depends_on_crop_and_stage(key: str, stage: Stage, felt_c: float, expected: Harm) -> None:
    assert harm(crop(key), stage, felt_c) is expected


def test_colder_is_never_kinder() -> None:
    order = [Harm.UNHURT, Harm.MARKED, Harm.REGROWS, Harm.LOST]
    for crop_row in catalogue().values():
        for stage in Stage:
            harms = [order.index(harm(crop_row, stage, c)) for c in np.arange(5.0, -30.0, -0.5)]
            assert harms == sorted(harms), crop_row.key


def test_at_the_limit_itself_plants_are_marked() -> None:
    for key in ("carrot", "spinach", "tomato"):
        limit = cold_c(crop(key), Stage.SEEDLING)
        assert limit is not None
        assert harm(crop(key), Stage.SEEDLING, limit) is Harm.MARKED


def test_the_likeliest_of_many_courses_is_told_with_its_chance() -> None:
    what, chance = likeliest(crop("snap_bean"), Stage.SEEDLING, np.array([-4.0] * 30 + [3.0] * 10))
    assert (what, chance) == (Harm.LOST, 0.75)
