"""The console's API on opening hours and what visitors are told."""

from typing import Any

from ninja import Router, Schema, Status

from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.models import Business
from intavo.accounts.queries import business_of, somebody_free
from intavo.core.hours import OpeningHours
from intavo.core.replies import Promise, Situation, choose, fill, next_moment_of, promise_words, situation, slots
from intavo.project import clock

from .actions import set_hours
from .models import HoursSet
from .queries import main_hours, replies

router = Router(tags=["hours"], auth=MemberAuth())


class ToldOut(Schema):
    situation: str
    title: str
    text: str
    in_effect: bool


class SetOut(Schema):
    id: int
    name: str
    document: dict[str, Any]


class HoursOut(Schema):
    main: SetOut
    others: list[SetOut]
    promise_minutes: int | None
    promise_now: str
    told: list[ToldOut]


class HoursIn(Schema):
    document: dict[str, Any]


@router.get("/hours", response=HoursOut)
def hours(request: MemberRequest) -> HoursOut:
    """The main hours, the promise, and what visitors are told now and in other situations."""
    business, at = business_of(request.auth), clock.now()
    main = main_hours(business.pk)
    value = main.value
    minutes = business.promise_minutes
    promise = Promise.of_minutes(minutes)
    others = HoursSet.objects.filter(business=business).exclude(pk=main.pk).order_by("pk")
    return HoursOut(
        main=_set(main), others=[_set(row) for row in others], promise_minutes=minutes,
        promise_now=promise_words(promise.due(value, at), at, value.zone), told=_told(business, value, promise),
    )  # fmt: skip


def _set(row: HoursSet) -> SetOut:
    return SetOut(id=row.pk, name=row.name, document=row.document)


def _told(business: Business, value: OpeningHours, promise: Promise) -> list[ToldOut]:
    """What is said in each situation, as it will read when the situation comes next."""
    at, table = clock.now(), replies(business.pk)
    now = situation(value, at, somebody_free(business.pk))
    found = []
    for one in Situation:
        then = at if one is now else next_moment_of(one, value, at)
        words = slots(value, then, value.zone, promise.due(value, then))
        reply = choose(table, one, business.language, business.language).reply
        told = ToldOut(
            situation=one.value, title=fill(reply.title, words), text=fill(reply.text, words), in_effect=one is now
        )
        found.append(told)
    return found


@router.put("/hours/{hours_id}", response={204: None})
def change_hours(request: MemberRequest, hours_id: int, body: HoursIn) -> Status[None]:
    """Replace a set of hours."""
    row = HoursSet.objects.get(pk=hours_id, business_id=request.auth.business_id)
    set_hours(request.auth, hours=row, document=body.document)
    return Status(204, None)
