"""The ready check: what stops a touchpoint from working, and what to look at, before it is on."""

from collections.abc import Iterator
from functools import cache

from ..places import language_named
from ..say import joined
from ..tongues import SPOKEN, Tongue
from .answers import way_to
from .copied import still_said
from .document import Document
from .finding import Finding, Known
from .leading import about_confirming, about_the_clicks, about_the_links, about_the_starter
from .look import INTERRUPTING
from .parts import Asked, Button, Consent, Headline, Part, Question, Score, Text
from .starters import STARTERS
from .starters.spoken import spoken


def ready_check(document: Document, known: Known | None = None) -> list[Finding]:
    """Every finding, what stops it first."""
    around = known or Known()
    found = [
        *_about_the_site(around), *_about_the_parts(document, around), *about_the_clicks(document, around),
        *about_the_links(document, around), *_about_showing(document, around),
        *_about_the_lists(document, around), *_about_the_ask(document), *_about_the_goal(document),
        *_about_the_channels(document, around), *_about_after(document, around), *_about_reading(around),
        *_about_the_words(document), *about_the_starter(document), *_about_lying_over(document, around),
        *_about_the_copy(document, around),
        *_about_the_others(document, around),
    ]  # fmt: skip
    return sorted(found, key=lambda finding: _LEVELS.index(finding.level))


_LEVELS = ("stops", "look", "fine")
_WAITS = {"not on": "It is made, but not on.", "changed": "It was changed since it went live."}


def _about_the_site(known: Known) -> Iterator[Finding]:
    if not known.has_site:
        yield Finding("stops", "It stands on no site.", "sites")
    elif not known.snippet_seen:
        yield Finding("look", "The snippet has not been seen on the site yet.", "snippet")
    if known.waits is not None:
        yield Finding("look", _WAITS[known.waits], "switch")


def _about_the_parts(document: Document, known: Known) -> Iterator[Finding]:
    for part in document.parts():
        if part.hidden:
            continue
        yield from (Finding(level, words, part.id) for level, words in part.lacks(known, document.after))
    yield from _about_the_room(document)
    if document.stance == "button" and not document.face.label.strip():
        yield Finding("stops", "The button has no words.", "face")


_MOST_NAMED = 3


def _about_lying_over(document: Document, known: Known) -> Iterator[Finding]:
    """Pages that the bar could not move aside, as visitors' browsers found."""
    if document.stance != "bar" or not known.over:
        return
    named, more = known.over[:_MOST_NAMED], len(known.over) - _MOST_NAMED
    on = ", ".join(named) + (f" and {more} more" if more > 0 else "")
    yield Finding("look", f"It could not move the page aside on {on}: there it lies over the page.", "look")


_MOST_IN_A_BAR = 6


def _about_the_room(document: Document) -> Iterator[Finding]:
    """What does not fit into the line that a bar is."""
    if document.stance != "bar":
        return
    for step in document.steps[:1]:
        parts = [part for part in step.parts if not part.hidden]
        tall = next((part for part in parts if not part.fits_a_bar()), None)
        if tall is not None:
            yield Finding("look", "A bar is one line: this does not fit into it.", tall.id)
        elif len(parts) > _MOST_IN_A_BAR:
            yield Finding("look", f"A bar is one line: {len(parts)} parts do not fit into it.", step.id)


_TOO_SOON, _TOO_SOON_AGAIN = 3, 60  # seconds


def _about_showing(document: Document, known: Known) -> Iterator[Finding]:
    show = document.show
    if known.today is not None and show.over(known.today):
        yield Finding("stops", "Its dates are past: it shows to nobody any more.", "show")
    elif known.today is not None and any(
        one.during.last is not None and one.during.last < known.today for one in show.sentences
    ):
        yield Finding("look", "The dates of one of its sentences are past.", "show")
    if known.pages and not known.matching:
        yield Finding(
            "look", f"It is for none of the {known.pages} pages that were seen on the site.", "show"
        )
    if document.stance not in INTERRUPTING:
        return
    soon = [one.after for s in show.sentences for all_of in s.moments if len(all_of) == 1 for one in all_of]
    first = min((after for after in soon if after is not None), default=None)
    if first is not None and first < _TOO_SOON:
        yield Finding("look", f"It interrupts after {first} s, before anybody has read a word.", "show")
    often = show.how_often
    if (
        often.every == "moment"
        and often.after_closed is None
        and first is not None
        and first < _TOO_SOON_AGAIN
    ):
        yield Finding("look", f"It comes back {first} s after it was closed, again and again.", "show")
    if not show.until.answered and document.purpose in {"sign-up", "inquiry", "question", "feedback"}:
        yield Finding("look", "It comes back to those who have answered it.", "show")
    if document.stance == "full-page" and any(
        "phone" in one.devices and one.moments for one in show.sentences
    ):
        yield Finding("look", "On a phone it covers the whole screen, by itself.", "show")


def _about_the_goal(document: Document) -> Iterator[Finding]:
    """Whether anything that a visitor does counts."""
    parts = [part for part in document.parts() if not part.hidden]
    sends = any(isinstance(part, Button) and part.does.action == "send" for part in parts)
    asks = any(isinstance(part, Question | Score) for part in parts)
    if (
        not sends
        and not asks
        and not any(part.TELLS for part in parts)
        and not any(does.goal for _, does in document.does())
    ):
        yield Finding(
            "fine",
            "Nothing in it counts as reaching the goal: Results can only say that it was seen.",
            "goal",
        )


def _about_the_channels(document: Document, known: Known) -> Iterator[Finding]:
    """What is to be looked at in the channels that it offers."""
    offered = document.channels()
    for id_, words in (known.channels or {}).items():
        if words and ({id_, "all"} & offered):
            yield Finding("look", words, f"channels.{id_}")


def _about_the_lists(document: Document, known: Known) -> Iterator[Finding]:
    """Lists of the site's that a rule goes by and that are empty."""
    pieces = [piece for one in document.show.sentences for piece in one.who if piece.kind == "arrival"]
    asked = {way for piece in pieces for way in piece.ways}
    for way in sorted(asked & known.empty_lists):
        yield Finding(
            "look",
            f"It asks who came from a {way} site, but your list of {way} sites is empty.",
            "site-rules",
        )


# What takes up an address that is left, as somebody on the list or as an entry on their card.
_TAKES_UP = {"sign-up", "inquiry", "call", "feedback"}


def _about_the_ask(document: Document) -> Iterator[Finding]:
    collects = document.purpose in {"sign-up", "inquiry"}
    sending = [
        (step.id, part)
        for step in document.steps
        for part in step.parts
        if isinstance(part, Button) and not part.hidden and part.does.action == "send"
    ]
    if collects and not sending:
        yield Finding("stops", "There is no button that sends it.", document.steps[0].id)
    reach = [part for part in document.fields("email", "phone") if not part.hidden]
    if collects and not reach:
        yield Finding("stops", "Nothing asks how to reach them: an email or a phone field is needed.", "ask")
    if reach and sending and document.purpose not in _TAKES_UP and not document.asks_for_answer:
        yield Finding(
            "stops",
            "It asks how to reach them, and nobody would hear of it: choose sign-ups or inquiries as what it"
            " is for, or tick “Asks for follow-up”.",
            reach[0].id,
        )
    if sending and document.after.page == "":
        for _, button in sending:
            if button.does.next is None:
                yield Finding(
                    "stops", "A button sends and leads nowhere: nobody would see that it was sent.", button.id
                )
    for step_id, button in sending:
        asked = [p for step in way_to(document, step_id, {}) for p in step.parts if not p.hidden]
        if not any(isinstance(p, Asked | Consent) for p in asked) and document.purpose != "feedback":
            yield Finding("look", "A button sends, but nothing is asked before it.", button.id)
    asks_email = any(part.input == "email" for part in reach)
    if document.purpose == "sign-up" and asks_email and not any(True for _ in document.consents()):
        yield Finding("look", "The email field has no consent wording with it.", "ask")


def _about_after(document: Document, known: Known) -> Iterator[Finding]:
    after = document.after
    if document.asks_for_answer and not known.said_closed:
        yield Finding("look", "Nothing is said to those who send it while you are closed.", "hours")
    if after.thank_you.send and not after.thank_you.subject.strip():
        yield Finding("stops", "The answer mail has no subject.", "thank_you")
    if after.confirm.on:
        if not known.mail_sender:
            yield Finding("stops", "Confirming by mail needs an address to send from.", "business")
        if not after.confirm.subject.strip():
            yield Finding("stops", "The mail to confirm has no subject.", "confirm")
        if not any(not part.hidden for part in document.fields("email")):
            yield Finding("stops", "Confirming by mail needs an email field.", "ask")
    yield from about_confirming(document)
    if after.code.kind == "shared" and not after.code.shared.strip():
        yield Finding("stops", "The code for everybody is empty.", "code")
    if after.code.kind == "each":
        yield from _about_codes(known)
    wants_file = "file" in {run.slot for run in after.thank_you.text if not isinstance(run, str)}
    if wants_file and after.file.asset is None:
        yield Finding("look", "The mail speaks of a file, but none is chosen.", "file")


def _about_codes(known: Known) -> Iterator[Finding]:
    if not known.codes_left:
        yield Finding("stops", "There are no codes left to give.", "code")
    elif known.codes_left * 10 <= known.codes_all:
        yield Finding(
            "look", f"Codes are running out: {known.codes_left} of {known.codes_all} are left.", "code"
        )
    if known.drain is not None:
        yield Finding("look", f"{known.drain.words} Look who took them.", "code")


def _about_reading(known: Known) -> Iterator[Finding]:
    for one in known.readings:
        if not one.passes:
            yield Finding("look", f"{one.what} is hard to read: {one.ratio:.1f} : 1.", one.part)


@cache
def _starters_words() -> frozenset[str]:
    """Every line that a starter begins with, in every language."""
    documents = (spoken(starter, Tongue(language)) for starter in STARTERS for language in SPOKEN)
    return frozenset(words for document in documents for part in document.parts() if (words := _line(part)))


def _line(part: Part) -> str:
    """What a headline or a text says."""
    if part.hidden or not isinstance(part, Headline | Text):
        return ""
    said = part.text if isinstance(part, Headline) else part.html
    return said.strip()


def _about_the_words(document: Document) -> Iterator[Finding]:
    left = [part for part in document.steps[0].parts if _line(part) in _starters_words() - {""}]
    if left:
        texts = "A text still has" if len(left) == 1 else f"{len(left)} texts still have"
        yield Finding("look", f"{texts} the starter's words: are they true of your business?", left[0].id)


def _about_the_copy(document: Document, known: Known) -> Iterator[Finding]:
    """Texts of a copy in another language that are nobody's to read there yet."""
    if known.original is None:
        return
    name, language, before = known.original
    left = still_said(document, before) if language != document.language else []
    if not left:
        return
    texts, them = ("A text is", "it") if len(left) == 1 else (f"{len(left)} texts are", "them")
    wanted = language_named(document.language)
    yield Finding("look", f"{texts} still as in “{name}”: write {them} in {wanted}.", left[0])


def _about_the_others(document: Document, known: Known) -> Iterator[Finding]:
    if known.corner:
        others = joined(f"“{name}”" for name in known.corner)
        yield Finding("fine", f"It shares its corner with {others}: they stand above one another.", "others")
    if not known.shares:
        return
    names = [f"“{name}”" for name, _ in known.shares]
    said = joined(names)
    most = max(count for _, count in known.shares)
    pages = "a page" if most == 1 else f"up to {most} pages"
    yield Finding("fine", f"It shares {pages} with {said}: they take turns, in your order.", "others")
