"""One thing done to several follow-ups at once, and taken back at once."""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import datetime
from typing import Literal

from django.db.models import QuerySet

from intavo.accounts.actor import Actor, Refused
from intavo.core.followup import Outcome, State
from intavo.core.rights import Right
from intavo.core.worklist import ListFilter

from . import actions
from .models import FollowUp
from .queries import wanted_rows

Deed = Literal["give", "put-off", "finish", "tag", "untag", "take-up"]
MOST = 2_000


@dataclass(frozen=True, slots=True)
class Asked:
    """What is done, to which: ids, or all that a filter shows."""

    do: Deed
    ids: tuple[int, ...] = ()
    all_of: ListFilter | None = None
    member_id: int | None = None
    until: datetime | None = None
    outcome: Outcome = Outcome.ANSWERED
    tag: str = ""


@dataclass(slots=True)
class Done:
    """To which it was done, which were left and why, and whose each was before."""

    done: list[int] = field(default_factory=list)
    left: list[tuple[int, str]] = field(default_factory=list)
    before: dict[int, int | None] = field(default_factory=dict)


def whom(actor: Actor, asked: Asked) -> list[int]:
    """The ids that it is about. Refused for more than are done at once."""
    if asked.all_of is None:
        ids = list(dict.fromkeys(asked.ids))
    else:
        rows = wanted_rows(actor, asked.all_of)
        if asked.all_of.state == "open":
            rows = rows.exclude(state=State.FINISHED.value)
        else:
            rows = rows.filter(state=asked.all_of.state)
        ids = list(rows.order_by("pk").values_list("pk", flat=True)[: MOST + 1])
    if len(ids) > MOST:
        raise Refused(("ids", f"At most {MOST:,} are done at once."))
    return ids


def do_several(actor: Actor, asked: Asked) -> Done:
    """Do it to each by itself: one that cannot be done is left, and the others are done all the same."""
    actor.needs(Right.FOLLOW_UP)
    ids = whom(actor, asked)
    done = Done(before=dict(_ours(actor, ids).values_list("pk", "member_id")))
    work = _work(actor, asked)
    for one in ids:
        if one not in done.before:
            done.left.append((one, "It is not here, or not any more."))
            continue
        try:
            if work(one):
                done.done.append(one)
        except Refused as error:
            done.left.append((one, error.errors[0][1]))
    return done


def _ours(actor: Actor, ids: list[int]) -> QuerySet[FollowUp]:
    return FollowUp.objects.filter(business_id=actor.business_id, pk__in=ids)


def _work(actor: Actor, asked: Asked) -> Callable[[int], object]:
    """What is done to each; says something true where it changed anything."""
    if asked.do == "give":
        return lambda one: actions.give(actor, followup_id=one, member_id=asked.member_id)
    if asked.do == "put-off":
        until = asked.until
        if until is None:
            raise Refused(("until", "Say until when."))
        return lambda one: actions.put_off(actor, followup_id=one, until=until)
    if asked.do == "finish":
        return lambda one: actions.finish(actor, followup_id=one, outcome=asked.outcome)
    if asked.do == "take-up":
        return lambda one: actions.take_up(actor, followup_id=one)
    return lambda one: actions.tag(actor, followup_id=one, tag=asked.tag, on=asked.do == "tag")
