"""Times for a call: what is free, and taking one."""

from datetime import datetime, timedelta

from django.db import connection
from django.db.models import Count

from intavo.accounts.actor import Refused
from intavo.core.followup import Kind, State
from intavo.core.slots import Slot, call_slots
from intavo.core.tongues import Phrase
from intavo.core.touchpoint import FieldPart
from intavo.followup.models import FollowUp
from intavo.touchpoints.onsite import LiveSite

from .sent import Incoming, time_of_call


def free_slots(
    site: LiveSite, touchpoint_id: int, field: FieldPart, follows: tuple[int | None, ...], at: datetime
) -> list[Slot]:
    """The times that can still be taken for a slot field of a touchpoint."""
    open_ones = FollowUp.objects.filter(
        business_id=site.business.pk, touchpoint_id=touchpoint_id, kind=Kind.CALL_BACK.value, due__gte=at
    ).exclude(state=State.FINISHED.value)
    taken = dict(open_ones.values_list("due").annotate(count=Count("pk")))
    return call_slots(
        site.hours_for(follows),
        at,
        timedelta(minutes=field.minutes),
        timedelta(minutes=field.notice),
        taken,
        field.capacity,
    )


def lock_slots(touchpoint_id: int) -> None:
    """Whoever else wants a time of this touchpoint waits until the caller's transaction is over."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_advisory_xact_lock(%s, %s)", [7301, touchpoint_id])


def take_slot(incoming: Incoming) -> tuple[datetime, datetime]:
    """Start and end of the slot that was chosen; Refused if it is not free any more.

    Of two who want the last one, the second waits for the first's transaction, and then it is gone.
    """
    field = next(one for one in incoming.document.fields("slot") if one.name in incoming.checked.values)
    place = f"answers.{field.name}"
    lock_slots(incoming.revision.touchpoint)
    wanted = time_of_call(incoming.document, incoming.checked)
    if wanted is None:
        raise Refused((place, Phrase("Please choose a time.")))
    free = free_slots(
        incoming.site, incoming.revision.touchpoint, field, incoming.document.after.follows, incoming.at
    )
    slot = next((one for one in free if one.start == wanted), None)
    if slot is None:
        raise Refused((place, Phrase("This time has just been taken. Please choose another.")))
    return slot.start, slot.end
