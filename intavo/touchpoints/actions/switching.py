"""Writes that visitors notice: turned on and off, put live, placed, ordered, thrown away and brought back."""

from datetime import timedelta

from django.db import transaction

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.scope import own
from intavo.core.rights import Right
from intavo.core.showing import TouchpointState
from intavo.sites.actions import touch
from intavo.sites.models import Site

from ..models import Placement, Touchpoint, TouchpointRevision
from ..queries import findings_of
from .editing import locked

KEPT_FOR = timedelta(days=30)


def turn_on(actor: Actor, *, touchpoint_id: int) -> Touchpoint:
    """Turn it on. Only the first time publishes the draft; later on it shows what was live before."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        if touchpoint.live is None:
            _publish(touchpoint)
        else:
            _nothing_stops(touchpoint, touchpoint.live)
        return _set_state(actor, touchpoint, TouchpointState.LIVE, "touchpoint turned on")


def turn_off(actor: Actor, *, touchpoint_id: int) -> Touchpoint:
    """Turn it off; the draft and what was live stay."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        if touchpoint.state == TouchpointState.DRAFT.value:
            raise Refused(("state", "It is not on."))
        return _set_state(actor, touchpoint, TouchpointState.OFF, "touchpoint turned off")


def put_live(actor: Actor, *, touchpoint_id: int) -> Touchpoint:
    """Give visitors the draft as it is now."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        if touchpoint.live is None:
            raise Refused(("state", "It has never been on; turn it on."))
        _publish(touchpoint)
        return _set_state(actor, touchpoint, TouchpointState(touchpoint.state), "changes put live")


def _publish(touchpoint: Touchpoint) -> None:
    draft = touchpoint.draft
    assert draft is not None
    _nothing_stops(touchpoint, draft)
    draft.published_at = draft.published_at or clock.now()
    draft.save(update_fields=["published_at"])
    touchpoint.live = draft


def _nothing_stops(touchpoint: Touchpoint, revision: TouchpointRevision) -> None:
    found = findings_of(touchpoint, revision=revision)
    stops = [(one.place, one.message) for one in found if one.level == "stops"]
    if stops:
        raise Refused(*stops)


def _set_state(actor: Actor, touchpoint: Touchpoint, state: TouchpointState, verb: str) -> Touchpoint:
    touchpoint.state = state.value
    touchpoint.save(update_fields=["state", "live"])
    touch(actor.business_id, site_ids=list(touchpoint.sites.values_list("pk", flat=True)))
    revision = touchpoint.live.number if touchpoint.live else None
    actor.noted(verb, touchpoint=touchpoint.public_id, name=touchpoint.name, revision=revision)
    return touchpoint


def place(actor: Actor, *, touchpoint_id: int, site_ids: list[int]) -> Touchpoint:
    """Say on which of the business's sites it stands."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        found = dict(
            Site.objects.filter(business_id=actor.business_id, pk__in=site_ids)
            .values_list("pk", "name")
            .order_by("name")
        )
        known = set(found)
        if known != set(site_ids):
            raise Refused(("site_ids", "There is no such site."))
        before = set(touchpoint.sites.values_list("pk", flat=True))
        Placement.objects.filter(touchpoint=touchpoint).exclude(site__in=known).delete()
        for site_id in known - before:
            Placement.objects.create(business_id=actor.business_id, touchpoint=touchpoint, site_id=site_id)
        touch(actor.business_id, site_ids=list(known | before))
        names = [*found.values()] or ["no site"]
        actor.noted("touchpoint placed", touchpoint=touchpoint.public_id, name=touchpoint.name, sites=names)
    return touchpoint


def forget_showings(actor: Actor, *, touchpoint_id: int) -> Touchpoint:
    """Forget that anybody has seen, closed or answered it: everybody may get it again."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        touchpoint.generation += 1
        touchpoint.save(update_fields=["generation"])
        touch(actor.business_id)
        actor.noted("showings forgotten", touchpoint=touchpoint.public_id, name=touchpoint.name)
    return touchpoint


def order(actor: Actor, *, touchpoint_ids: list[int]) -> None:
    """Put the touchpoints in this order; those that are not named keep theirs after them."""
    actor.needs(Right.TOUCHPOINTS)
    with transaction.atomic():
        rows = {
            row.pk: row
            for row in Touchpoint.objects.select_for_update().filter(business_id=actor.business_id)
        }
        if not set(touchpoint_ids) <= set(rows):
            raise Refused(("touchpoint_ids", "There is no such touchpoint."))
        rest = sorted(
            (row for row in rows.values() if row.pk not in touchpoint_ids), key=lambda r: (r.order, r.pk)
        )
        for number, row in enumerate([*(rows[pk] for pk in touchpoint_ids), *rest], 1):
            row.order = 10 * number
        Touchpoint.objects.bulk_update(rows.values(), ["order"])
        touch(actor.business_id)


def throw_away(actor: Actor, *, touchpoint_id: int) -> None:
    """Take it off the sites and out of the list; it can be brought back for 30 days."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        touchpoint.deleted_at = clock.now()
        if touchpoint.state == TouchpointState.LIVE.value:
            touchpoint.state = TouchpointState.OFF.value
        touchpoint.save(update_fields=["deleted_at", "state"])
        touch(actor.business_id, site_ids=list(touchpoint.sites.values_list("pk", flat=True)))
        actor.noted("touchpoint thrown away", touchpoint=touchpoint.public_id, name=touchpoint.name)


def bring_back(actor: Actor, *, touchpoint_id: int, on: bool = False) -> Touchpoint:
    """Undo throwing it away; `on`: it was on, and is again."""
    actor.needs(Right.TOUCHPOINTS)
    with transaction.atomic():
        touchpoint = own(
            actor, Touchpoint.objects.filter(deleted_at__isnull=False), touchpoint_id, locked=True
        )
        touchpoint.deleted_at = None
        touchpoint.save(update_fields=["deleted_at"])
        actor.noted("touchpoint brought back", touchpoint=touchpoint.public_id, name=touchpoint.name)
    return turn_on(actor, touchpoint_id=touchpoint_id) if on and touchpoint.live_id else touchpoint


def clear_away() -> int:
    """Erase what was thrown away more than 30 days ago and never answered; says how many."""
    old = Touchpoint.objects.filter(deleted_at__lt=clock.now() - KEPT_FOR)
    found = list(old.exclude(revisions__submission__isnull=False))
    for touchpoint in found:
        Touchpoint.objects.filter(pk=touchpoint.pk).update(draft=None, live=None)
        touchpoint.delete()
    return len(found)
