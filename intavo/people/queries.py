"""Reads on people."""

import time

from django.db.models import Count, Q, QuerySet

from intavo.accounts.actor import Actor
from intavo.core import people as rules

from .models import Address, Person, TimelineEvent

_DOMAINS_KEPT = 30.0
_domains: dict[int, tuple[float, dict[str, int]]] = {}


def usual_domains(business_id: int) -> dict[str, int]:
    """Domains that three or more people of the business use, with how many; at most 30 s old."""
    known = _domains.get(business_id)
    if known is not None and time.monotonic() - known[0] < _DOMAINS_KEPT:
        return known[1]
    counted = (
        Address.objects.filter(business_id=business_id, kind=Address.EMAIL)
        .values_list("domain")
        .annotate(people=Count("person", distinct=True))
        .filter(people__gte=rules.USUAL_FROM)
    )
    found = dict(counted.values_list("domain", "people"))
    _domains[business_id] = (time.monotonic(), found)
    return found


def slip_offered(business_id: int, address: rules.Address) -> str | None:
    """The address with its domain mended, where the domain looks like a slip of a usual one."""
    mended = rules.likely_slip(address.domain, usual_domains(business_id))
    return None if mended is None else f"{address.shown.rpartition('@')[0]}@{mended}"


def timeline(actor: Actor, person_id: int) -> QuerySet[TimelineEvent]:
    """Everything that happened with a person, oldest first."""
    return (
        TimelineEvent.objects.filter(business_id=actor.business_id, person_id=person_id)
        .select_related("member__user")
        .order_by("at", "id")
    )


def same_phone(actor: Actor, person: Person) -> list[Person]:
    """People who share a phone with this one: perhaps the same."""
    phones = [address.key for address in person.addresses.all() if address.kind == Address.PHONE]
    if not phones:
        return []
    sharing = Q(addresses__kind=Address.PHONE, addresses__key__in=phones)
    found = Person.objects.filter(sharing, business_id=actor.business_id).exclude(pk=person.pk)
    return list(found.distinct().order_by("pk")[:3])


def search(actor: Actor, text: str, limit: int = 8) -> list[Person]:
    """People whose name or address holds the text."""
    wanted = text.strip()
    if not wanted:
        return []
    found = Person.objects.filter(
        Q(name__icontains=wanted) | Q(addresses__key__icontains=wanted.casefold()), business_id=actor.business_id
    )
    return list(found.distinct().prefetch_related("addresses").order_by("name", "pk")[:limit])
