"""Writes on touchpoints: made, edited as a draft, undone, turned on and off, put live."""

import unicodedata
from typing import Any

from django.db import transaction
from django.utils.text import slugify
from pydantic import ValidationError

from intavo.accounts.actor import Actor, Changed, Refused
from intavo.core.rights import Right
from intavo.core.showing import State
from intavo.core.touchpoint import STARTERS, Document, ready_check
from intavo.hours.actions import refusals
from intavo.project import clock
from intavo.sites.actions import touch
from intavo.sites.models import Site

from .models import Placement, Touchpoint, TouchpointRevision


def make(actor: Actor, *, starter: str, name: str, site_ids: list[int] | None = None) -> Touchpoint:
    """Make a draft from a starter, on the sites named or else on every site of the business."""
    actor.needs(Right.TOUCHPOINTS)
    chosen = next((one for one in STARTERS if one.key == starter), None)
    if chosen is None:
        raise Refused(("starter", f"There is no starter “{starter}”."))
    title = _name(name or chosen.name)
    with transaction.atomic():
        touchpoint = Touchpoint.objects.create(
            business_id=actor.business_id, name=title, slug=_free_slug(actor.business_id, title),
            order=10 * (1 + Touchpoint.objects.filter(business_id=actor.business_id).count()), created_at=clock.now(),
        )  # fmt: skip
        touchpoint.draft = _add_revision(actor, touchpoint, chosen.document, parent=None, run="")
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
    return next(slug for slug in (stem, *(f"{stem}-{n}" for n in range(2, len(taken) + 3))) if slug not in taken)


def _add_revision(
    actor: Actor, touchpoint: Touchpoint, document: Document, *, parent: TouchpointRevision | None, run: str
) -> TouchpointRevision:
    latest = touchpoint.revisions.order_by("-number").values_list("number", flat=True).first() or 0
    return TouchpointRevision.objects.create(
        business_id=actor.business_id, touchpoint=touchpoint, number=latest + 1, parent=parent, run=run,
        document=document.model_dump(mode="json"), saved_at=clock.now(), saved_by_id=actor.member_id,
    )  # fmt: skip


def _locked(actor: Actor, touchpoint_id: int) -> Touchpoint:
    actor.needs(Right.TOUCHPOINTS)
    rows = Touchpoint.objects.select_for_update(of=("self",)).select_related("draft", "live")
    return rows.get(pk=touchpoint_id, business_id=actor.business_id)


def save_draft(
    actor: Actor, *, touchpoint_id: int, document: dict[str, Any], based_on: int, run: str = ""
) -> Touchpoint:
    """Keep an edited document. A run of changes (same `run`, same member) is one revision.

    `based_on` is the draft's revision number that was edited; if the draft has moved on since, raises
    Changed and nothing is lost: the browser still holds what was typed.
    """
    try:
        value = Document.model_validate(document)
    except ValidationError as error:
        raise refusals(error) from error
    with transaction.atomic():
        touchpoint = _locked(actor, touchpoint_id)
        draft = touchpoint.draft
        assert draft is not None
        if draft.number != based_on:
            raise Changed(_who_changed(draft))
        dumped = value.model_dump(mode="json")
        if dumped == draft.document:
            return touchpoint
        same_run = bool(run) and draft.run == run and draft.saved_by_id == actor.member_id
        if same_run and draft.published_at is None and not draft.children.exists():
            draft.document, draft.saved_at = dumped, clock.now()
            draft.save(update_fields=["document", "saved_at"])
        else:
            touchpoint.draft = _add_revision(actor, touchpoint, value, parent=draft, run=run)
            touchpoint.save(update_fields=["draft"])
    return touchpoint


def _who_changed(draft: TouchpointRevision) -> str:
    who = draft.saved_by.user.name if draft.saved_by else "Somebody"
    return f"{who} has changed this touchpoint meanwhile. Your words are still here."


def undo(actor: Actor, *, touchpoint_id: int) -> Touchpoint:
    """Take the draft one revision back; Refused at the first."""
    with transaction.atomic():
        touchpoint = _locked(actor, touchpoint_id)
        assert touchpoint.draft is not None
        if touchpoint.draft.parent is None:
            raise Refused(("draft", "There is nothing to undo."))
        return _move_draft(touchpoint, touchpoint.draft.parent)


def redo(actor: Actor, *, touchpoint_id: int) -> Touchpoint:
    """Take the draft to the newest revision that was undone; Refused if there is none."""
    with transaction.atomic():
        touchpoint = _locked(actor, touchpoint_id)
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
        touchpoint = _locked(actor, touchpoint_id)
        touchpoint.name = title
        touchpoint.save(update_fields=["name"])
    return touchpoint


def turn_on(actor: Actor, *, touchpoint_id: int) -> Touchpoint:
    """Turn it on. Only the first time publishes the draft; later on it shows what was live before."""
    with transaction.atomic():
        touchpoint = _locked(actor, touchpoint_id)
        if touchpoint.live is None:
            _publish(touchpoint)
        return _set_state(actor, touchpoint, State.LIVE, "touchpoint turned on")


def turn_off(actor: Actor, *, touchpoint_id: int) -> Touchpoint:
    """Turn it off; the draft and what was live stay."""
    with transaction.atomic():
        touchpoint = _locked(actor, touchpoint_id)
        if touchpoint.state == State.DRAFT.value:
            raise Refused(("state", "It is not on."))
        return _set_state(actor, touchpoint, State.OFF, "touchpoint turned off")


def put_live(actor: Actor, *, touchpoint_id: int) -> Touchpoint:
    """Give visitors the draft as it is now."""
    with transaction.atomic():
        touchpoint = _locked(actor, touchpoint_id)
        if touchpoint.live is None:
            raise Refused(("state", "It has never been on; turn it on."))
        _publish(touchpoint)
        return _set_state(actor, touchpoint, State(touchpoint.state), "changes put live")


def _publish(touchpoint: Touchpoint) -> None:
    draft = touchpoint.draft
    assert draft is not None
    sites = list(touchpoint.sites.all())
    findings = ready_check(
        Document.model_validate(draft.document), bool(sites), any(site.seen_at is not None for site in sites)
    )
    stops = [(finding.place, finding.message) for finding in findings if finding.level == "stops"]
    if stops:
        raise Refused(*stops)
    draft.published_at = draft.published_at or clock.now()
    draft.save(update_fields=["published_at"])
    touchpoint.live = draft


def _set_state(actor: Actor, touchpoint: Touchpoint, state: State, verb: str) -> Touchpoint:
    touchpoint.state = state.value
    touchpoint.save(update_fields=["state", "live"])
    touch(actor.business_id, site_ids=list(touchpoint.sites.values_list("pk", flat=True)))
    actor.noted(verb, touchpoint=touchpoint.public_id, revision=touchpoint.live.number if touchpoint.live else None)
    return touchpoint
