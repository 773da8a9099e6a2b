"""An archive on its way in."""

from __future__ import annotations

from typing import Any

from django import forms
from django.conf import settings
from django.utils.translation import gettext as _

from cloche.apps.shared.i18n import lazy


class ArchiveForm(forms.Form):
    """The file of a whole garden."""

    file = forms.FileField(label=lazy("The garden’s file (zip)"), error_messages={"empty": lazy("The file is empty.")})

    def clean_file(self) -> Any:
        """Not larger than is taken."""
        file, limit = self.cleaned_data["file"], settings.CLOCHE_ARCHIVE_LIMIT_BYTES
        if file.size > limit:
            raise forms.ValidationError(
                _("The file has {size} MB; at most {limit} are accepted.").format(
                    size=f"{file.size / 1000000.0:.0f}", limit=f"{limit / 1000000.0:.0f}"
                ),
                code="large",
            )
        return file
