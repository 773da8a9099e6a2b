"""Longer seasons: whole windows bare and under covers, worked out in the queue and drawn one under another."""

from dataclasses import replace
from datetime import date

import pytest
from django.test import Client
from django.urls import reverse

from bench.earlier import HIGHS_48, LOWS_48
from cloche.apps.covers import flows
from cloche.apps.covers.models import SeasonAnswer
from cloche.apps.covers.pages.compare import moved_words, season_moved
from cloche.apps.forecasts.flows import refresh
from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Cover, Place
from cloche_engine.results import CropSeason
from cloche_engine.windows.limits import Limit
from tests.factories import make_place, make_window, write_air

TODAY = date(2026, 4, 22)


@pytest.fixture
def bed(garden: Garden, now: object) -> Place:
    write_air(garden, date(2026, 3, 20), 34, low_c=3, high_c=12)
    garden.crops = ["lettuce", "snap_bean", "tomato"]
    garden.normal_lows_c, garden.normal_highs_c = LOWS_48, HIGHS_48
    garden.save(update_fields=["crops", "normal_lows_c", "normal_highs_c"])
    place = make_place(garden, "Long bed")
    refresh(place)
    return Place.objects.select_related("forecast", "garden").get(pk=place.pk)


def span(first: str, last: str, open_ended: bool = False) -> CropSeason:
    return CropSeason("carrot", True, [make_window(first, last, open_ended=open_ended)], None)


@pytest.mark.whole_season
def test_a_frame_moves_both_ends_of_the_season(bed: Place) -> None:
    """Common practice, no source: tender crops go in weeks sooner under glass, and end no sooner."""
    flows.answer_seasons(bed, [flows.BARE, "glass_frame"])
    page = season_moved(bed, ["snap_bean", "lettuce"], ["glass_frame"], TODAY)
    assert not page.waiting
    bare, frame = (SeasonAnswer.objects.get(cover=key).answer for key in (flows.BARE, "glass_frame"))
    beans = [next(row for row in rows if row.crop_key == "snap_bean").windows for rows in (bare, frame)]
    first = [windows[0].earliest for windows in beans]
    last = [windows[-1].last for windows in beans]
    assert 7 <= (first[0] - first[1]).days <= 50
    assert last[1] >= last[0]
    rows = page.crops[0].rows
    assert rows[0].name == "No cover"
    assert "earlier" in rows[1].moved
    assert rows[1].bars[0].x < rows[0].bars[0].x
    assert "adds most to Long bed" in page.headline


YESTERDAY = span("2026-04-10", "2026-05-30")


@pytest.mark.parametrize(
    ("before", "now", "since"),
    [
        (YESTERDAY, span("2026-04-22", "2026-05-30"), date(2026, 4, 10)),
        (
            replace(span("2026-04-21", "2026-05-30"), open_since=date(2026, 4, 1)),
            span("2026-04-22", "2026-05-30"),
            date(2026, 4, 1),
        ),
        (YESTERDAY, span("2026-04-25", "2026-05-30"), None),
        (span("2026-03-01", "2026-04-01"), span("2026-04-22", "2026-05-30"), None),
        (span("2026-04-22", "2026-05-30"), span("2026-04-22", "2026-05-30"), None),
        (CropSeason("carrot", True, [], Limit.COLD), span("2026-04-22", "2026-05-30"), None),
        (replace(YESTERDAY, sown=False), span("2026-04-22", "2026-05-30"), None),
        (None, span("2026-04-22", "2026-05-30"), None),
    ],
    ids=["open before", "carried on", "shut again", "another window", "opens today", "had none", "another way", "first"],
)
def test_a_window_that_is_open_keeps_its_first_day(before: CropSeason | None, now: CropSeason, since: date | None) -> None:
    """Worked out anew each day it begins with that day: what a bare sowing would have been up by must not move with it."""
    carried = flows.carried_on(now, before, TODAY)
    assert carried.open_since == since
    assert carried.opens == (since or now.windows[0].earliest)


def test_the_page_asks_the_queue_and_says_that_it_waits(signed_in: Client, garden: Garden, bed: Place) -> None:
    address = reverse("season_moved", args=[garden.pk])
    shown = signed_in.get(address).content.decode()
    assert "Working out the season of" in shown
    assert 'hx-trigger="load delay:2s"' in shown
    flows.answer_seasons(bed, [flows.BARE, "fleece"])
    query = f"{address}?place={bed.pk}&crop=lettuce&cover=fleece"
    shown = signed_in.get(query).content.decode()
    assert "Working out" not in shown
    assert "Lettuce" in shown
    assert signed_in.get(query, HTTP_HX_REQUEST="true").content.decode().lstrip().startswith('<div id="season"')


def test_too_many_at_once_are_refused_with_a_word(signed_in: Client, garden: Garden, bed: Place) -> None:
    keys = [key for key, _ in flows.offered(garden)][:6]
    answer = signed_in.get(reverse("season_moved", args=[garden.pk]), {"place": bed.pk, "cover": keys, "crop": "lettuce"})
    assert answer.status_code == 422
    assert "Choose at most 4 covers at a time. You have chosen 6." in answer.content.decode()


def test_one_s_own_cover_comes_first_and_one_that_is_gone_is_left_out(garden: Garden, bed: Place) -> None:
    own = Cover.objects.create(garden=garden, kind="fleece", name="White roll")
    key = f"own-{own.pk}"
    assert flows.offered(garden)[0] == (key, "White roll")
    assert flows.span_for(garden, key, TODAY) is not None
    own.delete()
    assert flows.span_for(garden, key, TODAY) is None
    flows.answer_seasons(bed, [key])
    assert not SeasonAnswer.objects.exists()


def test_answers_of_another_day_or_way_are_asked_anew(garden: Garden, bed: Place) -> None:
    flows.answer_seasons(bed, [flows.BARE])
    assert set(flows.seasons_at(bed, [], TODAY)) == {flows.BARE}
    garden.sowing_rule = Garden.SowingRule.MINIMUM
    garden.save(update_fields=["sowing_rule"])
    assert flows.seasons_at(Place.objects.select_related("forecast", "garden").get(pk=bed.pk), [], TODAY) == {}


@pytest.mark.parametrize(
    ("season", "said"),
    [
        (span("2026-04-30", "2026-08-20"), "starts 12 days earlier, ends 10 days later"),
        (span("2026-05-13", "2026-08-10"), "starts 1 day later"),
        (span("2026-05-12", "2026-08-09"), "ends 1 day earlier"),
        (span("2026-05-12", "2026-08-10"), "same as without cover"),
        (span("2026-05-02", "2027-01-20", open_ended=True), "starts 10 days earlier"),
    ],
)
def test_what_moves_in_words(season: CropSeason, said: str) -> None:
    assert moved_words(season, span("2026-05-12", "2026-08-10")) == said


def test_where_bare_has_no_day_a_cover_is_the_only_way() -> None:
    assert moved_words(span("2026-05-12", "2026-08-10"), CropSeason("carrot", True, [], Limit.COLD)) == "only with a cover"


def test_a_garden_without_a_bed_is_told_where_to_begin(signed_in: Client, garden: Garden) -> None:
    assert "Add your first place" in signed_in.get(reverse("season_moved", args=[garden.pk])).content.decode()
