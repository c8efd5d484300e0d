"""Whether a visitor is one of those a sentence is for."""

from collections.abc import Callable
from typing import Any

from ..touchpoint import who as asked
from ..touchpoint.patterns import bare_address
from ..touchpoint.rules import Sentence
from .around import Around, campaign_tags
from .compiled import PageView
from .visit import Visit


def who_holds(around: Around, sentence: Sentence, view: PageView) -> bool:
    """Whether every piece of `who` holds; the device is looked at elsewhere."""
    return all(piece_holds(around, piece, view.visit) for piece in sentence.who)


def piece_holds(around: Around, piece: asked.Who, visit: Visit) -> bool:
    """Whether one piece holds, the other way round if it says so."""
    return _PREDICATES[piece.kind](around, piece, visit) is not piece.unless


def _visits(_: Around, piece: asked.Visits, visit: Visit) -> bool:
    count = visit.visitor.visits
    return (piece.least is None or count >= piece.least) and (piece.most is None or count <= piece.most)


def _pages(_: Around, piece: asked.Pages, visit: Visit) -> bool:
    seen = visit.visitor.pages_this_visit if piece.span == "visit" else visit.visitor.pages_ever
    return seen >= piece.least


def _language(_: Around, piece: asked.Language, visit: Visit) -> bool:
    spoken = visit.visitor.language.casefold()
    return any(spoken == one.casefold() or spoken.startswith(f"{one.casefold()}-") for one in piece.languages)


def _tagged(_: Around, piece: asked.Tagged, visit: Visit) -> bool:
    return not {tag.casefold() for tag in visit.visitor.tags}.isdisjoint(tag.casefold() for tag in piece.tags)


def _campaign(_: Around, piece: asked.Campaign, visit: Visit) -> bool:
    found = campaign_tags(visit.visitor.arrival.url).get(piece.tag)
    return found is not None and piece.value.matches(found)


_PREDICATES: dict[str, Callable[[Around, Any, Visit], bool]] = {
    "been": lambda around, piece, visit: visit.visitor.visits > 1,
    "visits": _visits,
    "pages": _pages,
    "arrival": lambda around, piece, visit: around.way(visit.visitor) in piece.ways,
    "referrer": lambda around, piece, visit: piece.address.matches(
        bare_address(visit.visitor.arrival.referrer)
    ),
    "campaign": _campaign,
    "signed_in": lambda around, piece, visit: visit.page.signed_in,
    "language": _language,
    "on_list": lambda around, piece, visit: visit.visitor.on_list,
    "tag": _tagged,
}
