"""The covers a garden owns, what was learned of them, and one to build."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from functools import partial
from urllib.parse import urlencode

from django.utils.translation import gettext as _

from cloche.apps.covers.selectors import Owned, owned_in
from cloche.apps.forecasts.inputs import cover_evidence_in
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Cover, CoverDamage, Place
from cloche.apps.shared import words
from cloche.apps.shared.words import lazy
from cloche.apps.weather.models import DailyWeather
from cloche.bridge.services import beds, covers, pooling
from cloche.bridge.services.covers import BentSheet, Box
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche.drawing import under_roof
from cloche_engine.errors import OutOfRange
from cloche_engine.results import CoverEvidence

PLANT_M = 0.15


@dataclass(frozen=True)
class Line:
    """One cover in words."""

    pk: int
    name: str
    what: str
    size: str
    light: str
    cost: str
    where: str
    free: bool


def own_lines(garden: Garden, units: Units, today: date) -> list[Line]:
    """Return all covers of the garden."""
    return [_line(owned, units, today) for owned in owned_in(garden, today)]


def damage_lines(cover: Cover, units: Units, today: date) -> list[tuple[int, str, str]]:
    """Return damage with number, date and a sentence that includes the weather if known."""
    rows = list(cover.damage.all())
    days = {day.day: day for day in cover.garden.weather.filter(day__in=[row.on for row in rows])}
    return [(row.pk, words.day(row.on, today), _happened(row, days.get(row.on), units)) for row in rows]


def _happened(row: CoverDamage, day: DailyWeather | None, units: Units) -> str:
    text = _("{what} by {cause}").format(what=row.get_what_display(), cause=row.get_cause_display())
    if day is not None and row.cause == CoverDamage.Cause.WIND and day.wind_m_s is not None:
        text += _(", in an average wind of {wind}").format(wind=units.wind_text(day.wind_m_s))
    if day is not None and row.cause == CoverDamage.Cause.SNOW and day.snow_m:
        text += _(", under {snow} of snow").format(snow=units.length_text(day.snow_m))
    return f"{text}: {row.note}" if row.note else text


def _line(owned: Owned, units: Units, today: date) -> Line:
    cover = owned.cover
    return Line(
        pk=cover.pk,
        name=cover.name,
        what=covers.name_of(cover.kind),
        size=_size(cover, units),
        light=_light(cover, today),
        cost=_cost(cover),
        where=_where(owned, today),
        free=owned.free_on(today),
    )


def _size(cover: Cover, units: Units) -> str:
    text = _("{length} by {length2}").format(length=units.length_text(cover.length_m), length2=units.length_text(cover.width_m))
    if covers.is_box(cover.kind) and cover.low_m and cover.high_m:
        return _("{size}, {low} high at the front and {high} at the back").format(
            size=text, low=units.length_text(cover.low_m), high=units.length_text(cover.high_m)
        )
    shape = covers.shape(cover.kind, cover.width_m, cover.spread_m)
    if shape is None:
        return text
    wide = units.length_text(shape.plantable_m(PLANT_M))
    plants = (
        _("room for plants of {length} over {wide}").format(length=units.length_text(PLANT_M), wide=wide)
        if shape.height_m > PLANT_M
        else _("too low for plants")
    )
    return _("{text}, set {length} apart: {length2} high, {plants}").format(
        text=text, length=units.length_text(shape.spread_m), length2=units.length_text(shape.height_m), plants=plants
    )


def _light(cover: Cover, today: date) -> str:
    age = None if cover.purchase_year is None else max(0, today.year - cover.purchase_year)
    share = _("lets {light}% of the sun through").format(
        light=f"{covers.light(cover.kind, float(age or 0), cover.dirty) * 100:.0f}"
    )
    if age is None:
        return _("age not entered, {share}").format(share=share)
    left = covers.lasts_y(cover.kind) - age
    if left <= 0:
        old = _("past its usual life")
    else:
        old = _("{years} old").format(years=words.count(age, "year", "years")) if age else _("new")
    return f"{old}, {share}"


def _cost(cover: Cover) -> str:
    if cover.price is None:
        return ""
    return _("{price} per season over {lasts_y} years").format(
        price=number_text(f"{cover.price / covers.lasts_y(cover.kind):.2f}"),
        lasts_y=number_text(f"{covers.lasts_y(cover.kind):.0f}"),
    )


def _where(owned: Owned, today: date) -> str:
    period = owned.period
    if period is None:
        return _("free")
    if period.first > today:
        return _("goes on {name} {day}").format(name=period.place.name, day=words.day(period.first, today))
    return _("on {name}").format(name=period.place.name) + (
        "" if period.last is None else _(" to {day}").format(day=words.day(period.last, today))
    )


OF_ONE = {
    "light": (lazy("lets through more light than usual"), lazy("lets through less light than usual")),
    "exchange": (lazy("leaks more than usual"), lazy("is tighter than usual")),
    "loss": (lazy("keeps less warmth at night than usual"), lazy("keeps more warmth at night than usual")),
}
OF_MANY = {
    "light": (lazy("let through more light than usual"), lazy("let through less light than usual")),
    "exchange": (lazy("leak more than usual"), lazy("are tighter than usual")),
    "loss": (lazy("keep less warmth at night than usual"), lazy("keep more warmth at night than usual")),
}
WOULD = {
    "light": lazy("let through {times} times the light that others of its kind do"),
    "exchange": lazy("leak {times} times as much as others of its kind"),
    "loss": lazy("let out {times} times the warmth that others of its kind do at night"),
}
QUESTIONS = {
    "light": lazy("Is it dirtier, older or more shaded than you entered?"),
    "exchange": lazy("Is it opened and closed as you entered, with its ends closed?"),
    "loss": lazy("Is it the kind that you entered, and is the thermometer among the plants, out of the sun?"),
}


def learned_lines(garden: Garden) -> list[str]:
    """Return covers and kinds that clearly differ from the usual, then places with questions."""
    stored = cover_evidence_in(garden)
    evidence = [evidence for _unused, evidence in stored]
    names = dict(garden.covers.values_list("pk", "name"))
    lines = [_of_one(factor, *stored[factor.number or 0], names) for factor in pooling.of_each(evidence)]
    lines += [_of_kind(factor) for factor in pooling.of_kinds(evidence)]
    return lines + [line for place, evidence in stored for line in _questions(place, evidence)]


def _of_one(factor: pooling.PooledFactor, place: Place, evidence: CoverEvidence, names: dict[int, str]) -> str:
    who = (names.get(evidence.item) if evidence.item is not None else None) or _("The {name_of} on {name}").format(
        name_of=covers.name_of(factor.key), name=place.name
    )
    return f"{who} {OF_ONE[factor.name][factor.middle < 1]} ({_times(factor)})."


def _of_kind(factor: pooling.PooledFactor) -> str:
    agree = _("{count} agree").format(count=words.count(factor.places, "place", "places"))
    return _("All your covers of the kind “{name_of}” {of_many} ({times}): {agree}.").format(
        name_of=covers.name_of(factor.key), of_many=OF_MANY[factor.name][factor.middle < 1], times=_times(factor), agree=agree
    )


def _times(factor: pooling.PooledFactor) -> str:
    return _("{middle} times (between {low} and {high} eight times in ten)").format(
        middle=number_text(f"{factor.middle:.1f}"), low=number_text(f"{factor.low:.1f}"), high=number_text(f"{factor.high:.1f}")
    )


def _questions(place: Place, evidence: CoverEvidence) -> list[str]:
    """Return questions about values that are further from the usual than is plausible."""
    name = covers.name_of(evidence.key)
    kept = _("That is hardly possible, so Cloche uses the readings only within the believable range.")
    return [
        _("Going by the readings in {name}, the {name2} would {format}. {kept} {question}").format(
            name=place.name,
            name2=name,
            format=WOULD[factor].format(times=number_text(f"{times:.1f}")),
            kept=kept,
            question=QUESTIONS[factor],
        )
        for factor, times in pooling.beyond_belief(evidence)
    ]


STEEP_GAIN = 1.05


@dataclass(frozen=True)
class Built:
    """A cover to be built [m, °, years].

    Of a sheet: width, distance of its edges (None to find it), strip and height of the plants. Of a box: depth, heights and
    how far it faces away from the noon sun. Also the height of a prop, and age.
    """

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
    """Context of covers/_building.html: sentences, and `keep` as a link to the form of the garden's own covers."""

    headline: str
    lines: list[str]
    picture: under_roof.UnderRoof | None
    keep: str


def building_page(wanted: Built, latitude_deg: float, units: Units) -> BuildingPage:
    """Return how to build one cover."""
    page = _bent(wanted, units) if covers.bends(wanted.key) else _box(wanted, latitude_deg, units)
    return BuildingPage(page.headline, [*page.lines, *_common(wanted)], page.picture, page.keep)


def _rough(units: Units, length_m: float) -> str:
    """Return a length rounded to the centimetre, because nobody places an edge more precisely."""
    return units.length_text(round(length_m, 2))


def _bent(wanted: Built, units: Units) -> BuildingPage:
    length = partial(_rough, units)
    strip, plants = length(wanted.strip_m), length(wanted.plant_m)
    sheet_m = wanted.sheet_m or covers.narrowest(wanted.strip_m, wanted.plant_m)
    try:
        sheet = covers.bent_over(sheet_m, wanted.strip_m, wanted.plant_m, wanted.spread_m)
    except OutOfRange as refusal:
        return BuildingPage(str(refusal), [], None, "")
    if sheet is None:
        tallest = covers.tallest_over(sheet_m, wanted.strip_m)
        wider = covers.narrowest(wanted.strip_m, wanted.plant_m)
        lines = [_("It needs a sheet {wider} wide.").format(wider=length(wider))]
        if tallest > 0:
            lines.append(_("Under this one, plants over that strip can grow {tallest} tall.").format(tallest=length(tallest)))
        text = _("A sheet {sheet} wide leaves no room for plants {plants} tall over {strip}.")
        return BuildingPage(text.format(sheet=length(sheet_m), plants=plants, strip=strip), lines, None, "")
    text = _("Set the edges of a sheet {sheet} wide {spread} apart. It will be {height} high.")
    headline = text.format(sheet=length(sheet_m), spread=length(sheet.spread_m), height=length(sheet.height_m))
    return BuildingPage(headline, _bent_lines(sheet, plants, units), _arch(sheet, wanted), _keep(wanted, sheet))


def _bent_lines(sheet: BentSheet, plants: str, units: Units) -> list[str]:
    if sheet.plantable_m <= 0:
        room = _("Plants {plants} tall touch the cover everywhere.").format(plants=plants)
    else:
        room = _("Plants {plants} tall have room over {wide}.").format(plants=plants, wide=_rough(units, sheet.plantable_m))
    snow = _(
        "It carries {share}% of the snow that the same sheet carries as a half circle. The wider it is "
        "set, the sooner it sags, so brush snow off."
    ).format(share=round(100 * sheet.snow))
    return [room, snow]


def _arch(sheet: BentSheet, wanted: Built) -> under_roof.UnderRoof:
    stands = [(_("plants"), 0.5, [wanted.plant_m])]
    return under_roof.under_roof(sheet.height_m, 0.0, "arch", stands)


def _box(wanted: Built, latitude_deg: float, units: Units) -> BuildingPage:
    box = covers.box_of(wanted.depth_m, wanted.low_m, wanted.high_m, latitude_deg, wanted.away_deg)
    length = partial(_rough, units)
    if wanted.high_m <= wanted.low_m:
        headline = _("The lid is level, {height} above the soil, so rain and snow stay on it.").format(
            height=length(wanted.high_m)
        )
    else:
        headline = _("The lid slopes by {slope}°. In the middle it is {mean} above the soil.").format(
            slope=round(box.slope_deg), mean=length(box.mean_m)
        )
    room = beds.Room(wanted.high_m, wanted.low_m, wanted.depth_m, "lean")
    wide = next((x / 100 for x in range(101) if room.height_m(wanted.depth_m * x / 100) >= wanted.plant_m), None)
    lines = [_room_words(wide, wanted, units), *_sun_words(box)]
    share = covers.propped(wanted.prop_m)
    if wanted.prop_m > 0:
        lines.append(
            _("Propped on {prop}, it is open to {share}% of its full opening.").format(
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
    return _("Plants {plants} tall have room over {wide} at the back.").format(plants=plants, wide=wide)


def _sun_words(box: Box) -> list[str]:
    """Return the effect of the slope on the light."""
    if box.winter is None:
        return [_("The noon sun in midwinter is too low here to matter.")]
    if box.winter < STEEP_GAIN:
        return [_("In midwinter it receives no more noon sun than a level lid.")]
    text = _(
        "At noon in midwinter it receives {winter} times the direct sun of a level lid, and at the equinox {spring} times."
    )
    return [text.format(winter=number_text(f"{box.winter:.1f}"), spring=number_text(f"{box.spring or 0.0:.1f}"))]


def _common(wanted: Built) -> list[str]:
    now, new, left = covers.lasts(wanted.key, wanted.age_y)
    light = _("It lets {now}% of the sun through").format(now=round(100 * now))
    if wanted.age_y and now < new:
        light = _("{light}, {new}% when it was new").format(light=light, new=round(100 * new))
    if left <= 0:
        return [_("{light}. It is past its usual life.").format(light=light)]
    return [_("{light}, and usually lasts {left} more years.").format(light=light, left=round(left))]


def _keep(wanted: Built, sheet: BentSheet | None) -> str:
    """Return the measurements in metres to the millimetre; the form shows them in the grower's unit."""
    if sheet is not None:
        sizes = {"width_m": sheet.sheet_m, "spread_m": sheet.spread_m}
    else:
        sizes = {"width_m": wanted.depth_m, "low_m": wanted.low_m, "high_m": wanted.high_m}
    return urlencode({"kind": wanted.key} | {name: f"{value:.3f}" for name, value in sizes.items()})
