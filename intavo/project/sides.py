"""The two sides of the server: what only the console needs is not done for a visitor's every request.

A visitor has no session, no account and no cookie, and is given JSON; signing in, CSRF tokens, notices and the rules of
a page are the console's. What a visitor is given as a page or a file goes the console's way.
"""

from typing import Any

from csp.middleware import CSPMiddleware
from django.contrib.auth.middleware import AuthenticationMiddleware
from django.contrib.messages.middleware import MessageMiddleware
from django.contrib.sessions.middleware import SessionMiddleware
from django.http import HttpRequest
from django.middleware.clickjacking import XFrameOptionsMiddleware
from django.middleware.csrf import CsrfViewMiddleware
from django.utils.deprecation import MiddlewareMixin

_PROTOCOL = "/e/"
_SHOWN = ("/e/frame", "/files/")


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


class Sessions(_Aside, SessionMiddleware):
    """Sessions of the console."""


class Csrf(_Aside, CsrfViewMiddleware):
    """Tokens against forged requests; every address of the visitor's protocol is exempt and checks the origin."""


class SignedIn(_Aside, AuthenticationMiddleware):
    """Who is signed in."""


class Notices(_Aside, MessageMiddleware):
    """What allauth tells between two pages."""


class Framing(_Aside, XFrameOptionsMiddleware):
    """Whether a page may stand in a frame."""


class PageRules(_Aside, CSPMiddleware):
    """What a page of ours may load."""
