"""How a channel is met at an instant: who can be reached through it, what is said,
and until when that holds.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from itertools import pairwise

from ..hours import AnyHours, any_of, is_open, next_closing, next_opening, open_stretches
from ..presence import Presence, back_at, changes_at
from ..replies import Cell, Promise, Reply, ReplySlot, Situation, choose_whole, fill, situation, slots
from ..say import Tongue
from .model import Channel, ChannelPerson
from .reach import ALWAYS, Sets, reachable


@dataclass(frozen=True, slots=True)
class Met:
    """A channel as a visitor meets it. `until`: when the next change comes, None if none does."""

    situation: Situation
    hidden: bool
    button: str
    says: tuple[str, str] | None
    people: tuple[tuple[ChannelPerson, bool], ...]
    until: datetime | None


def hours_of(channel: Channel, sets: Sets) -> AnyHours:
    """The hours that a channel follows: open when any of its sets is, else the main ones."""
    return any_of(sets, channel.hours)


def came_by(
    channels: Mapping[str, Channel], gateway: int, to: str
) -> tuple[str, ChannelPerson | None] | None:
    """By which channel of a gateway something came that was written to a handle, and to which of its people.

    Where it is not said to whom, or to somebody unknown, the gateway's only channel is meant; of several,
    none.
    """
    led = {id_: one for id_, one in channels.items() if one.gateway == gateway}
    for id_, one in led.items():
        person = next((person for person in one.people if to and person.handle == to), None)
        if person is not None or (to and one.handle == to):
            return id_, person
    return (next(iter(led)), None) if len(led) == 1 else None


def meet(
    channel: Channel,
    id_: str,
    sets: Sets,
    at: datetime,
    members: Iterable[Presence] = (),
    *,
    table: Mapping[Cell, Reply] | None = None,
    language: str = "en",
    business_language: str = "en",
    promise: Promise | None = None,
    visitor_offset: int | None = None,
    as_if: Situation | None = None,
    speaks: str = "",
    region: str = "GB",
) -> Met:
    """A channel with the id `id_` at an aware instant. `sets` holds hours by their ids, the main ones under
    None.

    `as_if` takes a situation for granted, for showing the owner what would be said; `speaks` is the language
    of the site, "" for the business's, whose region is `region`.
    """
    everybody, replies = tuple(members), table or {}
    away = {one.member for one in everybody if one.is_away(at)}
    people = tuple((one, reachable(channel, one, sets, at, away)) for one in channel.people)
    hours = hours_of(channel, sets)
    now = as_if or _situation(channel, hours, at, people, everybody, away)
    due = (promise or Promise(None)).due(hours, at)
    back = back_at(everybody, at, sets[None])

    def words_in(language: str) -> dict[ReplySlot, str]:
        return slots(hours, at, hours.zone, due, visitor_offset, back, Tongue(language, region))

    chosen = choose_whole(replies, now, language, business_language, id_, speaks, words_in)
    tongue, words = Tongue(chosen.cell.language, region), words_in(chosen.cell.language)
    closed = now is not Situation.OPEN
    own = chosen.cell.channel == id_
    hidden = chosen.reply.hidden or (closed and channel.while_closed == "hide")
    told = not hidden and (own if not closed else channel.while_closed == "say")
    return Met(
        now,
        hidden,
        chosen.button(now, id_),
        (fill(chosen.reply.title, words, tongue), fill(chosen.reply.text, words, tongue)) if told else None,
        people,
        _until(channel, hours, sets, at, everybody),
    )


def _situation(
    channel: Channel,
    hours: AnyHours,
    at: datetime,
    people: tuple[tuple[ChannelPerson, bool], ...],
    members: tuple[Presence, ...],
    away: set[int],
) -> Situation:
    if channel.kind in ALWAYS and not channel.hours and not channel.people:
        return Situation.OPEN
    if people:
        free = any(can for _, can in people)
        # Where the hours are open and nobody behind the channel is there, nobody is free.
        return situation(hours, at, free)
    return situation(hours, at, not members or any(one.member not in away for one in members))


def _until(
    channel: Channel, hours: AnyHours, sets: Sets, at: datetime, members: tuple[Presence, ...]
) -> datetime | None:
    own = [sets[one] for person in channel.people for one in person.hours if one in sets]
    turns = [next_closing(one, at) if is_open(one, at) else next_opening(one, at) for one in (hours, *own)]
    found = [one for one in (*turns, changes_at(members, at)) if one is not None]
    return min(found, default=None)


def reached(
    channel: Channel, sets: Sets, start: datetime, end: datetime, members: Iterable[Presence] = ()
) -> list[tuple[datetime, datetime]]:
    """When anybody can be reached through a channel between two aware instants, by hours alone, in order."""
    everybody = tuple(members)
    usual = [one.usual for one in everybody if one.usual is not None]
    own = [sets[one] for person in channel.people for one in person.hours if one in sets]
    turns = {start, end}
    for hours in (hours_of(channel, sets), *own, *usual):
        for stretch in open_stretches(hours, start, end):
            turns |= {stretch.start, stretch.end}
    stretches: list[tuple[datetime, datetime]] = []
    points = sorted(turns)
    for begins, ends in pairwise(points):
        away = {one.member for one in everybody if one.usual is not None and not is_open(one.usual, begins)}
        people = channel.people or (None,)
        if any(reachable(channel, one, sets, begins, away) for one in people):
            last = stretches.pop() if stretches and stretches[-1][1] == begins else (begins, ends)
            stretches.append((last[0], ends))
    return stretches
