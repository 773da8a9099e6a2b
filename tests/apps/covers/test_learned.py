"""What is read under one cover teaches the garden's others: its air, its trial, its kind, in numbers and in words."""

from dataclasses import replace
from datetime import timedelta
from uuid import uuid4

import pytest
from django.test import Client
from django.urls import reverse

from cloche.apps.covers.flows import gains_of
from cloche.apps.covers.models import CoverTrial
from cloche.apps.covers.pages.inventory import learned_lines
from cloche.apps.forecasts.flows import refresh
from cloche.apps.forecasts.inputs import cover_evidence_elsewhere, pass_on, with_known
from cloche.apps.forecasts.models import Forecast
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import CoverPeriod, Place
from cloche.apps.readings.models import Visit
from cloche.apps.readings.pages import air_under
from cloche.bridge.services import pooling
from cloche_engine.covers.periods import NOT_KNOWN
from cloche_engine.inputs import CoverSpan
from cloche_engine.results import CoverEvidence
from tests.conftest import NOW
from tests.factories import make_place, make_reading, read_twice_daily, write_air

pytestmark = pytest.mark.django_db
TODAY = NOW.date()


def tunnel(garden: Garden, name: str) -> Place:
    place = make_place(garden, name, kind="tunnel")
    CoverPeriod.objects.create(place=place, cover="film_tunnel", first=TODAY - timedelta(days=40))
    return place


def visit(place: Place, days_ago: float, **air: float) -> Visit:
    return Visit.objects.create(key=uuid4(), place=place, at=NOW - timedelta(days=days_ago), **air)


@pytest.fixture
def draughty(garden: Garden) -> Place:
    """A tunnel in which it is hardly warmer than outside, read for a week."""
    write_air(garden, TODAY - timedelta(days=50), 53, 4.0, 16.0)
    place = tunnel(garden, "Draughty tunnel")
    for days in range(14, 0, -1):
        visit(place, days, air_c=14.5, air_low_c=3.5, air_high_c=17.0)
    read_twice_daily(place, 14, NOW, 9.0, 14.0)
    return place


def test_air_of_rounds_is_told_with_the_time_it_is_of(garden: Garden) -> None:
    place = tunnel(garden, "Tunnel")
    visit(place, 30.0, air_low_c=1.0)
    visit(place, 3.0, air_c=12.0, air_low_c=2.0)
    second = visit(place, 1.0, air_low_c=3.0, air_high_c=20.0)
    visit(place, 0.5, air_c=50.0, removed_at=NOW)
    given = [
        (reading.what, reading.value, reading.at - reading.since) for reading in air_under(place, NOW - timedelta(days=60))
    ]
    two_days = timedelta(days=2)
    assert given == [("air", 12.0, timedelta()), ("lowest", 3.0, two_days), ("highest", 20.0, two_days)]
    assert second.at == NOW - timedelta(days=1)


def test_what_was_noted_is_the_same_in_any_language(garden: Garden, monkeypatch: pytest.MonkeyPatch) -> None:
    """Codes are no words: the engine knows "lowest", not what a page calls it."""
    from cloche.apps.readings import pages

    monkeypatch.setattr(pages, "_", lambda text: f"<{text}>")
    place = make_place(garden, kind="tunnel")
    for days in (2, 1):
        place.visits.create(key=uuid4(), at=NOW - timedelta(days=days), air_low_c=3.0, air_high_c=24.0)
    assert {reading.what for reading in air_under(place, NOW - timedelta(days=9))} == {"lowest", "highest"}


def test_what_a_tunnel_shows_goes_into_the_forecast_of_another(draughty: Place, garden: Garden, signed_in: Client) -> None:
    other = tunnel(garden, "Other tunnel")
    before = refresh(other).ground.inside_mid_c
    given = refresh(draughty).cover_evidence
    assert given.key == "film_tunnel"
    assert given.factors["exchange"][0] > 0
    (known,) = with_known([CoverSpan("film_tunnel")], other)
    light, exchange, _ = known.known
    assert exchange[0] > 1.1
    assert exchange[1] < 1.0
    assert light[1] <= 1.0
    assert with_known([CoverSpan("bell")], other)[0].known[1] == (1.0, 1.0)
    other.refresh_from_db()
    assert max(refresh(other).ground.inside_mid_c) < max(before)
    # Not of itself: that would count it twice.
    assert cover_evidence_elsewhere(draughty) == []
    shown = signed_in.get(reverse("own_covers", args=[garden.pk])).content.decode()
    assert "What your readings show" in shown
    assert "The hooped tunnel of clear film on Draughty tunnel lets through less light than usual (" in shown


def test_the_others_under_the_kind_are_asked_for_when_it_moves(draughty: Place, garden: Garden) -> None:
    other, bed = tunnel(garden, "Other tunnel"), make_place(garden, "Bed")
    given = CoverEvidence("film_tunnel", None, {"exchange": (0.8, 0.3)})
    pass_on(draughty, None, given)
    for place, revision in ((other, 1), (bed, 0)):
        place.refresh_from_db()
        assert place.input_revision == revision
    pass_on(draughty, given, replace(given, factors={"exchange": (0.85, 0.3)}))
    other.refresh_from_db()
    assert other.input_revision == 1


def test_a_trials_pairs_are_told_to_the_covered_place(garden: Garden) -> None:
    covered, bare = tunnel(garden, "Tunnel"), make_place(garden, "Bed")
    CoverTrial.objects.create(covered=covered, bare=bare, depth_m=0.05, begun_on=TODAY - timedelta(days=10))
    for days in (3, 2, 1):
        at = NOW - timedelta(days=days)
        make_reading(covered, at, 14.0)
        make_reading(bare, at, 11.5)
    gains = list(gains_of(covered, NOW - timedelta(days=2, hours=1)))
    assert [(gain.what, gain.value, gain.depth_m) for gain in gains] == [("gain", 2.5, 0.05)] * 2
    assert list(gains_of(bare, NOW - timedelta(days=30))) == []


def test_what_is_hardly_possible_is_asked_about(draughty: Place, garden: Garden) -> None:
    refresh(draughty)
    row = Forecast.objects.get(place=draughty)
    row.cover_evidence = CoverEvidence("film_tunnel", None, {"light": (-0.6, 0.1)})
    row.save()
    *_, query = learned_lines(garden)
    assert "Draughty tunnel" in query
    assert "let through 0.5 times the light" in query
    assert query.endswith("?")


def test_a_kind_is_told_of_when_several_places_agree(draughty: Place, garden: Garden) -> None:
    for place in (draughty, tunnel(garden, "Second tunnel"), tunnel(garden, "Third tunnel")):
        row = refresh(place) and Forecast.objects.get(place=place)
        row.cover_evidence = CoverEvidence("film_tunnel", None, {"exchange": (1.0, 0.15)})
        row.save()
    lines = learned_lines(garden)
    assert sum(line.startswith("The hooped tunnel of clear film on") for line in lines) == 3
    assert any("All your covers of the kind “hooped tunnel of clear film” leak more than usual" in line for line in lines)


def test_the_same_cover_on_another_bed_counts_for_more_than_its_kind() -> None:
    given = [CoverEvidence("film_tunnel", 5, {"exchange": (0.9, 0.2)})]
    span = CoverSpan("film_tunnel")
    assert span.known == NOT_KNOWN
    same, kin = (pooling.with_known(replace(span, item=item), given).known[1] for item in (5, 6))
    assert same[0] > kin[0] > 1
    assert same[1] < kin[1] < 1
