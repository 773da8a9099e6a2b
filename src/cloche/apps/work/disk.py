"""Whether there is room on the disk. Without it nothing is written, so that what is there stays whole; with it, all goes on."""

from __future__ import annotations

import shutil
import time

from django.conf import settings

LOOKED_EVERY_S = 2.0
_LAST: dict[str, float] = {}


def free_bytes() -> int:
    """Room left where the data lie."""
    path = settings.STATE
    while not path.exists():
        path = path.parent
    return shutil.disk_usage(path).free


def is_full() -> bool:
    """Whether too little is left to write safely; looked at every two seconds."""
    now = time.monotonic()
    if now - _LAST.get("at", -1e9) >= LOOKED_EVERY_S:
        _LAST.update(at=now, free=free_bytes())
    return _LAST["free"] < settings.CLOCHE_LEAST_FREE_BYTES
