"""A bench as it is planned: drawn to scale, with what it takes and what it will do."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.utils.translation import gettext as _

from cloche.apps.bench.planning_forms import ACROSS
from cloche.apps.places.models import HeatPeriod
from cloche.apps.shared import words
from cloche.bridge.services.bench import Cable, Laid, OutOfRange, PlannedBench, bags, fits, lay, litres, warmth_of
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche.drawing.bench import BenchPlan, bench_plan

NEAR_FULL = 0.8
LEFT_OVER_M = 0.2
"""So much cable does not disappear into wider turns."""


@dataclass(frozen=True)
class BuilderPage:
    """Context of bench/_builder.html: the answer, its lines and drawing; `refused` gives the reason if it cannot be built."""

    headline: str
    takes: list[tuple[str, str]]
    does: list[str]
    plan: BenchPlan | None
    refused: str = ""


def builder_page(data: dict[str, Any], units: Units) -> BuilderPage:
    """Return the page for a valid form."""
    cable = Cable(data["cable_m"], data["cable_w_m"])
    try:
        laid = lay(data["length"], data["width"], cable, data["runs"] == ACROSS)
    except OutOfRange as refusal:
        return BuilderPage("", [], [], None, _(str(refusal)))
    names = ("under", "over", "mix", "filling", "wet", "lid", "room", "hold")
    planned = PlannedBench(*(data[name] for name in names))
    warmth = warmth_of(planned, laid)
    trays, along = fits(data["length"], data["width"], (data["tray_length"], data["tray_width"]))
    room, hold = (units.temperature_text(value, 0) for value in (planned.room_c, planned.hold_c))
    if warmth.duty is None:
        most_c = planned.room_c + warmth.lift_k
        most = units.temperature_text(most_c, 0)
        if most == hold:  # a hair below: with a decimal, or it would contradict itself
            most, hold = units.temperature_text(most_c), units.temperature_text(planned.hold_c)
        headline = _("This cable cannot hold {hold} in a room at {room}. It reaches {most}.").format(
            hold=hold, room=room, most=most
        )
    else:
        headline = _("It holds {hold} in a room at {room} and is on for {share}% of the time.").format(
            hold=hold, room=room, share=f"{100 * warmth.duty:.0f}"
        )
    tray = (data["tray_length"], data["tray_width"])
    plan = bench_plan((data["length"], data["width"]), laid.path, trays, tray if along else (tray[1], tray[0]))
    return BuilderPage(headline, _takes(data, laid, trays, units), _does(data, laid, warmth.lift_k, warmth.hours, units), plan)


def _takes(data: dict[str, Any], laid: Laid, trays: int, units: Units) -> list[tuple[str, str]]:
    filling = str(HeatPeriod.Filling(data["filling"]).label)
    rows = []
    for name, label in (("under", _("{filling} (below)")), ("over", _("{filling} (above)"))):
        wanted = litres(data["length"], data["width"], data[name])
        if wanted:
            number = words.count(bags(wanted, data["bag"]), "bag", "bags")
            text = _("{litres} litres: {bags}").format(litres=f"{wanted:.0f}", bags=number)
            rows.append((words.sentence(label.format(filling=filling)), text))
    spacing, left = units.length_text(laid.spacing_m), units.length_text(laid.left_m)
    text = _("{runs} runs, {spacing} apart, {left} left over").format(runs=laid.runs, spacing=spacing, left=left)
    rows.append((_("Cable"), text))
    load = _("{watts} W, {amperes} A, {m2} W/m²").format(
        watts=number_text(f"{laid.watts:.0f}"),
        amperes=number_text(f"{laid.watts / data['volts']:.2f}"),
        m2=number_text(f"{laid.watts_m2:.0f}"),
    )
    rows.append((_("Load"), load))
    seedlings = round(trays * data["cells"])
    rows.append((_("Trays"), _("{trays} trays, {seedlings} seedlings").format(trays=trays, seedlings=seedlings)))
    return rows


def _does(data: dict[str, Any], laid: Laid, lift_k: float, hours: float, units: Units) -> list[str]:
    lines = [
        _("If always on, it warms the roots {lift} above the room and takes about {hours} to get most of the way.").format(
            lift=units.difference_text(lift_k, 0), hours=words.count(round(hours), "hour", "hours")
        )
    ]
    if laid.left_m >= LEFT_OVER_M:
        lines.append(_left_over(data, laid, units))
    if data["over"] < laid.spacing_m / 2:
        lines.append(
            _("The layer above is thin for runs {spacing} apart, so the trays will have warm stripes. Halve "
              "the spacing to even them out.")
            .format(spacing=units.length_text(laid.spacing_m))
        )  # fmt: skip
    if not data["wet"]:
        lines.append(
            _(
                "Dry material keeps the heat from the trays. Water the layer before you switch the cable on, and "
                "again when it dries out."
            )
        )
    return lines


def _left_over(data: dict[str, Any], laid: Laid, units: Units) -> str:
    """Return what to do with cable that the runs do not take up, and whether the other direction leaves less."""
    text = _(
        "Lay the {left} of cable left over as another loop along the coldest edge. Never shorten a heating cable, and "
        "leave none of it coiled, crossed or in the air."
    ).format(left=units.length_text(laid.left_m))
    try:
        other = lay(data["length"], data["width"], Cable(data["cable_m"], data["cable_w_m"]), data["runs"] != ACROSS)
    except OutOfRange:
        return text
    if other.left_m + LEFT_OVER_M > laid.left_m:
        return text
    turned = _("Laid along the bench, only {left} would be left over.")
    if data["runs"] != ACROSS:
        turned = _("Laid across the bench, only {left} would be left over.")
    return f"{text} {turned.format(left=units.length_text(other.left_m))}"
