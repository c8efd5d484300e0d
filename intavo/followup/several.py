"""One thing done to several follow-ups at once, and taken back at once, for a day."""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Literal

from django.db import transaction
from django.db.models import QuerySet

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.queries import members
from intavo.accounts.scope import own
from intavo.core.followup import Outcome, State
from intavo.core.rights import Right
from intavo.core.worklist import ListFilter

from . import actions
from .models import Batch, FollowUp
from .queries import wanted_rows

Deed = Literal["give", "put-off", "finish", "tag", "untag", "take-up"]
MOST = 2_000
# For so long what was done to several can be taken back.
UNDONE_FOR = timedelta(days=1)


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
    batch: int | None = None


def count(actor: Actor, wanted: ListFilter) -> int:
    """How many a filter shows, of which one thing can be done to all."""
    return _all_of(actor, wanted).count()


def _all_of(actor: Actor, wanted: ListFilter) -> QuerySet[FollowUp]:
    rows = wanted_rows(actor, wanted)
    if wanted.state == "open":
        return rows.exclude(state=State.FINISHED.value)
    return rows.filter(state=wanted.state)


def whom(actor: Actor, asked: Asked) -> list[int]:
    """The ids that it is about. Refused for more than are done at once."""
    if asked.all_of is None:
        ids = list(dict.fromkeys(asked.ids))
    else:
        rows = _all_of(actor, asked.all_of)
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
    if done.done:
        done.batch = _written(actor, asked, done).pk
    return done


def _written(actor: Actor, asked: Asked, done: Done) -> Batch:
    now = _ours(actor, done.done).order_by("pk")
    return Batch.objects.create(
        business_id=actor.business_id,
        member_id=actor.member_id,
        at=clock.now(),
        do=asked.do,
        tag=asked.tag.strip()[:60],
        words=_words(actor, asked),
        rows=[[row.pk, done.before[row.pk], _mark(row, asked.do)] for row in now],
    )


def _mark(row: FollowUp, do: str) -> str:
    """What a deed left behind: as long as that is so, nobody has worked it since."""
    if do == "give":
        return str(row.member_id)
    if do in {"finish", "put-off"}:
        return f"{row.state} {row.outcome} {row.finished_at} {row.back_at}"
    return ""


def _words(actor: Actor, asked: Asked) -> str:
    """What was done, as it stands behind the number of those that it was done to."""
    if asked.do == "give":
        name = next((one.called for one in members(actor) if one.pk == asked.member_id), "")
        return f"given to {name}" if name else "given back to everybody"
    return {
        "put-off": "put off",
        "finish": f"finished: {asked.outcome.value.replace('-', ' ')}",
        "take-up": "taken up again",
        "tag": f"tagged “{asked.tag.strip()}”",
        "untag": f"no longer tagged “{asked.tag.strip()}”",
    }[asked.do]


def lately(actor: Actor) -> QuerySet[Batch]:
    """What was done to several within the last day, the last first."""
    rows = Batch.objects.filter(business_id=actor.business_id, at__gte=clock.now() - UNDONE_FOR)
    return rows.select_related("member__user").order_by("-at", "-pk")[:20]


def undo(actor: Actor, *, batch_id: int) -> Done:
    """Take back what was done to several, of each that is still as it was left. Refused a second time, and
    after a day.
    """
    actor.needs(Right.FOLLOW_UP)
    with transaction.atomic():
        batch = own(actor, Batch, batch_id, locked=True)
        if batch.undone_at is not None or batch.at < clock.now() - UNDONE_FOR:
            raise Refused(("state", "This cannot be taken back any more."))
        batch.undone_at = clock.now()
        batch.save(update_fields=["undone_at"])
    done = Done()
    now = {row.pk: row for row in _ours(actor, [pk for pk, _, _ in batch.rows])}
    for pk, before, mark in batch.rows:
        if pk not in now:
            done.left.append((pk, "It is not here any more."))
        elif _mark(now[pk], batch.do) != mark:
            done.left.append((pk, "Something was done with it since."))
        else:
            try:
                _undo_one(actor, batch, pk, before)
                done.done.append(pk)
            except Refused as error:
                done.left.append((pk, error.errors[0][1]))
    return done


def _undo_one(actor: Actor, batch: Batch, pk: int, before: int | None) -> None:
    if batch.do == "give":
        actions.give(actor, followup_id=pk, member_id=before)
    elif batch.do in {"tag", "untag"}:
        actions.tag(actor, followup_id=pk, tag=batch.tag, on=batch.do == "untag")
    elif batch.do == "take-up":
        raise Refused(("state", "It was taken up again: finish it as it ended."))
    else:
        actions.take_up(actor, followup_id=pk)


def clear_away() -> None:
    """Forget what cannot be taken back any more."""
    Batch.objects.filter(at__lt=clock.now() - UNDONE_FOR).delete()


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
