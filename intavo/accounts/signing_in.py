"""Who signs in from where: told by mail where that is somewhere new."""

import hashlib
import ipaddress
from typing import Any

from allauth.account.adapter import get_adapter
from allauth.account.signals import user_logged_in
from django.dispatch import receiver
from django.http import HttpRequest

from intavo import clock

from .models import SeenBrowser, User


def _mark(request: HttpRequest, address: str) -> str:
    """The browser, and the network it is in: an address of its own would be new every day."""
    try:
        wide = 16 if ipaddress.ip_address(address).version == 4 else 32
        network = str(ipaddress.ip_network(f"{address}/{wide}", strict=False))
    except ValueError:
        network = "?"
    return hashlib.sha256(f"{request.headers.get('User-Agent', '')}|{network}".encode()).hexdigest()


@receiver(user_logged_in)
def note_browser(request: HttpRequest, user: User, **_: Any) -> None:
    """Remember it; the very first one is not worth a mail."""
    adapter = get_adapter(request)
    first = not SeenBrowser.objects.filter(user=user).exists()
    mark = _mark(request, adapter.get_client_ip(request))
    made = SeenBrowser.objects.update_or_create(user=user, mark=mark, defaults={"last_at": clock.now()})
    if made[1] and not first:
        adapter.send_notification_mail("account/email/new_sign_in", user)
