"""Where Django looks for the wrapper of a database's connection."""

from __future__ import annotations

import time
from typing import Any

from django.db.backends.postgresql import base
from psycopg import OperationalError

from cloche.apps.work.patience import CONNECTS_S, PATIENCE


class DatabaseWrapper(base.DatabaseWrapper):
    """Database wrapper that does not reconnect after a request's connection was cut.

    Otherwise the request would wait again for each new connection.
    """

    def get_new_connection(self, conn_params: dict[str, Any]) -> Any:
        """Connect like Django; raises OperationalError at once while the database is resting."""
        if PATIENCE.is_shut():
            raise OperationalError("the database did not answer a moment ago")
        begun = time.monotonic()
        try:
            return super().get_new_connection(conn_params)  # type: ignore[misc]
        except OperationalError:
            if time.monotonic() - begun >= CONNECTS_S:
                PATIENCE.rest()  # it took the connection and said nothing
            raise
