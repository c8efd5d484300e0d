"""What two wanted at once, each holding what the other waits for, is done one after the other."""

import secrets
import time
from collections.abc import Callable

import psycopg
from django.http import HttpRequest, HttpResponse

TRIES = 4
COLLIDED = "intavo.collided"
_PAUSE = 0.05
# Of the last: what a row leads to is gone since it was looked up, joined to another or erased.
_COLLISIONS = (
    psycopg.errors.DeadlockDetected | psycopg.errors.SerializationFailure | psycopg.errors.ForeignKeyViolation
)


def collided(error: BaseException | None) -> bool:
    """Whether the database gave up one of two that were at the same: all that it did is undone."""
    return isinstance(error, _COLLISIONS) or (error is not None and isinstance(error.__cause__, _COLLISIONS))


class Again:
    """Asks once more where the answer is that two collided, a few times, if what was sent is still there."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """The answer, of the last try."""
        response = self.get_response(request)
        for number in range(1, TRIES):
            if not request.META.pop(COLLIDED, False) or not _still_there(request):
                break
            time.sleep(_PAUSE * number * (1 + secrets.randbelow(100) / 100))
            response = self.get_response(request)
        return response


def _still_there(request: HttpRequest) -> bool:
    """Whether the body can be read once more: it was kept, or there is none."""
    return hasattr(request, "_body") or request.META.get("CONTENT_LENGTH") in {None, "", "0"}
