"""The tongue of pages that belong to nobody: what the visitor's browser asks for, as far as we speak it."""

from babel import negotiate_locale
from django.http import HttpRequest
from django.utils.translation.trans_real import parse_accept_lang_header

from intavo.core.tongues import SPOKEN, Tongue


def tongue_asked(request: HttpRequest) -> Tongue:
    """The first of the browser's languages that we speak, else English."""
    wanted = [
        code.replace("-", "_")
        for code, _ in parse_accept_lang_header(request.headers.get("Accept-Language", ""))
    ]
    return Tongue(negotiate_locale([*wanted, *(one.split("_")[0] for one in wanted)], SPOKEN) or "en")
