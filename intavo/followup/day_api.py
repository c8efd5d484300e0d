"""The console's API on what stands above every place: the day line, finding somebody, and the first steps."""

from datetime import datetime

from django.db.models import Q
from ninja import Router, Schema, Status

from intavo import clock
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.core import followup as rules
from intavo.people.queries import marked, search, with_words_around

from .day import day_line
from .first_steps import first_steps, put_away
from .models import FollowUp

router = Router(tags=["follow-up"], auth=MemberAuth())


class MarkOut(Schema):
    id: int
    name: str
    due: datetime
    lane: rules.Lane


class StretchOut(Schema):
    start: datetime
    end: datetime
    reason: str
    label: str


class DayOut(Schema):
    at: datetime
    timezone: str
    start: datetime
    end: datetime
    situation: str
    until: str
    after_reply: str
    stretches: list[StretchOut]
    marks: list[MarkOut]
    late: int
    before_closing: int
    made_not_on: int
    changed_since_live: int
    ended: int
    gateways_away: list[str]
    mail_aside: int
    untouched: int
    untouched_days: int
    # What there is hardly any room left for, in words.
    nearly_full: list[str]


class FoundOut(Schema):
    person_id: int
    name: str
    address: str
    followup_id: int | None
    # Where the words stand (name, address, tag, or what was done), and the text around them, marked by U+E000
    # and U+E001.
    where: str
    text: str


class FirstStepOut(Schema):
    key: str
    done: bool
    name: str
    how: str
    button: str
    go: str


@router.get("/first-steps", response=list[FirstStepOut])
def steps(request: MemberRequest) -> list[FirstStepOut]:
    """What stands between a new owner and the first lead; none once all is done."""
    return [FirstStepOut.from_orm(one) for one in first_steps(request.auth)]


@router.delete("/first-steps", response={204: None})
def put_steps_away(request: MemberRequest) -> Status[None]:
    """Show them no longer."""
    put_away(request.auth)
    return Status(204, None)


@router.get("/day", response=DayOut)
def day(request: MemberRequest) -> DayOut:
    """The day line now."""
    line = day_line(request.auth, clock.now())
    return DayOut(
        at=line.at,
        timezone=line.timezone,
        start=line.start,
        end=line.end,
        situation=line.situation.value,
        until=line.until,
        after_reply=line.after_reply,
        late=line.late,
        before_closing=line.before_closing,
        made_not_on=line.made_not_on,
        changed_since_live=line.changed_since_live,
        ended=line.ended,
        gateways_away=line.away,
        mail_aside=line.aside,
        untouched=line.untouched,
        untouched_days=line.untouched_days,
        nearly_full=line.nearly_full,
        stretches=[
            StretchOut(start=s.start, end=s.end, reason=s.reason, label=s.label) for s in line.stretches
        ],
        marks=[MarkOut(id=m.id, name=m.name, due=m.due, lane=m.lane) for m in line.marks],
    )


# What stands elsewhere was said, and is marked by whoever found it.
_ON_THE_CARD = frozenset({"name", "address", "tag"})
_LOOKED_AT, _SHOWN = 60, 8


@router.get("/find", response=list[FoundOut])
def find(request: MemberRequest, q: str = "") -> list[FoundOut]:
    """People by name or address, with their open follow-up."""
    hits = search(request.auth, q, _LOOKED_AT)
    # Their open piece of work, else the last of those that are finished; whoever has one open comes first.
    rows = FollowUp.objects.filter(
        business_id=request.auth.business_id, person__in=[hit.person.pk for hit in hits]
    )
    rows = rows.annotate(done=Q(state=rules.State.FINISHED.value)).order_by("-done", "pk")
    by_person = {person: (pk, done) for person, pk, done in rows.values_list("person_id", "pk", "done")}
    hits = sorted(hits, key=lambda hit: by_person.get(hit.person.pk, (0, True))[1])[:_SHOWN]
    hits = with_words_around(request.auth, q, hits)
    return [
        FoundOut(
            person_id=hit.person.pk,
            name=hit.person.name,
            followup_id=by_person.get(hit.person.pk, (None, True))[0],
            address=next((address.shown for address in hit.person.addresses.all()), ""),
            where=hit.where,
            text=marked(hit.text, " ".join(q.split())) if hit.where in _ON_THE_CARD else hit.text,
        )
        for hit in hits
    ]
