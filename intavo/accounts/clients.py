"""Who is calling."""

import hashlib
import hmac
from ipaddress import IPv6Address, IPv6Network, ip_address

from allauth.usersessions.models import UserSession
from django.conf import settings
from django.http import HttpRequest


def client_address(request: HttpRequest) -> str:
    """The address that called, behind the proxies that are trusted (`INTAVO_TRUSTED_PROXIES`)."""
    address = str(request.META.get("REMOTE_ADDR", ""))
    hops = [
        hop.strip() for hop in str(request.META.get("HTTP_X_FORWARDED_FOR", "")).split(",") if hop.strip()
    ]
    while address in settings.TRUSTED_PROXIES and hops:
        address = hops.pop()
    return address


def mark_of(address: str) -> str:
    """A keyed hash of an address: enough to count by, not to find somebody by."""
    return hmac.new(settings.SECRET_KEY.encode(), address.encode(), hashlib.sha256).hexdigest()


def addresses_of_members(business_id: int) -> frozenset[str]:
    """The marks of where the members of a business are signed in:
    what comes from there is their own doing.
    """
    rows = UserSession.objects.filter(user__memberships__business_id=business_id)
    return frozenset(mark_of(address) for address in rows.values_list("ip", flat=True).distinct()[:200])


def neighbourhood(address: str) -> str:
    """What one client can easily take for its address: of IPv6 the /64 that it is given, else the address
    itself.
    """
    try:
        found = ip_address(address)
    except ValueError:
        return address
    return str(IPv6Network((found, 64), strict=False)) if isinstance(found, IPv6Address) else str(found)
