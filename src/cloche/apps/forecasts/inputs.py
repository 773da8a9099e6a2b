"""Everything that a place’s forecast rests on, as the engine takes it."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import fields
from datetime import date, datetime, time, timedelta

from django.db.models import Q

from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.language import speak_for
from cloche.apps.gardens.models import Garden
from cloche.apps.loggers.selectors import HourPoint, hours_between, hours_in
from cloche.apps.places.flows import note_change_at
from cloche.apps.places.models import Cover, CoverPeriod, HeatPeriod, Hotbed, HotbedTray, Lamp, Place
from cloche.apps.places.models import RoomAir as RoomAirRow
from cloche.apps.plants.models import Planting
from cloche.apps.plants.selectors import learned_limits, set_out_at
from cloche.apps.readings.pages import air_under
from cloche.apps.seed import selectors as packets
from cloche.apps.shared import clock
from cloche.apps.sowings.flows import pace_of, stand_of
from cloche.apps.sowings.models import Sowing
from cloche.bridge.services import crops, hotbeds, pooling
from cloche_engine.inputs import (
    Build,
    CoverSpan,
    Description,
    ForecastInputs,
    HeatSpan,
    LampSpan,
    OnHotbed,
    Operation,
    RoomAir,
    SetOut,
    Under,
    WindowPane,
)
from cloche_engine.plants.stature import SET_OUT_M
from cloche_engine.results import CoverEvidence

WORTH_PASSING_ON = 0.2
"""Change of a factor's logarithm from which the garden's other covers of the kind are worked out anew at once; else it counts
from the next day (assumption)."""
NOTHING = (0.0, 0.0)


def cover_evidence_elsewhere(place: Place) -> list[CoverEvidence]:
    """Return what the garden's other places show about their covers (see bridge.services.pooling)."""
    others = Forecast.objects.filter(place__garden=place.garden_id, place__removed_at__isnull=True).exclude(place=place)
    return [evidence for evidence in others.order_by("place_id").values_list("cover_evidence", flat=True) if evidence]


def with_known(spans: list[CoverSpan], place: Place) -> list[CoverSpan]:
    """Return covers with what other places show about them."""
    evidence = cover_evidence_elsewhere(place)
    return [pooling.with_known(span, evidence) for span in spans] if evidence else spans


def cover_evidence_in(garden: Garden) -> list[tuple[Place, CoverEvidence]]:
    """Return every place with evidence about its cover."""
    rows = Forecast.objects.filter(place__garden=garden, place__removed_at__isnull=True, cover_evidence__isnull=False)
    # The rest of a forecast is large and of no concern here.
    rows = rows.select_related("place").defer("ground", "frosts", "nights", "watch")
    evidence = ((row.place, row.cover_evidence) for row in rows.order_by("place__walking_order"))
    return [(place, known) for place, known in evidence if known]


def pass_on(place: Place, before: CoverEvidence | None, after: CoverEvidence | None) -> None:
    """Update other places under covers of this kind, if it makes a difference."""
    keys = {evidence.key for evidence in (before, after) if evidence}
    if not keys or not _moved(before, after):
        return
    for other in _under_kinds(place, keys, clock.today(place.garden.timezone)):
        note_change_at(other)


def _moved(before: CoverEvidence | None, after: CoverEvidence | None) -> bool:
    """Return whether evidence changed by more than a little and more than its own uncertainty.

    Otherwise two places with little evidence would update each other forever.
    """
    old, new = (evidence.factors if evidence else {} for evidence in (before, after))
    if before and after and before.key != after.key:
        return True
    pairs = [(old.get(name, NOTHING), new.get(name, NOTHING)) for name in {*old, *new}]
    return any(abs(was - now) > max(WORTH_PASSING_ON, doubt) for (was, _), (now, doubt) in pairs)


def _under_kinds(place: Place, keys: set[str], today: date) -> list[Place]:
    current = Q(cover_periods__cover__in=keys) & (Q(cover_periods__last__isnull=True) | Q(cover_periods__last__gte=today))
    return list(Place.objects.filter(current, garden=place.garden_id, removed_at__isnull=True).exclude(pk=place.pk).distinct())


OF_HOTBED = ("heat", "rise", "fade")
"""What a hotbed's readings teach of its make-up."""


def build_inputs(place: Place, sowings: list[Sowing]) -> ForecastInputs:
    """Return the inputs of a place. `sowings` are the garden's, from which the pace of its soil is estimated."""
    speak_for(place.garden)
    garden, choices = place.garden, packets.choices_of(place.garden)
    today = clock.today(garden.timezone)
    shaded = None if place.shaded_from_h is None or place.shaded_to_h is None else (place.shaded_from_h, place.shaded_to_h)
    return ForecastInputs(
        kind=place.kind,
        seed_depth_m=place.seed_depth_m,
        latitude_deg=garden.latitude_deg,
        longitude_deg=garden.longitude_deg,
        elevation_m=garden.elevation_m,
        timezone=garden.timezone,
        today=today,
        readings=[],
        weather=[],
        typed_normals=_typed_normals(garden),
        seed=garden.pk,
        description=Description(place.texture, place.slope_deg, place.aspect_deg, shaded, place.width_m, place.within),
        covers=with_known([span_of(period, today) for period in place.cover_periods.select_related("item")], place),
        operations=[Operation(operation.work, operation.at, operation.amount) for operation in place.operations.all()],
        crops=() if _is_bare_heap(place) else crops.with_winter_kinds(garden.crops),
        values=packets.values_in_use(garden),
        methods={key: choice.method for key, choice in choices.items() if choice.method},
        own=garden.own_crops,
        sowing_rule=garden.sowing_rule,
        sowing_rules={key: choice.sowing_rule for key, choice in choices.items() if choice.sowing_rule},
        field_factor=pace_of(sowings),
        stand=stand_of(sowings),
        watered=garden.watered,
        hotbed=_hotbed(place),
        bring_in_c=garden.bring_in_c,
        fills=_fills(place),
        matted_until=place.hotbed.matted_until if _hotbed(place) else None,
        below=_below(place, sowings),
        heat=tuple(heat_span(period) for period in place.heat_periods.all()),
        room=RoomAir(place.room.kind, place.room.night_c, place.room.day_c) if place.room else None,
        pane=_pane(place),
        lamps=tuple(lamp_span(lamp) for lamp in place.lamps.all()),
        limits=learned_limits(garden),
        set_out=tuple(_set_out(planting) for planting in set_out_at(place, today) if planting.sowing_id is None),
        away=None if garden.away_from_h is None or garden.away_to_h is None else (garden.away_from_h, garden.away_to_h),
    )


def _below(place: Place, sowings: list[Sowing]) -> tuple[OnHotbed, ...]:
    """Return the hotbeds on which it stands; none for a hotbed, because two could otherwise require each other."""
    stays = place.on_hotbeds.filter(hotbed__removed_at__isnull=True, hotbed__kind="hotbed")
    return () if place.kind == "hotbed" else tuple(_on_hotbed(stay, sowings) for stay in stays)


def _on_hotbed(stay: HotbedTray, sowings: list[Sowing]) -> OnHotbed:
    """Return the hotbed below a tray with the parameters learned from its own readings."""
    known = Forecast.objects.filter(place=stay.hotbed).first()
    learned = known.ground.parameters if known and known.ground else {}
    factors = {name: learned[name][1] for name in OF_HOTBED if name in learned}
    return OnHotbed(build_inputs(stay.hotbed, sowings), factors, stay.first, stay.last)


def heat_span(period: HeatPeriod) -> HeatSpan:
    """Return a heat source with its dates."""
    own = {f.name for f in fields(HeatSpan)} - {"watts", "spans"}
    spans = tuple((float(start), float(end)) for start, end in period.spans)
    return HeatSpan(watts=period.power_w, spans=spans, **{name: getattr(period, name) for name in own})


def lamp_span(lamp: Lamp) -> LampSpan:
    """Return a lamp with its dates."""
    own = {f.name for f in fields(LampSpan)} - {"spans"}
    return LampSpan(tuple((float(start), float(end)) for start, end in lamp.spans), **{n: getattr(lamp, n) for n in own})


def _set_out(planting: Planting) -> SetOut:
    """Return plants that were set out, with their last measured height."""
    measured = [event for event in planting.events.all() if event.height_m is not None]
    height = measured[-1].height_m if measured else planting.height_m
    return SetOut(
        planting.crop_key,
        planting.planted_on,  # type: ignore[arg-type]
        height or SET_OUT_M,
        measured[-1].on if measured else None,
        planting.origin == Planting.Origin.OVERWINTERED,
    )


def _pane(place: Place) -> WindowPane | None:
    if place.window_aspect_deg is None:
        return None
    return WindowPane(place.window_aspect_deg, place.window_shade, place.window_away_m)


def span_of(period: CoverPeriod, today: date) -> CoverSpan:
    """Return a cover's time on a bed with its age and bend."""
    described = cover_description(period.item, today)
    own = {f.name for f in fields(CoverSpan)} - {"key", "known", *described}
    described["length_m"] = period.covered_m or described["length_m"]
    return CoverSpan(period.cover, **{name: getattr(period, name) for name in own}, **described)  # type: ignore[arg-type]


def cover_description(item: Cover | None, today: date) -> dict[str, float | bool | None]:
    """Return the description of one of the garden's covers."""
    if item is None:
        sizes = dict.fromkeys(("length_m", "sheet_m", "spread_m", "low_m", "high_m"))
        return {"age_y": 0.0, "dirty": False, **sizes, "item": None}
    age = 0 if item.purchase_year is None else max(0, today.year - item.purchase_year)
    return {
        "age_y": float(age),
        "dirty": item.dirty,
        "length_m": item.length_m,
        "sheet_m": item.width_m,
        "spread_m": item.spread_m,
        "low_m": item.low_m,
        "high_m": item.high_m,
        "item": item.pk,
    }


def _hotbed(place: Place) -> tuple[Build, date, date | None] | None:
    bed = Hotbed.objects.filter(place=place).first() if place.kind == "hotbed" else None
    if bed is None:
        return None
    build = Build(bed.material, bed.depth_m, bed.length_m, bed.width_m, bed.moist, bed.trodden, bed.insulated, bed.soil_m)
    return build, bed.filled_on, bed.topped_up_on


NOON, SOWABLE_M = time(12), 0.03
"""Least depth of soil on a hotbed for sowing into it [m]; with less, only trays stand on it."""


def _is_bare_heap(place: Place) -> bool:
    built = _hotbed(place)
    return built is not None and built[0].soil_m < SOWABLE_M


def core_readings(place: Place, since: datetime) -> list[tuple[int, datetime, float, float]]:
    """Return core temperatures of a hotbed as readings at the depth of its heat, with negative numbers of their own."""
    built = _hotbed(place)
    if built is None:
        return []
    depth_m, zone = hotbeds.core_m(built[0]), place.garden.timezone
    notes = place.hotbed_notes.filter(core_c__isnull=False, on__gte=since.date())
    cores = ((note, datetime.combine(note.on, NOON, tzinfo=zone)) for note in notes)
    return [(-note.pk, at, depth_m, note.core_c) for note, at in cores if note.core_c is not None]


def _fills(place: Place) -> tuple[tuple[Build, date], ...]:
    """Return further fillings of a hotbed with the sides and soil of the first."""
    bed = Hotbed.objects.filter(place=place).first() if place.kind == "hotbed" else None
    if bed is None:
        return ()
    return tuple(
        (
            Build(
                hotbed_fill.material,
                hotbed_fill.depth_m,
                bed.length_m,
                bed.width_m,
                hotbed_fill.moist,
                hotbed_fill.trodden,
                bed.insulated,
                bed.soil_m,
            ),
            hotbed_fill.on,
        )
        for hotbed_fill in place.hotbed_fills.filter(on__gt=bed.filled_on)
    )


def _typed_normals(garden: Garden) -> tuple[list[float], list[float]] | None:
    lows, highs = garden.normal_lows_c, garden.normal_highs_c
    return (lows, highs) if lows and highs else None


EVERY_H, MOST_HOURS = 3, 80
"""Of a logger in the air every third hour tells as much as every one: the others err with it."""

Source = Callable[[Place, datetime], Iterable[Under]]

SOURCES: list[Source] = []
"""Rooms that know only of this one and those before it add what they know, when the application starts."""


def seen_under(place: Place, since: datetime) -> tuple[Under, ...]:
    """Return all observations since an instant, oldest first."""
    measured = [
        *air_under(place, since),
        *_logged(place, since),
        *_in_room(place, since),
        *(reading for source in SOURCES for reading in source(place, since)),
    ]
    return tuple(sorted(measured, key=lambda reading: reading.at))


def _logged(place: Place, since: datetime) -> list[Under]:
    """Return the latest hours of loggers in the air there."""
    return _some("air", hours_between([place.pk], since, clock.now(), in_air=True))


def _some(what: str, hours: list[HourPoint]) -> list[Under]:
    some = [hour for hour in hours if hour.taken_at.hour % EVERY_H == 0][-MOST_HOURS:]
    return [Under(what, hour.taken_at, hour.taken_at, hour.temperature_c) for hour in some]


def _in_room(place: Place, since: datetime) -> list[Under]:
    """Return air readings and logged air of the room in which it stands."""
    if place.room is None:
        return []
    rows = place.room.air.filter(at__gte=since).order_by("at")
    read = [Under(row.what, row.at, row.since or row.at - timedelta(days=1), row.temperature_c) for row in rows]
    return read + _some(RoomAirRow.What.NOW, hours_in(place.room, since, clock.now()))
