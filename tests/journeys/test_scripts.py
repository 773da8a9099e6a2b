"""The scripts' modules by themselves, in the browser they are for: facts in, facts out, no server's page around them."""

from __future__ import annotations

import json
import re
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit

import pytest
from babel import Locale
from django.conf import settings
from django.utils import translation
from playwright.sync_api import Browser, Page

from cloche.apps.shared import script_texts
from cloche.apps.shared.script_texts import COUNTED, SENTENCES, sentences

SCRIPTS = Path(settings.PACKAGE) / "static" / "js"
ORIGIN = "http://localhost"
SAID = re.compile(r'(?:\bsay\(|\? |: |\()"([a-z]+(?:-[a-z]+)*)"')
HOURS = {
    "start": "2026-04-22T06:00:00Z",
    "low_c": [7.0, 8.0],
    "high_c": [9.0, 10.0],
    "ask_low_c": [4.0, 5.0],
    "ask_high_c": [12.0, 13.0],
    "surface_c": [19.0, 24.0],
    "air_c": [14.0, 16.0],
}
Run = Callable[..., Any]


@pytest.fixture
def nothing_goes_wrong() -> None:
    """No server is behind these."""


@pytest.fixture(scope="module")
def bare(browser: Browser) -> Iterator[Page]:
    """One page for all: what it asks for comes from the files."""
    context = browser.new_context(service_workers="block", locale="en-GB")
    page = context.new_page()
    page.route(
        f"{ORIGIN}/static/**", lambda route: route.fulfill(path=SCRIPTS.parents[1] / urlsplit(route.request.url).path[1:])
    )
    yield page
    context.close()


@pytest.fixture
def run(bare: Page) -> Iterator[Run]:
    """run("round/expecting", "m.number(x)", x="8,4"): what a module makes of values, in a document that is new each time."""
    wrong: list[str] = []
    noted = lambda message: wrong.append(message.text) if message.type in ("error", "warning") else None  # noqa: E731
    failed = lambda error: wrong.append(str(error))  # noqa: E731
    head = '<!doctype html><html lang="en-gb"><link rel="icon" href="data:,">'
    body = f'{head}<script type="application/json" id="sentences">{json.dumps(sentences())}</script>'
    bare.on("console", noted)
    bare.on("pageerror", failed)
    bare.route(f"{ORIGIN}/bare/", lambda route: route.fulfill(body=body, content_type="text/html"))
    bare.goto(f"{ORIGIN}/bare/")

    def call(module: str, expression: str, **values: Any) -> Any:
        names = ", ".join(values)
        return bare.evaluate(
            f"async ({{ {names} }}) => {{ const m = await import('/static/js/{module}.js'); return {expression}; }}", values
        )

    yield call
    bare.evaluate("localStorage.clear()")
    bare.remove_listener("console", noted)
    bare.remove_listener("pageerror", failed)
    bare.unroute(f"{ORIGIN}/bare/")
    assert wrong == []


@pytest.mark.parametrize(
    ("text", "number"), [("8.4", 8.4), ("8,4", 8.4), (" −0.5 ", -0.5), ("-3", -3), ("–2", -2), ("", None), ("  ", None)]
)
def test_a_typed_number_is_read_however_it_is_written(run: Run, text: str, number: float | None) -> None:
    assert run("round/expecting", "m.number(text)", text=text) == number


def test_what_is_no_number_is_neither_nothing_nor_zero(run: Run) -> None:
    assert run("round/expecting", "[m.number('8..4'), m.number('warm')].map(Number.isNaN)", none=0) == [True, True]


def test_an_hour_is_found_by_its_instant_and_none_beyond_the_ends(run: Run) -> None:
    def low(at: str) -> Any:
        return run("round/expecting", "m.hour(hours, new Date(at))?.low_c ?? null", hours=HOURS, at=at)

    assert [low(f"2026-04-22T0{hour}:59:00Z") for hour in (5, 6, 7, 8)] == [None, 7.0, 8.0, None]
    assert run("round/expecting", "m.hour(undefined, new Date())", none=0) is None


@pytest.mark.parametrize(
    ("value", "sentence"),
    [
        (8.0, ""),
        (12.0, ""),
        (
            14.5,
            "14.5° is far from the expected range, 7° to 9°. "
            "It is closer to the air temperature, 14°. Was the probe in the ground?",
        ),
        (
            19.0,
            "19° is far from the expected range, 7° to 9°. "
            "It is closer to the surface temperature, 19°. Was the probe deep enough?",
        ),
        (-11.0, "−11° is far from the expected range, 7° to 9°. Had it settled? Was the probe deep enough, and in the ground?"),
    ],
)
def test_a_strange_value_is_asked_about_by_what_it_is_nearest_to(run: Run, value: float, sentence: str) -> None:
    expected = {name: values[0] for name, values in HOURS.items() if name != "start"}
    assert run("round/expecting", "m.question(value, expected)", value=value, expected=expected) == sentence
    assert run("round/expecting", "m.question(value, null)", value=value) == ""


def test_what_was_read_is_said_with_what_was_expected_where_that_is_known(run: Run) -> None:
    expected = {"low_c": 7.0, "high_c": 9.5}
    said = run(
        "round/expecting", "[m.summary(-8, expected), m.summary(8.4, null), m.summary(null, expected)]", expected=expected
    )
    assert said == ["−8° (expected 7° to 9.5°)", "8.4°", "saved"]


@pytest.mark.parametrize(
    ("text", "wanted", "fits"),
    [
        ("Aubergine (eggplant)", "EGG", True),
        ("Pak choi", "choi pak", True),
        ("Piment d’Espelette, jalapeño", "jalapeno", True),
        ("Carrot", "beet", False),
        ("Carrot", "", True),
    ],
)
def test_a_crop_is_found_by_any_of_its_words_in_any_order_and_case(run: Run, text: str, wanted: str, fits: bool) -> None:
    assert run("picking", "m.matches(text, wanted)", text=text, wanted=wanted) is fits


def test_the_pad_writes_a_number_key_by_key(run: Run) -> None:
    def typed(keys: list[str]) -> Any:
        return run("round/tools", "keys.reduce((text, key) => m.typed(text, key), '')", keys=keys)

    assert typed(["1", "2", ".", ".", "5"]) == "12.5"
    assert typed(["8", "-"]) == "-8"
    assert typed(["8", "-", "-", "rub"]) == ""
    assert run("round/tools", "[30, 60, 605].map(m.minutes)", none=0) == ["0:30", "1:00", "10:05"]


def test_readings_go_before_pictures_and_no_portion_is_too_large(run: Run) -> None:
    def stop(key: str, at: str, photo: str = "") -> dict[str, Any]:
        return {"key": key, "at": at, "entry": {"temperature": "8", "photo": photo} if photo else {"temperature": "8"}}

    stops = [
        stop("picture", "2026-04-22T06:00", "x" * 900),
        stop("late", "2026-04-22T08:00"),
        stop("early", "2026-04-22T07:00"),
    ]

    def portion(most: int, most_bytes: int) -> Any:
        return run("sending", "m.portion(stops, most, bytes).map((one) => one.key)", stops=stops, most=most, bytes=most_bytes)

    assert portion(50, 10_000) == ["early", "late", "picture"]
    assert portion(50, 100) == ["early", "late"]
    assert portion(1, 10_000) == ["early"]
    assert portion(50, 1) == ["early"]  # one goes however large it is


FIELDS = """
<ol><li class="stop" data-place="3"><input name="3-place" value="3"><input name="3-at" value="06:00">
<input name="3-temperature"><input type="radio" name="3-moisture" value="wet">
<input type="radio" name="3-moisture" value="dry">
<input type="checkbox" name="3-works" value="watered">
<input type="checkbox" name="3-works" value="dug"><input name="3-note"></li></ol>"""


def test_an_entry_holds_what_was_seen_and_fills_the_fields_again(run: Run) -> None:
    entry = {"temperature": "8.4", "moisture": "wet", "works": ["dug"], "note": "crusted"}
    steps = """(() => {
      document.body.innerHTML = html;
      const stop = document.querySelector(".stop"), before = m.gather(stop);
      m.refill(stop, entry);
      const kept = m.gather(stop), draft = new m.Draft(7);
      draft.keep([stop]);
      m.empty(stop);
      const emptied = m.gather(stop);
      draft.restore([stop]);
      return [before, kept, emptied, m.gather(stop)];
    })()"""
    before, kept, emptied, restored = run("round/entry", steps, html=FIELDS, entry=entry)
    assert (before, emptied) == (None, None)
    assert kept == restored == entry | {"place": "3"}


@pytest.mark.parametrize(
    ("number", "sentence"),
    [
        (1, "1 place has not been sent yet"),
        (2, "2 places have not been sent yet"),
        (0, "0 places have not been sent yet"),
    ],
)
def test_a_script_counts_as_the_language_does(run: Run, number: int, sentence: str) -> None:
    assert run("sentences", "m.say('unsent', { number })", number=number) == sentence


def test_a_hole_without_a_value_stays_to_be_seen(run: Run) -> None:
    assert run("sentences", "m.fill('{a} of {b}', { a: 1 })", none=0) == "1 of {b}"


def test_every_sentence_that_scripts_say_is_brought_and_none_for_nothing() -> None:
    said = {code for file in SCRIPTS.rglob("*.js") for code in SAID.findall(file.read_text(encoding="utf-8"))}
    assert set(SENTENCES) | set(COUNTED) <= said
    called = {
        code for file in SCRIPTS.rglob("*.js") for code in re.findall(r'\bsay\("([\w-]+)"', file.read_text(encoding="utf-8"))
    }
    assert called <= set(sentences())


def test_every_plural_of_a_language_has_its_sentence(monkeypatch: pytest.MonkeyPatch) -> None:
    """Unicode's categories: English has two, Polish four, Arabic six."""
    with translation.override("en-us"):
        assert set(sentences()["unsent"]) == {"one", "other"}
    for language, count in (("pl", 3), ("ar", 6)):
        monkeypatch.setattr(script_texts.words, "locale", lambda language=language: Locale.parse(language))
        assert len(sentences()["unsent"]) == count
