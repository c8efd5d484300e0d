"""The console's API on what visitors are told: the table of replies, and what somebody would see."""

from collections import Counter
from datetime import date, datetime
from functools import cache
from typing import Annotated, Any

from ninja import Schema, Status

from intavo import clock
from intavo.accounts.actor import Refused
from intavo.accounts.auth import MemberRequest
from intavo.accounts.edits import Edit
from intavo.accounts.models import Business
from intavo.accounts.queries import business_of
from intavo.core.holds import Holds
from intavo.core.hours import (
    AnyHours,
    OpeningHours,
    any_of,
    instant_on,
    minutes_of,
    read_clock,
)
from intavo.core.places import languages, read_language
from intavo.core.presence import back_at
from intavo.core.replies import (
    Cell,
    Chosen,
    Promise,
    Reply,
    ReplySlot,
    Situation,
    choose,
    choose_whole,
    explain,
    fill,
    holiday_name,
    next_moment_of,
    situation,
    slots,
)
from intavo.core.say import Tongue

from ..actions import (
    reset_reply,
    set_replies,
)
from ..effects import Columns, columns_asked
from ..queries import all_sets, anybody_free, main_hours, own_hours, presences, replies
from .router import router


class ToldOut(Schema):
    situation: str
    title: str
    text: str
    in_effect: bool
    comes: bool
    own: bool
    reply: Annotated[dict[str, Any], Holds(Reply)]


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
    reply: Annotated[dict[str, Any], Holds(Reply)]
    # What it was made from: what others have changed since is kept then.
    based_on: Annotated[dict[str, Any], Holds(Reply)] | None = None
    all_the_same: bool = False
    column: str = ""
    language: str = ""


class ReplyCellOut(Schema):
    column: str
    own: bool
    from_column: str
    # In which language it is said; `ships` by words of ours, and `not_whole` where it is written in the one
    # asked for, and has places that we have no words for in it.
    from_language: str
    ships: bool
    not_whole: bool
    title: str
    text: str
    button: str
    hidden: bool
    reply: Annotated[dict[str, Any], Holds(Reply)]


class ReplyRowOut(Schema):
    situation: str
    in_effect: bool
    comes: bool
    cells: list[ReplyCellOut]


class TongueOut(Schema):
    code: str
    name: str
    written: int


class DepartsOut(Schema):
    id: str
    name: str
    kind: str
    departs: bool
    hides: bool


class TableOut(Schema):
    language: str
    own_language: str
    languages: list[TongueOut]
    columns: list[DepartsOut]
    rows: list[ReplyRowOut]


@router.get("/hours/explain", response=ExplainedOut)
def what_would_they_see(
    request: MemberRequest,
    day: date,
    time: str,
    hours_id: int | None = None,
    free: bool = True,
    offset: int | None = None,
    column: str = "",
    language: str = "",
) -> ExplainedOut:
    """What somebody would be told at a time on the hours' own clock, and why; `offset` is the visitor's from
    UTC.

    `column` is a channel or touchpoint, which brings its own hours; "" is everywhere.
    """
    business = business_of(request.auth)
    hours = _followed(business, hours_id, column)
    at = _on_the_clock(hours, day, time)
    if offset is not None and abs(offset) > _MOST_OFFSET:
        raise Refused(("offset", "No clock is that far off."))
    found = explain(
        hours,
        at,
        somebody_free=free,
        table=replies(business.pk),
        language=language or business.language,
        business_language=business.language,
        promise=Promise.of_minutes(business.promise_minutes),
        visitor_offset=offset,
        channel=column or None,
        back=back_at(presences(business.pk), at, hours),
        region=business.region,
    )
    return ExplainedOut(
        at=at,
        situation=found.situation.value,
        title=found.title,
        text=found.text,
        hidden=found.reply.hidden,
        due=found.due,
        promise=found.words.get("promise", ""),
        reasons=[ToldReasonOut(words=one.words, about=one.about) for one in found.reasons],
    )


_MOST_OFFSET = 15 * 60  # minutes


def _followed(business: Business, hours_id: int | None, column: str) -> AnyHours:
    """The hours that apply: a set that is named, a column's own, or the main ones."""
    if hours_id is not None:
        return own_hours(business.pk, hours_id).value
    sets = all_sets(business.pk)
    if not column:
        return sets[None]
    asked = Columns(business.pk)
    columns_asked.tell(asked)
    found = next((one for one in asked.found if one.id == column), None)
    if found is None:
        raise Refused(("column", "There is no such channel or touchpoint."))
    return any_of(sets, found.hours)


def _on_the_clock(value: AnyHours, day: date, time: str) -> datetime:
    """A time as people type it on a day of these hours' zone; Refused by its field."""
    try:
        clock_time = read_clock(time)
    except ValueError as error:
        raise Refused(("time", str(error))) from error
    if abs(day.year - clock.now().year) > _MOST_YEARS:
        raise Refused(("day", "This day is too far off."))
    return instant_on(value.zone, day, minutes_of(clock_time))


_MOST_YEARS = 100


def told(business: Business, value: OpeningHours) -> list[ToldOut]:
    """What is said in each situation, as it will read when the situation comes next.

    Where it does not come within 400 days, no date would be true: slots are then named instead of filled.
    """
    at, table = clock.now(), replies(business.pk)
    now = situation(value, at, anybody_free(business.pk, at))
    cells = []
    for one in Situation:
        chosen = choose(table, one, business.language, business.language)
        reply, tongue = chosen.reply, Tongue(chosen.cell.language, business.region)
        comes, words = _words_in(business, value, one, now, at, tongue)
        title, text = (fill(runs, words, tongue) for runs in (reply.title, reply.text))
        told = ToldOut(
            situation=one.value,
            title=title,
            text=text,
            in_effect=one is now,
            comes=comes,
            own=chosen.cell in table,
            reply=reply.model_dump(mode="json"),
        )
        cells.append(told)
    return cells


def _words_in(
    business: Business,
    value: OpeningHours,
    situation: Situation,
    now: Situation,
    at: datetime,
    tongue: Tongue,
) -> tuple[bool, dict[ReplySlot, str]]:
    """Whether a situation comes within 400 days, and the words for slots as they will be then."""
    then = at if situation is now else next_moment_of(situation, value, at)
    if situation is not now and situation is Situation.HOLIDAY and holiday_name(value, then) is None:
        return False, _NAMED
    due = Promise.of_minutes(business.promise_minutes).due(value, then)
    return True, slots(
        value, then, value.zone, due, back=back_at(presences(business.pk), then, value), tongue=tongue
    )


_NAMED: dict[ReplySlot, str] = {
    "next_opening": "(when you open again)", "closing_time": "(when you close)",
    "open_now": "(open till …, or when again)",
    "day_name": "(name of the day)", "promise": "(when you answer)", "back_at": "(when somebody is back)",
    "first_name": "(their first name)",
}  # fmt: skip


@router.get("/replies", response=TableOut)
def reply_table(request: MemberRequest, language: str = "") -> TableOut:
    """The table of replies in one language: what is written, what is inherited from where, and what is in
    effect.
    """
    business, at = business_of(request.auth), clock.now()
    try:
        tongue = read_language(language or business.language)
    except ValueError as error:
        raise Refused(("language", str(error))) from error
    value, table = main_hours(business.pk).value, replies(business.pk)
    asked = Columns(business.pk)
    columns_asked.tell(asked)
    departing = {cell.channel for cell in table}
    columns = [
        DepartsOut(id=o.id, name=o.name, kind=o.kind, departs=o.id in departing, hides=o.hides)
        for o in asked.found
    ]
    shown = ["", *(one.id for one in columns if one.departs)]
    now = situation(value, at, anybody_free(business.pk, at))
    written = Counter(cell.language for cell in table)
    spoken = sorted({business.language, tongue, *written}, key=lambda one: (one != business.language, one))
    return TableOut(
        language=tongue,
        own_language=business.language,
        languages=[TongueOut(code=o, name=languages().get(o, o), written=written[o]) for o in spoken],
        columns=columns,
        rows=[_row(business, value, one, now, tongue, shown, table, at) for one in Situation],
    )


def _row(
    business: Business,
    value: OpeningHours,
    situation: Situation,
    now: Situation,
    tongue: str,
    columns: list[str],
    table: dict[Cell, Reply],
    at: datetime,
) -> ReplyRowOut:
    cells: list[ReplyCellOut] = []

    @cache
    def words_in(language: str) -> tuple[bool, dict[ReplySlot, str]]:
        return _words_in(business, value, situation, now, at, Tongue(language, business.region))

    for each in columns:
        chosen = choose_whole(
            table, situation, tongue, business.language, each or None, "", lambda own: words_in(own)[1]
        )
        # What is inherited from another language is said in that.
        own = chosen.cell.language
        cells.append(_cell(chosen, each, tongue, table, words_in(own)[1], Tongue(own, business.region)))
    comes = words_in(tongue)[0]
    return ReplyRowOut(situation=situation.value, in_effect=situation is now, comes=comes, cells=cells)


def _cell(
    chosen: Chosen,
    column: str,
    tongue: str,
    table: dict[Cell, Reply],
    words: dict[ReplySlot, str],
    speaks: Tongue,
) -> ReplyCellOut:
    reply, cell = chosen.reply, chosen.cell
    title, text = (fill(runs, words, speaks) for runs in (reply.title, reply.text))
    return ReplyCellOut(
        column=column,
        own=cell in table and (cell.channel or "") == column and cell.language == tongue,
        ships=cell not in table,
        not_whole=Cell(cell.situation, cell.channel, tongue) in table and cell.language != tongue,
        from_column=cell.channel or "",
        from_language=cell.language,
        title=title,
        text=text,
        button=reply.button,
        hidden=reply.hidden,
        reply=reply.model_dump(mode="json"),
    )


@router.put("/replies/{situation}", response={204: None})
def change_reply(request: MemberRequest, situation: str, body: ReplyIn) -> Status[None]:
    """Say what visitors are told in a situation: everywhere or in a column, in a language; 409 where somebody
    else has changed the same since `based_on`, and differently.
    """
    edit = Edit(body.reply, body.based_on, body.all_the_same)
    set_replies(request.auth, situation=situation, edit=edit, column=body.column, language=body.language)
    return Status(204, None)


@router.delete("/replies/{situation}", response={204: None})
def put_back(request: MemberRequest, situation: str, column: str = "", language: str = "") -> Status[None]:
    """Empty a cell, which then inherits."""
    reset_reply(request.auth, situation=situation, column=column, language=language)
    return Status(204, None)
