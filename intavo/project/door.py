"""The door before every address: one that nobody can have been given leads nowhere."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse


class PathDoor:
    """A NUL in a path can be looked up in no table."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """404, or go on."""
        if "\x00" in request.path_info:
            return HttpResponse("There is nothing here.", status=404, content_type="text/plain; charset=utf-8")
        return self.get_response(request)
