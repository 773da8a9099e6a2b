"""The whole application in German: every sentence translated, no English left on any page, numbers with a decimal comma."""

import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from django.conf import settings as project
from django.test import Client
from django.utils import translation

from cloche.apps.gardens.models import Garden
from cloche.apps.places.models import Place
from cloche.apps.shared import words
from cloche.apps.upkeep.management.commands import catalogue
from cloche.bridge.services import crops
from cloche.bridge.values.texts import number_text
from cloche.bridge.values.units import Units, parse_soil
from cloche_engine.crops.catalogue import catalogue as catalogue_of_crops
from tests.apps.test_languages import Page, grown, pages, readable
from tests.conftest import NOW

__all__ = ["grown"]

FOLDER = Path(project.PACKAGE) / "locale" / "de" / "LC_MESSAGES"
PLACES = re.compile(r"\{\w*\}|%\(\w+\)s")
ENGLISH = re.compile(
    r"\b(the|and|with|from|your|this|these|its|are|of|has|have|when|which|for|each|not|days?|weeks?|soil|seed)\b"
)
"""Words that no German text has."""
OWN_NAMES = ("North bed", "Test plot", "English, as in", "American: eggplant", "British: aubergine", "OpenStreetMap", "ERA5")
"""What people, sources and languages are called stays as it is."""


def translations() -> Iterator[tuple[str, str]]:
    """Each sentence, one and many apart, with its translation."""
    for message in catalogue.read(FOLDER):
        if message.id:
            pairs = (
                zip(message.id, message.string, strict=True)
                if isinstance(message.id, tuple)
                else [(message.id, message.string)]
            )
            yield from ((str(ours), str(theirs)) for ours, theirs in pairs)


def test_every_sentence_is_translated_and_keeps_its_values() -> None:
    missing = [ours for ours, theirs in translations() if not theirs]
    assert missing == []
    lost = [ours for ours, theirs in translations() if set(PLACES.findall(ours)) != set(PLACES.findall(theirs))]
    assert lost == []


def test_no_page_has_english_left(signed_in: Client, garden: Garden, grown: Place) -> None:
    values = readable(garden)
    shown = dict(pages(signed_in, garden, values, "de"))
    assert len(shown) > 25
    cited = {
        str(value) for crop in catalogue_of_crops().values() for name, value in vars(crop).items() if name.endswith("source")
    }
    left = []
    for name, html in shown.items():
        assert "<html" not in html or 'lang="de"' in html, name
        texts = {text.strip() for text in Page(re.sub(r"(?s)<script.*?</script>|<title>.*?</title>", "", html)).read} - cited
        left += [f"{name}: {text}" for text in texts if ENGLISH.search(text) and not any(own in text for own in OWN_NAMES)]
    assert left == [], "\n".join(left)


def test_numbers_dates_and_crops_are_written_in_german() -> None:
    with translation.override("de"):
        assert Units().temperature_text(-7.25) == "−7,2°"
        assert number_text("1,234.5") == "1.234,5"
        assert words.day(NOW.date()) == "22. April"
        assert words.weekday(NOW.date()) == "Mittwoch, 22. April 2026"
        assert words.clock(NOW) == "06:00"
        assert words.count(1, "day", "days") == "1 Tag"
        assert words.count(2, "day", "days") == "2 Tage"
        crops.set_spoken_names("translated")
        assert crops.crop("carrot").name_plural == "Möhren"


@pytest.mark.parametrize(("typed", "celsius"), [("7,5", 7.5), ("−3,2", -3.2)])
def test_numbers_are_read_as_germans_type_them(typed: str, celsius: float) -> None:
    with translation.override("de"):
        assert parse_soil(typed, Units()) == celsius
