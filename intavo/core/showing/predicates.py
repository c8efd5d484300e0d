"""Each rule by itself, as a predicate of a touchpoint and a page view."""

from datetime import UTC, datetime

from ..hours import OpeningHours
from ..replies import Situation
from ..touchpoint.patterns import Groups, PagePattern, normal_address, normal_path
from ..touchpoint.rules import Sentence
from .compiled import VISIT_ENDS, Compiled, PageView, page_view, sentence_with
from .visit import Memory, Page, Visit
from .who import who_holds


def memory_of(touchpoint: Compiled, view: PageView) -> Memory | None:
    """What is remembered, unless past showings have been forgotten since."""
    memory = view.visit.memory.get(touchpoint.id)
    return None if memory is None or memory.generation < touchpoint.generation else memory


def free_again(touchpoint: Compiled, memory: Memory | None, view: PageView) -> datetime | None:
    """When it may show again, if it may not yet. Once a visit: when the visit may end at the earliest."""
    if memory is None:
        return None
    often = touchpoint.show.how_often
    free = (
        [memory.last_closed + often.after_closed.length] if often.after_closed and memory.last_closed else []
    )
    if memory.last_shown is not None:
        if touchpoint.pause is not None:
            free.append(memory.last_shown + touchpoint.pause)
        elif often.every == "visit" and _in_this_visit(memory.last_shown, view):
            free.append(view.at + VISIT_ENDS)
    latest = max(free, default=None)
    return latest if latest is not None and latest > view.at else None


def _in_this_visit(shown: datetime, view: PageView) -> bool:
    started = view.visit.visitor.visit_started
    return started is None or shown >= started


def shown_enough(touchpoint: Compiled, memory: Memory | None) -> bool:
    """Whether it has been shown as often as it ever may."""
    most = touchpoint.show.how_often.most
    return most is not None and memory is not None and memory.shown >= most


def has_answered(touchpoint: Compiled, view: PageView, memory: Memory | None) -> bool:
    """Whether they answered it, or one of its group where that counts."""
    until = touchpoint.show.until
    if until.answered and memory is not None and memory.answered is not None:
        return True
    return until.group and any(
        (known := view.visit.memory.get(mate)) is not None and known.answered is not None
        for mate in touchpoint.mates
    )


def has_its_turn(touchpoint: Compiled, view: PageView) -> bool:
    """Whether it may still interrupt this visit."""
    if not touchpoint.interrupts:
        return True
    most, so_far = touchpoint.around.most_interruptions, view.visit.visitor.interruptions
    return not (touchpoint.show.alone and so_far) and (most is None or so_far < most)


def holds(touchpoint: Compiled, sentence: Sentence, view: PageView) -> bool:
    """Whether a sentence holds on this page view."""
    if view.visit.device not in sentence.devices or not on_page(sentence, view):
        return False
    return touchpoint.plain or (
        on_site(touchpoint, sentence, view)
        and who_holds(touchpoint.around, sentence, view)
        and within(touchpoint, sentence, view)
    )


def nearest(touchpoint: Compiled, view: PageView) -> Sentence:
    """The sentence to explain where none holds: the one that comes furthest."""

    def far(sentence: Sentence) -> int:
        steps = (
            on_site(touchpoint, sentence, view),
            on_page(sentence, view),
            view.visit.device in sentence.devices and who_holds(touchpoint.around, sentence, view),
            within(touchpoint, sentence, view),
        )
        return next((at for at, passed in enumerate(steps) if not passed), len(steps))

    sentences = touchpoint.show.sentences
    return sentences[0] if len(sentences) == 1 else max(sentences, key=far)


def on_site(touchpoint: Compiled, sentence: Sentence, view: PageView) -> bool:
    """Whether a sentence is for this site."""
    return not sentence.sites or any(
        view.host in touchpoint.around.sites.get(site, frozenset()) for site in sentence.sites
    )


def _any(patterns: tuple[PagePattern, ...], path: str, address: str) -> bool:
    for pattern in patterns:  # noqa: SIM110  # asked for every touchpoint; a generator takes twice as long
        if pattern.matches(path, address):
            return True
    return False


def page_matches(sentence: Sentence, groups: Groups, path: str, kinds: tuple[str, ...] = ()) -> bool:
    """Whether a sentence is for a page, whatever page the visitor came in on."""
    asked = sentence_with(sentence, groups).model_copy(update={"landing": (), "not_landing": ()})
    visit = Visit(page=Page(url=path, kinds=kinds), device="desktop")
    return on_page(asked, page_view(visit, datetime.min.replace(tzinfo=UTC)))


def on_page(sentence: Sentence, view: PageView) -> bool:
    """Whether a sentence is for this page, as far as the page decides it."""
    if sentence.pages and not _any(sentence.pages, view.path, view.address):
        return False
    if sentence.not_pages and _any(sentence.not_pages, view.path, view.address):
        return False
    if sentence.landing or sentence.not_landing:
        first = view.visit.visitor.first_page or view.visit.page.url
        landed = (normal_path(first), normal_address(first))
        if (sentence.landing and not _any(sentence.landing, *landed)) or _any(sentence.not_landing, *landed):
            return False
    if sentence.kinds or sentence.not_kinds:
        kinds = {kind.casefold() for kind in view.visit.page.kinds}
        return (not sentence.kinds or not kinds.isdisjoint(sentence.kinds)) and kinds.isdisjoint(
            sentence.not_kinds
        )
    return True


def within(touchpoint: Compiled, sentence: Sentence, view: PageView) -> bool:
    """Whether it is within the times of a sentence, and not hidden just now."""
    if hidden_while(touchpoint, view) is not None:
        return False
    during = sentence.during
    if during.always:
        return True
    zone = during.zone_for(touchpoint.zone, view.visit.visitor.utc_offset)
    return during.holds(view.at, zone, hours_of(touchpoint, during.hours))


def turns(touchpoint: Compiled, sentence: Sentence, view: PageView) -> datetime | None:
    """When its times next begin or end, or what holds changes where that hides it."""
    during, found = sentence.during, None
    if not during.always:
        zone = during.zone_for(touchpoint.zone, view.visit.visitor.utc_offset)
        found = during.changes(view.at, zone, hours_of(touchpoint, during.hours))
    turn = touchpoint.hides.changes(view.at) if touchpoint.hides else None
    return min((one for one in (found, turn) if one is not None), default=None)


def hidden_while(touchpoint: Compiled, view: PageView) -> Situation | None:
    """The situation that hides it just now, by the table of replies."""
    return touchpoint.hides.now(view.at, view.visit.visitor.language) if touchpoint.hides else None


def hours_of(touchpoint: Compiled, wanted: int | None) -> OpeningHours | None:
    """The named hours, or the main ones where those are not there."""
    hours = touchpoint.around.hours
    return hours.get(wanted, hours.get(None))
