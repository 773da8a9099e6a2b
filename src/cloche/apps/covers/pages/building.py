"""How a cover must be built for what is to stand under it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial
from urllib.parse import urlencode

from django.utils.translation import gettext as _

from cloche.bridge.services import beds, cover_builder, covers
from cloche.bridge.services.cover_builder import BentSheet, Box
from cloche.bridge.values.units import Units
from cloche.core.errors import OutOfRange
from cloche.drawing import under_roof

STEEP_GAIN = 1.05


@dataclass(frozen=True)
class Built:
    """What was wanted for: kind; of a sheet its width, spread (None: to be found), strip and plants' height; of a box its depth
    and heights, and how far it faces away from the noon sun; the prop's height; age [m, °, y]."""

    key: str
    sheet_m: float | None
    spread_m: float | None
    strip_m: float
    plant_m: float
    depth_m: float
    low_m: float
    high_m: float
    away_deg: float
    prop_m: float
    age_y: float


@dataclass(frozen=True)
class BuildingPage:
    """Context of covers/_building.html. lines: sentences; keep: what the form of one's own covers begins with, as an address
    has it."""

    headline: str
    lines: list[str]
    picture: under_roof.UnderRoof | None
    keep: str


def building_page(wanted: Built, latitude_deg: float, units: Units) -> BuildingPage:
    """Of one cover."""
    page = _bent(wanted, units) if covers.bends(wanted.key) else _box(wanted, latitude_deg, units)
    return BuildingPage(page.headline, [*page.lines, *_common(wanted)], page.picture, page.keep)


def _rough(units: Units, length_m: float) -> str:
    """To the centimetre: nobody sets an edge by the millimetre."""
    return units.length_text(round(length_m, 2))


def _bent(wanted: Built, units: Units) -> BuildingPage:
    length = partial(_rough, units)
    strip, plants = length(wanted.strip_m), length(wanted.plant_m)
    sheet_m = wanted.sheet_m or cover_builder.narrowest(wanted.strip_m, wanted.plant_m)
    try:
        sheet = cover_builder.bent_over(sheet_m, wanted.strip_m, wanted.plant_m, wanted.spread_m)
    except OutOfRange as refusal:
        return BuildingPage(str(refusal), [], None, "")
    if sheet is None:
        tallest = cover_builder.tallest_over(sheet_m, wanted.strip_m)
        wider = cover_builder.narrowest(wanted.strip_m, wanted.plant_m)
        lines = [_("It takes a sheet {wider} wide.").format(wider=length(wider))]
        if tallest > 0:
            lines.append(_("Under this one plants over that strip may get {tallest} tall.").format(tallest=length(tallest)))
        text = _("A sheet {sheet} wide has no room for plants {plants} tall over {strip}.")
        return BuildingPage(text.format(sheet=length(sheet_m), plants=plants, strip=strip), lines, None, "")
    text = _("Set the edges of a sheet {sheet} wide {spread} apart: it stands {height} high.")
    headline = text.format(sheet=length(sheet_m), spread=length(sheet.spread_m), height=length(sheet.height_m))
    return BuildingPage(headline, _bent_lines(sheet, plants, units), _arch(sheet, wanted), _keep(wanted, sheet))


def _bent_lines(sheet: BentSheet, plants: str, units: Units) -> list[str]:
    if sheet.plantable_m <= 0:
        room = _("Plants {plants} tall touch it everywhere.").format(plants=plants)
    else:
        room = _("Plants {plants} tall have room over {wide}.").format(plants=plants, wide=_rough(units, sheet.plantable_m))
    snow = _(
        "It bears {share} % of the snow that the same sheet bears bent to a half circle: the wider it is set, the sooner it "
        "sags. Brush snow off."
    ).format(share=round(100 * sheet.snow))
    return [room, snow]


def _arch(sheet: BentSheet, wanted: Built) -> under_roof.UnderRoof:
    stands = [(_("plants"), 0.5, [wanted.plant_m])]
    return under_roof.under_roof(sheet.height_m, 0.0, "arch", stands)


def _box(wanted: Built, latitude_deg: float, units: Units) -> BuildingPage:
    box = cover_builder.box_of(wanted.depth_m, wanted.low_m, wanted.high_m, latitude_deg, wanted.away_deg)
    length = partial(_rough, units)
    if wanted.high_m <= wanted.low_m:
        headline = _("A level lid {height} over the soil: rain and snow lie on it.").format(height=length(wanted.high_m))
    else:
        headline = _("The lid slopes by {slope}°, {mean} over the soil in the middle.").format(
            slope=round(box.slope_deg), mean=length(box.mean_m)
        )
    room = beds.Room(wanted.high_m, wanted.low_m, wanted.depth_m, "lean")
    wide = next((x / 100 for x in range(101) if room.height_m(wanted.depth_m * x / 100) >= wanted.plant_m), None)
    lines = [_room_words(wide, wanted, units), *_sun_words(box)]
    share = cover_builder.propped(wanted.prop_m)
    if wanted.prop_m > 0:
        lines.append(
            _("On a prop of {prop} it stands open {share} % of what it can.").format(
                prop=length(wanted.prop_m), share=round(100 * share)
            )
        )
    picture = under_roof.under_roof(wanted.high_m, wanted.low_m, "lean", [(_("plants"), 0.6, [wanted.plant_m])])
    return BuildingPage(headline, lines, picture, _keep(wanted, None))


def _room_words(begins: float | None, wanted: Built, units: Units) -> str:
    plants = units.length_text(wanted.plant_m)
    if begins is None:
        return _("Plants {plants} tall touch the lid everywhere.").format(plants=plants)
    if begins == 0:
        return _("Plants {plants} tall have room from front to back.").format(plants=plants)
    wide = _rough(units, (1 - begins) * wanted.depth_m)
    return _("Plants {plants} tall have room over the {wide} at the back.").format(plants=plants, wide=wide)


def _sun_words(box: Box) -> list[str]:
    """What the slope does for the light."""
    if box.winter is None:
        return [_("The noon sun of midwinter stands too low to count here.")]
    if box.winter < STEEP_GAIN:
        return [_("It takes in no more of the noon sun of midwinter than a level lid.")]
    text = _("At noon in midwinter it takes in {winter} times the direct sun of a level lid, at the equinox {spring} times.")
    return [text.format(winter=f"{box.winter:.1f}", spring=f"{box.spring or 0.0:.1f}")]


def _common(wanted: Built) -> list[str]:
    now, new, left = cover_builder.lasts(wanted.key, wanted.age_y)
    light = _("It lets {now} % of the sun through").format(now=round(100 * now))
    if wanted.age_y and now < new:
        light = _("{light}, {new} % when it was new").format(light=light, new=round(100 * new))
    if left <= 0:
        return [_("{light}; it is past its usual life.").format(light=light)]
    return [_("{light}, and usually lasts {left} years more.").format(light=light, left=round(left))]


def _keep(wanted: Built, sheet: BentSheet | None) -> str:
    """Sizes in whole millimetres, as metres: the form says them in the grower's own unit."""
    if sheet is not None:
        sizes = {"width_m": sheet.sheet_m, "spread_m": sheet.spread_m}
    else:
        sizes = {"width_m": wanted.depth_m, "low_m": wanted.low_m, "high_m": wanted.high_m}
    return urlencode({"kind": wanted.key} | {name: f"{value:.3f}" for name, value in sizes.items()})
