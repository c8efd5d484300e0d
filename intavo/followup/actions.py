"""Writes on follow-ups: opened by what visitors do, worked by members."""

import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

from django.db import IntegrityError, OperationalError, transaction
from django.db.models import Case, F, When

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.effects import Leaving, member_leaves
from intavo.accounts.models import Business, Member
from intavo.accounts.rows import insert_with
from intavo.accounts.scope import own
from intavo.core import followup as rules
from intavo.core.hours import open_days_on
from intavo.core.replies import Promise
from intavo.core.rights import Right
from intavo.core.tongues import Phrase, say
from intavo.core.worklist import ListFilter
from intavo.hours.queries import main_hours
from intavo.people.actions import add_event, tag_person, untag_person
from intavo.people.ways import To, ways_to

from .desk import come_back, first_told, gone_out
from .giving import HAS_RULES, give_by_rules, give_to
from .models import FollowUp, KeptFilter, PromiseCounted
from .queries import open_work
from .source import Source


def receive(
    actor: Actor,
    *,
    person_id: int,
    kind: rules.Kind,
    at: datetime,
    due: datetime | None,
    source: Source,
    somebody_new: bool = False,
    thread: str = "",
    late_from: datetime | None = None,
) -> int:
    """Open a follow-up, or add to the person's open one of that kind; says its id.

    Of two requests at once the database refuses the second opening, which then adds to the first.
    `somebody_new` spares the look for an open one.
    """
    actor.needs(Right.VISIT)
    came_from = {
        "touchpoint_id": source.touchpoint_id, "site_id": source.site_id, "page": source.page[:4000],
        "device": source.device, "excerpt": source.excerpt[:300], "via": source.via[:60],
    }  # fmt: skip
    for _ in range(_TRIES):
        existing = None if somebody_new else _latest(person_id, kind)
        value, new = rules.receive(existing.value if existing else None, kind, at, due, thread, late_from)
        if existing is not None and not new:
            if _added_to(existing, value, came_from):
                return existing.pk
            continue
        opened = insert_with(
            FollowUp,
            HAS_RULES,
            [actor.business_id],
            skip_doubles=True,
            business_id=actor.business_id,
            person_id=person_id,
            kind=kind.value,
            state=value.state.value,
            opened_at=at,
            due=value.due,
            late_from=value.late_from,
            back_at=None,
            finished_at=None,
            outcome=None,
            thread=value.thread,
            **came_from,
        )
        if opened is not None:
            followup_id, has_rules = opened
            if source.to is not None:
                give_to(actor, followup_id=followup_id, person_id=person_id, member_id=source.to)
            elif has_rules:
                give_by_rules(actor, followup_id=followup_id, kind=kind, source=source, person_id=person_id)
            return int(followup_id)
        somebody_new = False
    raise OperationalError("a follow-up was opened and closed at every try")


# Each try follows upon another's commit.
_TRIES = 10


def _added_to(existing: FollowUp, value: rules.FollowUp, came_from: dict[str, Any]) -> bool:
    """Add to one; False where it would be open anew beside another that was opened meanwhile."""
    opens_anew = existing.state == rules.State.FINISHED.value
    existing.take(value)
    for name, said in came_from.items():
        setattr(existing, name, said)
    try:
        with transaction.atomic(savepoint=opens_anew):
            existing.save()
    except IntegrityError:
        if not opens_anew:
            raise
        return False
    return True


def _latest(person_id: int, kind: rules.Kind) -> FollowUp | None:
    """The open one, which may be older than one that is finished; else the last."""
    rows = FollowUp.objects.select_for_update().filter(person_id=person_id, kind=kind.value)
    return rows.order_by(_FINISHED, "-id").first()


_FINISHED = Case(When(state=rules.State.FINISHED.value, then=1), default=0)


@dataclass(frozen=True, slots=True)
class ByMail:
    """The mail that something came by: its id, its subject, and its first words."""

    message_id: str
    subject: str
    excerpt: str


def heard_again(
    actor: Actor, *, followup_id: int, at: datetime, due: datetime | None, mail: ByMail | None
) -> int:
    """Something came back about a follow-up: it is for us again with a new due time; says which one it is
    now.

    What is long finished, or has an end of its own (a sign-up, a call), opens an inquiry instead. `mail` is
    what they wrote; None where it was only our mail that came back.
    """
    actor.needs(Right.VISIT)
    row = own(actor, FollowUp.objects.select_related("person"), followup_id, locked=True)
    value, new = rules.receive(row.value, rules.Kind(row.kind), at, due, row.thread)
    if not new and row.kind not in _ENDS_ITSELF:
        row.take(value)
        _by(row, mail)
        try:
            with transaction.atomic():
                row.save()
            return row.pk
        except IntegrityError:
            pass  # Another of its kind is open by now, and takes this in.
    source = Source(
        row.touchpoint_id, row.site_id, row.page, row.device, mail.excerpt if mail else row.excerpt, row.via
    )
    kind = (
        rules.Kind.INQUIRY
        if row.kind in {rules.Kind.SIGN_UP.value, rules.Kind.CALL_BACK.value}
        else rules.Kind(row.kind)
    )
    opened = receive(
        actor, person_id=row.person_id, kind=kind, at=at, due=due, source=source, thread=row.thread
    )
    note_mail(opened, mail)
    return opened


def ours_again(actor: Actor, *, followup_id: int | None, at: datetime) -> int | None:
    """What our word did not reach them about is for us again; says which follow-up it is now."""
    if followup_id is None:
        return None
    due = promised_by(actor.business_id, at)
    return heard_again(actor, followup_id=followup_id, at=at, due=due, mail=None)


def promised_by(business_id: int, at: datetime) -> datetime | None:
    """When an answer is due: the promise of the business, in open time of its main hours."""
    minutes = Business.objects.values_list("promise_minutes", flat=True).get(pk=business_id)
    return Promise.of_minutes(minutes).due(main_hours(business_id).value, at)


_ENDS_ITSELF = {rules.Kind.SIGN_UP.value, rules.Kind.CALL_BACK.value}


def note_mail(followup_id: int, mail: ByMail | None) -> None:
    """Keep by which mail a follow-up was heard of last, so that an answer goes into the same thread of
    theirs.
    """
    if mail is not None:
        row = FollowUp.objects.get(pk=followup_id)
        _by(row, mail)
        row.save(update_fields=["their_mail", "subject", "excerpt"])


def _by(row: FollowUp, mail: ByMail | None) -> None:
    if mail is not None:
        row.their_mail, row.subject = mail.message_id[:400], mail.subject[:300]
        row.excerpt = mail.excerpt[:300] or row.excerpt


Change = Callable[[rules.FollowUp, datetime], tuple[rules.FollowUp, rules.Kept | None]]


def _work(actor: Actor, followup_id: int, verb: str, change: Change, **about: str) -> FollowUp:
    """Change an open follow-up by a rule, count its promise, and write it on the timeline."""
    actor.needs(Right.FOLLOW_UP)
    at = clock.now()
    with transaction.atomic():
        row = _open_row(actor, followup_id)
        try:
            value, kept = change(rules.returned(row.value, at), at)
        except ValueError as error:
            raise Refused(("until", str(error))) from error
        row.take(value)
        row.save()
        if kept is not None:
            PromiseCounted.objects.get_or_create(
                followup=row,
                due=kept.due,
                defaults={"business_id": actor.business_id, "kept": kept.kept, "counted_at": at},
            )
        if verb:
            add_event(actor, person_id=row.person_id, at=at, kind=verb, data={"followup": row.pk, **about})
    return row


def _open_row(actor: Actor, followup_id: int) -> FollowUp:
    row = own(actor, FollowUp, followup_id, locked=True)
    _still_open(row)
    return row


def _still_open(row: FollowUp) -> None:
    if row.state == rules.State.FINISHED.value:
        raise Refused(("state", "This follow-up is finished already."))


def _same_words(row: FollowUp, key: str, text: str) -> None:
    events = row.person.events.filter(kind="answered", data__followup=row.pk, data__key=key)
    sent = events.order_by("-pk").first()
    if sent is not None and sent.data.get("text") != text:
        raise Refused(("key", "Another answer went out under this key; send these words under a new one."))


def wait_for_them(actor: Actor, *, followup_id: int) -> FollowUp:
    """It is their turn, without an answer from us; what was promised stays promised."""
    return _work(actor, followup_id, "waiting", lambda f, at: rules.wait_for_them(f, at, answered=False))


def put_off(actor: Actor, *, followup_id: int, until: datetime) -> FollowUp:
    """Set aside until a time that lies ahead."""
    return _work(
        actor,
        followup_id,
        "put off",
        lambda f, at: rules.put_off(f, at, until, answered=False),
        until=until.isoformat(),
    )


def finish(actor: Actor, *, followup_id: int, outcome: rules.Outcome) -> FollowUp:
    """Close it with an outcome."""
    return _work(
        actor, followup_id, "finished", lambda f, at: rules.finish(f, at, outcome), outcome=outcome.value
    )


def give(actor: Actor, *, followup_id: int, member_id: int | None) -> FollowUp:
    """Give a follow-up to a member of the business, or (None) back to everybody."""
    actor.needs(Right.FOLLOW_UP)
    with transaction.atomic():
        row = own(actor, FollowUp.objects.select_related("person"), followup_id, locked=True)
        member = own(actor, Member.objects.select_related("user"), member_id) if member_id else None
        if row.member_id != (member.pk if member else None):
            row.member = member
            row.save(update_fields=["member"])
            about = {"followup": row.pk, "to": member.called if member else ""}
            add_event(actor, person_id=row.person_id, at=clock.now(), kind="given", data=about)
    return row


@member_leaves.register
def _inherited(leaving: Leaving) -> None:
    theirs = open_work(leaving.actor, leaving.member_id)
    for one in theirs.order_by("pk").values_list("pk", flat=True):
        give(leaving.actor, followup_id=one, member_id=leaving.heir_id)


def note(actor: Actor, *, followup_id: int, text: str) -> None:
    """Keep a note on the person's timeline, which only members see."""
    actor.needs(Right.FOLLOW_UP)
    if not text.strip():
        raise Refused(("text", "Please write the note first."))
    row = own(actor, FollowUp, followup_id)
    data = {"text": text.strip()[:MOST_NOTE], "followup": row.pk}
    add_event(actor, person_id=row.person_id, at=clock.now(), kind="noted", data=data)
    told(actor, person_id=row.person_id)


MOST_NOTE = 10_000


def tag(actor: Actor, *, followup_id: int, tag: str, on: bool) -> bool:
    """Put a tag on the person, or take it off; says whether that changed anything."""
    actor.needs(Right.FOLLOW_UP)
    named = " ".join(tag.split())
    if not named or len(named) > MOST_TAG:
        raise Refused(("tag", f"A tag has between one and {MOST_TAG} letters."))
    row = own(actor, FollowUp, followup_id)
    changed = (
        tag_person(actor, person_id=row.person_id, tag=named, at=clock.now())
        if on
        else untag_person(actor, person_id=row.person_id, tag=named)
    )
    if changed:
        told(actor, person_id=row.person_id)
    return changed


def told(actor: Actor, *, person_id: int) -> None:
    """Something was added to a person's card: whoever has the list open looks again."""
    rows = FollowUp.objects.filter(business_id=actor.business_id, person_id=person_id)
    rows.update(kind=F("kind"))


MOST_TAG = 60


def keep_filter(actor: Actor, *, name: str, wanted: ListFilter, for_all: bool) -> KeptFilter:
    """Keep a filter under a name, for oneself or for all; the same name again takes its place."""
    actor.needs(Right.FOLLOW_UP)
    named = " ".join(name.split())
    if not named or len(named) > 60:
        raise Refused(("name", "A filter needs a name of at most 60 letters."))
    whose = None if for_all or actor.member_id is None else own(actor, Member, actor.member_id)
    row, _ = KeptFilter.objects.update_or_create(
        business_id=actor.business_id,
        member=whose,
        name=named,
        defaults={"wanted": wanted.model_dump(mode="json", exclude_defaults=True)},
    )
    return row


def drop_filter(actor: Actor, *, filter_id: int) -> None:
    """Forget a kept filter: one's own, or everybody's."""
    actor.needs(Right.FOLLOW_UP)
    row = own(actor, KeptFilter, filter_id)
    if row.member_id not in {None, actor.member_id}:
        raise KeptFilter.DoesNotExist
    row.delete()


def take_up(actor: Actor, *, followup_id: int) -> FollowUp:
    """Undo of waiting, putting off and finishing: it is for us again, with the due time it had.

    A finished one whose person has another open one of its kind stays finished (Refused).
    """
    actor.needs(Right.FOLLOW_UP)
    with transaction.atomic():
        row = own(actor, FollowUp, followup_id, locked=True)
        counted = row.promisecounted_set.order_by("-counted_at").first()
        if row.due is not None or (counted is not None and _answered_since(row, counted.counted_at)):
            counted = None
        row.take(rules.taken_up(row.value, counted.due if counted else None))
        if counted is not None:
            counted.delete()
        try:
            with transaction.atomic():
                row.save()
        except IntegrityError as error:
            raise Refused(("state", "This person has another open follow-up of this kind.")) from error
        add_event(actor, person_id=row.person_id, at=clock.now(), kind="taken up", data={"followup": row.pk})
    return row


def _answered_since(row: FollowUp, since: datetime) -> bool:
    sent = row.person.events.filter(kind="answered", at__gte=since, data__followup=row.pk)
    return sent.exclude(data__has_key="taken_back").exists()


def take_back(actor: Actor, *, followup_id: int, key: str) -> FollowUp:
    """Stop an answer before it goes out: it is for us again, its text in the box.
    Refused once it has gone.
    """
    actor.needs(Right.FOLLOW_UP)
    with transaction.atomic():
        row = own(actor, FollowUp.objects.select_related("business"), followup_id, locked=True)
        whom = to_of(row, actor.member_id)
        if not any(way.take_back(whom, key) for way in ways_to(whom)):
            raise Refused(("key", "It has gone out already."))
        event = (
            row.person.events.filter(kind="answered", data__followup=row.pk, data__key=key)
            .order_by("-pk")
            .first()
        )
        if event is not None:
            # Its files are in the box again, with its text.
            event.data = {name: value for name, value in event.data.items() if name != "enclosed"}
            event.data["taken_back"] = True
            event.save(update_fields=["data"])
            come_back(actor, row.pk, str(event.data.get("text") or ""))
    return take_up(actor, followup_id=followup_id)


def answer(
    actor: Actor,
    *,
    followup_id: int,
    text: str,
    key: str,
    then: str,
    until: datetime | None = None,
    outcome: rules.Outcome = rules.Outcome.ANSWERED,
    way: str = "",
    seen: int | None = None,
    back_in: int | None = None,
    files: tuple[int, ...] = (),
    entry: tuple[str, str] = ("", ""),
    mail_to: str = "",
) -> FollowUp:
    """Answer, by the way named or the nearest; then "wait" for them, "finish", "remind" at `until`, or "keep"
    it.

    Of what waits for them it is our turn again after `back_in` open days without a word of theirs (None:
    never).

    The same `key` again sends nothing more. Refused if there is no text, no way to reach them, the key was
    that of other words, or a colleague has answered after `seen`, the last entry of the timeline that the
    writer knows.
    """
    actor.needs(Right.FOLLOW_UP)
    if not text.strip():
        raise Refused(("text", "Please write an answer first."))
    back_at = _after_days(actor, back_in) if then == "wait" else None
    change = _after_answer(then, until, outcome, back_at)
    known = own(actor, FollowUp.objects.select_related("business"), followup_id)
    whom = to_of(known, actor.member_id)
    ways = [one for one in ways_to(whom) if way in {"", one.key}]
    if not ways:
        raise Refused(("text", "This person left no email address, so an answer cannot be mailed."))
    if files and not ways[0].takes_files(whom):
        raise Refused(("files", "No files can go this way; choose another."))
    whom = replace(whom, files=files, entry=entry, mail_to=mail_to)
    with transaction.atomic():
        row = own(actor, FollowUp, followup_id, locked=True)
        if ways[0].sent(whom, key):
            _same_words(row, key, text.strip())
            return row
        _still_open(row)
        first_told(actor, person_id=row.person_id, followup_id=row.pk, seen=seen)
        gone_out(actor, row.pk)
        gone = ways[0].send(whom, text.strip(), key)
        row.thread = row.thread or gone.thread
        row.save(update_fields=["thread"])
        add_event(
            actor,
            person_id=row.person_id,
            at=clock.now(),
            kind="answered",
            data={"followup": row.pk, "text": text.strip(), "way": ways[0].key, "key": key, **gone.data},
        )
        return _work(
            actor,
            followup_id,
            "" if then == "keep" else _EVENT[then],
            change,
            **_about(then, until or back_at, outcome),
        )


def to_of(row: FollowUp, member_id: int | None = None) -> To:
    """Whom an answer to a follow-up goes to."""
    return To(
        row.business_id,
        row.person_id,
        row.pk,
        member_id,
        _subject(row, row.business),
        row.thread,
        theirs_of(row),
        row.their_mail,
    )


def theirs_of(row: FollowUp) -> str:
    """What they wrote last about it, whole."""
    events = row.person.events.filter(kind__in=THEIR_WORDS, data__followup=row.pk).order_by("-at", "-pk")
    last = events.first()
    if last is None:
        return ""
    known = {row.person.name, *(one.shown for one in row.person.addresses.all())}
    typed = [str(value) for _, value in last.data.get("typed") or [] if str(value) not in known]
    return str(last.data.get("text") or "\n".join(typed))


THEIR_WORDS = ("asked", "message", "gave a score", "wrote by mail")


_EVENT = {"wait": "waiting", "finish": "finished", "remind": "put off"}


def _about(then: str, until: datetime | None, outcome: rules.Outcome) -> dict[str, str]:
    if then == "finish":
        return {"outcome": outcome.value}
    return {"until": until.isoformat()} if then in {"remind", "wait"} and until else {}


def _after_days(actor: Actor, days: int | None) -> datetime | None:
    if days is None:
        return None
    if not 1 <= days <= MOST_DAYS:
        raise Refused(("back_in", f"From 1 to {MOST_DAYS} open days."))
    return open_days_on(main_hours(actor.business_id).value, clock.now(), days)


MOST_DAYS = 90


def _after_answer(
    then: str, until: datetime | None, outcome: rules.Outcome, back_at: datetime | None
) -> Change:
    if then == "wait":
        return lambda f, at: rules.wait_for_them(f, at, answered=True, back_at=back_at)
    if then == "finish":
        return lambda f, at: rules.finish(f, at, outcome)
    if then == "keep":
        return rules.keep
    if then == "remind" and until is not None:
        return lambda f, at: rules.put_off(f, at, until, answered=True)
    raise Refused(("then", "Say what comes then: wait, finish, keep, or remind with a time."))


_SUBJECTS = {
    rules.Kind.MESSAGE.value: Phrase("Re: your message to {business}"),
    rules.Kind.INQUIRY.value: Phrase("Re: your question to {business}"),
}
_FROM = Phrase("From {business}")


def _subject(row: FollowUp, business: Business) -> str:
    if row.subject:
        return f"Re: {re.sub(r'^(re|aw|sv):[ ]*', '', row.subject, flags=re.IGNORECASE)}"
    return say(_SUBJECTS.get(row.kind, _FROM), business.tongue(), business=business.name)
