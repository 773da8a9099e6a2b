"""A column that holds a typed record."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from django.db import models

from cloche.bridge.values import stored


class RecordField(models.JSONField):
    """A record of bridge.values.stored, or a list of them, as JSON; what was stored in another format reads as `nothing()`."""

    def __init__(self, kind: Any = None, *args: Any, nothing: Callable[[], Any] | None = None, **kwargs: Any) -> None:
        if nothing is not None:
            kwargs.setdefault("default", nothing)
        super().__init__(*args, **kwargs)
        self.kind, self.nothing = kind, nothing or (lambda: None)

    def deconstruct(self) -> Any:
        """For the database it is JSON; which record is the program's business."""
        name, _, args, kwargs = super().deconstruct()
        return name, "django.db.models.JSONField", args, kwargs

    def from_db_value(self, value: Any, expression: Any, connection: Any) -> Any:
        """The record."""
        if value is None:
            return None
        record = stored.load(value, self.kind)
        return self.nothing() if record is None else record

    def get_db_prep_value(self, value: Any, connection: Any, prepared: bool = False) -> Any:
        """Its JSON."""
        plain = None if value is None else stored.dump(value, self.kind)
        return super().get_db_prep_value(plain, connection, prepared)
