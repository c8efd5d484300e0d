"""What was set aside as spam: released into the list, or thrown out, by a member."""

from django.db import transaction

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.scope import own
from intavo.core.rights import Right
from intavo.touchpoints.live import live_site

from ..body import Sent
from ..models import Quarantined
from .receiving import receive


def _open(actor: Actor, quarantined_id: int) -> Quarantined:
    actor.needs(Right.FOLLOW_UP)
    row = own(actor, Quarantined, quarantined_id, locked=True)
    if row.settled_at is not None:
        raise Refused(("quarantined", "This has been settled already."))
    return row


def release(actor: Actor, *, quarantined_id: int) -> Quarantined:
    """Take it in after all, as of the time it came; Refused if its touchpoint is gone."""
    with transaction.atomic():
        row = _open(actor, quarantined_id)
        site = live_site(row.site.key)
        assert site is not None
        sent = Sent.model_validate(row.raw)
        # Under an id of its own: the sender's id stays with the answer that they were given.
        receive(
            site,
            sent.model_copy(update={"id": f"released-{row.pk}"}),
            at=row.received_at,
            sender=row.sender,
            trusted=True,
        )
        row.settled_at, row.released = clock.now(), True
        row.save(update_fields=["settled_at", "released"])
        actor.noted("released from quarantine", quarantined=row.pk)
    return row


def throw_out(actor: Actor, *, quarantined_id: int) -> None:
    """It is spam: it leaves the list, and what was sent is erased."""
    with transaction.atomic():
        row = _open(actor, quarantined_id)
        row.settled_at, row.raw = clock.now(), {}
        row.save(update_fields=["settled_at", "raw"])
        actor.noted("thrown out of quarantine", quarantined=row.pk)
