"""A filter of people as one statement, held by a test against its reading in Python
(`intavo.core.people.holds`).
"""

from datetime import datetime, timedelta
from functools import reduce
from operator import and_, or_
from zoneinfo import ZoneInfo

from django.db.models import (
    CharField,
    Count,
    Exists,
    Func,
    IntegerField,
    OuterRef,
    Q,
    QuerySet,
    Subquery,
    Value,
)
from django.db.models.functions import Coalesce, Lower

from intavo.core import people as rules
from intavo.core.people.seeking import THEIRS, from_when, midnight, path_of

from .models import Address, Consent, Person, PersonTag, TimelineEvent


class Plain(Func):
    """Without accents and case, as the index on names has it."""

    function = "intavo_plain"
    output_field = CharField()


def sought(business_id: int, wanted: rules.Filter, at: datetime, zone: ZoneInfo) -> QuerySet[Person]:
    """The people of a business that a filter seeks, at an instant, with dates in its zone: one statement."""
    rows = Person.objects.filter(business_id=business_id, erasing=False)
    if not wanted.conditions:
        return rows
    tag = None if wanted.any else next((one for one in wanted.conditions if _is_few(one)), None)
    rest = [one for one in wanted.conditions if one is not tag]
    if isinstance(tag, rules.HasTag):
        # Who has a tag are few and stand together in an index: what they did is asked of them alone.
        inside = [one for one in rest if isinstance(one, rules.Did | rules.Heard) and not one.no]
        tagged = PersonTag.objects.filter(business_id=business_id, person=OuterRef("pk"), tag=tag.tag)
        rows = rows.filter(Exists(tagged.filter(*(_one(one, at, zone, "person") for one in inside))))
        rest = [one for one in rest if one not in inside]
    if not rest:
        return rows
    found = [~_one(one, at, zone) if one.no else _one(one, at, zone) for one in rest]
    return rows.filter(reduce(or_ if wanted.any else and_, found))


def _is_few(condition: rules.Condition) -> bool:
    return isinstance(condition, rules.HasTag) and not condition.no


def _one(condition: rules.Condition, at: datetime, zone: ZoneInfo, who: str = "pk") -> Q:
    """A condition on rows whose column `who` says of whom it is asked."""
    if isinstance(condition, rules.Did):
        return _did(condition, at, zone, who)
    if isinstance(condition, rules.Heard):
        since = at - timedelta(days=condition.days)
        return Q(Exists(TimelineEvent.objects.filter(person=OuterRef(who), kind__in=THEIRS, at__gte=since)))
    if isinstance(condition, rules.Added):
        begins = Q(created_at__gte=midnight(condition.since, zone)) if condition.since else Q()
        ends = (
            Q(created_at__lt=midnight(condition.until + timedelta(days=1), zone)) if condition.until else Q()
        )
        return (begins & ends) or Q(pk__isnull=False)
    if isinstance(condition, rules.HasTag):
        return Q(Exists(PersonTag.objects.filter(person=OuterRef("pk"), tag=condition.tag)))
    if isinstance(condition, rules.Agreed):
        agreed = Consent.objects.filter(person=OuterRef("pk"), withdrawn_at__isnull=not condition.withdrawn)
        return Q(Exists(agreed.filter(name=condition.name) if condition.name else agreed))
    if isinstance(condition, rules.Reached):
        return Q(Exists(Address.objects.filter(person=OuterRef("pk"), kind=condition.kind)))
    lowered = Address.objects.annotate(lowered=Lower("key"))
    addressed = lowered.filter(person=OuterRef("pk"), lowered__contains=condition.text.casefold())
    named = Person.objects.annotate(plain=Plain("name")).filter(
        pk=OuterRef("pk"), plain__contains=Plain(Value(condition.text))
    )
    return Q(Exists(named)) | Q(Exists(addressed))


def _did(deed: rules.Did, at: datetime, zone: ZoneInfo, who: str) -> Q:
    # How often is asked of the person, within; whether at all of the row itself.
    events = TimelineEvent.objects.filter(
        business_id=OuterRef("business_id"), person=OuterRef(who if deed.least == 1 else "pk")
    )
    events = events.filter(kind__in=THEIRS) if deed.deed == "anything" else events.filter(kind=deed.deed)
    if deed.touchpoint is not None:
        events = events.filter(data__touchpoint=deed.touchpoint)
    if deed.page is not None:
        events = events.filter(path=path_of(deed.page))
    if (begins := from_when(deed, at, zone)) is not None:
        events = events.filter(at__gte=begins)
    if deed.least == 1:
        return Q(Exists(events))
    counted = events.order_by().values("person").annotate(count=Count("pk")).values("count")
    return Q(
        Exists(
            Person.objects.filter(pk=OuterRef(who))
            .annotate(times=Coalesce(Subquery(counted, output_field=IntegerField()), 0))
            .filter(times__gte=deed.least)
        )
    )
