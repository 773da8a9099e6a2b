"""Django's templates, with numbers as SVG and addresses need them in every language.

A number that a person reads comes to the template as text (see apps.shared.words and bridge.values.units). What is left is
coordinates, and a path with decimal commas is no path.
"""

from __future__ import annotations

from typing import Any

from django.template import TemplateDoesNotExist
from django.template.backends.django import DjangoTemplates, Template, reraise
from django.template.context import make_context


class PlainNumbers(DjangoTemplates):
    """Template engine for TEMPLATES that prints numbers without localisation."""

    def from_string(self, template_code: str) -> _Plain:
        """Return a template from its source."""
        return _Plain(self.engine.from_string(template_code), self)

    def get_template(self, template_name: str) -> _Plain:
        """Return a template by name. Raises TemplateDoesNotExist."""
        try:
            return _Plain(self.engine.get_template(template_name), self)
        except TemplateDoesNotExist as missing:
            reraise(missing, self)
            raise


class _Plain(Template):
    def render(self, context: Any = None, request: Any = None) -> Any:
        made = make_context(context, request, autoescape=self.backend.engine.autoescape)
        made.use_l10n = False
        try:
            return self.template.render(made)
        except TemplateDoesNotExist as missing:
            reraise(missing, self.backend)
            raise
