"""A trial of a cover, page by page: the answer, its pairs, and what came up in both beds."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from math import isfinite
from typing import TYPE_CHECKING

from django.utils.translation import gettext as _

from cloche.apps.covers.models import CoverTrial
from cloche.apps.covers.selectors import pairs_before, pairs_of, trials_in
from cloche.apps.covers.trial_forms import ALIKE
from cloche.apps.forecasts import selectors as windows
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.places.selectors import cover_on
from cloche.apps.shared import words
from cloche.apps.sowings.models import Sowing
from cloche.apps.sowings.selectors import sowings_in
from cloche.bridge.services import crops, pairing
from cloche.bridge.services.pairing import Pair
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units
from cloche.drawing import pairs as drawing

if TYPE_CHECKING:
    from cloche.bridge.services.trials import Half

TOGETHER_D = 3
"""Sowings of a crop in both beds within so many days are compared."""


def emergence_lines(trial: CoverTrial) -> list[str]:
    """Return by crop the time to half emergence and the emerged fraction, covered and bare."""
    beds = (trial.covered, trial.bare)
    rows = sowings_in(trial.covered.garden).filter(
        place__in=beds, sown_on__gte=trial.begun_on - timedelta(days=TOGETHER_D), counts__isnull=False
    )
    if trial.ended_on:
        rows = rows.filter(sown_on__lte=trial.ended_on)
    made = list(rows.distinct())
    lines = {}
    for covered in (sowing for sowing in made if sowing.place_id == trial.covered_id):
        bare = next((sowing for sowing in made if sowing.place_id == trial.bare_id and _together(covered, sowing)), None)
        if bare is not None and covered.crop_key not in lines:
            lines[covered.crop_key] = _line(covered, bare)
    return [lines[key] for key in sorted(lines, key=lambda key: crops.crop(key).name)]


def _together(sowing: Sowing, other: Sowing) -> bool:
    return sowing.crop_key == other.crop_key and abs((sowing.sown_on - other.sown_on).days) <= TOGETHER_D


def _line(covered: Sowing, bare: Sowing) -> str:
    name = crops.crop(covered.crop_key).name_plural.capitalize()
    text = _("{name}: half up after {covered} under the cover, {bare} without").format(
        name=name, covered=_half(covered), bare=_half(bare)
    )
    shares = [_share(sowing) for sowing in (covered, bare)]
    if all(shares):
        text += _("; of every 100 seeds sown, {covered} came up under the cover and {bare} without").format(
            covered=shares[0], bare=shares[1]
        )
    return text + "."


def _half(sowing: Sowing) -> str:
    half = _days_to_half(sowing)
    if half is None:
        return _("an unknown time")
    days = words.count(round(half.days), "day", "days")
    if not isfinite(half.high):
        return days
    return _("{days} ({low} to {high})").format(days=days, low=f"{half.low:.0f}", high=f"{half.high:.0f}")


def _days_to_half(sowing: Sowing) -> Half | None:
    from cloche.bridge.services.trials import days_to_half

    return days_to_half(sowing.sown_on, [(count.on, count.up) for count in sowing.counts.all()])


def _share(sowing: Sowing) -> str:
    from cloche.bridge.services.trials import share_up

    up = max((count.up for count in sowing.counts.all()), default=0)
    if not sowing.seeds or up > sowing.seeds:
        return ""
    share = share_up(up, sowing.seeds)
    return _("{share} ({low} to {high})").format(
        share=f"{100 * share.share:.0f}", low=f"{100 * share.low:.0f}", high=f"{100 * share.high:.0f}"
    )


if TYPE_CHECKING:
    from cloche.bridge.services.trials import Difference, TrialResult


@dataclass(frozen=True)
class TrialLine:
    """A trial in the list."""

    trial: CoverTrial
    text: str


@dataclass(frozen=True)
class TrialPage:
    """Context of covers/trial.html."""

    trial: CoverTrial
    headline: str
    sub: str
    settles: str
    teaches: str
    missing: list[str]
    drawing: drawing.Pairs | None
    emergence: list[str]
    others: list[TrialLine]
    pairs: list[tuple[str, str, str, str]]


def trial_lines(garden: Garden, units: Units) -> list[TrialLine]:
    """Return all trials with their result so far."""
    return _lines(trials_in(garden), units)


def _beside(trial: CoverTrial, units: Units) -> list[TrialLine]:
    """Return other covers tried against the same bare bed at the same time, in order of their start."""
    others = [other for other in trials_in(trial.covered.garden) if other.bare_id == trial.bare_id and other.pk != trial.pk]
    last = trial.ended_on or date.max
    return _lines(
        [other for other in others if other.begun_on <= last and (other.ended_on or date.max) >= trial.begun_on], units
    )


def _lines(trials: list[CoverTrial], units: Units) -> list[TrialLine]:
    from cloche.bridge.services.trials import trial_result

    lines = []
    for trial in trials:
        result = trial_result(_days(trial, pairs_of(trial)), _days(trial, pairs_before(trial)))
        lines.append(TrialLine(trial, _answer(trial, result.difference, units)))
    return lines


def measured_on(place: Place, units: Units) -> dict[str, str]:
    """Return what trials on a bed measured of its covers, by key of the cover.

    Each text states depth and hours, because the mean of day and night is a different number. The latest trial of each cover
    counts.
    """
    from cloche.bridge.services.trials import trial_result

    measured = {}
    for trial in sorted(place.trials_covered.select_related("covered", "bare"), key=lambda trial: trial.begun_on):
        pairs, cover = pairs_of(trial), cover_on(place, trial.begun_on)
        answer = trial_result(_days(trial, pairs), _days(trial, pairs_before(trial))).difference
        if cover is None or answer is None or not isfinite(answer.low_k):
            continue
        times = sorted(pair.at.astimezone(place.garden.timezone).time() for pair in pairs)
        first, last = words.clock(times[0]), words.clock(times[-1])
        measured[cover.key] = _("Your own trial here measured {difference} at {depth} {hours}, on {days}.").format(
            difference=_difference(answer.mean_k, units),
            depth=units.length_text(trial.depth_m),
            hours=_("at {first}").format(first=first)
            if first == last
            else _("between {first} and {last}").format(first=first, last=last),
            days=words.count(answer.days, "day", "days"),
        )
    return measured


def _difference(value_k: float, units: Units) -> str:
    way = _("warmer") if value_k >= 0 else _("colder")
    return _("{size} {way}").format(size=units.difference_text(abs(value_k)), way=way)


def trial_page(trial: CoverTrial, units: Units, today: date) -> TrialPage:
    """Return everything known about one trial."""
    from cloche.bridge.services.trials import trial_result

    pairs, zone = pairs_of(trial), trial.covered.garden.timezone
    days = _days(trial, pairs)
    answer = trial_result(days, _days(trial, pairs_before(trial)))
    latest = [
        (
            f"{words.day(local.date(), today)} {words.clock(local)}",
            units.temperature_text(pair.covered_c),
            units.temperature_text(pair.bare_c),
            units.difference_text(pair.warmer_k),
        )
        for pair in pairs[-8:][::-1]
        if (local := pair.at.astimezone(zone))
    ]
    return TrialPage(
        trial=trial,
        headline=_answer(trial, answer.difference, units),
        sub=_sub(trial, pairs, len(days), units, today),
        settles=f"{_settles(answer, units)}{_baseline(answer, units)}{_astray(answer.slips, today)}",
        teaches=_teaches(trial, pairs, answer, units),
        missing=[name for key, name in ALIKE if key not in trial.alike],
        drawing=_drawn(days, answer.difference, units),
        emergence=emergence_lines(trial),
        others=_beside(trial, units),
        pairs=latest,
    )


def _answer(trial: CoverTrial, result: Difference | None, units: Units) -> str:
    names = _("{name} compared with {name2}").format(name=trial.covered.name, name2=trial.bare.name)
    if result is None:
        return _("{names}: no pairs of readings yet.").format(names=names)
    difference = _difference(result.mean_k, units)
    if not isfinite(result.low_k):
        return _("{names}: {difference} so far, on {count}. This is not conclusive yet.").format(
            names=names, difference=difference, count=words.count(result.days, "day", "days")
        )
    ends = _("{difference} to {difference2}").format(
        difference=units.difference_text(result.low_k), difference2=units.difference_text(result.high_k)
    )
    sure = "" if result.settled else _(", so there may be no difference")
    return _("{names}: {difference} ({ends}, 95% certain){sure}.").format(
        names=names, difference=difference, ends=ends, sure=sure
    )


def _sub(trial: CoverTrial, pairs: list[Pair], days: int, units: Units, today: date) -> str:
    until = _("to {day}").format(day=words.day(trial.ended_on, today)) if trial.ended_on else _("and still running")
    text = _("{count} on {count2}, at {length}").format(
        count=words.count(len(pairs), "pair", "pairs"),
        count2=words.count(days, "day", "days"),
        length=units.length_text(trial.depth_m),
    )
    return _("{text}, since {day} {until}.").format(text=text, day=words.day(trial.begun_on, today), until=until)


def _settles(answer: TrialResult, units: Units) -> str:
    from cloche.bridge.services.trials import TO_K

    if answer.difference is None or not isfinite(answer.difference.low_k):
        return _("Cloche needs pairs of readings from three days to say how many more are needed.")
    half = units.difference_text(TO_K)
    if answer.to_width == 0:
        return _("The difference is known to within {half}. More days would only make it more exact.").format(half=half)
    width = (
        _("more days than a season has")
        if answer.to_width is None
        else _("about {count}").format(count=words.count(answer.to_width, "more day", "more days"))
    )
    sign = ""
    if not answer.difference.settled:
        more = (
            _("more than a season")
            if answer.to_sign is None
            else _("about {count}").format(count=words.count(answer.to_sign, "more day", "more days"))
        )
        sign = _(" To tell it from no difference at all would take {more}.").format(more=more)
    return _("To know the difference to within {half} would take {width}.{sign}").format(half=half, width=width, sign=sign)


def _days(trial: CoverTrial, pairs: list[Pair]) -> list[tuple[date, float]]:
    return pairing.by_day(pairs, trial.covered.garden.timezone)


def _baseline(answer: TrialResult, units: Units) -> str:
    """Return how warm the bed was before it was covered, which is not an effect of the cover."""
    base = answer.baseline
    if base is None:
        return " " + _("Nobody read both beds before the cover went on. If one was already warmer, the cover gets the credit.")
    if not answer.baseline_counts:
        return " " + _(
            "Only {count} was read before the cover went on. That is too little to compare with, so it is not used."
        ).format(count=words.count(base.days, "day", "days"))
    return " " + _("Before the cover went on, the bed already differed by {difference} on {count}. This is subtracted.").format(
        difference=_difference(base.mean_k, units), count=words.count(base.days, "day", "days")
    )


def _astray(slips: tuple[date, ...], today: date) -> str:
    """Return days whose difference is far from all others, which suggests a mistake."""
    far = [words.day(on, today) for on in slips]
    if not far:
        return ""
    stands = _("is") if len(far) == 1 else _("are")
    return " " + _("{listed} {stands} far from all the others, probably an error, and {left} left out.").format(
        listed=words.listed(far, 3), stands=stands, left=_("is") if len(far) == 1 else _("are")
    )


def _teaches(trial: CoverTrial, pairs: list[Pair], answer: TrialResult, units: Units) -> str:
    """Return what the engine expected in the same hours and how it now rates the cover."""
    covered, bare = windows.ground_of(trial.covered), windows.ground_of(trial.bare)
    if covered is None or bare is None:
        return ""
    within = [p for p in pairs if covered.start <= p.at < covered.end and bare.start <= p.at < bare.end]
    if not within:
        return _("The readings also improve the forecasts of both beds.")
    expected = sum(covered.soil_at(p.at) - bare.soil_at(p.at) for p in within) / len(within)
    warmer_k = sum(p.warmer_k for p in within) / len(within)
    text = _(
        "At these hours of the last three weeks the measured difference was {measured}; the forecast was {expected}."
    ).format(measured=units.difference_text(warmer_k), expected=units.difference_text(expected))
    if answer.baseline_counts:
        text += " " + _("Both figures include the difference before the cover went on.")
    breath = covered.data.parameters.get("exchange")
    if breath is None:
        return text
    low, middle, high = breath
    return _(
        "{text} The result suggests that the cover leaks {middle} times as much air as its kind usually does ({low} to {high})."
    ).format(text=text, middle=number_text(f"{middle:.1f}"), low=number_text(f"{low:.1f}"), high=number_text(f"{high:.1f}"))


def _drawn(days: list[tuple[date, float]], difference: Difference | None, units: Units) -> drawing.Pairs | None:
    if difference is None:
        return None
    ends = (difference.low_k, difference.high_k) if isfinite(difference.low_k) else None
    return drawing.pairs(days, difference.mean_k, ends, lambda value: units.difference_text(value))
