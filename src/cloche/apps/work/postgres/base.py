"""Where Django looks for the wrapper of a database's connection."""

from __future__ import annotations

import time
from typing import Any

from django.db.backends.postgresql import base
from psycopg import OperationalError

from cloche.apps.work.patience import CONNECTS_S, PATIENCE


class DatabaseWrapper(base.DatabaseWrapper):
    """Without this, a request whose connection was cut would wait for each further one that it opens."""

    def get_new_connection(self, conn_params: dict[str, Any]) -> Any:
        """As Django's; raises OperationalError at once while the database rests."""
        if PATIENCE.is_shut():
            raise OperationalError("the database did not answer a moment ago")
        begun = time.monotonic()
        try:
            return super().get_new_connection(conn_params)  # type: ignore[misc]
        except OperationalError:
            if time.monotonic() - begun >= CONNECTS_S:
                PATIENCE.rest()  # it took the connection and said nothing
            raise
