"""What a cover would buy: the answer in a sentence, the covers side by side, each with its numbers and its ribbon."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta
from urllib.parse import urlencode

from django.utils.translation import gettext as _

from cloche.apps.covers.pages.trial import measured_on
from cloche.apps.covers.selectors import Owned, owned_in
from cloche.apps.forecasts.inputs import build_inputs, cover_description, span_of, with_known
from cloche.apps.forecasts.models import ModelSnapshot
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.places.selectors import PlaceCover, cover_on, covers_below
from cloche.apps.seed import selectors as packets
from cloche.apps.shared import words
from cloche.apps.sowings.selectors import sowings_in
from cloche.apps.work.turns import run_low_priority
from cloche.bridge.services import covers, crops
from cloche.bridge.values.units import Units
from cloche.drawing import cover_gain as drawing
from cloche.drawing.slice import Slice, slice_of
from cloche_engine.inputs import CoverSpan
from cloche_engine.layout import PROFILE_M
from cloche_engine.queries import CoverGain, ForCrop, OutdatedSnapshot, WhatIfQuery

WHAT_IF = "cloche_engine.api:what_if"
MOST_COVERS, MOST_CROPS = 8, 6
AIRED_ABOVE_C, AIRED_BY = 26.0, 0.4
TELLS_K = 0.3
SHOWN = 2
"""Of PROFILE_M, the depth whose number is drawn."""
FORETOLD_D = 14
"""Days for which a weather service may know better than the usual year."""


@dataclass(frozen=True)
class Offer:
    """A cover that could go on, of the garden or obtainable.

    `span` is the cover for the engine, `item` one of the garden's own, `adds` what is added if the present cover stays.
    """

    name: str
    what: str
    span: CoverSpan
    item: int | None
    busy: str
    adds: str = ""


@dataclass(frozen=True)
class Air:
    """Minimum and maximum air among the plants, as drawn under the cover."""

    low: str
    high: str


@dataclass(frozen=True)
class Row:
    """A cover in words.

    `differs` is its advantage over no cover in a few words, `put_on` the query of the form and `busy` where it is in use.
    """

    name: str
    what: str
    cut: Slice
    number: str
    air: Air
    differs: str
    ribbon: drawing.CoverGain
    gain: str = ""
    ready: str = ""
    up: str = ""
    inside: str = ""
    off: str = ""
    put_on: str = ""
    busy: str = ""


@dataclass(frozen=True)
class WhatIf:
    """Context of covers/_buys.html; `waiting` is the reason if there is no answer yet."""

    headline: str
    sub: str
    bare: Row | None
    rows: list[Row]
    shown_depth: str = ""
    order: str = ""
    waiting: str = ""


@dataclass(frozen=True)
class Question:
    """The question."""

    place: Place
    crop_key: str
    on: date
    warm_d: int
    also: str = ""


def offers(garden: Garden, today: date, on: date, place: Place, also: str = "") -> list[Offer]:
    """Return the garden's own covers first, one of each kind, and then obtainable ones, eight in total.

    The one that was requested is always included.
    """
    own: dict[object, Offer] = {}
    there = cover_on(place, on)
    if there is not None and there.item is None:
        own["there"] = _there(there, today)
    more = covers.with_a_layer_more(there.key) if there is not None and not covers_below(place, on) else {}
    own |= {key: replace(_other(key), what=_("with another layer"), adds=other) for key, other in more.items()}
    for owned in owned_in(garden, today):
        offer = _own(owned, today, on, place)
        alike = replace(offer.span, item=None)
        if alike not in own or (own[alike].busy and not offer.busy):
            own[alike] = offer
    has = {offer.span.key for offer in own.values()}
    query = [_other(also)] if also and also not in has else []
    others = [_other(key) for key in covers.OFTEN if key not in has and key != also]
    room = MOST_COVERS - len(query)
    return [*list(own.values())[:room], *query, *others][:MOST_COVERS]


def _own(owned: Owned, today: date, on: date, place: Place) -> Offer:
    cover = owned.cover
    description = cover_description(cover, today)
    span = CoverSpan(cover.kind, **aired(cover.kind), **description)  # type: ignore[arg-type]
    busy = ""
    if owned.period is not None and not owned.free_on(on):
        where = _("here already") if owned.period.place_id == place.pk else _("on {name}").format(name=owned.period.place.name)
        busy = (
            where
            if owned.period.last is None
            else _("{where} to {day}").format(where=where, day=words.day(owned.period.last, today))
        )
    return Offer(cover.name, _("your {name_of}").format(name_of=covers.name_of(cover.kind)), span, cover.pk, busy)


def _there(cover: PlaceCover, today: date) -> Offer:
    """Return the present cover of the place with its usual opening."""
    span = CoverSpan(cover.key, **aired(cover.key)) if cover.period is None else span_of(cover.period, today)  # type: ignore[arg-type]
    return Offer(
        words.sentence(cover.name), _("already on this bed"), replace(span, first=None, last=None), None, _("here already")
    )


def _other(key: str) -> Offer:
    return Offer(words.sentence(covers.name_of(key)), _("not yours yet"), CoverSpan(key, **aired(key)), None, "")  # type: ignore[arg-type]


def aired(key: str) -> dict[str, object]:
    """Return the opening by an attentive grower."""
    return {} if key in covers.SELF_AIRING else {"opens": "above", "above_c": AIRED_ABOVE_C, "opening": AIRED_BY}


def what_if_page(question: Question, units: Units, today: date) -> WhatIf:
    """Ask the engine, which is loaded at the first question."""
    garden, place = question.place.garden, question.place
    snapshot = ModelSnapshot.objects.filter(place=place).first()
    if snapshot is None:
        return waiting_page(
            _("Working out the first forecast for {name}… The answer will appear here.").format(name=place.name)
        )
    offered = offers(garden, today, question.on, place, question.also)
    keys = (question.crop_key,) if question.crop_key else usual_crops(garden)
    query = WhatIfQuery(
        on_d=(question.on - today).days,
        warm_d=question.warm_d,
        covers=tuple(with_known([offer.span for offer in offered], place)),
        crops=keys,
        comfortable=garden.sowing_rule != Garden.SowingRule.MINIMUM,
    )
    inputs = build_inputs(place, list(sowings_in(garden)))
    try:
        bare, *gains = run_low_priority(WHAT_IF, bytes(snapshot.packed), inputs, query)
    except OutdatedSnapshot:
        return waiting_page(_("Updating the forecast for {name}… The answer will appear here.").format(name=place.name))
    return _answer(question, units, today, bare, list(zip(offered, gains, strict=True)))


def waiting_page(why: str) -> WhatIf:
    """Return the page without an answer. It asks again by itself."""
    return WhatIf("", "", None, [], waiting=why)


def usual_crops(garden: Garden) -> tuple[str, ...]:
    grown = crops.of_garden(garden.crops, packets.values_in_use(garden))
    return tuple(crop.key for crop in grown if crop.sown_direct)[:MOST_CROPS]


def _answer(question: Question, units: Units, today: date, bare: CoverGain, pairs: list[tuple[Offer, CoverGain]]) -> WhatIf:
    writer = _Writer(question, units, today, bare, [gain for _unused, gain in pairs])
    rows = [writer.row(offer, gain) for offer, gain in sorted(pairs, key=lambda pair: writer.rank(pair[1]))]
    return WhatIf(
        writer.headline(pairs), writer.sub(), writer.bare_row(), rows, units.length_text(PROFILE_M[SHOWN]), writer.order()
    )


class _Writer:
    """Converts numbers to words and drawings on one scale."""

    def __init__(self, question: Question, units: Units, today: date, bare: CoverGain, gains: list[CoverGain]) -> None:
        self.question, self.units, self.today, self.bare = question, units, today, bare
        self.within = drawing.limits([row for gain in [bare, *gains] for row in gain.soil_c])
        self.marks = [(value, units.temperature_text(value, 0)) for value in drawing.marks(self.within)]
        crop = crops.crop(question.crop_key) if question.crop_key else None
        comfortable = question.place.garden.sowing_rule != Garden.SowingRule.MINIMUM
        self.wanted_c = None if crop is None else crop.optimum_from_c if comfortable else crop.minimum_c
        self.crop = crop
        self.measured = measured_on(question.place, units)

    def rank(self, gain: CoverGain) -> tuple[float, float]:
        """Sort by the earliest soil for the crop, or by warmth without a crop."""
        ready_d = gain.crops[0].ready_d if self.crop and gain.crops else 0
        return (float("inf") if ready_d is None else ready_d), -gain.gain_k[1]

    def row(self, offer: Offer, gain: CoverGain) -> Row:
        first = gain.crops[0] if self.crop and gain.crops else None
        cover = f"own-{offer.item}" if offer.item else offer.adds or offer.span.key
        query = {"cover": cover, "first": self.question.on.isoformat()} | ({"both": "on"} if offer.adds else {})
        if self.crop:
            query |= {"crop": self.crop.key, "sow_on": self.sow_on.isoformat()}
        gained = first.gained_d if first and first.gained_d is not None else None
        return Row(
            name=offer.name,
            what=offer.what,
            cut=self._cut(covers.drawn_as(offer.span.key), gain),
            number=self.units.temperature_text(gain.profile_c[SHOWN]),
            air=self._air(gain),
            differs=self._differs(gain, gained),
            ribbon=self._ribbon(gain),
            gain=" ".join(text for text in (self._gain(gain), self.measured.get(offer.span.key, "")) if text),
            ready=self._ready(first) if first else "",
            up=self._up(first) if first else "",
            inside=self._inside(gain, offer.span.key),
            off=self._off(first) if first else "",
            put_on=urlencode(query),
            busy=offer.busy,
        )

    def order(self) -> str:
        """Name of the sort order."""
        if self.crop is None:
            return _("Sorted by how much each cover warms the soil over the first two weeks.")
        return _("Sorted by the date on which the soil is ready for {crop}, then by warmth.").format(crop=self.crop.name_plural)

    def bare_row(self) -> Row:
        first = self.bare.crops[0] if self.crop and self.bare.crops else None
        kind = "raised" if self.question.place.kind == "raised" else "open"
        return Row(
            name=_("Without a cover"),
            what=_("as it is"),
            cut=self._cut(kind, self.bare),
            number=self.units.temperature_text(self.bare.profile_c[SHOWN]),
            air=self._air(self.bare),
            differs="",
            ribbon=self._ribbon(self.bare),
            ready=self._ready(first) if first else "",
            up=self._up(first) if first else "",
        )

    @property
    def sow_on(self) -> date:
        return self.question.on + timedelta(days=self.question.warm_d)

    def headline(self, pairs: list[tuple[Offer, CoverGain]]) -> str:
        place, when = self.question.place.name, self._when(self.question.on)
        free = [pair for pair in pairs if pair[0].item and not pair[0].busy] or [p for p in pairs if not p[0].busy] or pairs
        if self.crop is None:
            offer, gain = max(free, key=lambda pair: pair[1].gain_k[1])
            text = _("{named} on {place} {when} warms the soil most: by {k} over two weeks.")
            if len(free) < len(pairs):
                text = _("Of your free covers, {named} on {place} {when} warms the soil most: by {k} over two weeks.")
            return text.format(named=self._named(offer), place=place, when=when, k=self._k(gain.gain_k[1]))
        ahead = [(offer, gain.crops[0]) for offer, gain in free if gain.crops[0].gained_d is not None]
        if not ahead or (best := max(ahead, key=lambda pair: pair[1].gained_d or 0))[1].gained_d in (0, None):
            return self._nothing_gained(free)
        offer, first = best
        sooner = words.count(first.gained_d or 0, "day", "days")
        ready = self._when(self.today + timedelta(days=first.ready_d or 0))
        return _("{named} on {place} {when}: ready for {name_plural} {ready}, {sooner} sooner than without a cover.").format(
            named=self._named(offer), place=place, when=when, name_plural=self.crop.name_plural, ready=ready, sooner=sooner
        )

    def _nothing_gained(self, free: list[tuple[Offer, CoverGain]]) -> str:
        assert self.crop is not None  # noqa: S101 - asked for
        name, bare = self.crop.name_plural, self.bare.crops[0]
        if bare.ready_d is not None and bare.ready_d <= (self.question.on - self.today).days:
            return _("{name} is already warm enough for {name2}. A cover only brings them up sooner.").format(
                name=self.question.place.name, name2=name
            )
        able = [(offer, gain.crops[0]) for offer, gain in free if gain.crops[0].ready_d is not None]
        if not able:
            return _("No cover makes {name} warm enough for {name2} in the weeks ahead.").format(
                name=self.question.place.name, name2=name
            )
        offer, first = min(able, key=lambda pair: pair[1].ready_d or 0)
        ready = self._when(self.today + timedelta(days=first.ready_d or 0))
        return _("{named} makes {name} ready for {name2} {ready}. Without a cover, no date is in sight.").format(
            named=self._named(offer), name=self.question.place.name, name2=name, ready=ready
        )

    def sub(self) -> str:
        waits = (
            ""
            if self.crop is None
            else _(" The answers are for a sowing {when}, the day marked on each ribbon.").format(when=self._when(self.sow_on))
        )
        sowing_rule = ""
        if self.wanted_c is not None:
            sowing_rule = _(" Ready means a week at {temperature} or more, by your sowing rule.").format(
                temperature=self.units.temperature_text(self.wanted_c, 0)
            )
        depth = self.units.length_text(self.question.place.seed_depth_m)
        usual = (
            _(" So far ahead, the answer is based on the usual weather.")
            if (self.question.on - self.today).days > FORETOLD_D
            else ""
        )
        return _("Soil at {depth} ({degree}), opened on sunny days.{usual}{waits}{sowing_rule}").format(
            depth=depth, degree=self.units.degree, usual=usual, waits=waits, sowing_rule=sowing_rule
        )

    def _cut(self, kind: str, gain: CoverGain) -> Slice:
        return slice_of(kind, self.question.place.seed_depth_m, PROFILE_M, gain.profile_c)

    def _ribbon(self, gain: CoverGain) -> drawing.CoverGain:
        bare = self.bare.soil_c[1]
        return drawing.cover_gain(gain.soil_c, bare, self.within, self.wanted_c, self.question.warm_d, self.marks)

    def _air(self, gain: CoverGain) -> Air:
        return Air(self._t(gain.coldest_c[1]), self._t(gain.hottest_c[1]))

    def _differs(self, gain: CoverGain, gained_d: int | None) -> str:
        if gained_d:
            return _("{days} sooner").format(days=words.count(gained_d, "day", "days"))
        gain_k = gain.gain_k[1]
        if abs(gain_k) < TELLS_K:
            return _("same as without cover")
        return _("{k} warmer").format(k=self._k(gain_k)) if gain_k > 0 else _("{k} colder").format(k=self._k(-gain_k))

    def _gain(self, gain: CoverGain) -> str:
        low, middle, high = gain.gain_k
        if abs(middle) < TELLS_K:
            return _("About as warm as without a cover.")
        way, ends = _("warmer") if middle > 0 else _("colder"), _("{k} to {k2}").format(k=self._k(low), k2=self._k(high))
        return _("{k} {way} than without a cover, averaged over day and night for two weeks ({ends}).").format(
            k=self._k(abs(middle)), way=way, ends=ends
        )

    def _ready(self, first: ForCrop) -> str:
        if first.ready_d is None:
            return _("Not ready in the weeks ahead.")
        ready = self._when(self.today + timedelta(days=first.ready_d))
        sooner = _(", {count} sooner").format(count=words.count(first.gained_d, "day", "days")) if first.gained_d else ""
        return _("Ready {ready}{sooner}.").format(ready=ready, sooner=sooner)

    def _up(self, first: ForCrop) -> str:
        low, middle, high = first.half_d
        if middle is None:
            return _("If sown then, fewer than half would come up.")
        late = "" if high is None or low is None else _(" ({low} to {high})").format(low=f"{low:.0f}", high=f"{high:.0f}")
        return _("Half of the seedlings are up in {middle} days{late}; {share}% of good seeds come up.").format(
            middle=f"{middle:.0f}", late=late, share=f"{first.share * 100:.0f}"
        )

    def _inside(self, gain: CoverGain, key: str) -> str:
        hot, hotter, cold = (self._t(value) for value in (gain.hottest_c[1], gain.hottest_c[2], gain.coldest_c[1]))
        if key in covers.SELF_AIRING:
            return _("In the first two weeks, temperatures under it range from {cold} to {hot}.").format(cold=cold, hot=hot)
        opened = (
            _(" Open it for about {open_h} h a day.").format(open_h=f"{gain.open_h:.0f}")
            if gain.open_h >= 1
            else _(" It rarely needs opening.")
        )
        return _(
            "In the first two weeks, the coldest night is {cold} and the hottest day {hot} ({hotter} at "
            "worst) if it stays closed.{opened}"
        ).format(cold=cold, hot=hot, hotter=hotter, opened=opened)

    def _off(self, first: ForCrop) -> str:
        if first.off_d is None:
            return _("Nights stay too cold to take it off in the weeks ahead.")
        return _("Nights are warm enough to take it off {when}.").format(
            when=self._when(self.today + timedelta(days=first.off_d))
        )

    def _named(self, offer: Offer) -> str:
        return offer.name if offer.item else words.sentence(covers.with_article(offer.span.key))

    def _when(self, on: date) -> str:
        return _("now") if on == self.today else _("from {day}").format(day=words.day(on, self.today))

    def _t(self, value: float) -> str:
        return self.units.temperature_text(value, 0)

    def _k(self, value: float) -> str:
        return self.units.difference_text(value)
