"""A request that collided with another is asked once more, one after the other."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from intavo.collisions import TRIES, step_back

COLLIDED = "intavo.collided"


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
            step_back(number)
            response = self.get_response(request)
        return response


def _still_there(request: HttpRequest) -> bool:
    """Whether the body can be read once more: it was kept, or there is none."""
    return hasattr(request, "_body") or request.META.get("CONTENT_LENGTH") in {None, "", "0"}
