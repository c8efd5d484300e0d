"""The reasons of a verdict in sentences that a shop owner understands."""

from collections.abc import Callable

from ..replies import SITUATIONS
from ..say import near_words, stamp
from ..touchpoint import who as asked
from ..touchpoint.patterns import PagePattern, normal_address, normal_path
from ..touchpoint.rules import DEVICES
from ..touchpoint.sentence import say_alternatives, say_piece
from .compiled import Case, TouchpointState
from .predicates import has_answered, hidden_while, hours_of, shown_enough, turns, within
from .who import piece_holds

_STATES = {
    TouchpointState.LIVE: "It is on.",
    TouchpointState.OFF: "It is turned off.",
    TouchpointState.DRAFT: "It has been made, but is not on yet.",
}


def _site(case: Case) -> str:
    hosts = ", ".join(sorted(case.touchpoint.hosts)) or "no site"
    only = f" This sentence is for {' and '.join(case.told.sites)}." if case.told.sites else ""
    return f"The page is on {case.view.host or 'no known host'}; it stands on {hosts}.{only}"


def _where(case: Case) -> str:
    sentence, path, address = case.told, case.view.path, case.view.address
    refusing = next((p for p in sentence.not_pages if p.matches(path, address)), None)
    if refusing is not None:
        return f"{path} is left out by {_quoted(refusing)}."
    matching = next((p for p in sentence.pages if p.matches(path, address)), None)
    if sentence.pages and matching is None:
        return f"{path} is not among {', '.join(p.say() for p in sentence.pages)}."
    return (
        _landing(case)
        or _kinds(case)
        or (f"{path} matches {_quoted(matching)}." if matching else "Any page will do.")
    )


def _quoted(pattern: PagePattern) -> str:
    return pattern.say() if pattern.kind in {"contains", "group"} else f"“{pattern.say()}”"


def _landing(case: Case) -> str:
    sentence = case.told
    first = case.view.visit.visitor.first_page or case.view.visit.page.url
    landed = (normal_path(first), normal_address(first))
    if sentence.landing and not any(p.matches(*landed) for p in sentence.landing):
        return (
            f"They came in on {landed[0]}, which is not among {', '.join(p.say() for p in sentence.landing)}."
        )
    refusing = next((p for p in sentence.not_landing if p.matches(*landed)), None)
    return f"They came in on {landed[0]}, which {_quoted(refusing)} leaves out." if refusing else ""


def _kinds(case: Case) -> str:
    sentence, kinds = case.told, {kind.casefold() for kind in case.view.visit.page.kinds}
    said = (
        f"The page says that it is {' and '.join(sorted(kinds))}"
        if kinds
        else "The page says nothing of its kind"
    )
    if sentence.kinds and kinds.isdisjoint(sentence.kinds):
        return f"{said}; it is for {' or '.join(sentence.kinds)}."
    return f"{said}, which is left out." if not kinds.isdisjoint(sentence.not_kinds) else ""


def _who(case: Case) -> str:
    sentence, visit = case.told, case.view.visit
    if visit.device not in sentence.devices:
        return f"They are on a {visit.device}; it shows on {' and '.join(sentence.devices)}."
    failing = next((one for one in sentence.who if not piece_holds(case.touchpoint.around, one, visit)), None)
    if failing is not None:
        return f"{say_visitor(failing, case)}; it is for those who {say_piece(failing)}."
    if sentence.who:
        return f"They {', and '.join(say_piece(one) for one in sentence.who)}."
    return "Any device will do." if sentence.devices == DEVICES else f"They are on a {visit.device}."


def say_visitor(piece: asked.Who, case: Case) -> str:
    """What is so of the visitor."""
    visitor = case.view.visit.visitor
    if isinstance(piece, asked.Been | asked.Visits):
        return (
            "They are here for the first time"
            if visitor.visits <= 1
            else f"They are on visit {visitor.visits}"
        )
    if isinstance(piece, asked.Pages):
        seen = visitor.pages_this_visit if piece.span == "visit" else visitor.pages_ever
        return f"They are on page {seen}{' of this visit' if piece.span == 'visit' else ''}"
    if isinstance(piece, asked.Arrival):
        return f"They came {asked.WAYS[case.touchpoint.around.way(visitor)]}"
    if isinstance(piece, asked.Referrer):
        return f"They came from {visitor.arrival.referrer or 'no other page'}"
    if isinstance(piece, asked.Campaign):
        return f"They came in on {visitor.arrival.url or 'an address without tags'}"
    if isinstance(piece, asked.Tagged):
        return f"They have {', '.join(visitor.tags) or 'no tag'}"
    if isinstance(piece, asked.Language):
        return f"Their browser speaks {visitor.language}"
    if isinstance(piece, asked.OnList):
        return "They are on your list" if visitor.on_list else "They are not on your list"
    return "They are signed in" if case.view.visit.page.signed_in else "They are not signed in"


def _during(case: Case) -> str:
    during, touchpoint = case.told.during, case.touchpoint
    if (now := hidden_while(touchpoint, case.view)) is not None:
        ends = turns(touchpoint, case.told, case.view)
        until = f", until {near_words(ends, case.view.at, touchpoint.zone)}" if ends else ""
        return f"Hidden while it is “{SITUATIONS[now]}”, by the table of replies{until}."
    if during.always:
        return "At any time."
    turn = turns(touchpoint, case.told, case.view)
    zone = during.zone_for(touchpoint.zone, case.view.visit.visitor.utc_offset)
    inside = within(touchpoint, case.told, case.view)
    words = during.say()
    words = words[0].upper() + words[1:]
    if during.only and hours_of(touchpoint, during.hours) is None:
        return f"{words}; those hours are not there."
    if turn is None:
        return f"{words}." if inside else f"{words}; that is over."
    return f"{words}; {'until' if inside else 'next'} {near_words(turn, case.view.at, zone)}."  # type: ignore[arg-type]


def _how_often(case: Case) -> str:
    often, zone, memory = case.touchpoint.show.how_often, case.touchpoint.zone, case.memory
    if shown_enough(case.touchpoint, memory):
        return f"At most {often.most} times ever; that was {memory.shown if memory else 0}."
    rules = {
        "moment": "Each time its moment comes, again on the same page too",
        "page": "It may show on every page", "visit": "At most once a visit",
        "span": f"At most once in {often.span.say()}",
    }  # fmt: skip
    rule = rules[often.every]
    if often.after_closed is not None:
        rule += f", and not for {often.after_closed.say()} after it was closed"
    shown = memory.last_shown if memory else None
    if shown is None:
        return f"{rule}." if often.every in {"page", "moment"} else f"{rule}; not shown yet."
    told = f"{rule}; shown {stamp(shown, zone)}"
    if case.free is None:
        return f"{rule}." if often.every in {"page", "moment"} else f"{told}, long enough ago."
    if (
        memory
        and often.after_closed
        and memory.last_closed
        and case.free == memory.last_closed + often.after_closed.length
    ):
        return f"{rule}; closed {stamp(memory.last_closed, zone)}; free again {stamp(case.free, zone)}."
    if often.every == "visit":
        return f"{told}; free again in their next visit."
    return f"{told}; free again {stamp(case.free, zone)}."


def _until(case: Case) -> str:
    until = case.touchpoint.show.until
    if not until.answered and not until.group:
        return "It goes on after an answer."
    if has_answered(case.touchpoint, case.view, case.memory):
        own = case.memory is not None and case.memory.answered is not None
        return (
            "They have answered already."
            if own
            else f"They have answered another one of “{case.touchpoint.show.group}”."
        )
    return "They have not answered yet."


def _moment(case: Case) -> str:
    if not case.view.visit.storage and case.touchpoint.interrupts:
        return "Their browser refuses to remember, so nothing interrupts them by itself."
    moments = case.told.moments
    if not moments:
        return "It never comes by itself."
    said = say_alternatives(moments)
    return f"{said[0].upper()}{said[1:]}."


def _turn(case: Case) -> str:
    touchpoint, so_far = case.touchpoint, case.view.visit.visitor.interruptions
    most = touchpoint.around.most_interruptions
    if not touchpoint.interrupts:
        return (
            "It takes turns with other bars only." if touchpoint.queue == "bar" else "It waits for nothing."
        )
    if touchpoint.show.alone and so_far:
        return "Something else has interrupted this visit, and it comes only if nothing has."
    if most is not None and so_far >= most:
        return f"This site interrupts a visit at most {most} {'time' if most == 1 else 'times'}; it has."
    return "One at a time, in your order."


WORDS: dict[str, Callable[[Case], str]] = {
    "state": lambda case: _STATES[case.touchpoint.state],
    "site": _site,
    "where": _where,
    "who": _who,
    "during": _during,
    "how often": _how_often,
    "until": _until,
    "moment": _moment,
    "turn": _turn,
}
