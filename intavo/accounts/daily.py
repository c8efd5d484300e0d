"""What is written to others on a member's behalf happens few times a day."""

from datetime import timedelta

from intavo import clock

from .actor import Actor, Refused
from .models import AuditEntry


def few_a_day(actor: Actor, verb: str, most: int, field: str) -> None:
    """Refused, naming `field`, where the business has done this so often within a day, by its log."""
    done = AuditEntry.objects.filter(
        business_id=actor.business_id, verb=verb, at__gt=clock.now() - timedelta(days=1)
    ).count()
    if done >= most:
        raise Refused((field, f"That was {most} times within a day; please go on tomorrow."))
