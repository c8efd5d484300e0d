"""What is done for one after the other: where it fails for one business, it is done for the others."""

import logging
from collections.abc import Callable, Iterable
from typing import TypeVar

from django.db import InterfaceError, OperationalError

T = TypeVar("T")
_log = logging.getLogger(__name__)


def for_each(things: Iterable[T], do: Callable[[T], object], what: str) -> list[Exception]:
    """Do it for each; what went wrong is written down with `what` it was and whose, and given back.

    Raises OperationalError and InterfaceError: without a database nothing can be done for anybody.
    """
    wrong: list[Exception] = []
    for one in things:
        try:
            do(one)
        except (OperationalError, InterfaceError):
            raise
        except Exception as error:  # Whatever it is, it is one guest's and keeps nobody else
            _log.exception("%s failed for %s; the others go on", what, getattr(one, "pk", one))
            wrong.append(error)
    return wrong
