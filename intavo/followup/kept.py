"""Answers kept for using again: written with slots, filled for whom they are sent to."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated

from django.db.models import F, Q, QuerySet
from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, TypeAdapter

from intavo.accounts.actor import Actor, Refused
from intavo.accounts.queries import business_of
from intavo.accounts.scope import own
from intavo.core.hours import is_open, next_closing, next_opening
from intavo.core.proposing import likeliest
from intavo.core.replies import Promise, Runs, fill, slots
from intavo.core.rights import Right
from intavo.core.say import moment_words
from intavo.core.texts import Kept
from intavo.core.values import as_runs
from intavo.hours.queries import main_hours
from intavo.touchpoints.queries import questions_of

from .actions import theirs_of
from .models import FollowUp, KeptAnswer

MOST = 500
_RUNS: TypeAdapter[Runs] = TypeAdapter(Runs)


class KeptText(BaseModel):
    """What is kept: its name, the group it stands in, the words with their slots,
    and whether it is for all.
    """

    model_config = ConfigDict(frozen=True, extra="ignore")
    name: Kept = Field(max_length=80)
    group: Kept = Field("", max_length=40)
    text: Annotated[Runs, BeforeValidator(as_runs), Field(max_length=50)]
    for_all: bool = False


def kept_answers(actor: Actor) -> QuerySet[KeptAnswer]:
    """Everybody's, and one's own."""
    rows = KeptAnswer.objects.filter(business_id=actor.business_id)
    return rows.filter(Q(member=None) | Q(member_id=actor.member_id))


@dataclass(frozen=True, slots=True)
class Filled:
    """A kept answer with its slots filled for somebody."""

    row: KeptAnswer
    words: str


def filled_for(actor: Actor, followup_id: int | None, at: datetime) -> list[Filled]:
    """All of them as they would read now, for the person of a follow-up."""
    hours = main_hours(actor.business_id).value
    business = business_of(actor)
    tongue = business.tongue()
    due = Promise.of_minutes(business.promise_minutes).due(hours, at)
    words = slots(hours, at, hours.zone, due, tongue=tongue)
    closing = next_closing(hours, at) if is_open(hours, at) else None
    opening = next_opening(hours, closing) if closing else None
    if opening is not None:
        # In an answer "when we open" is never now.
        words["next_opening"] = moment_words(opening, at, hours.zone, "at", tongue)
    if followup_id is not None:
        name = own(actor, FollowUp.objects.select_related("person"), followup_id).person.name.split()
        words |= {"first_name": name[0]} if name else {}
    return [Filled(row, fill(_RUNS.validate_python(row.text), words, tongue)) for row in kept_answers(actor)]


@dataclass(frozen=True, slots=True)
class Proposed:
    """An answer that was given to such a question before: the question, and the answer's words."""

    question: str
    words: str


def proposed_for(actor: Actor, followup_id: int) -> Proposed | None:
    """The question & answer that the person most likely asks after; None where there is none."""
    row = own(actor, FollowUp.objects.select_related("business", "person"), followup_id)
    asked = theirs_of(row)
    known = questions_of(actor.business_id)
    place = likeliest(asked, [one.question for one in known]) if asked else None
    return None if place is None else Proposed(known[place].question, known[place].answer)


def _checked(said: KeptText) -> dict[str, object]:
    name, text = " ".join(said.name.split()), _RUNS.dump_python(said.text, mode="json")
    if not name:
        raise Refused(("name", "Give it a name, by which it is found."))
    if not any(not isinstance(run, str) or run.strip() for run in said.text):
        raise Refused(("text", "Please write the answer first."))
    return {"name": name, "group": " ".join(said.group.split()), "text": text}


def keep_answer(actor: Actor, said: KeptText) -> KeptAnswer:
    """Keep an answer. Refused without a name or words, and past five hundred of them."""
    actor.needs(Right.FOLLOW_UP)
    values = _checked(said)
    if KeptAnswer.objects.filter(business_id=actor.business_id).count() >= MOST:
        raise Refused(("name", f"At most {MOST} answers are kept."))
    return KeptAnswer.objects.create(
        business_id=actor.business_id, member_id=None if said.for_all else actor.member_id, **values
    )


def change_answer(actor: Actor, *, answer_id: int, said: KeptText) -> KeptAnswer:
    """Change one that is everybody's, or one's own."""
    actor.needs(Right.FOLLOW_UP)
    row = own(actor, kept_answers(actor), answer_id)
    for name, value in _checked(said).items():
        setattr(row, name, value)
    row.member_id = None if said.for_all else actor.member_id
    row.save()
    return row


def forget_answer(actor: Actor, *, answer_id: int) -> None:
    """Forget one that is everybody's, or one's own."""
    actor.needs(Right.FOLLOW_UP)
    own(actor, kept_answers(actor), answer_id).delete()


def count_use(actor: Actor, answer_id: int) -> None:
    """It was sent once more."""
    kept_answers(actor).filter(pk=answer_id).update(uses=F("uses") + 1)
