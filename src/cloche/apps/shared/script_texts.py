"""The sentences that scripts say, in the reader’s language."""

from __future__ import annotations

from functools import cache

from babel import Locale
from django.utils.translation import get_language, ngettext

from cloche.apps.shared import words
from cloche.apps.shared.words import lazy

MOST = 200
"""Every category of every language's plurals has a number below it (Unicode's plural rules)."""

SENTENCES = {
    # every page
    "keys-on": lazy("Turn single keys on"),
    "keys-off": lazy("Turn single keys off"),
    "kept-round": lazy("The round in {garden}"),
    "sign-in-again": lazy("Sign in again to send what waits here."),
    "not-taken": lazy("The garden did not take it ({status}). It stays on this device and is tried again."),
    "no-signal": lazy("No signal: what you read stays on this device and is sent later."),
    "picture-too-large": lazy("Its picture is too large to send. Send it without."),
    "too-large": lazy("It is too large to send."),
    "not-kept": lazy("Not kept: the garden could not be reached. It lies where it lay."),
    # the round
    "morning-round": lazy("Morning round"),
    "evening-round": lazy("Evening round"),
    "round-at": lazy("{half}, {number} of {all}"),
    "round-done": lazy("{half}, done"),
    "write-round-down": lazy("Write the round down"),
    "next": lazy("Next"),
    "finish": lazy("Finish"),
    "skip": lazy("Skip"),
    "skip-finish": lazy("Skip, finish"),
    "keep-next": lazy("Keep, next"),
    "keep-finish": lazy("Keep, finish"),
    "right-keep-it": lazy("It is right, keep it"),
    "read-it-now": lazy("Read it now"),
    "all-empty": lazy("Nothing is written down yet: every place is empty."),
    "noted": lazy("noted"),
    "read-and-expected": lazy("{value}, expected {low} to {high}"),
    "far-from-expected": lazy("{value} is far from the {low} to {high} expected."),
    "nearer-air": lazy("It is nearer the air’s {air}: was the probe in the ground?"),
    "nearer-surface": lazy("It is nearer the surface’s {surface}: was it deep enough?"),
    "had-it-settled": lazy("Had it settled? Was it deep enough, and in the ground?"),
    "not-sent-yet": lazy("Not sent yet."),
    "undo": lazy("Undo"),
    "undo-place": lazy("Undo {place}"),
    "undo-needs-signal": lazy("It is sent already, and to undo it needs signal."),
    "read-again": lazy("Read it again"),
    "open-again": lazy("{place} is open again."),
    "not-stored": lazy("Not kept: this device could not store it ({error}). It is still typed here."),
    "place-not-stored": lazy("{place} could not be stored on this device. It is still typed there."),
    "place-gone": lazy("That place is no longer on the walk."),
    "waits-for": lazy("waits for {person} to sign in here."),
    "mine-is-right": lazy("Mine is right"),
    "theirs-is-right": lazy("Theirs is right"),
    "send-again": lazy("Send again"),
    "send-without-picture": lazy("Send it without its picture"),
    "change-it": lazy("Change it"),
    "drop-it": lazy("Drop it"),
    "drop-it-sure": lazy("Drop {value} of {place}? It is nowhere else."),
}


def sentences() -> dict[str, str | dict[str, str]]:
    """By code; what counts something by the categories of the language's plurals, as Intl.PluralRules names them."""
    return _sentences(get_language(), words.locale())


@cache
def _sentences(language: str | None, locale: Locale) -> dict[str, str | dict[str, str]]:
    """Those of a language and its plurals, which are the ones in use."""
    return {code: str(text) for code, text in SENTENCES.items()} | {code: _by_category(code) for code in COUNTED}


def _by_category(code: str) -> dict[str, str]:
    rule = words.locale().plural_form
    samples = {rule(number): number for number in range(MOST, -1, -1)}
    return {category: COUNTED[code](number) for category, number in samples.items()}


COUNTED = {
    "unsent": lambda n: ngettext("{number} place is not sent yet", "{number} places are not sent yet", n),
    "sign-out-unsent": lambda n: ngettext(
        "{number} place is not sent yet. It stays on this device and is sent when {person} signs in here again. "
        "Sign out all the same?",
        "{number} places are not sent yet. They stay on this device and are sent when {person} signs in here again. "
        "Sign out all the same?",
        n,
    ),
    "other-garden-unsent": lambda n: ngettext(
        "{number} place of this garden is not sent yet. It stays on this device and is sent from any page. Go on?",
        "{number} places of this garden are not sent yet. They stay on this device and are sent from any page. Go on?",
        n,
    ),
    "ticked": lambda n: ngettext("{number} crop ticked", "{number} crops ticked", n),
    "read-and-waiting": lambda n: ngettext(
        "{count} of {all} places read. {number} waits on this device and is sent when there is signal.",
        "{count} of {all} places read. {number} wait on this device and are sent when there is signal.",
        n,
    ),
}
