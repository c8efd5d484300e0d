"""The show sentence in words: the same in the editor, in what was changed,
and in the reasons of a verdict.
"""

from collections.abc import Callable, Iterable, Mapping

from typing_extensions import TypedDict

from ..places import language_named
from ..say import joined
from . import who as asked
from .patterns import PagePattern
from .rules import Moment, Sentence, Show

# More pages than these are counted.
_NAMED = 3


class SentenceWords(TypedDict):
    """The pieces of one sentence."""

    where: str
    who: str
    moments: str
    during: str


class ShowWords(TypedDict):
    """All rules of a touchpoint, piece by piece."""

    sentences: list[SentenceWords]
    often: str
    until: str


def show_words(show: Show, hours: Mapping[int, str]) -> ShowWords:
    """Every piece in words, on the reader's clock; `hours`:
    the names of sets of opening hours by their ids.
    """
    return {
        "sentences": [
            {
                "where": say_pages(each), "who": say_who(each), "moments": say_moments(each),
                "during": each.during.say(hours),
            }
            for each in show.sentences
        ],
        "often": say_often(show),
        "until": say_until(show),
    }  # fmt: skip


def _some(patterns: tuple[PagePattern, ...]) -> str:
    if len(patterns) <= _NAMED:
        return _all(patterns)
    return f"{', '.join(each.say() for each in patterns[:2])} and {len(patterns) - 2} more"


def _all(patterns: tuple[PagePattern, ...]) -> str:
    return joined(each.say() for each in patterns)


def say_pages(sentence: Sentence, named: Callable[[tuple[PagePattern, ...]], str] = _some) -> str:
    """Where: "on every page but /contact", "on /trips and below and /lessons"; of many pages only some are
    named.
    """
    kind = f"pages of the kind {joined(sentence.kinds, 'or')}" if sentence.kinds else ""
    if sentence.pages:
        where = f"on {named(sentence.pages)}{f', if they are {kind}' if kind else ''}"
    else:
        where = f"on {kind or 'every page'}"
    less = [named(sentence.not_pages)] if sentence.not_pages else []
    less += [f"the kind {joined(sentence.not_kinds, 'or')}"] if sentence.not_kinds else []
    where += f" but {joined(less)}" if less else ""
    where += f", when they came in on {named(sentence.landing)}" if sentence.landing else ""
    return f"{where}, unless they came in on {named(sentence.not_landing)}" if sentence.not_landing else where


def say_all_pages(sentence: Sentence) -> str:
    """The same with every page named."""
    return say_pages(sentence, _all)


def say_who(sentence: Sentence) -> str:
    """To whom: "anyone, on any device", "people on a desktop or tablet who are here for the first time"."""
    device = "" if sentence.devices == asked.DEVICES else f" on a {joined(sentence.devices, 'or')}"
    if not sentence.who:
        return f"anyone{device or ', on any device'}"
    return f"people{device} who {joined(say_piece(each) for each in sentence.who)}"


def say_piece(piece: asked.Who) -> str:
    """What is asked of them, after "who"."""
    positive, negative = _asked(piece)
    return negative if piece.unless else positive


def _asked(piece: asked.Who) -> tuple[str, str]:
    if isinstance(piece, asked.Been):
        return "have been here before", "are here for the first time"
    if isinstance(piece, asked.Visits):
        words = [f"at least {piece.least}"] if piece.least else []
        words += [f"at most {piece.most}"] if piece.most else []
        return f"are on {' and '.join(words)} visits", f"are not on {' and '.join(words)} visits"
    if isinstance(piece, asked.Pages):
        span = "in this visit" if piece.span == "visit" else "ever"
        return (
            f"have seen at least {piece.least} pages {span}",
            f"have seen fewer than {piece.least} pages {span}",
        )
    if isinstance(piece, asked.Arrival):
        ways = joined((asked.WAYS[way] for way in piece.ways), "or")
        return f"came {ways}", f"did not come {ways}"
    if isinstance(piece, asked.Referrer):
        return f"came from {piece.address.say()}", f"did not come from {piece.address.say()}"
    if isinstance(piece, asked.Campaign):
        said = f"{piece.tag} {piece.value.say()}"
        return f"came with {said}", f"did not come with {said}"
    if isinstance(piece, asked.Tagged):
        tags = joined((f"“{tag}”" for tag in piece.tags), "or")
        return f"have the tag {tags}", f"do not have the tag {tags}"
    if isinstance(piece, asked.Language):
        tongues = joined(map(language_named, piece.languages), "or")
        return f"read {tongues}", f"do not read {tongues}"
    if isinstance(piece, asked.OnList):
        return "are on your list", "are not on your list"
    return "are signed in", "are not signed in"


def say_moments(sentence: Sentence) -> str:
    """At which moments: "after 12 s or at 40 % down", "never by itself"."""
    return say_alternatives(sentence.moments) or "never by itself"


def say_alternatives(moments: Iterable[Iterable[Moment]]) -> str:
    """Moments of which any is enough, each of several things that must all come."""
    return joined((" and ".join(each.say() for each in all_of) for all_of in moments), "or")


def say_often(show: Show) -> str:
    """How often: "on every page view", "at most once in 7 days, at most 3 times ever"."""
    often = show.how_often
    base = {
        "moment": "each time its moment comes",
        "page": "on every page view",
        "visit": "at most once a visit",
        "span": f"at most once in {often.span.say()}",
    }[often.every]
    more = [f"at most {often.most} {'time' if often.most == 1 else 'times'} ever"] if often.most else []
    more += [f"not for {often.after_closed.say()} once closed"] if often.after_closed else []
    more += ["only if nothing else interrupted"] if show.alone else []
    return ", ".join([base, *more])


def say_until(show: Show) -> str:
    """Until when."""
    if show.until.group and show.group:
        return f"until they answer this or another of “{show.group}”"
    return "until they answer" if show.until.answered else "also after they answer"
