"""Writes on talks: begun by visitors, carried on by both sides."""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from django.db import connection, transaction
from django.db.models import Q, QuerySet
from procrastinate.contrib.django import app
from pydantic import BaseModel, ConfigDict, Field, model_validator

from intavo import clock
from intavo.accounts.actor import Actor, Refused, visitor_of
from intavo.accounts.scope import held, own
from intavo.core import people as people_rules
from intavo.core.dialogue import (
    STRAIGHT,
    Address,
    Goal,
    HandOver,
    Offer,
    Script,
    Tagged,
    Turn,
    begin,
    straight,
    take,
    with_address_first,
)
from intavo.core.followup import Kind, State
from intavo.core.replies import Situation
from intavo.core.rights import Right
from intavo.core.showing.visit import Page, Short
from intavo.core.texts import Kept
from intavo.core.tongues import Phrase, Tongue, in_tongue
from intavo.core.touchpoint.rules import VisitorDevice
from intavo.followup.actions import receive as open_followup
from intavo.followup.models import FollowUp
from intavo.followup.source import Source
from intavo.people import actions as people
from intavo.people.merging import join_cards
from intavo.people.models import Person, TimelineEvent
from intavo.touchpoints.models import Touchpoint
from intavo.touchpoints.onsite import LiveSite, Said
from intavo.touchpoints.revisions import document_of, published_revision

from .files import checked_file, keep_bytes, takes_files
from .models import Delivery, Message, Talk
from .saying import TalkBegun, TalkNow, messages_data

GOOD_FOR = timedelta(days=30)
MOST_A_MINUTE, MOST_TEXT = 10, 4000
_ADDRESSES = frozenset({"email", "phone"})
TYPES_FOR = timedelta(seconds=8)
GONE_AFTER = 120  # seconds without a request: the visitor has left
MAIL_LOOK = 120  # seconds until it is looked whether they saw an answer


class TalkVisitor(BaseModel):
    """The visitor as they begin a talk."""

    model_config = ConfigDict(extra="ignore")
    id: Short | None = None
    utc_offset: int | None = Field(None, ge=-24 * 60, le=24 * 60)
    # "" where they do not say it.
    language: str = Field("", max_length=35)


class Begun(BaseModel):
    """The body that begins a talk."""

    model_config = ConfigDict(extra="ignore")
    touchpoint: Kept = Field(min_length=1, max_length=20)
    revision: int = Field(ge=1, le=2**31 - 1)
    page: Page
    device: VisitorDevice
    visitor: TalkVisitor = TalkVisitor()


class SaidNow(BaseModel):
    """One thing that a visitor says: a text, a choice, or an address."""

    model_config = ConfigDict(extra="ignore")
    id: Kept = Field(min_length=4, max_length=84)  # a gateway's has 80, and a mark before it
    text: Kept | None = Field(None, max_length=MOST_TEXT)
    choice: Kept | None = Field(None, max_length=60)
    address: dict[str, Kept] | None = Field(None, max_length=2)

    @model_validator(mode="after")
    def _one_thing(self) -> "SaidNow":
        if sum(one is not None for one in (self.text, self.choice, self.address)) != 1:
            raise ValueError("say a text, a choice, or an address: one of them")
        for value in (self.text, *(self.address or {}).values()):
            if value is not None and (not value.strip() or len(value) > MOST_TEXT):
                raise ValueError("please write something")
        return self

    def data(self) -> dict[str, Any]:
        """As the dialogue takes it."""
        return {
            key: value for key in ("text", "choice", "address") if (value := getattr(self, key)) is not None
        }


@dataclass(frozen=True, slots=True)
class TalkAnswer:
    """The answer as text, and whether it was given before."""

    text: str
    repeated: bool = False


def script_of(site: LiveSite, talk: Talk) -> Script:
    """The script that a talk follows; words of ours in it are in the touchpoint's tongue."""
    script, tongue = _script(talk), tongue_in(site, talk)
    script = straight(tongue) if script == STRAIGHT else script
    return with_address_first(script, tongue) if talk.address_first else script


def _script(talk: Talk) -> Script:
    document = document_of(talk.revision_id) if talk.revision_id else None
    return document.talk.script if document is not None and document.talk is not None else STRAIGHT


def tongue_in(site: LiveSite, talk: Talk) -> Tongue:
    """What is spoken in a talk: its touchpoint's language, else the site's; the visitor's own where every
    word of it is ours.
    """
    own, theirs = _own_language(talk), Tongue(talk.language, site.business.region)
    return theirs if not own and theirs.is_ours and _script(talk) == STRAIGHT else site.tongue(own)


def language_of(talk: Talk) -> Tongue:
    """The same, where its site may be gone."""
    own = _own_language(talk)
    return talk.site.tongue(own) if talk.site is not None else talk.business.tongue(own)


def _own_language(talk: Talk) -> str:
    return document_of(talk.revision_id).language if talk.revision_id else ""


def begin_talk(site: LiveSite, body: Begun, at: datetime) -> TalkBegun:
    """A talk from a touchpoint that was live, and the answer; it joins nobody yet. Refused for what is not
    there.
    """
    actor = visitor_of(site.business.pk)
    actor.needs(Right.VISIT)
    seen = published_revision(site.business.pk, body.touchpoint, body.revision)
    if seen is None or document_of(seen.revision).talk is None:
        raise Refused(("touchpoint", "There is no conversation of this touchpoint."))
    with transaction.atomic():
        talk = Talk(
            business_id=site.business.pk,
            site_id=site.id,
            touchpoint_id=seen.touchpoint,
            revision_id=seen.revision,
            page=body.page.url.partition("#")[0][:4000],
            device=body.device,
            language=body.visitor.language,
            utc_offset=body.visitor.utc_offset,
            begun_at=at,
            last_word_at=at,
        )
        found = opened(site, talk, at)
    return {"talk": talk.token, "where": where_of(site, talk.token), **found}


def opened(site: LiveSite, talk: Talk, at: datetime) -> TalkNow:
    """Keep a talk that begins, with the first words of its script."""
    said = said_of(site, talk, at)
    talk.address_first = said.situation is not Situation.OPEN and talk.gateway_id is None
    turn = begin(script_of(site, talk), said.words_in(tongue_in(site, talk)))
    talk.save()
    rows = _follow(site, talk, turn, at)
    talk.save()
    return _as_it_stands(site, talk, rows, said)


def first_word(
    site: LiveSite, talk: Talk, body: SaidNow, at: datetime, to: int | None = None
) -> list[Message]:
    """A talk that begins with their own words: kept, and answered by the script's beginning, or as its
    answer. It is for the member `to`, where they wrote to them.
    """
    said = said_of(site, talk, at)
    turn = begin(script_of(site, talk), said.words_in(tongue_in(site, talk)))
    talk.save()
    if not turn.choices and turn.asks in {None, "text"}:
        _follow(site, talk, turn, at)
        before = talk.last
        taken(site, talk, body, at, to=to)
        return list(talk.messages.filter(source=Message.SCRIPT, n__gt=before).order_by("n"))
    words = _words_of(talk, body)
    talk.last += 1
    Message.objects.create(
        business_id=talk.business_id,
        talk=talk,
        n=talk.last,
        source=Message.THEM,
        text=words,
        at=at,
        client_id=body.id,
    )
    rows = _follow(site, talk, turn, at)
    _join(visitor_of(site.business.pk), talk, turn, said, words, at, to=to)
    talk.save()
    return rows


def said_of(site: LiveSite, talk: Talk, at: datetime) -> Said:
    """What is said just now, by the touchpoint's own hours, promise and words, or by its channel's."""
    column = talk.touchpoint.public_id if talk.touchpoint is not None else None
    return said_in(site, Saying(talk.revision_id, column, talk.channel, talk.language, talk.utc_offset), at)


@dataclass(frozen=True, slots=True)
class Saying:
    """By what it goes what is said in a talk: its revision, the touchpoint's id, its channel, the visitor's
    language and offset.
    """

    revision: int | None
    touchpoint: str | None
    channel: str
    language: str
    utc_offset: int | None


def said_in(site: LiveSite, by: Saying, at: datetime) -> Said:
    """What is said just now in a talk of which this is known."""
    document = document_of(by.revision) if by.revision else None
    after = document.after if document is not None else None
    speaks = document.language if document is not None else ""
    if by.channel in site.channels:
        return site.says_of(by.channel, at, by.language, by.utc_offset, speaks)
    minutes, follows = (after.promise_minutes, after.follows) if after else (None, ())
    return site.says(at, by.language, by.utc_offset, minutes, follows, by.touchpoint, speaks)


def _follow(site: LiveSite, talk: Talk, turn: Turn, at: datetime) -> list[Message]:
    """The script's messages, kept; where the talk stands after them."""
    tongue = tongue_in(site, talk)
    choices = [{"id": one.id, "label": in_tongue(one.label, tongue)} for one in turn.choices]
    rows = []
    for number, text in enumerate(turn.messages, 1):
        talk.last += 1
        rows.append(
            Message(
                business_id=talk.business_id,
                talk=talk,
                n=talk.last,
                source=Message.SCRIPT,
                text=in_tongue(text, tongue),
                at=at,
                choices=choices if number == len(turn.messages) else [],
            )
        )
    Message.objects.bulk_create(rows)
    talk.state, talk.choices, talk.asks = turn.state, choices, turn.asks or ""
    return rows


def _as_it_stands(site: LiveSite, talk: Talk, rows: list[Message], said: Said) -> TalkNow:
    return {
        "messages": messages_data(rows, site.business, where_of(site, talk.token)), "choices": talk.choices,
        "asks": talk.asks or None,
        "situation": said.situation.value, "says": said.told,
    }  # fmt: skip


def where_of(site: LiveSite, token: str) -> str:
    """The address of a talk."""
    return f"/e/{site.key}/talks/{token}"


def find_talk(site_id: int, token: str) -> QuerySet[Talk]:
    """The talk with this token; none for another site's, or one long over."""
    since = clock.now() - GOOD_FOR
    rows = Talk.objects.select_related("touchpoint")
    return rows.filter(token=token, site_id=site_id, gateway=None, last_word_at__gt=since)


def held_talk(rows: QuerySet[Talk]) -> Talk | None:
    """The first of some talks, held fast with its follow-up: that first, as whoever answers it does."""
    followup = rows.values_list("followup_id", flat=True).first()
    if followup is not None:
        list(FollowUp.objects.select_for_update().filter(pk=followup).values_list("pk"))
    return held(rows)


class TooOften(Exception):
    """More than ten messages in a minute; with the seconds to wait."""


def say(
    site: LiveSite, token: str, body: SaidNow, at: datetime, data: bytes | None = None
) -> TalkAnswer | None:
    """Take in what a visitor says, with the bytes of a file if that is what they send.

    None where there is no such talk. The same id gives the very same answer again.
    """
    return people.unless_overtaken(lambda: _say(site, token, body, at, data))


def _say(site: LiveSite, token: str, body: SaidNow, at: datetime, data: bytes | None) -> TalkAnswer | None:
    rows = find_talk(site.id, token)
    file, kept = None, b""
    if data is not None:
        # A picture is written anew before anything is held, which others would wait for.
        talk = rows.first()
        known = _known(talk, body, True) if talk is not None else None
        if talk is None or known is not None:
            return known
        file, kept = checked_file(talk.business_id, body.text or "", data)
        body = body.model_copy(update={"text": file["name"]})
    with transaction.atomic():
        talk = held_talk(rows)
        known = _known(talk, body, file is not None) if talk is not None else None
        if talk is None or known is not None:
            return known
        answer = taken(site, talk, body, at, file)
        if file is not None:
            keep_bytes(talk.business_id, str(file["key"]), kept)
        return TalkAnswer(answer)


def _known(talk: Talk, body: SaidNow, file: bool) -> TalkAnswer | None:
    """What this was answered with before; TooOften, or Refused, where nothing more is taken just now."""
    known = talk.messages.filter(client_id=body.id).first()
    if known is not None:
        return TalkAnswer(known.answer, repeated=True)
    if _lately(talk) >= MOST_A_MINUTE:
        raise TooOften
    if file and not takes_files(talk):
        raise Refused(("file", Phrase("No files are taken in this conversation.")))
    return None


def _lately(talk: Talk) -> int:
    """How many messages they have sent in the last minute, by the database's own clock."""
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT count(*) FROM talks_message"
            " WHERE talk_id = %s AND source = 'them'"
            " AND stored_at BETWEEN now() - interval '60 s' AND now() + interval '60 s'",
            [talk.pk],
        )
        row = cursor.fetchone()
    return int(row[0]) if row else 0


def taken(
    site: LiveSite,
    talk: Talk,
    body: SaidNow,
    at: datetime,
    file: dict[str, object] | None = None,
    to: int | None = None,
) -> str:
    """What comes of a message: kept, followed by the script, on the list. Refused for a choice that is not
    there.
    """
    actor, said = visitor_of(site.business.pk), said_of(site, talk, at)
    try:
        words_now = said.words_in(tongue_in(site, talk))
        turn = (
            _beside_the_question(talk)
            if file is not None and talk.asks in _ADDRESSES
            else take(script_of(site, talk), talk.state, body.data(), words_now, site.business.region)
        )
    except ValueError as error:
        raise Refused(("choice" if body.choice is not None else "text", str(error))) from error
    words = _words_of(talk, body)
    reach = talk.asks in _ADDRESSES and talk.followup is not None
    about = talk.followup.excerpt if reach and talk.followup is not None else ""
    talk.last += 1
    own = Message.objects.create(
        business_id=talk.business_id,
        talk=talk,
        n=talk.last,
        source=Message.THEM,
        text=words,
        at=at,
        client_id=body.id,
        file=file,
    )
    rows = _follow(site, talk, turn, at)
    talk.last_word_at = at
    talk.told_late = False
    _join(actor, talk, turn, said, words, at, about, to)
    talk.save()
    found = _as_it_stands(site, talk, [own, *rows], said)
    found["goal"] = any(isinstance(one, Goal) for one in turn.effects)
    found["handed"] = any(isinstance(one, HandOver) for one in turn.effects)
    own.answer = json.dumps(found, ensure_ascii=False)
    own.save(update_fields=["answer"])
    return own.answer


def _beside_the_question(talk: Talk) -> Turn:
    """What is asked for stays asked for: a file is no address."""
    offers = tuple(Offer(str(one["id"]), str(one["label"])) for one in talk.choices)
    return Turn(talk.state, (), offers, talk.asks)


def _words_of(talk: Talk, body: SaidNow) -> str:
    if body.choice is not None:
        return next((str(one["label"]) for one in talk.choices if one["id"] == body.choice), body.choice)
    return (body.text or next(iter((body.address or {}).values()), "")).strip()


def _join(
    actor: Actor,
    talk: Talk,
    turn: Turn,
    said: Said,
    words: str,
    at: datetime,
    about: str = "",
    to: int | None = None,
) -> None:
    """Whose it is, with an open follow-up from their first word on; `about` is what the list shows of it
    instead.
    """
    first = talk.person_id is None
    address = next((one for one in turn.effects if isinstance(one, Address)), None)
    if address is not None or first:
        email = people_rules.email_address(address.shown) if address and address.kind == "email" else None
        phone = _phone(address, said) if address and address.kind == "phone" else None
        arrived = people.find_or_add(actor, email=email, phone=phone, name=talk.name, at=at)
        if talk.person_id is not None and talk.person_id != arrived.person:
            _is_really(actor, talk.person_id, arrived.person)
        talk.person_id = arrived.person
    assert talk.person_id is not None
    talk.tags = list(
        dict.fromkeys([*talk.tags, *(t for one in turn.effects if isinstance(one, Tagged) for t in one.tags)])
    )
    name = talk.touchpoint.name if talk.touchpoint is not None else "a message"
    people.add_tags(actor, person_id=talk.person_id, tags=talk.tags, given_by=name, at=at)
    # The list shows what it is about; an address is how to reach them.
    via = talk.gateway.name if talk.gateway is not None else "page"
    source = Source(talk.touchpoint_id, talk.site_id, talk.page, talk.device, (about or words)[:300], via, to)
    talk.followup_id = open_followup(
        actor,
        person_id=talk.person_id,
        kind=Kind.MESSAGE,
        at=at,
        due=said.due,
        source=source,
        thread=f"talk-{talk.pk}",
    )
    if first:
        data = {
            "touchpoint": name,
            "page": talk.page,
            "text": words,
            "talk": talk.pk,
            "followup": talk.followup_id,
        }
        people.add_event(actor, person_id=talk.person_id, at=at, kind="message", data=data)


def _phone(address: Address, said: Said) -> people_rules.Address | None:
    try:
        return people_rules.phone_number(address.shown, "ZZ")
    except ValueError:
        return None


def _is_really(actor: Actor, before_id: int, person_id: int) -> None:
    """Somebody without an address is found out to be this person: what they had becomes theirs. Where one of
    us has worked it, the two cards are made one, which can be undone.
    """
    theirs = FollowUp.objects.filter(person_id__in=(before_id, person_id))
    list(theirs.select_for_update().order_by("pk").values_list("pk"))
    nobody = held(Person.objects.filter(pk=before_id))
    if nobody is None or nobody.addresses.exists():
        return
    if _worked(nobody):
        join_cards(actor, kept_id=person_id, gone_id=before_id)
        return
    open_ones = FollowUp.objects.exclude(state=State.FINISHED.value).filter(kind=Kind.MESSAGE.value)
    if open_ones.filter(person_id=person_id).exists():
        # Theirs goes on; what was opened for nobody is the same piece of work.
        open_ones.filter(person=nobody).delete()
    for rows in (FollowUp.objects, TimelineEvent.objects, Talk.objects):
        rows.filter(person=nobody).update(person_id=person_id)
    nobody.delete()


def _worked(person: Person) -> bool:
    """Whether one of us has done anything with somebody, or is about to."""
    return (
        person.merges.exists()
        or person.tags.filter(given_by="").exists()
        or person.events.exclude(member=None).exists()
        or person.followups.filter(~Q(member=None) | ~Q(at_desk=None)).exists()
    )


def answer_talk(
    talk: Talk,
    *,
    text: str,
    key: str,
    member_id: int | None,
    at: datetime,
    files: Sequence[dict[str, object]] = (),
) -> Message:
    """A message of ours and the files that go with it, in the caller's transaction; the same key again gives
    the one that is there.
    """
    client_id = f"us-{key}"
    known = talk.messages.filter(client_id=client_id).first()
    if known is not None:
        return known
    row, *more = [
        Message(
            business_id=talk.business_id,
            talk=talk,
            n=talk.last + number,
            source=Message.US,
            member_id=member_id,
            text=words,
            at=at,
            client_id=client_id if file is None else f"us-{file['key']}",
            file=file,
        )
        for number, (words, file) in enumerate([(text, None), *((str(one["name"]), one) for one in files)], 1)
    ]
    Message.objects.bulk_create([row, *more])
    talk.last += 1 + len(more)
    talk.last_word_at, talk.typing_until = at, None
    talk.save(update_fields=["last", "last_word_at", "typing_until"])
    if talk.gateway_id is not None:
        send_out(talk, [row])
    else:
        app.configure_task("mail_talk", queue="mail", schedule_in={"seconds": MAIL_LOOK}).defer(
            talk_id=talk.pk
        )
    return row


def mailed_in(talk: Talk, *, text: str, key: str, at: datetime) -> Message:
    """What they answered by mail goes on in the same talk, in the caller's transaction; once for each key."""
    known = talk.messages.filter(client_id=key).first()
    if known is not None:
        return known
    talk.last += 1
    talk.last_word_at, talk.told_late = at, False
    # They have read what was mailed, and see their own words when they come back to the page.
    talk.save(update_fields=["last", "last_word_at", "told_late"])
    return Message.objects.create(
        business_id=talk.business_id,
        talk=talk,
        n=talk.last,
        source=Message.THEM,
        text=text,
        at=at,
        client_id=key,
    )


def send_out(talk: Talk, rows: list[Message]) -> None:
    """Put messages on their way through the talk's gateway."""
    assert talk.gateway is not None
    for row in rows:
        sent = Delivery.objects.create(
            business_id=talk.business_id, message=row, gateway=talk.gateway, uid=f"m-{talk.pk}-{row.n}"
        )
        app.configure_task("send_out", queue="gateway", lock=f"talk-{talk.pk}").defer(delivery_id=sent.pk)


def note_typing(actor: Actor, *, followup_id: int) -> None:
    """One of us is writing: the visitor sees it for some seconds."""
    actor.needs(Right.FOLLOW_UP)
    own(actor, FollowUp.objects.only("pk"), followup_id)
    Talk.objects.filter(business_id=actor.business_id, followup_id=followup_id).update(
        typing_until=clock.now() + TYPES_FOR
    )


def note_read(actor: Actor, *, talk_id: int) -> None:
    """One of us has seen what they said."""
    actor.needs(Right.SEE)
    talk = own(actor, Talk.objects.only("last"), talk_id)
    Talk.objects.filter(pk=talk.pk, read__lt=talk.last).update(read=talk.last)


def touchpoint_by_code(business_id: int, code: str) -> Touchpoint | None:
    """The touchpoint that a short code names."""
    from intavo.touchpoints.models import short_code

    rows = (
        Touchpoint.objects.filter(business_id=business_id, deleted_at=None).exclude(live=None).order_by("pk")
    )
    return next((row for row in rows if short_code(row.public_id) == code.lower()), None)
