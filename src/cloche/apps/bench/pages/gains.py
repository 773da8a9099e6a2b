"""What would heat buy: the ways to go on, side by side."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from math import ceil

from django.utils.translation import gettext as _

from cloche.apps.bench import texts
from cloche.apps.bench.selectors import heat_on
from cloche.apps.forecasts.inputs import build_inputs
from cloche.apps.forecasts.models import ModelSnapshot
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.shared import clock, words
from cloche.apps.sowings.flows import followed
from cloche.apps.sowings.models import Sowing
from cloche.apps.sowings.selectors import sowings_in
from cloche.apps.work.turns import run_low_priority
from cloche.bridge.services import crops
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche_engine.crops.catalogue import Crop
from cloche_engine.queries import HeatGain, HeatQuery, OutdatedSnapshot

HEAT_GAINS = "cloche_engine.api:heat_gains"
GOOD, NEAR_D, TELLS_OF_100 = 0.8, 3.0, 10
"""Share of the most that can come up that is good enough: heat that saves a fifth of the seed is worth it (common practice, no
source). So many days more that nobody heats for, and more seedlings of 100 that are worth a word."""
NO_HEAT = ("nothing", "lid")


@dataclass(frozen=True)
class GainRow:
    """A heating option as table cells; `best` marks the recommended one."""

    name: str
    roots: str
    half: str
    share: str
    energy_half: str
    energy_all: str
    best: bool


@dataclass(frozen=True)
class GainsPage:
    """Context of bench/_gains.html; `waiting` is the reason if there is no answer yet."""

    headline: str
    sub: str
    rows: list[GainRow]
    waiting: str = ""
    worth: str = ""


@dataclass(frozen=True)
class Costs:
    """What a grower pays: for so many seeds together, and for a mat that is yet to be bought. None where not entered."""

    seeds: int | None = None
    seed_price: float | None = None
    mat_price: float | None = None


def gains_page(place: Place, crop_key: str, sowing: Sowing | None, costs: Costs, units: Units) -> GainsPage:
    """Ask the engine about heating options."""
    garden, snapshot = place.garden, ModelSnapshot.objects.filter(place=place).first()
    wait = _("Working out the answer for {name}… It will appear here.").format(name=place.name)
    if snapshot is None:
        return GainsPage("", "", [], wait)

    today = clock.today(garden.timezone)
    sowings = list(sowings_in(garden))
    sown = None
    if sowing is not None:
        crop_key = sowing.crop_key
        sown = next((batch for batch in followed(place, sowings, today) if batch.number == sowing.pk), None)
    period = heat_on(place, today)
    query = HeatQuery(crop_key, sown, **({"area_m2": period.area_m2} if period else {}))
    try:
        gains = run_low_priority(HEAT_GAINS, bytes(snapshot.packed), build_inputs(place, sowings), query)
    except OutdatedSnapshot:
        return GainsPage("", "", [], wait)
    return _page(garden, crops.crop(crop_key), gains, sowing, costs, units, today)


def waiting_page(text: str) -> GainsPage:
    """Return the page without an answer."""
    return GainsPage("", "", [], text)


def _page(
    garden: Garden, crop: Crop, gains: list[HeatGain], sowing: Sowing | None, costs: Costs, units: Units, today: date
) -> GainsPage:
    best = best_of(crop, gains)
    rows = [_row(gain, units, garden.price_kwh, best=gain is best) for gain in gains]
    since = (
        _("Sown on {day}. Days are counted from that date.").format(day=words.day(sowing.sown_on, today))
        if sowing
        else _("Sown today, with a lid on until the seedlings are up.")
    )
    return GainsPage(
        _headline(crop, gains, best, units), since, rows, worth=_worth(gains, best, costs, garden.price_kwh, units)
    )


def best_of(crop: Crop, gains: list[HeatGain]) -> HeatGain:
    """Return the least heat that is worth it.

    That is no heat where the crop emerges well and not much later, or else the quickest mat for its share of seedlings.
    """
    known = [gain for gain in gains if gain.half_d[1] is not None and gain.share > 0]
    if not known:
        return gains[0]
    soonest = min(gain.half_d[1] or 0.0 for gain in known)
    most = max(gain.share for gain in known)
    patience = NEAR_D if crop.season == "warm" else 5 * NEAR_D
    fit = [gain for gain in known if gain.share >= GOOD * most and (gain.half_d[1] or 0.0) <= soonest + patience]
    return min(fit or known, key=lambda gain: (gain.kwh_half or 0.0, gain.half_d[1] or 0.0))


def _headline(crop: Crop, gains: list[HeatGain], best: HeatGain, units: Units) -> str:
    plain, name = gains[0], words.sentence(crop.name_plural)
    if best.half_d[1] is None:
        return _("{name} would not come up here in any of these ways.").format(name=name)
    days, share = words.count(round(best.half_d[1]), "day", "days"), round(100 * best.share)
    if best.way in NO_HEAT:
        warmest = max(gains, key=lambda gain: gain.share)
        more = round(100 * warmest.share) - share
        text = _("{name} need no heat here: half are up after {days} and {share}% in the end.")
        if more >= TELLS_OF_100:
            text = _(
                "{name} come up without heat: half after {days}, {share}% in the end. With {way}, "
                "{more} more of every 100 would come up."
            )
        elif crop.season == "cool":
            text = _(
                "{name} need no heat here: half are up after {days} and {share}% in the end. On heat they would grow leggy."
            )
        return text.format(name=name, days=days, share=share, way=name_of(warmest, units), more=more)
    way = name_of(best, units)
    if plain.half_d[1] is None:
        return _("{name} need heat: with {way}, half are up after {days} and {share}% in the end.").format(
            name=name, days=days, way=way, share=share
        )
    gained = words.count(round(plain.half_d[1] - best.half_d[1]), "day", "days")
    return _(
        "With {way}, half of the {name} are up after {days}, {gained} sooner. In the end {share}% come up instead of {plain}%."
    ).format(name=crop.name_plural, gained=gained, days=days, way=way, share=share, plain=round(100 * plain.share))


def _worth(gains: list[HeatGain], best: HeatGain, costs: Costs, price_kwh: float | None, units: Units) -> str:
    """Return what heat costs beside the seed that it saves, as far as numbers and prices have been entered."""
    plain = max((gain for gain in gains if gain.way in NO_HEAT), key=lambda gain: gain.share)
    heated = best if best.way not in NO_HEAT else max((gain for gain in gains if gain.duty is not None), key=lambda g: g.share)
    if not costs.seeds or heated.kwh_half is None:
        return ""
    less, more = round(costs.seeds * plain.share), round(costs.seeds * heated.share)
    seeds, way = words.count(costs.seeds, "seed", "seeds"), name_of(heated, units)
    energy = texts.energy_text(heated.kwh_half, price_kwh)
    parts = [
        _("Of {seeds}, about {less} come up without heat and {more} with {way}, which uses {energy} until half are up.").format(
            seeds=seeds, less=less, more=more, way=way, energy=energy
        )
    ]
    if costs.seed_price is not None:
        saved = max(more - less, 0) * costs.seed_price / costs.seeds
        parts.append(_("The seed it saves is worth {saved}.").format(saved=_money(saved)))
        if costs.mat_price is not None and not any(gain.way == "own" for gain in gains):
            parts.append(_pays(costs.mat_price, saved - heated.kwh_half * (price_kwh or 0.0)))
    return " ".join(parts)


def _pays(mat_price: float, gained: float) -> str:
    """Return after how many such sowings a mat has paid for itself in seed."""
    if gained <= 0:
        return _("The mat never pays for itself in seed. It buys time, and seedlings all at once.")
    sowings = words.count(max(ceil(mat_price / gained), 1), "sowing", "sowings")
    return _("A mat at {price} pays for itself in seed after {sowings} like this.").format(
        price=_money(mat_price), sowings=sowings
    )


def _money(amount: float) -> str:
    return number_text(f"{amount:.2f}")


def name_of(gain: HeatGain, units: Units) -> str:
    """Return an option in words."""
    at = "" if gain.set_c is None else units.temperature_text(gain.set_c, 0)
    names = {
        "nothing": _("nothing"),
        "lid": _("a lid, no heat"),
        "mat": _("a mat always on, and a lid"),
        "open": _("a mat always on, without a lid"),
        "self": _("a self-regulating mat, and a lid"),
        "own": _("your heater as it is set, and a lid"),
        "own_open": _("your heater as it is set, without a lid"),
        "low": _("a thermostat at {at}, and a lid").format(at=at),
        "high": _("a thermostat at {at}, and a lid").format(at=at),
        "corner": _("an enclosed corner at {at}").format(at=at),
        "room": _("the whole room at {at}").format(at=at),
    }
    return names[gain.way]


def _row(gain: HeatGain, units: Units, price: float | None, best: bool) -> GainRow:
    low, middle, high = gain.half_d
    if middle is None:
        half = _("never")
    elif low is not None and high is not None and round(low) != round(high):
        days = words.count(round(middle), "day", "days")
        half = _("{days} ({low}–{high})").format(days=days, low=f"{low:.0f}", high=f"{high:.0f}")
    else:
        half = words.count(round(middle), "day", "days")
    energy = [
        "–" if kwh is None else "0" if kwh == 0 else texts.energy_text(kwh, price) for kwh in (gain.kwh_half, gain.kwh_all)
    ]
    return GainRow(
        name=words.sentence(name_of(gain, units)),
        roots=units.temperature_text(gain.roots_c[1], 0),
        half=half,
        share=_("{n}%").format(n=round(100 * gain.share)) if middle is not None else "0",
        energy_half=energy[0],
        energy_all=energy[1],
        best=best,
    )
