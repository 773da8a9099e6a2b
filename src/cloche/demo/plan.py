"""The invented gardens: a hill holding in central Europe, and a small garden on the other half of the globe."""

from __future__ import annotations

from dataclasses import dataclass

from cloche.demo.nature import Climate

HOTBED_AGE_D = 19
"""Days since the demo's hotbed was filled."""


@dataclass(frozen=True)
class PlacePlan:
    """A place of the demo; `read` is the share of rounds that read it, `logger` adds hourly values.

    cover: kind, and days ago that it went on (ahead: negative); opens: how it is aired.
    """

    name: str
    kind: str
    seed_depth_m: float = 0.05
    read: float = 0.92
    logger: bool = False
    cover: tuple[str, int] | None = None
    opens: str = "closed"
    texture: str = "loam"
    slope_deg: float = 0.0
    within: str = ""


@dataclass(frozen=True)
class SowingPlan:
    """A sowing of the demo; `counts` holds days ago and number up."""

    place: str
    crop_key: str
    ago_d: int
    seeds: int
    counts: tuple[tuple[int, int], ...] = ()
    finished: bool = False


@dataclass(frozen=True)
class PacketPlan:
    """A packet of the demo; `age_y` is years since packing, `tested` seeds laid out and germinated."""

    crop_key: str
    variety: str
    age_y: int
    price: float
    tested: tuple[int, int] | None = None
    values: tuple[tuple[str, float], ...] = ()


@dataclass(frozen=True)
class OwnPlan:
    """A cover owned by the garden; `on` is the place it stands on or is planned for, `spread_m` the spread of a bent sheet."""

    kind: str
    name: str
    length_m: float
    width_m: float
    age_y: int
    price: float
    spread_m: float | None = None
    dirty: bool = False
    on: str = ""


@dataclass(frozen=True)
class BenchPlan:
    """Equipment and history of a tray in the demo.

    `room` gives name, kind, night and day temperature [°C]; `window` its direction and shading; `heat` source, days ago,
    watts and a thermostat's two temperatures; `lamp` watts, height [m] and hours; `steps` crop, step, days ago and cell size
    [m]; `air` days ago and evening temperature [°C].
    """

    place: str
    room: tuple[str, str, float | None, float | None]
    window: tuple[float, float] | None = None
    heat: tuple[str, int, float, tuple[float, float] | None] | None = None
    lamp: tuple[float, float, tuple[tuple[float, float], ...]] | None = None
    steps: tuple[tuple[str, str, int, float | None], ...] = ()
    air: tuple[tuple[int, float], ...] = ()


@dataclass(frozen=True)
class GardenPlan:
    """A garden of the demo.

    `season` is the first and last (month, day) of reading; `meant` lists planned sowings as place, crop and days ahead;
    `trial` covered place, bare place and days since; `away` hours when nobody is there.
    """

    name: str
    latitude_deg: float
    longitude_deg: float
    elevation_m: float
    timezone_name: str
    climate: Climate
    season: tuple[tuple[int, int], tuple[int, int]]
    places: tuple[PlacePlan, ...]
    packets: tuple[PacketPlan, ...] = ()
    sowings: tuple[SowingPlan, ...] = ()
    own: tuple[OwnPlan, ...] = ()
    meant: tuple[tuple[str, str, int], ...] = ()
    trial: tuple[str, str, int] | None = None
    away: tuple[int, int] | None = None
    bench: tuple[BenchPlan, ...] = ()


HILL = GardenPlan(
    name="Halde farm",
    latitude_deg=48.3,
    longitude_deg=14.4,
    elevation_m=560.0,
    timezone_name="Europe/Vienna",
    climate=Climate(mean_c=8.2, half_swing_k=9.8, warmest_day=203, range_k=10.5, latitude_deg=48.3),
    season=((2, 10), (11, 5)),
    places=(
        PlacePlan("North bed", "open"),
        PlacePlan("Long bed", "fleece", cover=("fleece", 64)),
        PlacePlan("Wall frame", "frame", 0.04, cover=("glass_frame", 160), opens="above"),
        PlacePlan("Arch", "arch", cover=("twin_wall_arch", 75), opens="hours"),
        PlacePlan("Low tunnel", "tunnel", logger=True, cover=("film_tunnel", 70), opens="above"),
        PlacePlan("South bed", "mulched", read=0.6),
        PlacePlan("Bells", "bell", 0.03, 0.8),
        PlacePlan("Terrace", "raised", slope_deg=4.0, texture="sand", cover=("film_tunnel", -3), opens="above"),
        PlacePlan("Pepper tray", "mat", 0.02),
        PlacePlan("Hotbed", "hotbed", 0.08),
        PlacePlan("Kitchen sill", "tray", 0.02, read=0.5),
        PlacePlan("Lamp shelf", "tray", 0.02, read=0.5),
        PlacePlan("Sand bench", "box", 0.03, read=0.5),
    ),
    packets=(
        PacketPlan("carrot", "Hill Amber", 1, 2.4, None, (("maturity_d", 68.0),)),
        PacketPlan("carrot", "Old Scarlet", 4, 1.9),
        PacketPlan("pea", "Early Lantern", 0, 3.2, (40, 36)),
        PacketPlan("lettuce", "Slate", 2, 2.1),
        PacketPlan("parsnip", "Longfield", 2, 2.6, (30, 17)),
        PacketPlan("cucumber", "Terrace Green", 0, 4.8, None, (("minimum_c", 16.0), ("optimum_from_c", 20.0))),
    ),
    sowings=(
        SowingPlan("Low tunnel", "carrot", 26, 240, ((4, 31), (1, 96))),
        SowingPlan("North bed", "pea", 12, 120),
        SowingPlan("Wall frame", "lettuce", 13, 80, ((6, 22), (2, 58))),
        SowingPlan("South bed", "parsnip", 44, 90),
        SowingPlan("Bells", "spinach", 38, 100),
        SowingPlan("Arch", "radish", 33, 150, ((21, 60), (14, 128), (9, 131)), finished=True),
        SowingPlan("Pepper tray", "pepper", 5, 48),
        SowingPlan("Kitchen sill", "lettuce", 19, 40, ((12, 30), (6, 37))),
        SowingPlan("Lamp shelf", "leek", 34, 120, ((20, 96), (10, 104))),
        SowingPlan("Lamp shelf", "tomato", 27, 40, ((18, 31), (12, 36))),
        SowingPlan("Sand bench", "tomato", 9, 80, ((1, 52),)),
    ),
    own=(
        OwnPlan("glass_frame", "Old frame", 1.8, 1.2, 9, 120.0, on="Wall frame"),
        OwnPlan("twin_wall_arch", "Twin-wall sheet", 3.0, 1.2, 2, 38.0, 0.75, on="Arch"),
        OwnPlan("film_tunnel", "Long tunnel", 6.0, 1.6, 3, 26.0, 0.9, dirty=True, on="Low tunnel"),
        OwnPlan("film_tunnel", "New tunnel", 4.0, 1.6, 0, 24.0, 0.9, on="Terrace"),
        OwnPlan("fleece", "Fleece", 10.0, 2.0, 1, 9.0, on="Long bed"),
        OwnPlan("bent_sheet", "Bent sheet", 2.0, 1.2, 3, 18.0, 0.8),
        OwnPlan("thick_fleece", "Thick fleece", 6.0, 2.0, 0, 12.0),
    ),
    meant=(("North bed", "beet", 0), ("Terrace", "carrot", 14)),
    trial=("Low tunnel", "North bed", 18),
    away=(8, 17),
    bench=(
        BenchPlan("Pepper tray", ("Back room", "shed", None, None), heat=("mat", 300, 20.0, (23.0, 25.0))),
        BenchPlan("Kitchen sill", ("Kitchen", "living", 18.0, 23.0), window=(225.0, 0.6)),
        BenchPlan(
            "Lamp shelf",
            ("Back room", "shed", None, None),
            lamp=(40.0, 0.12, ((5.5, 9.0), (16.0, 21.0))),
            steps=(("tomato", "potted", 9, 0.07), ("tomato", "leaf", 14, None)),
            air=((1, 17.5), (3, 17.0), (6, 18.0), (9, 17.0)),
        ),
        BenchPlan("Sand bench", ("Porch", "garage", None, None), window=(180.0, 0.0), heat=("cable", 30, 75.0, (16.0, 19.0))),
    ),
)

SOUTH = GardenPlan(
    name="Creek paddock",
    latitude_deg=-41.2,
    longitude_deg=173.1,
    elevation_m=40.0,
    timezone_name="Pacific/Auckland",
    climate=Climate(mean_c=12.6, half_swing_k=4.8, warmest_day=28, range_k=9.0, latitude_deg=-41.2),
    season=((8, 15), (5, 20)),
    places=(
        PlacePlan("Creek bed", "open"),
        PlacePlan("Top terrace", "raised", read=0.7),
        PlacePlan("Shed frame", "frame", 0.04),
        PlacePlan("Cable bench", "cable", 0.05),
    ),
)
