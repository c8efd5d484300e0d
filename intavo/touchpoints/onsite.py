"""A site and its touchpoints as visitors meet them: values, and what is said at an instant."""

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from datetime import datetime
from functools import cached_property
from zoneinfo import ZoneInfo

import orjson
from typing_extensions import TypedDict

from intavo.accounts.models import Business
from intavo.core.hours import AnyHours, OpeningHours, any_of, next_closing, next_opening
from intavo.core.links import Channel, Met, hours_of, meet
from intavo.core.presence import Presence, back_at, changes_at, somebody_free
from intavo.core.replies import (
    Cell,
    Chosen,
    Promise,
    Reply,
    ReplySlot,
    Situation,
    Told,
    choose_whole,
    fill,
    first_promise,
    situation,
    slots,
)
from intavo.core.say import Tongue
from intavo.core.showing import Compiled, SiteRules
from intavo.core.touchpoint import Document, Moment, Stance, Watched, queue_of
from intavo.core.touchpoint.look import Queue
from intavo.lately import Lately


@dataclass(frozen=True, slots=True)
class Answered:
    """How what comes in by a button's card is answered: its own promise in open minutes,
    and its own hours.
    """

    promise_minutes: int | None
    follows: tuple[int | None, ...]


class Wants(TypedDict):
    """What the rules want to know of the page: its kinds, and an element that says that somebody is signed in
    to it.
    """

    kinds: bool
    signed_in: str


@dataclass(frozen=True, slots=True)
class LiveTouchpoint:
    """A touchpoint that is on: its rules compiled, and its document as visitors get it written as JSON.

    `again`: it may come again on the same page, once closed.
    """

    compiled: Compiled
    slug: str
    name: str
    revision: int
    stance: Stance
    document: bytes
    needs_more: bool
    again: bool
    channels: frozenset[str] = frozenset()
    code: str = ""
    answered: Answered | None = None
    language: str = ""
    _labelled: Lately[str, bytes] = field(default_factory=lambda: Lately(64))
    _watched: Lately[int, list[list[Watched]]] = field(default_factory=lambda: Lately(64))

    @property
    def queue(self) -> Queue:
        """Which queue it waits in."""
        return queue_of(self.stance)

    def labelled(self, label: str) -> bytes:
        """Its document as JSON with these words on its button; "" leaves its own."""
        if not label:
            return self.document
        return self._labelled.get(label, lambda: self._with_label(label))

    def _with_label(self, label: str) -> bytes:
        document = orjson.loads(self.document)
        document["face"]["label"] = label
        return orjson.dumps(document)

    def moments(self, moments: tuple[tuple[Moment, ...], ...]) -> list[list[Watched]]:
        """Moments as the protocol has them; those of its sentences, which most entries have, are worked out
        once.
        """
        known = self._watched.known(id(moments))
        if known is None:
            known = [[one.given() for one in all_of] for all_of in moments]
            # Only of what lives as long as this does is the id its own.
            if any(moments is one.moments for one in self.compiled.show.sentences):
                self._watched.put(id(moments), known)
        return known


@dataclass(frozen=True, slots=True)
class Said:
    """What the visitor is told now: the situation, until when it holds, and the words (None: hidden).

    `words` are of the reply's tongue, which may be another than that of what stands around it; `words_in`
    says the same in any.
    """

    situation: Situation
    chosen: Chosen
    title: str
    text: str
    due: datetime | None
    words: dict[ReplySlot, str]
    tongue: Tongue
    words_in: Callable[[Tongue], dict[ReplySlot, str]] = field(compare=False)

    @property
    def told(self) -> Told | None:
        """What visitors read; None where the owner hides it."""
        return None if self.chosen.reply.hidden else {"title": self.title, "text": self.text}


@dataclass
class LiveSite:
    """A site as visitors meet it."""

    id: int
    key: str
    slug: str
    revision: int
    hosts: frozenset[str]
    business: Business
    hours: OpeningHours
    table: dict[Cell, Reply]
    members: tuple[Presence, ...]
    touchpoints: tuple[LiveTouchpoint, ...]
    rules: SiteRules
    speaks: str = ""
    other_hours: dict[int, OpeningHours] = field(default_factory=dict)
    channels: dict[str, Channel] = field(default_factory=dict)
    checked: float = 0.0
    _said: Lately[tuple[object, ...], Said] = field(
        init=False, compare=False, default_factory=lambda: Lately(500)
    )
    _ends: Lately[tuple[object, ...], datetime | None] = field(
        init=False, compare=False, default_factory=lambda: Lately(100)
    )
    _met: Lately[tuple[object, ...], Met] = field(
        init=False, compare=False, default_factory=lambda: Lately(1000)
    )

    @cached_property
    def wants(self) -> Wants | None:
        """What the rules want to know of the page: its kinds, and whether somebody is signed in to it."""
        sentences = [one for live in self.touchpoints for one in live.compiled.show.sentences]
        kinds = any(one.kinds or one.not_kinds for one in sentences)
        asked = any(piece.kind == "signed_in" for one in sentences for piece in one.who)
        signed_in = self.rules.signed_in if asked else ""
        return {"kinds": kinds, "signed_in": signed_in} if kinds or signed_in else None

    @property
    def zone(self) -> ZoneInfo:
        """The business's zone."""
        return ZoneInfo(self.business.timezone)

    def tongue(self, own: str = "") -> Tongue:
        """What visitors are spoken to in: a touchpoint's own language, else the site's,
        else the business's.
        """
        return self.business.tongue(own, self.speaks)

    def tongue_at(self, touchpoint: str) -> Tongue:
        """What a touchpoint speaks (by its id), as it stands on the site now."""
        return self.tongue(
            next((one.language for one in self.touchpoints if one.compiled.id == touchpoint), "")
        )

    def promise(self, own_minutes: int | None = None) -> Promise:
        """The promise that applies: the touchpoint's own (open minutes), else the business's."""
        own = None if own_minutes is None else Promise.of_minutes(own_minutes)
        return first_promise(own, Promise.of_minutes(self.business.promise_minutes))

    def hours_for(self, follows: tuple[int | None, ...]) -> AnyHours:
        """The hours that apply: those that are named and are there, any of them, else the main ones."""
        return any_of(self.sets, follows)

    def says(
        self,
        at: datetime,
        language: str,
        utc_offset: int | None,
        own_minutes: int | None = None,
        follows: tuple[int | None, ...] = (),
        column: str | None = None,
        speaks: str = "",
    ) -> Said:
        """What is said at an instant; `speaks` is the touchpoint's own language.

        Hours, due times and words change on whole minutes only, so one answer serves every visitor of that
        minute with the same language and offset.
        """
        minute = int(at.timestamp()) // 60
        key = (minute, language, utc_offset, own_minutes, follows, column, speaks)
        return self._said.get(
            key, lambda: self._say(at, language, utc_offset, own_minutes, follows, column, speaks)
        )

    def says_of(
        self, channel_id: str, at: datetime, language: str, utc_offset: int | None, speaks: str = ""
    ) -> Said:
        """What is said to whoever writes through a channel: by its hours, and as its menu says it."""
        now = self.meets(channel_id, at, language, utc_offset).situation
        hours = hours_of(self.channels[channel_id], self.sets)
        return self._said_of(now, hours, (language, channel_id, speaks), at, utc_offset)

    def faced(
        self, live: LiveTouchpoint, at: datetime, language: str, utc_offset: int | None
    ) -> tuple[str, datetime | None]:
        """What a button says by the table of replies ("": its own words), and when hours of its own next
        change.
        """
        answered, id_ = live.answered, live.compiled.id
        if answered is None:
            return "", None
        said = self.says(
            at, language, utc_offset, answered.promise_minutes, answered.follows, id_, live.language
        )
        ends = self.situation_ends(said.situation, at, answered.follows) if answered.follows else None
        return said.chosen.button(said.situation, id_), ends

    def situation_ends(
        self, now: Situation, at: datetime, follows: tuple[int | None, ...] = ()
    ) -> datetime | None:
        """When the hours next change; like what is said, one answer serves every visitor of a minute."""
        key = (int(at.timestamp()) // 60, now, follows)
        return self._ends.get(key, lambda: self._ends_of(now, at, follows))

    def _ends_of(self, now: Situation, at: datetime, follows: tuple[int | None, ...]) -> datetime | None:
        is_open = now in {Situation.OPEN, Situation.NOBODY_FREE}
        hours = self.hours_for(follows)
        turn = next_closing(hours, at) if is_open else next_opening(hours, at)
        comes = changes_at(self.members, at)
        return min((change for change in (turn, comes) if change is not None), default=None)

    @cached_property
    def sets(self) -> dict[int | None, OpeningHours]:
        """All sets of hours, the main ones under None."""
        by_id: dict[int | None, OpeningHours] = {None: self.hours}
        for id_, one in self.other_hours.items():
            by_id[id_] = one
        return by_id

    def meets(self, channel_id: str, at: datetime, language: str, utc_offset: int | None) -> Met:
        """A channel as a visitor meets it at an instant; worked out once a minute, as what is said is."""
        key = (int(at.timestamp()) // 60, channel_id, language, utc_offset)
        return self._met.get(key, lambda: self._meet(channel_id, at, language, utc_offset))

    def _meet(self, channel_id: str, at: datetime, language: str, utc_offset: int | None) -> Met:
        return meet(
            self.channels[channel_id],
            channel_id,
            self.sets,
            at,
            self.members,
            table=self.table,
            language=language,
            business_language=self.business.language,
            promise=self.promise(),
            visitor_offset=utc_offset,
            speaks=self.speaks,
            region=self.business.region,
        )

    def answers(
        self,
        document: Document,
        at: datetime,
        language: str,
        utc_offset: int | None,
        column: str | None = None,
    ) -> Said | None:
        """What is said to whoever sends a touchpoint, by its own hours and promise; None where nobody answers
        it.

        `column` is the touchpoint's id, under which it may have words of its own.
        """
        if not document.asks_for_answer:
            return None
        after = document.after
        said = self.says(
            at, language, utc_offset, after.promise_minutes, after.follows, column, document.language
        )
        return replace(said, title="") if document.says_above_reply(said.title) else said

    def _say(
        self,
        at: datetime,
        language: str,
        utc_offset: int | None,
        own_minutes: int | None,
        follows: tuple[int | None, ...],
        column: str | None,
        speaks: str,
    ) -> Said:
        hours = self.hours_for(follows)
        now = situation(hours, at, somebody_free(self.members, at))
        return self._said_of(now, hours, (language, column, speaks), at, utc_offset, own_minutes)

    def _said_of(
        self,
        now: Situation,
        hours: AnyHours,
        to: tuple[str, str | None, str],
        at: datetime,
        utc_offset: int | None,
        own_minutes: int | None = None,
    ) -> Said:
        """`to`: the visitor's language, the channel or touchpoint, and what that speaks."""
        language, column, speaks = to
        due = self.promise(own_minutes).due(hours, at)
        back = back_at(self.members, at, hours)

        def words_in(tongue: Tongue) -> dict[ReplySlot, str]:
            return slots(hours, at, self.zone, due, utc_offset, back, tongue)

        region = self.business.region
        chosen = choose_whole(
            self.table,
            now,
            language,
            self.business.language,
            column,
            speaks or self.speaks,
            lambda language: words_in(Tongue(language, region)),
        )
        tongue = Tongue(chosen.cell.language, region)
        words = words_in(tongue)
        title, text = (fill(one, words, tongue) for one in (chosen.reply.title, chosen.reply.text))
        return Said(now, chosen, title, text, due, words, tongue, words_in)
