"""Help: words, kinds as they are drawn, a walk through the demo."""

import re

import pytest
from django.conf import LazySettings
from django.test import Client
from django.urls import reverse

from cloche.apps.gardens.models import Garden
from cloche.apps.shared.terms import TERMS, explained
from cloche.bridge.services import covers, offered
from tests.factories import make_place


def test_every_word_and_every_kind_is_there_without_signing_in(db: None, client: Client) -> None:
    page = client.get(reverse("help")).content.decode()
    for term in TERMS:
        assert f'<dt id="{term.key}">{term.word}</dt>' in page
    assert page.count('<svg class="slice"') == len(offered.place_names()) + len(covers.for_beds())
    assert "A tour of the demo" not in page


def test_the_demo_offers_a_walk_whose_stops_all_open(signed_in: Client, garden: Garden, settings: LazySettings) -> None:
    settings.CLOCHE_DEMO = True
    make_place(garden, "North bed")
    page = signed_in.get(reverse("help")).content.decode()
    walk = page[page.index('class="walk-through"') :]
    stops = re.findall(r'<li><a href="([^"]+)">([^<]+)</a>', walk[: walk.index("</ol>")])
    assert "North bed, one of its places" in [name for _, name in stops]
    assert len(stops) == 8
    for address, _ in stops:
        assert signed_in.get(address).status_code == 200


def test_a_word_opens_where_it_stands_and_once_a_page(signed_in: Client, garden: Garden) -> None:
    make_place(garden, "North bed")
    for room in ("today", "windows", "what_wakes", "covers", "garden"):
        page = signed_in.get(reverse(room, args=[garden.pk])).content.decode()
        opened = re.findall(r'popovertarget="term-(\w+)">', page)
        assert opened
        for key in opened:
            assert page.count(f'id="term-{key}"') == 1


def test_a_word_that_nobody_explains_is_an_error() -> None:
    with pytest.raises(KeyError):
        explained("mystery")
