"""The business's questions & answers."""

from ninja import Router, Schema, Status

from intavo.accounts.auth import MemberRequest

from .. import actions
from ..models import QuestionAnswer
from ..queries import questions_of

router = Router()


class QuestionOut(Schema):
    id: int
    group: str
    question: str
    answer: str
    helped: int
    not_helped: int

    @staticmethod
    def of(row: QuestionAnswer) -> "QuestionOut":
        """A question as the console shows it."""
        return QuestionOut(
            id=row.pk,
            group=row.group,
            question=row.question,
            answer=row.answer,
            helped=row.helped,
            not_helped=row.not_helped,
        )


class QuestionIn(Schema):
    group: str = ""
    question: str
    answer: str


class QuestionOrderIn(Schema):
    question_ids: list[int]


@router.get("/questions", response=list[QuestionOut])
def questions(request: MemberRequest) -> list[QuestionOut]:
    """All of them, in the owner's order."""
    return [QuestionOut.of(row) for row in questions_of(request.auth.business_id)]


@router.post("/questions", response={201: QuestionOut})
def add(request: MemberRequest, body: QuestionIn) -> Status[QuestionOut]:
    """Add one."""
    row = actions.keep_question(
        request.auth, question_id=None, group=body.group, question=body.question, answer=body.answer
    )
    return Status(201, QuestionOut.of(row))


@router.put("/questions/order", response=list[QuestionOut])
def order(request: MemberRequest, body: QuestionOrderIn) -> list[QuestionOut]:
    """Put them in order."""
    actions.order_questions(request.auth, question_ids=body.question_ids)
    return questions(request)


@router.put("/questions/{question_id}", response=QuestionOut)
def change(request: MemberRequest, question_id: int, body: QuestionIn) -> QuestionOut:
    """Change one."""
    row = actions.keep_question(
        request.auth, question_id=question_id, group=body.group, question=body.question, answer=body.answer
    )
    return QuestionOut.of(row)


@router.delete("/questions/{question_id}", response={204: None})
def drop(request: MemberRequest, question_id: int) -> Status[None]:
    """Throw one away."""
    actions.drop_question(request.auth, question_id=question_id)
    return Status(204, None)
