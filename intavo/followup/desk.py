"""Who is at a follow-up now, what each is writing, and what was answered meanwhile."""

from collections.abc import Collection, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime, timedelta

from django.db import transaction

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.models import Member
from intavo.accounts.rows import insert
from intavo.accounts.scope import own
from intavo.core.rights import Right
from intavo.people.models import TimelineEvent

from .models import AtDesk, DoneOnce, FollowUp

# A page that is looked at says so every five seconds.
READS_FOR, WRITES_FOR = timedelta(seconds=20), timedelta(seconds=20)
TELLS_LATE = timedelta(minutes=1)
MOST_DRAFT = 40_000
KNOWN_FOR = timedelta(days=90)


@dataclass(frozen=True, slots=True)
class Colleague:
    """Another member who is at it: their name, and whether they are writing an answer."""

    name: str
    writing: bool


def sit_down(actor: Actor, *, followup_id: int, draft: str | None, writing: bool) -> list[Colleague]:
    """Say that one is at a follow-up, and keep what is being written (None: as it was); says who else is at
    it.
    """
    actor.needs(Right.FOLLOW_UP)
    row = own(actor, FollowUp, followup_id)
    if draft is not None and len(draft) > MOST_DRAFT:
        raise Refused(("draft", f"An answer has at most {MOST_DRAFT:,} letters."))
    at = clock.now()
    if actor.member_id is None:
        return []
    said: dict[str, object] = {"seen_at": at, "business_id": actor.business_id}
    if draft and _just_sent(actor, row, draft, at):
        draft, writing = "", False
    if writing:
        said["wrote_at"] = at
    if draft is not None:
        said |= {"draft": draft, "draft_at": at if draft else None}
    AtDesk.objects.update_or_create(followup_id=row.pk, member_id=actor.member_id, defaults=said)
    return others_at(actor, row.pk, at)


def _just_sent(actor: Actor, row: FollowUp, draft: str, at: datetime) -> bool:
    """Whether these words have just gone out: the page that they were written on tells of them late."""
    sent = TimelineEvent.objects.filter(
        business_id=actor.business_id,
        person_id=row.person_id,
        member_id=actor.member_id or 0,
        kind="answered",
        at__gt=at - TELLS_LATE,
        data__followup=row.pk,
        data__text=draft.strip(),
    )
    return sent.exclude(data__has_key="taken_back").exists()


def get_up(actor: Actor, *, followup_id: int) -> None:
    """Say that one looks at something else; what was being written stays."""
    actor.needs(Right.FOLLOW_UP)
    row = own(actor, FollowUp, followup_id)
    AtDesk.objects.filter(followup_id=row.pk, member_id=actor.member_id or 0).update(
        seen_at=clock.now() - READS_FOR, wrote_at=None
    )


def others_at(actor: Actor, followup_id: int, at: datetime) -> list[Colleague]:
    """Who else is at a follow-up; those who write come first."""
    rows = AtDesk.objects.filter(followup_id=followup_id, seen_at__gt=at - READS_FOR).exclude(
        member_id=actor.member_id or 0
    )
    found = [
        Colleague(one.member.called, one.wrote_at is not None and one.wrote_at > at - WRITES_FOR)
        for one in rows.select_related("member__user").order_by("pk")
    ]
    return sorted(found, key=lambda one: not one.writing)


def draft_of(actor: Actor, followup_id: int) -> str:
    """What this member has begun to write, on whichever device."""
    row = AtDesk.objects.filter(followup_id=followup_id, member_id=actor.member_id or 0).first()
    return row.draft if row else ""


def begun_by(actor: Actor) -> list[int]:
    """The follow-ups for which this member has begun an answer."""
    rows = AtDesk.objects.filter(business_id=actor.business_id, member_id=actor.member_id or 0)
    return list(rows.exclude(draft="").values_list("followup_id", flat=True))


def gone_out(actor: Actor, followup_id: int) -> None:
    """The answer was sent: it is no longer being written."""
    AtDesk.objects.filter(followup_id=followup_id, member_id=actor.member_id or 0).update(
        draft="", draft_at=None, wrote_at=None
    )


def come_back(actor: Actor, followup_id: int, text: str) -> None:
    """The answer was taken back before it went out: it is being written again,
    where nothing else is by now.
    """
    if actor.member_id is None:
        return
    AtDesk.objects.get_or_create(
        followup_id=followup_id,
        member_id=actor.member_id,
        defaults={"seen_at": clock.now(), "business_id": actor.business_id},
    )
    AtDesk.objects.filter(followup_id=followup_id, member_id=actor.member_id, draft="").update(
        draft=text, draft_at=clock.now()
    )


# What a colleague did with a follow-up, as it is told to whoever did not know.
WORKED = {
    "answered": "has answered", "finished": "has finished it", "put off": "has put it off",
    "waiting": "has left it to them",
}  # fmt: skip


def first_told(
    actor: Actor,
    *,
    person_id: int,
    followup_id: int,
    seen: int | None,
    kinds: Collection[str] = ("answered",),
) -> None:
    """Refuse what somebody does who has not seen what a colleague did meanwhile; None: they were not asked.

    `seen` is the id of the last entry of the timeline that they have seen.
    """
    if seen is None:
        return
    events = TimelineEvent.objects.filter(
        business_id=actor.business_id,
        person_id=person_id,
        kind__in=kinds,
        pk__gt=seen,
        data__followup=followup_id,
    )
    events = events.exclude(member_id=actor.member_id or 0).exclude(data__has_key="taken_back")
    # What somebody answered says more than what came of it.
    found = list(events.select_related("member__user").order_by("-pk")[:20])
    if found:
        last = next((one for one in found if one.kind == "answered"), found[0])
        said = str(last.data.get("text", ""))[:300]
        told = f"{_called(last.member)} {WORKED[last.kind]} meanwhile" + (f": “{said}”" if said else ".")
        raise Refused(("seen", told))


@contextmanager
def once(actor: Actor, *, followup_id: int, key: str, seen: int | None) -> Iterator[bool]:
    """Around what a device did without a network: says whether it is still to be done.

    It is done once for a `key` ("": whenever it comes), and not at all where a colleague has worked it after
    `seen`.
    """
    actor.needs(Right.FOLLOW_UP)
    with transaction.atomic():
        row = own(actor, FollowUp, followup_id, locked=True)
        if key and insert(
            DoneOnce, skip_doubles=True, business_id=actor.business_id, member_id=actor.member_id, once=key,
            at=clock.now(),
        ) is None:  # fmt: skip
            yield False
            return
        first_told(actor, person_id=row.person_id, followup_id=row.pk, seen=seen, kinds=tuple(WORKED))
        yield True


def clear_away() -> None:
    """Forget the ids of devices that are older than any device keeps what it did."""
    DoneOnce.objects.filter(at__lt=clock.now() - KNOWN_FOR).delete()


def _called(member: Member | None) -> str:
    return member.called if member else "Somebody"
