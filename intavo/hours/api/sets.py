"""The console's API on sets of opening hours."""

import json
from datetime import date, datetime, timedelta
from typing import Annotated, Any

from django.conf import settings
from ninja import File, Form, Schema, Status, UploadedFile
from pydantic import Field

from intavo import clock
from intavo.accounts.actions import look_at_hours
from intavo.accounts.actor import Refused
from intavo.accounts.auth import MemberRequest
from intavo.accounts.edits import Edit
from intavo.accounts.queries import business_of
from intavo.apart import Busy, Unreadable, apart
from intavo.core.holds import Holds
from intavo.core.hours import (
    HORIZON,
    MOST_BYTES,
    HoursException,
    OpeningHours,
    opening_hours_specification,
    parts_of,
    public_holidays,
    read_exceptions,
    read_what_can_be,
    said_stretches,
    taken_in,
    usual_entries,
)
from intavo.core.replies import (
    Promise,
    promise_words,
)
from intavo.core.say import READER

from ..actions import (
    add_hours,
    bring_hours_back,
    drop_hours,
    follow_hours,
    give_address,
    read_document,
    rename_hours,
    set_hours,
    would_move,
)
from ..effects import Followed, Promised, hours_followed, promises_counted
from ..models import HoursSet
from ..queries import kept_sets, main_hours, own_hours
from .router import router
from .told import ToldOut, told


class SetOut(Schema):
    id: int
    name: str
    document: Annotated[dict[str, Any], Holds(OpeningHours)]
    sites: list[str]


class HoursOut(Schema):
    main: SetOut
    others: list[SetOut]
    promise_minutes: int | None
    promise_now: str
    told: list[ToldOut]


class HoursIn(Schema):
    document: Annotated[dict[str, Any], Holds(OpeningHours)]
    # What it was made from: what others have changed since is kept then.
    based_on: Annotated[dict[str, Any], Holds(OpeningHours)] | None = None
    all_the_same: bool = False

    def edit(self) -> Edit:
        """As the action takes it."""
        return Edit(self.document, self.based_on, self.all_the_same)


class NewHoursIn(Schema):
    name: str
    document: Annotated[dict[str, Any], Holds(OpeningHours)]


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
    # Pieces of the text that say nothing that can be read.
    unread: list[str]


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
    # Names of entries that are left out, since they say what is usual.
    usual: list[str]
    exceptions: list[Annotated[dict[str, Any], Holds(HoursException)]]
    coming: list[ComingOut]


@router.get("/hours/holidays", response=HolidaysOut)
def holidays(request: MemberRequest, part: str = "") -> HolidaysOut:
    """The public holidays of the next 13 months in the business's country, or in a part of it."""
    business = business_of(request.auth)
    today = clock.now().astimezone(main_hours(business.pk).value.zone).date()
    parts = [PartOut(code=code, name=name) for code, name in parts_of(business.region)]
    if part and part not in {one.code for one in parts}:
        raise Refused(("part", "This is no part of your country."))
    try:
        found = public_holidays(
            business.region, (today.year, today.year + 1), part or None, business.language
        )
    except ValueError:
        found = ()
    ahead = [one for one in found if today <= one.first <= today + HORIZON]
    return HolidaysOut(parts=parts, days=[HolidayOut(day=one.first, label=one.label) for one in ahead])


# Within so many seconds a calendar is read.
_SECONDS = 20.0


@router.post("/hours/calendar", response=CalendarOut)
def look_at_calendar(request: MemberRequest, file: File[UploadedFile], document: Form[str]) -> CalendarOut:
    """What an iCalendar file would do to a set of hours as it is being edited; nothing is kept."""
    value = read_document(document)
    if (file.size or 0) > MOST_BYTES:
        raise Refused(("file", "This calendar has more than 5 MB; export the odd days alone."))
    today = clock.now().astimezone(value.zone).date()
    try:
        text = file.read().decode("utf-8-sig")
        found = apart(read_exceptions, _SECONDS, text, value.timezone, today, today + HORIZON)
        usual = apart(usual_entries, _SECONDS, text)
    except (Unreadable, Busy):
        raise Refused(("file", "This calendar takes too long to read; export the odd days alone.")) from None
    except UnicodeDecodeError as error:
        raise Refused(("file", "This is not an iCalendar file.")) from error
    except ValueError as error:
        raise Refused(("file", str(error))) from error
    merged, coming = taken_in(value, found)
    return CalendarOut(
        usual=list(usual),
        exceptions=[one.model_dump(mode="json", by_alias=True) for one in merged],
        coming=[
            ComingOut(
                first=one.exception.first,
                last=one.exception.last,
                label=one.exception.label,
                would=said_stretches(one.exception.stretches),
                replaces=list(one.replaces),
                usual=one.usual,
                known=one.known,
            )
            for one in coming
        ],
    )


@router.post("/hours/read", response=WeekOut, by_alias=True)
def read(request: MemberRequest, body: WrittenIn) -> WeekOut:
    """A week as people write it, in English or the business's language; nothing is kept."""
    try:
        week, unread = read_what_can_be(body.text, business_of(request.auth).language)
    except ValueError as error:
        raise Refused(("text", str(error))) from error
    return WeekOut(
        week=[WeekStretchOut(day=one.day, from_=one.from_, to=one.to) for one in week], unread=list(unread)
    )


@router.get("/hours", response=HoursOut)
def hours(request: MemberRequest) -> HoursOut:
    """The main hours, the promise, and what visitors are told now and in other situations."""
    business, at = business_of(request.auth), clock.now()
    main = main_hours(business.pk)
    value = main.value
    minutes = business.promise_minutes
    promise = Promise.of_minutes(minutes)
    others = kept_sets(business.pk).exclude(pk=main.pk)
    return HoursOut(
        main=_set(main),
        others=[_set(row) for row in others],
        promise_minutes=minutes,
        promise_now=promise_words(promise.due(value, at), at, value.zone, tongue=READER.get()),
        told=told(business, value),
    )


def _set(row: HoursSet) -> SetOut:
    sites = row.sitehours_set.select_related("site").order_by("site_id")
    return SetOut(id=row.pk, name=row.name, document=row.document, sites=[one.site.name for one in sites])


@router.post("/hours/looked-at", response={204: None})
def looked_at(request: MemberRequest) -> Status[None]:
    """They are right as they are."""
    look_at_hours(request.auth)
    return Status(204, None)


@router.post("/hours", response={201: SetOut})
def make_hours(request: MemberRequest, body: NewHoursIn) -> Status[SetOut]:
    """Add a named set of hours."""
    return Status(201, _set(add_hours(request.auth, name=body.name, document=body.document)))


class MovedOut(Schema):
    id: int
    name: str
    was: datetime
    now: datetime


@router.post("/hours/{hours_id}/would-move", response=list[MovedOut])
def moves(request: MemberRequest, hours_id: int, body: HoursIn) -> list[MovedOut]:
    """Which due times this would move, before it is saved."""
    found = would_move(request.auth, hours_id=hours_id, edit=body.edit())
    return [MovedOut.from_orm(one) for one in found]


class FollowedOut(Schema):
    words: str
    by: list[str]


class GivenOutOut(Schema):
    address: str | None
    json_ld: str


@router.get("/hours/{hours_id}/followed", response=FollowedOut)
def followed(request: MemberRequest, hours_id: int) -> FollowedOut:
    """What goes by a set of hours, and how many promises of the next seven days a change of it may move."""
    row = own_hours(request.auth.business_id, hours_id)
    found = Followed(row)
    hours_followed.tell(found)
    sites = [one.site.name for one in row.sitehours_set.select_related("site")]
    promised = Promised(row.business_id, clock.now(), clock.now() + timedelta(days=7))
    if sites:
        promises_counted.tell(promised)
    counts = ((len(sites), "site"), (found.touchpoints, "touchpoint"), (found.channels, "channel"))
    said = [f"{count} {name}{'s' if count != 1 else ''}" for count, name in counts if count]
    said += (
        [f"{promised.count} promise{'s' if promised.count != 1 else ''} in the next 7 days"]
        if promised.count
        else []
    )
    words = f"It goes for {', '.join(said)}." if said else "Nothing goes by these hours yet."
    return FollowedOut(words=words, by=sorted([*sites, *found.by]))


def _given_out(row: HoursSet) -> GivenOutOut:
    told = {
        "@context": "https://schema.org", "@type": "LocalBusiness", "name": row.business.name,
        "openingHoursSpecification": opening_hours_specification(row.value),
    }  # fmt: skip
    text = json.dumps(told, ensure_ascii=False, indent=1).replace("</", "<\\/")
    return GivenOutOut(
        address=f"{settings.BASE_URL}/h/{row.token}.ics" if row.token else None,
        json_ld=f'<script type="application/ld+json">{text}</script>',
    )


@router.get("/hours/{hours_id}/out", response=GivenOutOut)
def given_out(request: MemberRequest, hours_id: int) -> GivenOutOut:
    """The hours for others: the address that calendars follow, and what can be pasted into a page."""
    return _given_out(own_hours(request.auth.business_id, hours_id))


@router.post("/hours/{hours_id}/out", response=GivenOutOut)
def make_address(request: MemberRequest, hours_id: int) -> GivenOutOut:
    """Make the address, or another in its place."""
    return _given_out(give_address(request.auth, hours_id=hours_id, wanted=True))


@router.delete("/hours/{hours_id}/out", response=GivenOutOut)
def drop_address(request: MemberRequest, hours_id: int) -> GivenOutOut:
    """Take the address away."""
    return _given_out(give_address(request.auth, hours_id=hours_id, wanted=False))


@router.put("/hours/{hours_id}/name", response={204: None})
def name_hours(request: MemberRequest, hours_id: int, body: NameIn) -> Status[None]:
    """Rename a set of hours."""
    rename_hours(request.auth, hours_id=hours_id, name=body.name)
    return Status(204, None)


@router.delete("/hours/{hours_id}", response={204: None})
def delete_hours(request: MemberRequest, hours_id: int, instead: int | None = None) -> Status[None]:
    """Delete a set of hours; what follows it follows `instead` from then on."""
    drop_hours(request.auth, hours_id=hours_id, instead_id=instead)
    return Status(204, None)


@router.post("/hours/{hours_id}/back", response={204: None})
def undelete_hours(request: MemberRequest, hours_id: int) -> Status[None]:
    """Undo deleting a set."""
    bring_hours_back(request.auth, hours_id=hours_id)
    return Status(204, None)


@router.put("/sites/{site_id}/hours", response={204: None})
def choose_hours(request: MemberRequest, site_id: int, body: FollowIn) -> Status[None]:
    """Say which hours are the main ones of a site."""
    follow_hours(request.auth, site_id=site_id, hours_id=body.hours_id)
    return Status(204, None)


@router.put("/hours/{hours_id}", response={204: None})
def change_hours(request: MemberRequest, hours_id: int, body: HoursIn) -> Status[None]:
    """Change a set of hours; 409 where somebody else has changed the same since `based_on`, and
    differently.
    """
    set_hours(request.auth, hours_id=hours_id, edit=body.edit())
    return Status(204, None)
