"""An archive on its way in."""

from __future__ import annotations

from typing import Any

from django import forms
from django.conf import settings


class ArchiveForm(forms.Form):
    """The file of a whole garden."""

    file = forms.FileField(label="The garden’s file (zip)", error_messages={"empty": "The file is empty."})

    def clean_file(self) -> Any:
        """Not larger than is taken."""
        file, limit = self.cleaned_data["file"], settings.CLOCHE_ARCHIVE_LIMIT_BYTES
        if file.size > limit:
            raise forms.ValidationError(
                f"The file has {file.size / 1e6:.0f} MB; up to {limit / 1e6:.0f} are taken.", code="large"
            )
        return file
