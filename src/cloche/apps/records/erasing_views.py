"""Pages on which something is erased for good. Each says what goes, and offers it as a file first."""

from __future__ import annotations

from typing import Any

from django import forms
from django.contrib import messages
from django.contrib.auth import logout
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _

from cloche.apps.accounts.forms import EraseAccountForm
from cloche.apps.gardens.access import OWNS, GardenRequest, in_garden
from cloche.apps.gardens.models import Garden, User
from cloche.apps.records import erasing
from cloche.apps.shared.http import INVALID
from cloche.apps.shared.i18n import lazy


class EraseGardenForm(forms.Form):
    """Nobody erases a garden by a slip: its name is typed."""

    name = forms.CharField(label=lazy("Type its name, to be sure"), max_length=80)

    def __init__(self, *args: Any, garden: Garden, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.garden = garden
        self.fields["name"].widget.attrs["autocomplete"] = "off"

    def clean_name(self) -> str:
        """As it is called."""
        name: str = self.cleaned_data["name"]
        if name.strip() != self.garden.name.strip():
            raise forms.ValidationError(_("It is called {name}.").format(name=self.garden.name), code="name")
        return name


@in_garden(writing=OWNS)
def erase_garden(request: GardenRequest) -> HttpResponse:
    """A garden, by one of its owners."""
    request.room = "garden"  # type: ignore[attr-defined]
    if not request.membership.may(OWNS):
        return render(request, "not_yours.html", {"role": request.membership.get_role_display()}, status=403)
    form = EraseGardenForm(request.POST or None, garden=request.garden)
    if form.is_valid():
        name = request.garden.name
        erasing.erase_garden(request.garden, request.user)
        messages.success(request, _("{name} is erased.").format(name=name))
        return redirect("home")
    context = {"form": form, "holds": erasing.holds(request.garden)}
    return render(request, "records/erase_garden.html", context, status=INVALID if form.errors else 200)


@login_required
def erase_account(request: HttpRequest) -> HttpResponse:
    """One's own account."""
    person: User = request.user  # type: ignore[assignment]
    form = EraseAccountForm(request.POST or None, person=person)
    if form.is_valid():
        try:
            erasing.erase_account(person)
        except erasing.OthersAreIn as why:
            form.add_error(None, str(why))
        else:
            logout(request)
            return redirect("sign_in")
    context = {"form": form, "leaving": erasing.leaving(person)}
    return render(request, "records/erase_account.html", context, status=INVALID if form.errors else 200)
