"""The two sides of the server: what only the console needs is not done for a visitor's every request.

A visitor has no session, no account and no cookie, and is given JSON; signing in, CSRF tokens, notices and
the rules of a page are the console's. What a visitor is given as a page or a file goes the console's way.
"""

from typing import Any

from csp.middleware import CSPMiddleware
from django.contrib.auth.middleware import AuthenticationMiddleware
from django.contrib.messages.middleware import MessageMiddleware
from django.contrib.sessions.middleware import SessionMiddleware
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.middleware.clickjacking import XFrameOptionsMiddleware
from django.middleware.csrf import CsrfViewMiddleware
from django.middleware.gzip import GZipMiddleware
from django.utils.cache import patch_vary_headers
from django.utils.deprecation import MiddlewareMixin

from intavo.core.say import ENGLISH, READER

_PROTOCOL = "/e/"
_SHOWN = ("/e/frame", "/files/")
_TOLD = ("/api/", "/_allauth/")
_SECRETS = ("/api/mail-in", "/api/gateways")
_WORTH_IT = 1_000


def of_the_protocol(request: HttpRequest) -> bool:
    """Whether this is a call of the visitor's script, answered by JSON, a script or nothing."""
    path = request.path_info
    return path.startswith(_PROTOCOL) and not any(part in path for part in _SHOWN)


class _Aside(MiddlewareMixin):
    """Steps aside for the visitor's protocol."""

    def __call__(self, request: HttpRequest) -> Any:
        """Go on at once, or do what the console needs."""
        if of_the_protocol(request):
            return self.get_response(request)
        return super().__call__(request)


class Reader(MiddlewareMixin):
    """Whoever read before reads no more: what a member is told is written for the region of their own
    business.
    """

    def process_request(self, request: HttpRequest) -> None:
        """Nobody has said yet where they are."""
        READER.set(ENGLISH)


class Packed(GZipMiddleware):
    """Packs plans and what the console is told; Django pads it, so that its length says nothing of what is in
    it.

    What holds a secret beside anything else goes out as it is.
    """

    def process_response(self, request: HttpRequest, response: HttpResponseBase) -> HttpResponseBase:
        """Pack what is worth it."""
        path = request.path_info
        told = path.startswith("/api/") and not path.startswith(_SECRETS)
        if not (told or (path.startswith(_PROTOCOL) and path.endswith("/plan"))):
            return response
        if not response.streaming and len(response.content) < _WORTH_IT:  # type: ignore[attr-defined]
            return response
        return super().process_response(request, response)


class Private(MiddlewareMixin):
    """What is told to whoever is signed in is kept by nobody on the way, nor by a browser that others use."""

    def process_response(self, request: HttpRequest, response: HttpResponseBase) -> HttpResponseBase:
        """Say so, unless the answer says itself how long it holds."""
        if request.path_info.startswith(_TOLD) and "Cache-Control" not in response:
            response["Cache-Control"] = "private, no-store"
        return response


class Sessions(_Aside, SessionMiddleware):
    """Sessions of the console.

    Only signing out takes the cookie away. A request that finds no session any more may have been under way
    while signing in gave the browser another one, which would go with the cookie.
    """

    def process_response(self, request: HttpRequest, response: HttpResponse) -> HttpResponse:
        """Keep what has changed."""
        if request.session.is_empty() and not request.session.modified:
            patch_vary_headers(response, ("Cookie",))
            return response
        return super().process_response(request, response)


class Csrf(_Aside, CsrfViewMiddleware):
    """Tokens against forged requests; every address of the visitor's protocol is exempt and checks the
    origin.
    """


class SignedIn(_Aside, AuthenticationMiddleware):
    """Who is signed in."""


class Notices(_Aside, MessageMiddleware):
    """What allauth tells between two pages."""


class Framing(_Aside, XFrameOptionsMiddleware):
    """Whether a page may stand in a frame."""


class PageRules(_Aside, CSPMiddleware):
    """What a page of ours may load."""
