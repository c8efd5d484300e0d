"""The console's API on what is kept for the list: filters, answers, and the rules of whose new work is."""

from typing import Annotated, Any

from django.db.models import Q
from ninja import Router, Schema, Status

from intavo import clock
from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.edits import Edit
from intavo.accounts.queries import members
from intavo.core.giving import GiveRule, rule_words
from intavo.core.holds import Holds
from intavo.core.worklist import ListFilter
from intavo.touchpoints.models import Touchpoint

from . import actions
from .giving import rules_of, set_give_rules
from .kept import KeptText, change_answer, filled_for, forget_answer, keep_answer, proposed_for
from .models import KeptAnswer, KeptFilter

router = Router(tags=["follow-up"], auth=MemberAuth())


class ProposedOut(Schema):
    question: str
    words: str


@router.get("/follow-ups/{followup_id}/proposed", response=ProposedOut | None)
def proposed(request: MemberRequest, followup_id: int) -> Any:
    """The answer that is kept for what they most likely ask."""
    return proposed_for(request.auth, followup_id)


class GiveRulesIn(Schema):
    rules: list[GiveRule]
    # What they were made from: what somebody else has changed since is not lost then.
    based_on: list[GiveRule] | None = None
    all_the_same: bool = False


class RuleOut(Schema):
    rule: GiveRule
    words: str


@router.get("/give-rules", response=list[RuleOut])
def give_rules(request: MemberRequest) -> list[RuleOut]:
    """Whose new work is, in order, each as a sentence."""
    touchpoints = dict(
        Touchpoint.objects.filter(business_id=request.auth.business_id).values_list("pk", "name")
    )
    called = {one.pk: one.called for one in members(request.auth)}
    return [
        RuleOut(rule=one, words=rule_words(one, touchpoints, called))
        for one in rules_of(request.auth.business_id)
    ]


@router.put("/give-rules", response={204: None})
def set_rules(request: MemberRequest, body: GiveRulesIn) -> Status[None]:
    """Say whose new work is; 409 where somebody else has changed it since `based_on`."""
    based_on = None if body.based_on is None else {"rules": body.based_on}
    set_give_rules(request.auth, edit=Edit({"rules": body.rules}, based_on, body.all_the_same))
    return Status(204, None)


class KeptFilterOut(Schema):
    id: int
    name: str
    for_all: bool
    wanted: Annotated[dict[str, Any], Holds(ListFilter, "validation")]


class KeepFilterIn(Schema):
    name: str
    wanted: ListFilter
    for_all: bool = False


def _kept_filter(row: KeptFilter) -> KeptFilterOut:
    return KeptFilterOut(id=row.pk, name=row.name, for_all=row.member_id is None, wanted=row.wanted)


@router.get("/kept-filters", response=list[KeptFilterOut])
def kept_filters(request: MemberRequest) -> list[KeptFilterOut]:
    """The filters kept for all, and one's own."""
    rows = KeptFilter.objects.filter(business_id=request.auth.business_id)
    return [_kept_filter(row) for row in rows.filter(Q(member=None) | Q(member_id=request.auth.member_id))]


@router.post("/kept-filters", response=KeptFilterOut)
def keep_filter(request: MemberRequest, body: KeepFilterIn) -> KeptFilterOut:
    """Keep a filter under a name."""
    return _kept_filter(
        actions.keep_filter(request.auth, name=body.name, wanted=body.wanted, for_all=body.for_all)
    )


@router.delete("/kept-filters/{filter_id}", response={204: None})
def drop_filter(request: MemberRequest, filter_id: int) -> Status[None]:
    """Forget a kept filter."""
    actions.drop_filter(request.auth, filter_id=filter_id)
    return Status(204, None)


class KeptAnswerOut(Schema):
    id: int
    name: str
    group: str
    for_all: bool
    uses: int
    text: list[Any]
    words: str


def _kept_answer(row: KeptAnswer, words: str = "") -> KeptAnswerOut:
    about = {"id": row.pk, "name": row.name, "group": row.group, "uses": row.uses, "text": row.text}
    return KeptAnswerOut(for_all=row.member_id is None, words=words, **about)


@router.get("/kept-answers", response=list[KeptAnswerOut])
def list_kept_answers(request: MemberRequest, followup_id: int | None = None) -> list[KeptAnswerOut]:
    """The answers kept for all and one's own, filled for the person of a follow-up."""
    return [_kept_answer(one.row, one.words) for one in filled_for(request.auth, followup_id, clock.now())]


@router.post("/kept-answers", response=KeptAnswerOut)
def keep_an_answer(request: MemberRequest, body: KeptText) -> KeptAnswerOut:
    """Keep an answer for using again."""
    return _kept_answer(keep_answer(request.auth, body))


@router.put("/kept-answers/{answer_id}", response=KeptAnswerOut)
def change_a_kept_answer(request: MemberRequest, answer_id: int, body: KeptText) -> KeptAnswerOut:
    """Change a kept answer."""
    return _kept_answer(change_answer(request.auth, answer_id=answer_id, said=body))


@router.delete("/kept-answers/{answer_id}", response={204: None})
def forget_a_kept_answer(request: MemberRequest, answer_id: int) -> Status[None]:
    """Forget a kept answer."""
    forget_answer(request.auth, answer_id=answer_id)
    return Status(204, None)
