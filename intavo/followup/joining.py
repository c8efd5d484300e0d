"""What becomes of follow-ups when two cards are made one, and when somebody is erased."""

from datetime import datetime
from typing import Any

from intavo import clock
from intavo.accounts.actor import Actor
from intavo.core import followup as rules
from intavo.people.effects import Merging, people_changed, people_held, people_merged, people_split

from .actions import told
from .models import FollowUp

_KEPT = ("state", "due", "back_at", "finished_at", "outcome")


@people_held.register
def _hold(merging: Merging) -> None:
    """Whoever works one of them holds it, and then adds to its person."""
    rows = FollowUp.objects.filter(
        business_id=merging.actor.business_id, person_id__in=(merging.kept_id, merging.gone_id)
    )
    list(rows.select_for_update().order_by("pk").values_list("pk", flat=True))


@people_merged.register
def _one_of_a_kind(merging: Merging) -> None:
    """Of two open ones of a kind the other's is closed into the kept one, which takes over the earlier due
    time.
    """
    rows = FollowUp.objects.select_for_update().filter(business_id=merging.actor.business_id)
    open_ones = rows.exclude(state=rules.State.FINISHED.value).exclude(kind=rules.Kind.CALL_BACK.value)
    ours = {row.kind: row for row in open_ones.filter(person_id=merging.kept_id)}
    closed: list[dict[str, Any]] = []
    for theirs in open_ones.filter(person_id=merging.gone_id):
        kept = ours.get(theirs.kind)
        if kept is None:
            continue
        closed.append({"id": theirs.pk, "into": kept.pk, "was": _said(theirs), "due": _said(kept)["due"]})
        waits = rules.State.US.value
        if theirs.state == waits:
            kept.state, kept.back_at = waits, None
        dues = [one for one in (kept.due, theirs.due) if one is not None]
        kept.due = min(dues, default=None)
        kept.save(update_fields=["state", "back_at", "due"])
        theirs.state, theirs.finished_at, theirs.due, theirs.back_at = "finished", clock.now(), None, None
        theirs.save(update_fields=["state", "finished_at", "due", "back_at"])
    merging.record["followup"] = closed


@people_split.register
def _open_again(merging: Merging) -> None:
    """What was closed into the other is as it was, unless somebody has worked it since."""
    for one in merging.record.get("followup", []):
        row = FollowUp.objects.filter(pk=one["id"], person_id=merging.gone_id).first()
        if row is None or row.state != rules.State.FINISHED.value or row.outcome is not None:
            continue
        for name, value in one["was"].items():
            timed = value is not None and name in {"due", "back_at", "finished_at"}
            setattr(row, name, datetime.fromisoformat(value) if timed else value)
        row.save(update_fields=list(_KEPT))
        into = FollowUp.objects.filter(pk=one["into"], person_id=merging.kept_id).first()
        if into is not None and into.state != rules.State.FINISHED.value and into.due == row.due:
            into.due = datetime.fromisoformat(one["due"]) if one["due"] else None
            into.save(update_fields=["due"])


def _said(row: FollowUp) -> dict[str, Any]:
    found = {name: getattr(row, name) for name in _KEPT}
    return {
        name: value.isoformat() if isinstance(value, datetime) else value for name, value in found.items()
    }


@people_changed.register
def _look_again(changed: tuple[Actor, int]) -> None:
    """Whoever has the list open sees what changed on a card."""
    actor, person = changed
    told(actor, person_id=person)
