"""Crops that a garden made itself: a relative under another name, with values of its own. Set once for a request, a task or a
forecast, and heard by everything that asks for a crop by its key in it."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from cloche.core.crops import catalogue
from cloche.core.crops.catalogue import Crop

KEY = re.compile(r"own_[0-9a-f]{8}")
SOURCE = "your own word, else as its relative"
MOST = 60
Own = Mapping[str, Mapping[str, Any]]
"""By key: of, the relative's key; name and plural; values by name (see bridge.services.crops.with_values)."""


def use(own: Own) -> None:
    """From now on these crops are there besides the catalogue's."""
    catalogue.add(tuple(_made(key, entry) for key, entry in own.items() if entry["of"] in catalogue.catalogue()))


def _made(key: str, entry: Mapping[str, Any]) -> Crop:
    # Here, as that module names crops through this one.
    from cloche.bridge.services.crops import with_values

    both = (str(entry["name"]), str(entry["plural"]))
    own = with_values(catalogue.catalogue()[entry["of"]], entry["values"])
    return replace(
        own, key=key, name=both[0], name_plural=both[1], american=both, british=both, usual=False, growing_source=SOURCE
    )
