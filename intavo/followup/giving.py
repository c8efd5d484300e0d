"""Giving new work to members by the owner's rules."""

from collections.abc import Sequence
from datetime import timedelta
from typing import Any

from django.db import transaction
from django.db.models import Count
from pydantic import TypeAdapter

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.edits import Edit
from intavo.accounts.models import Business, Member
from intavo.accounts.queries import members
from intavo.core import followup as rules
from intavo.core.giving import Came, GiveRule, fits, given_to, giving_together
from intavo.core.rights import Right
from intavo.hours.queries import presences
from intavo.people.actions import add_event
from intavo.people.models import PersonTag
from intavo.touchpoints.models import Touchpoint

from .models import FollowUp, GiveRules
from .source import Source

MOST = 50
_RULES = TypeAdapter(tuple[GiveRule, ...])
# Whether a business has any rules, said with the statement that opens a piece of work.
HAS_RULES = "EXISTS (SELECT FROM followup_giverules WHERE business_id = %s AND rules <> '[]')"


def rules_of(business_id: int) -> list[GiveRule]:
    """A business's rules, in their order."""
    row = GiveRules.objects.filter(business_id=business_id).values_list("rules", flat=True).first()
    return [GiveRule.model_validate(one) for one in row or []]


def set_give_rules(actor: Actor, *, edit: Edit) -> None:
    """Say whose new work is; what is there already stays whose it is. Refused with the rule that is wrong,
    Changed where somebody else has changed them.
    """
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        # One after the other: whoever has none yet has no row to hold.
        Business.objects.select_for_update(no_key=True).get(pk=actor.business_id)
        rules = edit.over(tuple(rules_of(actor.business_id)), _read, giving_together)
        _check(actor, rules)
        kept = [one.model_dump(mode="json", exclude_none=True) for one in rules]
        GiveRules.objects.update_or_create(business_id=actor.business_id, defaults={"rules": kept})
        actor.noted("give rules set")


def _read(document: dict[str, Any]) -> tuple[GiveRule, ...]:
    return _RULES.validate_python(document["rules"])


def _check(actor: Actor, rules: Sequence[GiveRule]) -> None:
    if len(rules) > MOST:
        raise Refused(("rules", f"There can be {MOST} rules at most."))
    known = set(Member.objects.filter(business_id=actor.business_id).values_list("pk", flat=True))
    made = set(Touchpoint.objects.filter(business_id=actor.business_id).values_list("pk", flat=True))
    errors = [
        (f"rules.{at}.member", "Choose somebody of the business.")
        for at, one in enumerate(rules)
        if one.member is not None and one.member not in known
    ]
    errors += [
        (f"rules.{at}.touchpoint", "Choose one of your touchpoints.")
        for at, one in enumerate(rules)
        if one.touchpoint is not None and one.touchpoint not in made
    ]
    if errors:
        raise Refused(*errors)


def give_by_rules(
    actor: Actor, *, followup_id: int, kind: rules.Kind, source: Source, person_id: int
) -> None:
    """Give a new piece of work to whom the first rule that fits says; without one it is everybody's."""
    wanted = rules_of(actor.business_id)
    if not wanted:
        return
    tags: frozenset[str] = frozenset()
    if any(one.tag for one in wanted):
        tags = frozenset(PersonTag.objects.filter(person_id=person_id).values_list("tag", flat=True))
    came = Came(kind, source.via, source.touchpoint_id, source.page, tags)
    if not any(fits(one, came) for one in wanted):
        return
    at = clock.now()
    everybody = presences(actor.business_id)
    open_ones = FollowUp.objects.filter(business_id=actor.business_id).exclude(
        state=rules.State.FINISHED.value
    )
    counted = dict(
        open_ones.exclude(member=None).order_by().values_list("member").annotate(count=Count("pk"))
    )
    whose = given_to(
        wanted,
        came,
        [one.member for one in everybody if not one.is_away(at)],
        counted,
        [one.member for one in everybody],
    )
    if whose is not None:
        give_to(actor, followup_id=followup_id, person_id=person_id, member_id=whose, by_rule=True)


def give_to(actor: Actor, *, followup_id: int, person_id: int, member_id: int, by_rule: bool = False) -> None:
    """Give a new piece of work to a member of the business: whom it was written to, or (`by_rule`) whom a
    rule says. Whoever is not of the business any more gets nothing.
    """
    row = next((one for one in members(actor) if one.pk == member_id), None)
    if row is not None:
        at = clock.now()
        FollowUp.objects.filter(business_id=actor.business_id, pk=followup_id).update(member_id=row.pk)
        about = {"followup": followup_id, "to": row.called, "by_rule": by_rule}
        # It follows what came, also where both are of one instant.
        add_event(actor, person_id=person_id, at=at + timedelta(microseconds=1), kind="given", data=about)
