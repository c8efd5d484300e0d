"""Writes on the business's questions & answers."""

from django.db import transaction
from django.db.models import F

from intavo.accounts.actor import Actor, Refused
from intavo.accounts.scope import own
from intavo.core.rights import Right
from intavo.core.touchpoint import sanitised

from ..models import QuestionAnswer


def keep_question(
    actor: Actor, *, question_id: int | None, group: str, question: str, answer: str
) -> QuestionAnswer:
    """Add a question with its answer, or change one; the answer is rich text and sanitised."""
    actor.needs(Right.TOUCHPOINTS)
    asked, said = " ".join(question.split())[:300], sanitised(answer)[:20_000]
    wrong = [("question", "Please write the question.")] if not asked else []
    wrong += [("answer", "Please write the answer.")] if not said.strip() else []
    if wrong:
        raise Refused(*wrong)
    with transaction.atomic():
        rows = QuestionAnswer.objects.filter(business_id=actor.business_id)
        row = own(actor, rows, question_id) if question_id else QuestionAnswer(business_id=actor.business_id)
        row.order = row.order or 10 * (rows.count() + 1)
        row.group, row.question, row.answer = " ".join(group.split())[:120], asked, said
        row.save()
        actor.noted("question kept", question=row.pk, asked=row.question)
    return row


def drop_question(actor: Actor, *, question_id: int) -> None:
    """Throw a question away."""
    actor.needs(Right.TOUCHPOINTS)
    with transaction.atomic():
        row = own(actor, QuestionAnswer, question_id)
        row.delete()
        actor.noted("question thrown away", question=question_id, asked=row.question)


def order_questions(actor: Actor, *, question_ids: list[int]) -> None:
    """Put the questions in this order."""
    actor.needs(Right.TOUCHPOINTS)
    with transaction.atomic():
        rows = {row.pk: row for row in QuestionAnswer.objects.filter(business_id=actor.business_id)}
        if set(question_ids) != set(rows):
            raise Refused(("question_ids", "Every question has to be named once."))
        for number, pk in enumerate(question_ids, 1):
            rows[pk].order = 10 * number
        QuestionAnswer.objects.bulk_update(rows.values(), ["order"])


def tell_helped(actor: Actor, *, question_id: int, helped: bool) -> bool:
    """Count whether an answer helped; says whether there is such a question."""
    actor.needs(Right.VISIT)
    rows = QuestionAnswer.objects.filter(pk=question_id, business_id=actor.business_id)
    name = "helped" if helped else "not_helped"
    return rows.update(**{name: F(name) + 1}) > 0
