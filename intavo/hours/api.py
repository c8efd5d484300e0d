"""The console's API on opening hours and what visitors are told."""

from datetime import date, datetime
from typing import Any

from ninja import File, Form, Router, Schema, Status, UploadedFile
from pydantic import Field

from intavo.accounts.actions import look_at_hours
from intavo.accounts.actor import Refused
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.models import Business
from intavo.accounts.queries import business_of, somebody_free
from intavo.core.hours import (
    HORIZON,
    MOST_BYTES,
    OpeningHours,
    instant_on,
    minutes_of,
    parts_of,
    public_holidays,
    read_clock,
    read_exceptions,
    read_hours,
    said_stretches,
    taken_in,
)
from intavo.core.replies import (
    Promise,
    Situation,
    Slot,
    choose,
    explain,
    fill,
    holiday_name,
    next_moment_of,
    promise_words,
    situation,
    slots,
)
from intavo.project import clock

from .actions import (
    add_hours,
    drop_hours,
    follow_hours,
    read_document,
    rename_hours,
    reset_reply,
    set_hours,
    set_replies,
)
from .models import HoursSet
from .queries import main_hours, own_hours, replies

router = Router(tags=["hours"], auth=MemberAuth())


class ToldOut(Schema):
    situation: str
    title: str
    text: str
    in_effect: bool
    comes: bool
    own: bool
    reply: dict[str, Any]


class SetOut(Schema):
    id: int
    name: str
    document: dict[str, Any]
    sites: list[str]


class HoursOut(Schema):
    main: SetOut
    others: list[SetOut]
    promise_minutes: int | None
    promise_now: str
    told: list[ToldOut]


class HoursIn(Schema):
    document: dict[str, Any]


class NewHoursIn(Schema):
    name: str
    document: dict[str, Any]


class NameIn(Schema):
    name: str


class FollowIn(Schema):
    hours_id: int


class WrittenIn(Schema):
    text: str


class WeekStretchOut(Schema):
    day: str
    from_: str = Field(serialization_alias="from")
    to: str


class WeekOut(Schema):
    week: list[WeekStretchOut]


class PartOut(Schema):
    code: str
    name: str


class HolidayOut(Schema):
    day: date
    label: str


class HolidaysOut(Schema):
    parts: list[PartOut]
    days: list[HolidayOut]


class ComingOut(Schema):
    first: date
    last: date
    label: str
    would: str
    usual: str
    replaces: list[str]
    known: bool


class CalendarOut(Schema):
    exceptions: list[dict[str, Any]]
    coming: list[ComingOut]


class ToldReasonOut(Schema):
    words: str
    about: str


class ExplainedOut(Schema):
    at: datetime
    situation: str
    title: str
    text: str
    hidden: bool
    due: datetime | None
    promise: str
    reasons: list[ToldReasonOut]


class ReplyIn(Schema):
    reply: dict[str, Any]


@router.get("/hours/explain", response=ExplainedOut)
def what_would_they_see(
    request: MemberRequest,
    day: date,
    time: str,
    hours_id: int | None = None,
    free: bool = True,
    offset: int | None = None,
) -> ExplainedOut:
    """What somebody would be told at a time on the hours' own clock, and why; `offset` is the visitor's from UTC."""
    business = business_of(request.auth)
    row = own_hours(business.pk, hours_id) if hours_id else main_hours(business.pk)
    at = _on_the_clock(row.value, day, time)
    if offset is not None and abs(offset) > _MOST_OFFSET:
        raise Refused(("offset", "No clock is that far off."))
    found = explain(
        row.value, at, somebody_free=free, table=replies(business.pk), language=business.language,
        business_language=business.language, promise=Promise.of_minutes(business.promise_minutes),
        visitor_offset=offset,
    )  # fmt: skip
    return ExplainedOut(
        at=at, situation=found.situation.value, title=found.title, text=found.text, hidden=found.reply.hidden,
        due=found.due, promise=found.words["promise"],
        reasons=[ToldReasonOut(words=one.words, about=one.about) for one in found.reasons],
    )  # fmt: skip


_MOST_OFFSET = 15 * 60  # minutes


def _on_the_clock(value: OpeningHours, day: date, time: str) -> datetime:
    """A time as people type it on a day of these hours' zone; Refused by its field."""
    try:
        clock_time = read_clock(time)
    except ValueError as error:
        raise Refused(("time", str(error))) from error
    if abs(day.year - clock.now().year) > _MOST_YEARS:
        raise Refused(("day", "This day is too far off."))
    return instant_on(value.zone, day, minutes_of(clock_time))


_MOST_YEARS = 100


@router.get("/hours/holidays", response=HolidaysOut)
def holidays(request: MemberRequest, part: str = "") -> HolidaysOut:
    """The public holidays of the next 13 months in the business's country, or in a part of it."""
    business = business_of(request.auth)
    today = clock.now().astimezone(main_hours(business.pk).value.zone).date()
    parts = [PartOut(code=code, name=name) for code, name in parts_of(business.region)]
    if part and part not in {one.code for one in parts}:
        raise Refused(("part", "This is no part of your country."))
    try:
        found = public_holidays(business.region, (today.year, today.year + 1), part or None)
    except ValueError:
        found = ()
    ahead = [one for one in found if today <= one.first <= today + HORIZON]
    return HolidaysOut(parts=parts, days=[HolidayOut(day=one.first, label=one.label) for one in ahead])


@router.post("/hours/calendar", response=CalendarOut)
def look_at_calendar(request: MemberRequest, file: File[UploadedFile], document: Form[str]) -> CalendarOut:
    """What an iCalendar file would do to a set of hours as it is being edited; nothing is kept."""
    value = read_document(document)
    if (file.size or 0) > MOST_BYTES:
        raise Refused(("file", "This calendar has more than 5 MB; export the odd days alone."))
    today = clock.now().astimezone(value.zone).date()
    try:
        found = read_exceptions(file.read().decode("utf-8-sig"), value.timezone, today, today + HORIZON)
    except UnicodeDecodeError as error:
        raise Refused(("file", "This is not an iCalendar file.")) from error
    except ValueError as error:
        raise Refused(("file", str(error))) from error
    merged, coming = taken_in(value, found)
    return CalendarOut(
        exceptions=[one.model_dump(mode="json", by_alias=True) for one in merged],
        coming=[
            ComingOut(
                first=one.exception.first, last=one.exception.last, label=one.exception.label,
                would=said_stretches(one.exception.stretches), replaces=list(one.replaces), usual=one.usual,
                known=one.known,
            )
            for one in coming
        ],
    )  # fmt: skip


@router.post("/hours/read", response=WeekOut, by_alias=True)
def read(request: MemberRequest, body: WrittenIn) -> WeekOut:
    """A week as people write it, in English or the business's language; nothing is kept."""
    try:
        week = read_hours(body.text, business_of(request.auth).language)
    except ValueError as error:
        raise Refused(("text", str(error))) from error
    return WeekOut(week=[WeekStretchOut(day=one.day, from_=one.from_, to=one.to) for one in week])


@router.get("/hours", response=HoursOut)
def hours(request: MemberRequest) -> HoursOut:
    """The main hours, the promise, and what visitors are told now and in other situations."""
    business, at = business_of(request.auth), clock.now()
    main = main_hours(business.pk)
    value = main.value
    minutes = business.promise_minutes
    promise = Promise.of_minutes(minutes)
    others = HoursSet.objects.filter(business=business).exclude(pk=main.pk).order_by("pk")
    return HoursOut(
        main=_set(main), others=[_set(row) for row in others], promise_minutes=minutes,
        promise_now=promise_words(promise.due(value, at), at, value.zone), told=_told(business, value, promise),
    )  # fmt: skip


def _set(row: HoursSet) -> SetOut:
    sites = row.sitehours_set.select_related("site").order_by("site_id")
    return SetOut(id=row.pk, name=row.name, document=row.document, sites=[one.site.name for one in sites])


def _told(business: Business, value: OpeningHours, promise: Promise) -> list[ToldOut]:
    """What is said in each situation, as it will read when the situation comes next.

    Where it does not come within 400 days, no date would be true: slots are then named instead of filled.
    """
    at, table = clock.now(), replies(business.pk)
    now = situation(value, at, somebody_free(business.pk))
    found = []
    for one in Situation:
        then = at if one is now else next_moment_of(one, value, at)
        comes = one is now or one is not Situation.HOLIDAY or holiday_name(value, then) is not None
        words = slots(value, then, value.zone, promise.due(value, then)) if comes else _NAMED
        chosen = choose(table, one, business.language, business.language)
        reply = chosen.reply
        told = ToldOut(
            situation=one.value, title=fill(reply.title, words), text=fill(reply.text, words), in_effect=one is now,
            comes=comes, own=chosen.cell in table, reply=reply.model_dump(mode="json"),
        )  # fmt: skip
        found.append(told)
    return found


_NAMED: dict[Slot, str] = {
    "next_opening": "(when you open again)", "closing_time": "(when you close)", "day_name": "(name of the day)",
    "promise": "(when you answer)", "back_at": "(when somebody is back)", "first_name": "(their first name)",
}  # fmt: skip


@router.post("/hours/looked-at", response={204: None})
def looked_at(request: MemberRequest) -> Status[None]:
    """They are right as they are."""
    look_at_hours(request.auth)
    return Status(204, None)


@router.post("/hours", response={201: SetOut})
def make_hours(request: MemberRequest, body: NewHoursIn) -> Status[SetOut]:
    """Add a named set of hours."""
    return Status(201, _set(add_hours(request.auth, name=body.name, document=body.document)))


@router.put("/hours/{hours_id}/name", response={204: None})
def name_hours(request: MemberRequest, hours_id: int, body: NameIn) -> Status[None]:
    """Rename a set of hours."""
    rename_hours(request.auth, hours_id=hours_id, name=body.name)
    return Status(204, None)


@router.delete("/hours/{hours_id}", response={204: None})
def delete_hours(request: MemberRequest, hours_id: int) -> Status[None]:
    """Delete a set of hours that nothing follows."""
    drop_hours(request.auth, hours_id=hours_id)
    return Status(204, None)


@router.put("/sites/{site_id}/hours", response={204: None})
def choose_hours(request: MemberRequest, site_id: int, body: FollowIn) -> Status[None]:
    """Say which hours are the main ones of a site."""
    follow_hours(request.auth, site_id=site_id, hours_id=body.hours_id)
    return Status(204, None)


@router.put("/replies/{situation}", response={204: None})
def change_reply(request: MemberRequest, situation: str, body: ReplyIn) -> Status[None]:
    """Say what visitors are told in a situation."""
    set_replies(request.auth, situation=situation, reply=body.reply)
    return Status(204, None)


@router.delete("/replies/{situation}", response={204: None})
def put_back(request: MemberRequest, situation: str) -> Status[None]:
    """Back to the words that ship."""
    reset_reply(request.auth, situation=situation)
    return Status(204, None)


@router.put("/hours/{hours_id}", response={204: None})
def change_hours(request: MemberRequest, hours_id: int, body: HoursIn) -> Status[None]:
    """Replace a set of hours."""
    set_hours(request.auth, hours_id=hours_id, document=body.document)
    return Status(204, None)
