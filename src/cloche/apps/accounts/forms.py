"""Forms of accounts: allauth's, in our words, with one password that can be looked at instead of two that cannot."""

from __future__ import annotations

from typing import Any

from allauth.account import forms as account
from allauth.mfa.base import forms as mfa
from allauth.mfa.totp.forms import ActivateTOTPForm
from allauth.mfa.webauthn import forms as webauthn
from django import forms
from django.http import HttpRequest

from cloche.apps.accounts import flows
from cloche.apps.gardens.forms import FirstPersonForm
from cloche.apps.shared.words import lazy

PASSWORD_HELP = lazy("At least eight characters, not only digits.")
LABELS = {
    "oldpassword": lazy("Current password"),
    "password1": lazy("New password"),
    "password": lazy("Your password"),
    "email": lazy("Email address"),
    "code": lazy("Code"),
    "name": lazy("Passkey name"),
    "passwordless": lazy("Let this passkey sign me in without name and password"),
}
HELP = {
    "password1": PASSWORD_HELP,
    "passwordless": lazy("Your device then asks for your fingerprint, your face or its own code."),
}


class _OurWords(forms.Form):
    """Form with our own labels, no placeholders and a single password field."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields.pop("password2", None)
        for name, field in self.fields.items():
            field.widget.attrs.pop("placeholder", None)
            field.label = LABELS.get(name, field.label)
            field.help_text = HELP.get(name, "")


class NewPersonForm(FirstPersonForm):
    """A name, a password and an optional email address."""

    email = forms.EmailField(
        label=lazy("Email address (optional)"),
        required=False,
        help_text=lazy("For resetting a forgotten password. Nobody else can see it."),
    )

    def clean_username(self) -> str:
        """Refuse email addresses as names, because people can sign in with either."""
        name: str = self.cleaned_data["username"]
        if "@" in name:
            raise forms.ValidationError(lazy("A name cannot contain @. Enter your email address below."), code="name")
        return name


class ChangePassword(_OurWords, account.ChangePasswordForm):
    """The old password and a new one."""


class ForgottenPassword(_OurWords, account.ResetPasswordForm):
    """The address to which the letter goes."""

    def clean_email(self) -> str:
        """Accept any address; whether someone has it is not revealed here."""
        return str(self.cleaned_data["email"]).lower()

    def save(self, request: HttpRequest, **kwargs: Any) -> str:
        """Queue the letter; a worker looks up whose address it is."""
        email: str = self.cleaned_data["email"]
        flows.ask(email, request.build_absolute_uri("/"))
        return email


class NewPassword(_OurWords, account.ResetPasswordKeyForm):
    """A new password after following the link in a letter."""


class MailAddress(_OurWords, account.AddEmailForm):
    """Another email address."""


class Sure(_OurWords, account.ReauthenticateForm):
    """Confirmation with the password."""


class SecondCode(_OurWords, mfa.AuthenticateForm):
    """A code from the phone or a recovery code."""


class SureByCode(_OurWords, mfa.ReauthenticateForm):
    """Confirmation with a code."""


class ActivatePhone(_OurWords, ActivateTOTPForm):
    """The first code from the phone, which proves that it is set up."""


class AddPasskey(_OurWords, webauthn.AddWebAuthnForm):
    """A passkey and its name."""


class RenamePasskey(_OurWords, webauthn.EditWebAuthnForm):
    """A new name for a passkey."""


class EraseAccountForm(forms.Form):
    """Confirmation with the password before an account is deleted."""

    password = forms.CharField(
        label=lazy("Your password"), strip=False, widget=forms.PasswordInput(attrs={"autocomplete": "current-password"})
    )

    def __init__(self, *args: Any, person: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.person = person

    def clean_password(self) -> str:
        """Check the person's password."""
        password: str = self.cleaned_data["password"]
        if not self.person.check_password(password):
            raise forms.ValidationError(lazy("That is not your password."), code="password")
        return password
