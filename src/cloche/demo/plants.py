"""What stands in the demo's beds, what is meant there, and what stood there in the years before."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class ShapePlan:
    """Size [m] and direction of a bed."""

    place: str
    length_m: float
    width_m: float
    square_m: float = 0.3
    runs_deg: float = 90.0


@dataclass(frozen=True)
class PlantingPlan:
    """A planting.

    `ago_d` is days since it went in (negative if planned), `at` corner, length and width [m] or None, `ended_d` days since
    it ended, and `events` kind, days ago and further fields.
    """

    place: str
    crop_key: str
    ago_d: int
    at: tuple[float, float, float, float] | None
    origin: str = "sown"
    layout: str = "squares"
    number: int | None = None
    ended_d: int | None = None
    thinning: str = "none"
    events: tuple[tuple[str, int, tuple[tuple[str, object], ...]], ...] = ()


SHAPES = (
    ShapePlan("North bed", 3.6, 1.2, 0.3),
    ShapePlan("Long bed", 7.2, 0.9, 0.3, 0.0),
    ShapePlan("Wall frame", 1.5, 0.9, 0.3),
    ShapePlan("Low tunnel", 4.8, 0.9, 0.3),
    ShapePlan("Terrace", 2.4, 1.2, 0.3),
)
EARLIER = (
    ("North bed", "pea", 386, 120, ((362, 61), (350, 94))),
    ("North bed", "pea", 745, 120, ((722, 55), (708, 82))),
    ("North bed", "carrot", 351, 200, ((322, 12),)),
    ("North bed", "carrot", 700, 200, ((678, 96), (668, 131))),
    ("North bed", "lettuce", 340, 80, ((328, 61),)),
)
"""Sowings of the years before: place, crop, days ago, seeds, counts."""
SIGNS = (("First dandelion", 6), ("First dandelion", 376), ("First dandelion", 733), ("Lawn grows", 24), ("Lawn grows", 397))
"""What was seen first, and days ago."""
PLANTINGS = (
    PlantingPlan("North bed", "pea", 12, (0.0, 0.0, 3.6, 0.3), layout="rows"),
    PlantingPlan("North bed", "onion_sets", 9, (0.0, 0.3, 1.2, 0.3), "sets", number=36),
    PlantingPlan("North bed", "radish", -2, (1.2, 0.3, 0.6, 0.3), thinning="every_other"),
    PlantingPlan("North bed", "carrot", -9, (0.0, 0.6, 1.2, 0.6)),
    PlantingPlan("North bed", "kohlrabi", -6, (1.2, 0.6, 0.6, 0.6), "raised"),
    PlantingPlan("North bed", "", -34, (1.8, 0.6, 1.2, 0.6)),
    PlantingPlan("North bed", "kale", -48, (3.0, 0.6, 0.6, 0.6), "raised"),
    PlantingPlan("North bed", "kale", 700, None, "raised", number=8, ended_d=390),
    PlantingPlan("North bed", "lettuce", 380, None, number=40, ended_d=310),
    PlantingPlan("Wall frame", "lettuce", 13, (0.0, 0.0, 0.6, 0.3), events=(("eaten", 1, (("number", 9),)),)),
    PlantingPlan(
        "Wall frame", "pak_choi", 21, (0.6, 0.0, 0.3, 0.3), "raised", events=(("measured", 2, (("height_m", 0.09),)),)
    ),
    PlantingPlan("Wall frame", "spring_onion", 24, (0.9, 0.0, 0.3, 0.3)),
    PlantingPlan("Wall frame", "coriander", 16, (1.2, 0.0, 0.3, 0.3), layout="broadcast"),
    PlantingPlan("Wall frame", "rocket", 20, (0.0, 0.3, 0.3, 0.6), layout="broadcast"),
    PlantingPlan(
        "Wall frame",
        "chard",
        200,
        (0.3, 0.3, 0.3, 0.6),
        "overwintered",
        number=4,
        events=(
            ("stood", 60, (("lowest_c", -7.5), ("number", 4))),
            ("grows", 24, ()),
            ("harvested", 6, (("weight_kg", 0.4),)),
        ),
    ),
    PlantingPlan("Wall frame", "kohlrabi", -4, (0.6, 0.3, 0.6, 0.6), "raised"),
    PlantingPlan("Wall frame", "", -40, (1.2, 0.3, 0.3, 0.6)),
    PlantingPlan("Low tunnel", "carrot", 26, (0.0, 0.0, 4.8, 0.45), layout="rows"),
    PlantingPlan("Low tunnel", "radish", 26, (0.0, 0.45, 1.2, 0.45), events=(("harvested", 1, (("number", 12),)),)),
    PlantingPlan("Low tunnel", "chard", -5, (1.2, 0.45, 1.2, 0.45), "raised"),
    PlantingPlan(
        "Long bed",
        "broad_bean",
        150,
        (0.0, 0.0, 3.6, 0.9),
        layout="rows",
        origin="overwintered",
        number=60,
        events=(
            ("stood", 70, (("lowest_c", -9.0), ("number", 52))),
            ("died", 69, (("number", 8), ("cause", "frost"), ("lowest_c", -9.0))),
        ),
    ),
    PlantingPlan(
        "Long bed",
        "kale",
        240,
        (3.6, 0.0, 1.2, 0.9),
        "raised",
        number=4,
        events=(
            ("stood", 70, (("lowest_c", -12.0), ("number", 4))),
            ("grows", 30, ()),
            ("harvested", 12, (("weight_kg", 0.8),)),
        ),
    ),
    PlantingPlan("Long bed", "beet", -12, (4.8, 0.0, 1.2, 0.9), layout="rows"),
    PlantingPlan("Terrace", "tomato", -38, (0.0, 0.0, 2.4, 0.6), "raised", "rows"),
    PlantingPlan("Terrace", "basil", -44, (0.0, 0.6, 0.6, 0.3), "raised"),
    PlantingPlan("Terrace", "radish", -3, (0.6, 0.6, 0.9, 0.3)),
)
