"""Sentences used by scripts in the reader's language."""

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
    "keys-on": lazy("Turn on single-key shortcuts"),
    "keys-off": lazy("Turn off single-key shortcuts"),
    "kept-round": lazy("Round in {garden}"),
    "sign-in-again": lazy("Sign in again to send what is waiting here."),
    "not-taken": lazy("The garden did not accept it ({status}). It stays on this device and will be sent again."),
    "no-signal": lazy("No signal: your readings stay on this device and are sent later."),
    "picture-too-large": lazy("Its picture is too large to send. Send it without the picture."),
    "too-large": lazy("It is too large to send."),
    "not-kept": lazy("Not saved: the garden could not be reached. The patch is back where it was."),
    # the round
    "morning-round": lazy("Morning round"),
    "evening-round": lazy("Evening round"),
    "round-at": lazy("{half}, {number} of {all}"),
    "round-done": lazy("{half}, done"),
    "write-round-down": lazy("Save the round"),
    "next": lazy("Next"),
    "finish": lazy("Finish"),
    "skip": lazy("Skip"),
    "skip-finish": lazy("Skip, finish"),
    "keep-next": lazy("Save, next"),
    "keep-finish": lazy("Save, finish"),
    "right-keep-it": lazy("It is correct, save it"),
    "read-it-now": lazy("Read it now"),
    "all-empty": lazy("Nothing has been entered yet: every place is empty."),
    "noted": lazy("saved"),
    "read-and-expected": lazy("{value} (expected {low} to {high})"),
    "far-from-expected": lazy("{value} is far from the expected range, {low} to {high}."),
    "nearer-air": lazy("It is closer to the air temperature, {air}. Was the probe in the ground?"),
    "nearer-surface": lazy("It is closer to the surface temperature, {surface}. Was the probe deep enough?"),
    "had-it-settled": lazy("Had it settled? Was the probe deep enough, and in the ground?"),
    "not-sent-yet": lazy("Not sent yet."),
    "undo": lazy("Undo"),
    "undo-place": lazy("Undo {place}"),
    "undo-needs-signal": lazy("It has already been sent, and undoing it needs signal."),
    "read-again": lazy("Read it again"),
    "open-again": lazy("{place} is open again."),
    "not-stored": lazy("Not saved: this device could not store it ({error}). Your entry is still there."),
    "place-not-stored": lazy("{place} could not be stored on this device. Your entry is still there."),
    "place-gone": lazy("That place is no longer in the round."),
    "waits-for": lazy("is waiting for {person} to sign in here."),
    "mine-is-right": lazy("Use mine"),
    "theirs-is-right": lazy("Use theirs"),
    "send-again": lazy("Send again"),
    "send-without-picture": lazy("Send it without its picture"),
    "change-it": lazy("Change"),
    "drop-it": lazy("Discard"),
    "drop-it-sure": lazy("Discard {value} of {place}? It is not saved anywhere else."),
}


def sentences() -> dict[str, str | dict[str, str]]:
    """Return the sentences by code, with plural forms keyed as Intl.PluralRules names them."""
    return _sentences(get_language(), words.locale())


@cache
def _sentences(language: str | None, locale: Locale) -> dict[str, str | dict[str, str]]:
    """Return the sentences of a language and its plural categories."""
    return {code: str(text) for code, text in SENTENCES.items()} | {code: _by_category(code) for code in COUNTED}


def _by_category(code: str) -> dict[str, str]:
    rule = words.locale().plural_form
    samples = {rule(number): number for number in range(MOST, -1, -1)}
    return {category: COUNTED[code](number) for category, number in samples.items()}


COUNTED = {
    "unsent": lambda n: ngettext("{number} place has not been sent yet", "{number} places have not been sent yet", n),
    "sign-out-unsent": lambda n: ngettext(
        "{number} place has not been sent yet. It stays on this device and will be sent when {person} "
        "signs in here again. Sign out anyway?",
        "{number} places have not been sent yet. They stay on this device and will be sent when {person} "
        "signs in here again. Sign out anyway?",
        n,
    ),
    "other-garden-unsent": lambda n: ngettext(
        "{number} place of this garden has not been sent yet. It stays on this device and will be sent "
        "from any page. Continue?",
        "{number} places of this garden have not been sent yet. They stay on this device and will be "
        "sent from any page. Continue?",
        n,
    ),
    "ticked": lambda n: ngettext("{number} crop ticked", "{number} crops ticked", n),
    "read-and-waiting": lambda n: ngettext(
        "{count} of {all} places read. {number} is waiting on this device and will be sent when there is signal.",
        "{count} of {all} places read. {number} are waiting on this device and will be sent when there is signal.",
        n,
    ),
}
