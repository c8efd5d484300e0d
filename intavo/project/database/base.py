"""Django's own backend, which gives out no connection that the database has cut.

A pool keeps what the database cut as it began anew until somebody fails with it, one by one. (Django can have
a pool try each before giving it out; it then waits a second, two, and so on between one dead one and the
next.)
"""

from typing import Any

import psycopg
from django.db.backends.postgresql import base


class DatabaseWrapper(base.DatabaseWrapper):
    """As Django's, with a round trip before a connection of the pool is used."""

    def get_new_connection(self, conn_params: Any) -> Any:
        """A connection that answers; where one of the pool does not, all that are dead are thrown out of it
        first.
        """
        connection = super().get_new_connection(conn_params)
        pool = self.pool
        if pool is None:
            return connection
        try:
            pool.check_connection(connection)
        except psycopg.OperationalError:
            pool.putconn(connection)
            pool.check()
            return super().get_new_connection(conn_params)
        return connection
