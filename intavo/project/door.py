"""The door before every address and every body of the console: what nobody can have meant goes no further."""

import re
from collections.abc import Callable
from typing import Any

from django.http import HttpRequest, HttpResponse
from django.utils.datastructures import MultiValueDict
from ninja.parser import Parser

from intavo.core.door import let_in, read_json

# No row has such a number; a site's key, which stands elsewhere, may be one.
_ENDLESS = re.compile(r"^/api/.*?/\d{16,}(/|$)")


class PathDoor:
    """A NUL in a path can be looked up in no table, nor a number past all bounds."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """404, or go on."""
        if "\x00" in request.path_info or _ENDLESS.search(request.path_info):
            return HttpResponse(
                "There is nothing here.", status=404, content_type="text/plain; charset=utf-8"
            )
        return self.get_response(request)


class Drained:
    """What nobody cared to read of a request is read to its end, so that the answer arrives at who is still
    sending.
    """

    _PIECE = 64 * 1024

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Go on, and read what is left. How large it can be is decided by the server in front."""
        response = self.get_response(request)
        # The stream ends where the request says that its body does.
        while request._stream.read(self._PIECE):  # no public way reads on once it was begun
            pass
        return response


class BodyDoor(Parser):
    """Reads every body, form and query of the console; NotLetIn names what cannot be taken."""

    def parse_body(self, request: HttpRequest) -> Any:
        """A body of JSON."""
        return read_json(request.body)

    def parse_querydict(
        self, data: MultiValueDict[str, Any], list_fields: list[str], request: HttpRequest
    ) -> Any:
        """A query or a form; files are read by whoever keeps them."""
        found = super().parse_querydict(data, list_fields, request)
        texts = {name: one for name, one in found.items() if data is not request.FILES}
        return found | let_in(texts)
