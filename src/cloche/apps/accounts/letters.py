"""Letters about an account: a link, or that something about it was changed. The queue hands them over, so that a page never
waits for a mail server, and takes the same time whether anybody has that address or not."""

from __future__ import annotations

from smtplib import SMTPException

from allauth.account.models import EmailAddress
from django.conf import settings
from django.core.mail import send_mail
from django.utils.crypto import get_random_string
from django.utils.translation import gettext as _
from django.utils.translation import override

from cloche.apps.gardens.language import language_of
from cloche.apps.gardens.models import User
from cloche.apps.shared import clock, words
from cloche.apps.shared.words import lazy
from cloche.apps.work import failures, queue
from cloche.bridge.values import border

LETTER = "accounts.letter"
CONFIRM = ("account/email/email_confirmation", "account/email/email_confirmation_signup")
RESET = "account/email/password_reset_key"
CHANGED = {
    "account/email/password_changed": lazy("Your password was changed."),
    "account/email/password_reset": lazy("Your password was reset by email."),
    "account/email/email_changed": lazy("Your email address was changed."),
    "account/email/email_confirmed": lazy("An email address was confirmed as yours."),
    "account/email/email_deleted": lazy("An email address was removed from your account."),
    "mfa/email/totp_activated": lazy("Signing in now also needs a code from your phone."),
    "mfa/email/totp_deactivated": lazy("Signing in no longer needs a code from your phone."),
    "mfa/email/recovery_codes_generated": lazy("New recovery codes were created. The old ones no longer work."),
    "mfa/email/webauthn_added": lazy("A passkey was added to your account."),
    "mfa/email/webauthn_removed": lazy("A passkey was removed from your account."),
}
"""What allauth tells of, by its names."""


class NotSent(failures.Foreseen):
    """Raised when the mail server refuses a letter."""


def leave_the_computer() -> bool:
    """Return whether letters are sent. Without a mail server they are stored as files next to the data."""
    return bool(settings.CLOCHE_MAIL_URL)


def confirmed_address(person: User) -> str:
    """Return the confirmed address of a person, empty if there is none."""
    address = EmailAddress.objects.filter(user=person, verified=True).order_by("-primary").first()
    return str(address.email) if address is not None else ""


def words_for(person: User, kind: str, link: str) -> tuple[str, str]:
    """Return subject and text of a letter with a link in the reader's language."""
    with override(language_of(person)):
        letter = _words(person.username, kind, link, "")
    if letter is None:
        raise KeyError(kind)
    return border.one_line(letter[0]), letter[1]


def write(person: User | None, email: str, kind: str, link: str = "", address: str = "") -> bool:
    """Queue a letter in the reader's language and return whether Cloche writes letters of this kind.

    kind: as allauth names it; link: where it leads; address: of the network, from which something was changed.
    """
    with override(language_of(person) if person else settings.LANGUAGE_CODE):
        letter = _words(person.username if person else email, kind, link, address)
    if letter is None:
        return False
    subject, text = letter
    queue_letter(email, subject, text)
    return True


def _words(name: str, kind: str, link: str, address: str) -> tuple[str, str] | None:
    greeting = _("{name},").format(name=name)
    if kind in CONFIRM:
        text = _("To confirm that this address is yours, open this page and press the button:")
        after = _("If you did not expect this, someone mistyped their own address, and you can ignore this email.")
        return _("Cloche: confirm your email address"), f"{greeting}\n\n{text}\n\n{link}\n\n{after}\n"
    if kind == RESET:
        text = _("You can choose a new password on this page. The link works once, within an hour:")
        after = _("If you did not request this, you can ignore this email. Your password has not changed.")
        return _("Cloche: reset your password"), f"{greeting}\n\n{text}\n\n{link}\n\n{after}\n"
    if kind in CHANGED:
        when = _("On {day} at {clock}, from {address}.").format(
            day=words.day_with_year(clock.now().date()), clock=words.clock(clock.now()) + " UTC", address=address
        )
        after = _("If this was not you, change your password and check your signed-in devices in your account.")
        return _("Cloche: your account"), f"{greeting}\n\n{CHANGED[kind]} {when}\n\n{after}\n"
    return None


def queue_letter(email: str, subject: str, text: str) -> None:
    """Queue a letter to be sent once by a worker."""
    queue.put(LETTER, f"letter-{get_random_string(12)}", email=email, subject=border.one_line(subject), text=text)


def hand_over(email: str, subject: str, text: str) -> None:
    """Send a letter to the mail server. Raises NotSent."""
    try:
        send_mail(subject, text, None, [email])
    except (SMTPException, OSError) as lost:
        raise NotSent(
            _("The mail server did not accept the email to {email} ({name}).").format(email=email, name=type(lost).__name__)
        ) from lost
