"""The whole application in American English differs from British in words, dates and clock, and nowhere else."""

import re
from collections import Counter
from collections.abc import Iterator
from datetime import timedelta
from html.parser import HTMLParser
from pathlib import Path
from typing import Any

import pytest
from babel.messages.pofile import read_po
from django.conf import settings as project
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.test import Client
from django.utils import translation
from django.utils.translation import ngettext, to_locale

from cloche.apps.forecasts.flows import refresh
from cloche.apps.gardens.models import Garden, User, languages
from cloche.apps.places.models import Place
from cloche.apps.readings.flows.bring_in import receive
from cloche.apps.shared import words
from cloche.apps.upkeep.management.commands import catalogue
from cloche_engine.crops.catalogue import catalogue as crops
from tests.apps.test_every_route import INSIDE, address, values_of
from tests.conftest import NOW
from tests.factories import make_place, read_twice_daily, write_air

BRITISH, AMERICAN = "en-gb", "en-us"
FOLDER = Path(project.PACKAGE) / "locale" / "en_US" / "LC_MESSAGES"
CLOCK = re.compile(r"\b(\d{1,2})(?::(\d\d))?\s?(AM|PM)\b|\b(\d{1,2}):(\d\d)\b")
WORD = re.compile(r"[^\W\d_]+")
CALENDAR = {"AM", "PM", "Sep", "Sept"}


class Page(HTMLParser):
    """Its tags with their attributes, less those that are read; and everything that is read."""

    READ = ("aria-label", "title", "alt", "placeholder", "content", "data-unit")
    OWN = ("lang", "value", "d", "nonce")

    def __init__(self, html: str) -> None:
        super().__init__()
        self.tags: list[tuple[str, tuple[str, ...]]] = []
        self.read: list[str] = []
        self.feed(html)

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        self.tags.append((tag, tuple(name for name, _ in attrs)))
        self.read += [value or "" for name, value in attrs if name in self.READ and tag != "meta"]

    def handle_data(self, data: str) -> None:
        self.read.append(data)

    @property
    def text(self) -> str:
        return " ".join(self.read)


def clock(match: re.Match[str]) -> str:
    """A time as minutes of the day, however it is written."""
    hour, minute = int(match[1] or match[4]), int(match[2] or match[5] or 0)
    if match[3]:
        hour = hour % 12 + (12 if match[3] == "PM" else 0)
    return f" {hour * 60 + minute}m "


def numbers(text: str) -> Counter[str]:
    return Counter(re.findall(r"\d+(?:[.,]\d+)?m?", CLOCK.sub(clock, text)))


@pytest.fixture
def grown(garden: Garden, now: object) -> Place:
    """A bed with something of everything that addresses can show."""
    write_air(garden, NOW.date() - timedelta(days=30), 30, 6.0, 16.0)
    place = make_place(garden, "North bed")
    read_twice_daily(place, 8, NOW, 9.0, 13.0)
    refresh(place)
    return place


def pages(client: Client, garden: Garden, values: dict[str, Any], language: str) -> Iterator[tuple[str, str]]:
    for name in INSIDE:
        answer = client.get(address(name, values), headers={"Accept-Language": language})
        if answer.status_code == 200 and answer.headers["Content-Type"].startswith("text/html"):
            yield name, answer.content.decode()


def readable(garden: Garden) -> dict[str, Any]:
    """Ids of a garden's things; the file that waits has a row."""
    air = SimpleUploadedFile("air.csv", b"date,low,high\n2026-04-01,2,9\n")
    return values_of(garden) | {"file_id": receive(garden, garden.people.get(), "weather", air).pk}


def own_words() -> set[str]:
    """Words by which the two differ: of the language's file, of crops, of dates."""
    words = set(CALENDAR)
    with (FOLDER / "django.po").open("rb") as file:
        for message in read_po(file):
            pairs = (
                zip(message.id, message.string, strict=False)
                if isinstance(message.id, tuple)
                else [(message.id, message.string)]
            )
            for ours, theirs in pairs:
                if theirs:
                    words |= set(WORD.findall(ours)) ^ set(WORD.findall(theirs))
    for crop in crops().values():
        words |= {word for name in (*crop.british, *crop.american) for word in WORD.findall(name)}
    return {word.lower() for word in words}


def test_nothing_but_words_dates_and_clock_differ(signed_in: Client, garden: Garden, grown: Place) -> None:
    values, allowed = readable(garden), own_words()
    british, american = (dict(pages(signed_in, garden, values, language)) for language in (BRITISH, AMERICAN))
    assert set(british) == set(american)
    # What waits in the queue is counted there, and looking at pages adds to it.
    del british["computer"]
    assert len(british) > 25
    differing = 0
    for name in british:
        ours, theirs = Page(british[name]), Page(american[name])
        assert ours.tags == theirs.tags, name
        assert numbers(ours.text) == numbers(theirs.text), name
        other = Counter(WORD.findall(ours.text.lower()))
        other.subtract(Counter(WORD.findall(theirs.text.lower())))
        assert {word for word, count in other.items() if count} <= allowed, name
        differing += ours.text != theirs.text
    assert differing > 10


def test_who_has_chosen_is_spoken_to_so_and_in_letters_too(signed_in: Client, garden: Garden, person: User) -> None:
    answer = signed_in.post("/me/", {"temperature_unit": "F", "length_unit": "in", "language": AMERICAN}, follow=True)
    assert answer.content.decode().count('lang="en-us"') == 1
    assert User.objects.get(pk=person.pk).language == AMERICAN
    again = signed_in.get("/me/", headers={"Accept-Language": BRITISH})
    assert 'lang="en-us"' in again.content.decode()


def test_dates_and_clock_are_those_of_the_language() -> None:
    with translation.override(AMERICAN):
        assert words.day(NOW.date()) == "April 22"
        assert words.clock(NOW) == "6:00\u00a0AM"
        assert words.weekday(NOW.date()) == "Wednesday, April 22, 2026"
        assert words.span(NOW.date(), NOW.date() + timedelta(days=3), NOW.date() - timedelta(days=9)) == "April 22–25"


def test_a_thing_is_counted_by_the_languages_plurals() -> None:
    with translation.override(AMERICAN):
        assert ngettext("day", "days", 1) == "day"
        assert words.count(2, "day", "days") == "2 days"


def test_the_language_files_know_every_sentence_that_can_be_said() -> None:
    """`./run languages` brings them up to date."""
    gathered = catalogue.template_catalogue()
    assert {m.id for m in gathered} == {m.id for m in catalogue.read(FOLDER)}
    assert len(gathered) > 1500


def test_what_is_read_was_made_from_what_people_edit(tmp_path: Path) -> None:
    (tmp_path / "django.po").write_bytes((FOLDER / "django.po").read_bytes())
    catalogue.write(tmp_path, catalogue.read(tmp_path))
    assert (tmp_path / "django.mo").read_bytes() == (FOLDER / "django.mo").read_bytes()


def test_translations_keep_the_places_of_their_values() -> None:
    for message in catalogue.read(FOLDER):
        if message.id and isinstance(message.string, str) and message.string:
            holes = re.compile(r"\{\w*\}|%\(\w+\)s")
            assert sorted(holes.findall(str(message.id))) == sorted(holes.findall(message.string)), message.id


@pytest.mark.django_db
def test_the_command_says_how_much_differs(capsys: pytest.CaptureFixture[str]) -> None:
    call_command("catalogue", check=True)
    assert "en-us" in capsys.readouterr().out


@pytest.mark.django_db
def test_reviewers_have_every_sentence_on_a_page_with_its_counts(tmp_path: Path) -> None:
    call_command("sentences", str(tmp_path / "all.html"))
    page = (tmp_path / "all.html").read_text(encoding="utf-8")
    assert page.count("<tr>") > 2000
    assert "0: {number} places have not been sent yet<br>1: {number} place has not been sent yet<br>2:" in page
    assert "<td>fleece 17 g/m²<td>row cover 17 g/m²" in page


def test_a_new_language_begins_empty_and_keeps_what_was_translated(tmp_path: Path) -> None:
    folder, gathered = tmp_path / "it" / "LC_MESSAGES", catalogue.template_catalogue()
    catalogue.write(folder, catalogue.brought_up_to_date(folder, gathered))
    assert catalogue.differing(catalogue.read(folder)) == 0
    written = (folder / "django.po").read_text(encoding="utf-8")
    todays = 'msgid "Today"\nmsgstr ""'
    assert todays in written
    written = written.replace(todays, 'msgid "Today"\nmsgstr "Oggi"') + '\nmsgid "No longer said"\nmsgstr "Non più"\n'
    (folder / "django.po").write_text(written, encoding="utf-8")
    again = catalogue.brought_up_to_date(folder, gathered)
    assert again.get("Today").string == "Oggi"
    assert "No longer said" not in again
    assert catalogue.differing(again) == 1


def test_a_language_with_three_plurals_gets_three(tmp_path: Path) -> None:
    folder = tmp_path / "pl" / "LC_MESSAGES"
    catalogue.write(folder, catalogue.brought_up_to_date(folder, catalogue.template_catalogue()))
    assert 'msgstr[2] ""' in (folder / "django.po").read_text(encoding="utf-8")


def test_crops_and_kinds_stand_among_what_can_be_said() -> None:
    ids = {m.id for m in catalogue.template_catalogue() if isinstance(m.id, str)}
    assert {"Aubergine", "aubergines", "cold frame", "a cold frame with glass"} <= ids


def test_every_language_that_can_be_chosen_has_its_file_or_is_the_source() -> None:
    for code, _name in project.LANGUAGES:
        folder = Path(project.PACKAGE) / "locale" / to_locale(code) / "LC_MESSAGES"
        assert code == project.LANGUAGE_CODE or (folder / "django.mo").exists()
    assert {code for code, _name in languages()} == {code for code, _name in project.LANGUAGES}


DRAWN = re.compile(r'\s((?:d|x\d?|y\d?|c[xy]|r|width|height|offset|viewBox|points)="[^"]*")')


def test_drawings_are_the_same_where_decimals_have_commas(signed_in: Client, garden: Garden, grown: Place) -> None:
    """A path with decimal commas is no path; German writes its numbers so."""
    values = readable(garden)
    drawn = {name: DRAWN.findall(html) for name, html in pages(signed_in, garden, values, BRITISH)}
    german = {name: DRAWN.findall(html) for name, html in pages(signed_in, garden, values, "de")}
    assert sum(map(len, drawn.values())) > 200
    # Rows of crops are in the order of their names, and so in another place.
    assert [name for name in drawn if drawn[name] != german[name]] in ([], ["what_wakes"])
    assert [part for part in german["what_wakes"] if re.search(r'="-?\d+,\d+"', part)] == []
