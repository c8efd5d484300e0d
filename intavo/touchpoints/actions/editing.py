"""Writes on a touchpoint as it is edited: made, copied, taken in from a file, kept as a draft, undone,
returned to.
"""

import unicodedata
from typing import Any

from django.db import transaction
from django.utils.text import slugify
from pydantic import ValidationError

from intavo import clock
from intavo.accounts.actor import Actor, Changed, Refused
from intavo.accounts.models import Business, Member
from intavo.accounts.quotas import needs_room
from intavo.accounts.scope import own
from intavo.core.places import currency_of, languages, read_language
from intavo.core.quotas import QuotaKind
from intavo.core.refusals import wrongs
from intavo.core.rights import Right
from intavo.core.showing import in_language
from intavo.core.tongues import Tongue
from intavo.core.touchpoint import (
    STARTERS,
    BadFile,
    Document,
    Purpose,
    Stance,
    read,
    with_confirmation,
    with_purpose,
    with_stance,
)
from intavo.core.touchpoint.keeping import kept_as_far
from intavo.core.touchpoint.starters.spoken import added_in, said_in, spoken
from intavo.hours.models import HoursSet
from intavo.sites.models import Site

from ..models import Placement, Touchpoint, TouchpointRevision


def make(actor: Actor, *, starter: str, name: str, site_ids: list[int] | None = None) -> Touchpoint:
    """Make a draft from a starter, on the sites named or else on every site of the business."""
    actor.needs(Right.TOUCHPOINTS)
    chosen = next((one for one in STARTERS if one.key == starter), None)
    if chosen is None:
        raise Refused(("starter", f"There is no starter “{starter}”."))
    business = Business.objects.get(pk=actor.business_id)
    sites = Site.objects.filter(business=business).order_by("pk")
    site = (sites.filter(pk__in=site_ids) if site_ids else sites).first()
    tongue = site.tongue() if site else business.tongue()
    document = _priced(spoken(chosen, tongue), currency_of(business.region))
    return _made(actor, name or chosen.name, document, site_ids, f"From the starter “{chosen.name}”")


def _priced(document: Document, currency: str) -> Document:
    """A starter with its prices in the currency of the business."""
    data = document.model_dump(mode="json")
    for part in (part for step in data["steps"] for part in step["parts"] if part["kind"] == "price"):
        part["currency"] = currency
    return Document.model_validate(data)


def copy(actor: Actor, *, touchpoint_id: int, language: str = "") -> Touchpoint:
    """A draft of its own with the same document, on the same sites.

    With a `language` it is a copy in that: it is for who reads it, and whoever does is not shown what it is a
    copy of once the copy is on. Words of ours in it are said in the language; the owner's are theirs to
    write.
    """
    actor.needs(Right.TOUCHPOINTS)
    known = own(actor, Touchpoint.objects.select_related("draft").filter(deleted_at=None), touchpoint_id)
    assert known.draft is not None
    document = Document.model_validate(known.draft.document)
    sites = list(known.sites.values_list("pk", flat=True))
    if not language:
        return _made(actor, f"{known.name[:108]} (copy)", document, sites, f"Copied from “{known.name}”")
    try:
        language = read_language(language)
    except ValueError as error:
        raise Refused(("language", str(error))) from error
    business = Business.objects.get(pk=actor.business_id)
    site = known.sites.select_related("business").first()
    was = site.tongue(document.language) if site else business.tongue(document.language)
    data = said_in(document.model_dump(mode="json"), Tongue(language, business.region), was=was.spoken)
    data |= {"language": language}
    document = Document.model_validate(data)
    try:
        document = document.model_copy(update={"show": in_language(document.show, language)})
    except ValidationError as error:
        raise Refused(("language", "Its show sentence asks for as much as it can already.")) from error
    called = languages()[language]
    with transaction.atomic():
        copied = _made(
            actor, f"{known.name[:80]}, {called}"[:120], document, sites, f"“{known.name}” in {called}"
        )
        copied.original_id = known.original_id or known.pk
        copied.save(update_fields=["original"])
    return copied


def take_in(actor: Actor, *, text: str, name: str) -> Touchpoint:
    """A draft from a file's text; Refused with every place that is wrong in it."""
    actor.needs(Right.TOUCHPOINTS)
    try:
        document = read(text)
    except BadFile as error:
        raise Refused(*((f"file.{place}", reason) for place, reason in error.errors)) from error
    return _made(actor, name or "From a file", document, None, "From a file")


def _made(actor: Actor, name: str, document: Document, site_ids: list[int] | None, first: str) -> Touchpoint:
    title = _name(name)
    with transaction.atomic():
        needs_room(actor, QuotaKind.TOUCHPOINTS, "name")
        touchpoint = Touchpoint.objects.create(
            business_id=actor.business_id,
            name=title,
            slug=_free_slug(actor.business_id, title),
            order=10 * (1 + Touchpoint.objects.filter(business_id=actor.business_id).count()),
            created_at=clock.now(),
        )
        touchpoint.draft = _add_revision(actor, touchpoint, document, parent=None, run="", name=first)
        touchpoint.save(update_fields=["draft"])
        sites = Site.objects.filter(business_id=actor.business_id)
        for site in sites if site_ids is None else sites.filter(pk__in=site_ids):
            Placement.objects.create(business_id=actor.business_id, touchpoint=touchpoint, site=site)
        actor.noted("touchpoint made", touchpoint=touchpoint.public_id, name=title)
    return touchpoint


def _name(text: str) -> str:
    name = " ".join(text.split())
    if not name:
        raise Refused(("name", "Please write a name."))
    if len(name) > 120:
        raise Refused(("name", "A name has at most 120 characters."))
    return name


def _free_slug(business_id: int, name: str) -> str:
    stem = slugify(unicodedata.normalize("NFKD", name))[:50].strip("-") or "touchpoint"
    taken = set(Touchpoint.objects.filter(business_id=business_id).values_list("slug", flat=True))
    return next(
        slug for slug in (stem, *(f"{stem}-{n}" for n in range(2, len(taken) + 3))) if slug not in taken
    )


def _add_revision(
    actor: Actor,
    touchpoint: Touchpoint,
    document: Document,
    *,
    parent: TouchpointRevision | None,
    run: str,
    name: str = "",
) -> TouchpointRevision:
    latest = touchpoint.revisions.order_by("-number").values_list("number", flat=True).first() or 0
    return TouchpointRevision.objects.create(
        business_id=actor.business_id,
        touchpoint=touchpoint,
        number=latest + 1,
        parent=parent,
        run=run,
        name=name[:80],
        document=document.model_dump(mode="json"),
        saved_at=clock.now(),
        saved_by_id=actor.member_id,
    )


def locked(actor: Actor, touchpoint_id: int) -> Touchpoint:
    actor.needs(Right.TOUCHPOINTS)
    rows = Touchpoint.objects.select_related("draft", "live").filter(deleted_at=None)
    return own(actor, rows, touchpoint_id, locked=True)


def save_draft(
    actor: Actor, *, touchpoint_id: int, document: dict[str, Any], based_on: int, run: str = ""
) -> Touchpoint:
    """Keep an edited document. A run of changes (same `run`, same member) is one revision.

    `based_on` is the draft's revision number that was edited; if the draft has moved on since, raises
    Changed and nothing is lost: the browser still holds what was typed.
    """
    value = _read(document)
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        return _saved(actor, touchpoint, _drafted(touchpoint, based_on), value, run)


def save_as_far(
    actor: Actor, *, touchpoint_id: int, document: dict[str, Any], based_on: int, run: str = ""
) -> list[tuple[str, str]]:
    """The same, but what does not hold stays as it was and is named in what is given back; everything else is
    kept.
    """
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        draft = _drafted(touchpoint, based_on)
        value, refused = kept_as_far(
            _without_strangers(actor, document), Document.model_validate(draft.document)
        )
        _saved(actor, touchpoint, draft, value, run)
    return refused


def _without_strangers(actor: Actor, document: dict[str, Any]) -> dict[str, Any]:
    """The document less those who are to be told and are no members any more."""
    after = document.get("after")
    tell = after.get("tell") if isinstance(after, dict) else None
    if not isinstance(after, dict) or not isinstance(tell, list) or not tell:
        return document
    known = set(Member.objects.filter(business_id=actor.business_id).values_list("pk", flat=True))
    return document | {"after": after | {"tell": [one for one in tell if one in known]}}


def _drafted(touchpoint: Touchpoint, based_on: int) -> TouchpointRevision:
    draft = touchpoint.draft
    assert draft is not None
    if draft.number != based_on:
        raise Changed(_who_changed(draft))
    return draft


def _saved(
    actor: Actor, touchpoint: Touchpoint, draft: TouchpointRevision, value: Document, run: str
) -> Touchpoint:
    _only_ours(actor, value)
    dumped = value.model_dump(mode="json")
    if dumped == draft.document:
        return touchpoint
    same_run = bool(run) and not draft.name and draft.run == run and draft.saved_by_id == actor.member_id
    if same_run and draft.published_at is None and not draft.children.exists():
        draft.document, draft.saved_at = dumped, clock.now()
        draft.save(update_fields=["document", "saved_at"])
    else:
        touchpoint.draft = _add_revision(actor, touchpoint, value, parent=draft, run=run)
        touchpoint.save(update_fields=["draft"])
    return touchpoint


def _read(document: dict[str, Any]) -> Document:
    try:
        return Document.model_validate(document)
    except ValidationError as error:
        raise Refused(*wrongs(error.errors())) from error


def _only_ours(actor: Actor, document: Document) -> None:
    """Hours and members that a document names have to be this business's."""
    follows = {one for one in document.after.follows if one is not None}
    there = HoursSet.objects.filter(pk__in=follows, business_id=actor.business_id).values_list(
        "pk", flat=True
    )
    if follows - set(there):
        raise Refused(("after.hours", "There are no such hours."))
    wanted = set(document.after.tell)
    known = set(
        Member.objects.filter(business_id=actor.business_id, pk__in=wanted).values_list("pk", flat=True)
    )
    if wanted - known:
        raise Refused(("after.tell", "Somebody who is to be told is not a member any more."))


def turn_into(
    actor: Actor,
    *,
    touchpoint_id: int,
    purpose: Purpose | None = None,
    stance: Stance | None = None,
    confirm: bool | None = None,
) -> Touchpoint:
    """Another purpose or stance, or with double opt-in or without, as a step that can be undone; words are
    kept.
    """
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        assert touchpoint.draft is not None
        document = Document.model_validate(touchpoint.draft.document)
        turned = with_purpose(document, purpose) if purpose and purpose != document.purpose else document
        turned = with_stance(turned, stance) if stance and stance != turned.stance else turned
        turned = turned if confirm is None else with_confirmation(turned, confirm)
        site = touchpoint.sites.select_related("business").first()
        own = document.language
        tongue = site.tongue(own) if site else touchpoint.business.tongue(own)
        return _new_draft(actor, touchpoint, added_in(document, turned, tongue))


def return_to(actor: Actor, *, touchpoint_id: int, number: int) -> Touchpoint:
    """Make an earlier revision the draft again, as a step that can be undone itself."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        wanted = touchpoint.revisions.get(number=number)
        document = Document.model_validate(wanted.document)
        return _new_draft(
            actor, touchpoint, document, name=f"Back to {wanted.name or f'version {wanted.number}'}"
        )


def _new_draft(actor: Actor, touchpoint: Touchpoint, document: Document, name: str = "") -> Touchpoint:
    draft = touchpoint.draft
    assert draft is not None
    if document.model_dump(mode="json") != draft.document:
        touchpoint.draft = _add_revision(actor, touchpoint, document, parent=draft, run="", name=name)
        touchpoint.save(update_fields=["draft"])
    return touchpoint


def name_revision(actor: Actor, *, touchpoint_id: int, number: int, name: str) -> None:
    """Give a revision a name to find it by; an empty one takes it away."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        revision = touchpoint.revisions.select_for_update().get(number=number)
        revision.name = " ".join(name.split())[:80]
        revision.save(update_fields=["name"])


def _who_changed(draft: TouchpointRevision) -> str:
    who = draft.saved_by.user.name if draft.saved_by else "Somebody"
    return f"{who} has changed this touchpoint meanwhile. Your words are still here."


def undo(actor: Actor, *, touchpoint_id: int) -> Touchpoint:
    """Take the draft one revision back; Refused at the first."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        assert touchpoint.draft is not None
        if touchpoint.draft.parent is None:
            raise Refused(("draft", "There is nothing to undo."))
        return _move_draft(touchpoint, touchpoint.draft.parent)


def redo(actor: Actor, *, touchpoint_id: int) -> Touchpoint:
    """Take the draft to the newest revision that was undone; Refused if there is none."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        assert touchpoint.draft is not None
        following = touchpoint.draft.children.order_by("-number").first()
        if following is None:
            raise Refused(("draft", "There is nothing to redo."))
        return _move_draft(touchpoint, following)


def _move_draft(touchpoint: Touchpoint, to: TouchpointRevision) -> Touchpoint:
    touchpoint.draft = to
    touchpoint.save(update_fields=["draft"])
    return touchpoint


def rename(actor: Actor, *, touchpoint_id: int, name: str) -> Touchpoint:
    """Give it another name; its short name in links stays as it is."""
    title = _name(name)
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        touchpoint.name = title
        touchpoint.save(update_fields=["name"])
    return touchpoint
