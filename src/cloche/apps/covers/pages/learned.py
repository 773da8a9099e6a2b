"""What the garden's covers have shown of themselves, in sentences: by kind, and where it is hard to believe."""

from __future__ import annotations

from django.utils.translation import gettext as _

from cloche.apps.forecasts.pooled import cover_evidence_in
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.shared.i18n import lazy
from cloche.bridge.services import covers, pooling
from cloche.bridge.values.stored import CoverEvidence

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
    "light": lazy("let through {0:.1f} times the light that others of its kind do"),
    "exchange": lazy("leak {0:.1f} times as much as others of its kind"),
    "loss": lazy("let out {0:.1f} times the warmth that others of its kind do at night"),
}
QUESTIONS = {
    "light": lazy("Is it dirtier, older or more shaded than is written down?"),
    "exchange": lazy("Is it shut and opened as is written down, with its ends closed?"),
    "loss": lazy("Is it the kind that is written down, and is the thermometer among the plants, out of the sun?"),
}


def learned_lines(garden: Garden) -> list[str]:
    """Covers and kinds that are clearly unlike the usual here, then places that are asked about."""
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
    agree = _("{count} say so").format(count=words.count(factor.places, "place", "places"))
    return _("All your covers of the kind “{name_of}” {of_many} ({times}): {agree}.").format(
        name_of=covers.name_of(factor.key), of_many=OF_MANY[factor.name][factor.middle < 1], times=_times(factor), agree=agree
    )


def _times(factor: pooling.PooledFactor) -> str:
    return _("{middle} times, eight times in ten between {low} and {high}").format(
        middle=f"{factor.middle:.1f}", low=f"{factor.low:.1f}", high=f"{factor.high:.1f}"
    )


def _questions(place: Place, evidence: CoverEvidence) -> list[str]:
    """Of what is further from the usual than can well be."""
    name = covers.name_of(evidence.key)
    kept = _("That is hardly possible, and counts only as far as it is believable.")
    return [
        _("By the readings in {name}, the {name2} would {format}. {kept} {question}").format(
            name=place.name, name2=name, format=WOULD[factor].format(times), kept=kept, question=QUESTIONS[factor]
        )
        for factor, times in pooling.beyond_belief(evidence)
    ]
