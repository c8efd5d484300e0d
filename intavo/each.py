"""What is done for one after the other, of whichever business: where it fails for one, the others go on."""

import logging
from collections.abc import Iterator
from contextlib import contextmanager

from django.db import connection

_log = logging.getLogger(__name__)


@contextmanager
def others_go_on(what: str, whose: int) -> Iterator[None]:
    """Around what is done for one of many: what goes wrong is written down, with `what` it was and whose id.

    It is raised all the same where the connection to the database is lost: then nobody can be served.
    """
    try:
        yield
    except Exception:  # Whatever it is, it is one guest's and keeps nobody else
        if not connection.is_usable():
            raise
        _log.exception("%s failed for %s; the others go on", what, whose)
