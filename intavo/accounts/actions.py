"""Writes on businesses and members."""

from datetime import timedelta
from typing import TypedDict
from zoneinfo import ZoneInfo, available_timezones

from django.db import transaction
from email_validator import EmailNotValidError, validate_email
from typing_extensions import Unpack

from intavo import clock
from intavo.core.places import language_of, read_language, regions
from intavo.core.presence import Away
from intavo.core.rights import Right, Role
from intavo.core.say import length_words
from intavo.core.tongues import base_of

from .actor import Actor, NotAllowed, Refused, member_actor
from .effects import business_changed, business_created
from .models import Business, Member, User
from .sender import ask_sender, is_theirs

MOST_NAME = 120


def found_business(
    *, user: User, name: str, timezone: str, region: str = "GB", mail_address: str = "", language: str = ""
) -> Actor:
    """Found a business whose owner is `user`; raises Refused with the fields that are wrong.

    Its visitors are spoken to in `language`; "" takes what is spoken in its region.
    """
    errors: list[tuple[str, str]] = []
    errors += _name_errors(name)
    if timezone not in available_timezones():
        errors.append(("timezone", "This is not a known time zone; use a name like Europe/London."))
    errors += _region_errors(region) + _language_errors(language)
    address = mail_address or user.email
    errors += _mail_errors(address)
    if errors:
        raise Refused(*errors)
    with transaction.atomic():
        business = Business.objects.create(
            name=name.strip(),
            timezone=ZoneInfo(timezone).key,
            region=region.upper(),
            mail_address=address,
            language=base_of(language) or language_of(region.upper()),
            mail_confirmed=is_theirs(address, user=user),
            created_at=clock.now(),
        )
        actor = member_actor(Member.objects.create(business=business, user=user, role=Role.OWNER))
        business_created.tell(business)
        actor.noted("business founded", name=business.name)
    return actor


def _region_errors(region: str) -> list[tuple[str, str]]:
    known = {one.code for one in regions()}
    return [] if region.upper() in known else [("region", "Use the two letters of a country, like GB.")]


def _language_errors(language: str) -> list[tuple[str, str]]:
    try:
        read_language(language or "en")
    except ValueError as error:
        return [("language", str(error))]
    return []


def _name_errors(name: str) -> list[tuple[str, str]]:
    if not name.strip():
        return [("name", "Please write the name of your business.")]
    return [("name", f"A name has at most {MOST_NAME} letters.")] if len(name) > MOST_NAME else []


def _mail_errors(address: str) -> list[tuple[str, str]]:
    try:
        validate_email(address, check_deliverability=False, test_environment=True)
    except EmailNotValidError as error:
        return [("mail_address", f"This email address cannot be right: {error}")]
    return []


def add_member(actor: Actor, *, user: User, role: Role) -> Member:
    """Give a user a place in the actor's business."""
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        member, _ = Member.objects.get_or_create(
            business_id=actor.business_id, user=user, defaults={"role": role.value}
        )
        actor.noted("member added", user=user.pk, who=user.name or user.email, role=role.value)
    return member


class BusinessChange(TypedDict, total=False):
    """What is to be changed of a business; the promise is in open minutes, or None."""

    name: str
    mail_address: str
    promise_minutes: int | None
    region: str
    language: str


def change_business(actor: Actor, **what: Unpack[BusinessChange]) -> None:
    """Change the business's name, the address its mail comes from, its promise, its region and what its
    visitors are spoken to in; what is not said stays, as "" does of the last two. Refused with the fields
    that are wrong.
    """
    actor.needs(Right.BUSINESS)
    region, language = what.get("region", ""), what.get("language", "")
    errors = [*_language_errors(language), *(_region_errors(region) if region else [])]
    errors += _mail_errors(what["mail_address"]) if "mail_address" in what else []
    errors += _name_errors(what["name"]) if "name" in what else []
    minutes = what.get("promise_minutes")
    if minutes is not None and not 1 <= minutes <= 60 * 24 * 30:
        errors.append(("promise_minutes", "A promise is from 1 minute to 720 open hours, or none."))
    if errors:
        raise Refused(*errors)
    with transaction.atomic():
        business = Business.objects.select_for_update().get(pk=actor.business_id)
        other = what.get("mail_address", business.mail_address) != business.mail_address
        business.name = what.get("name", business.name).strip()
        business.mail_address = what.get("mail_address", business.mail_address)
        business.promise_minutes = what.get("promise_minutes", business.promise_minutes)
        if other:
            business.mail_confirmed = is_theirs(business.mail_address, business_id=business.pk)
        business.region = region.upper() or business.region
        business.language = base_of(language) or business.language
        kept = ["name", "mail_address", "promise_minutes", "mail_confirmed", "region", "language"]
        business.save(update_fields=kept)
        if other and not business.mail_confirmed:
            ask_sender(actor)
        business_changed.tell(actor.business_id)
        promised = business.promise_minutes
        promise = length_words(timedelta(minutes=promised)) if promised else ""
        actor.noted("business changed", name=business.name, promise=promise)


def set_away(actor: Actor, away: Away | None) -> None:
    """Say that the acting member is away from the counter, and until when; None: is there."""
    if actor.member_id is None:
        raise NotAllowed(Right.FOLLOW_UP)
    actor.needs(Right.FOLLOW_UP)
    with transaction.atomic():
        Member.objects.filter(pk=actor.member_id, business_id=actor.business_id).update(
            away=away is not None,
            back_at=away.back_at if away else None,
            away_ends=away.ends_at if away else None,
        )
        business_changed.tell(actor.business_id)


def look_at_hours(actor: Actor) -> None:
    """Somebody of the business has seen its hours, and left or made them as they are."""
    Business.objects.filter(pk=actor.business_id, hours_looked_at=False).update(hours_looked_at=True)
