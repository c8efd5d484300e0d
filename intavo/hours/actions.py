"""Writes on hours and replies."""

import secrets
from dataclasses import replace
from datetime import datetime
from typing import Any

from django.db import transaction
from pydantic import ValidationError

from intavo import clock
from intavo.accounts.actions import look_at_hours, set_away
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.edits import Edit
from intavo.accounts.effects import business_created
from intavo.accounts.models import Business, Member
from intavo.accounts.scope import own
from intavo.core.door import NotLetIn, read_json
from intavo.core.hours import OpeningHours, hours_together, read_clock
from intavo.core.places import read_language
from intavo.core.presence import Away, Until, going_away
from intavo.core.refusals import wrongs
from intavo.core.replies import SITUATIONS, Reply, Situation, choose, replies_together
from intavo.core.rights import Right
from intavo.sites.actions import site_created, touch
from intavo.sites.models import Site

from .effects import Column, Followed, Moved, Moving, column_asked, due_times_moved, hours_followed
from .models import HoursSet, MemberHours, ReplyCell, SiteHours
from .queries import all_sets, kept_sets, main_hours, replies

_WEEKDAYS = ("mon", "tue", "wed", "thu", "fri")


def set_hours(actor: Actor, *, hours_id: int, edit: Edit) -> None:
    """Change a set of hours. Refused that names every field that is wrong; Changed where both changed the
    same.
    """
    actor.needs(Right.HOURS)
    with transaction.atomic():
        hours = _own(actor, hours_id)
        value = edit.over(hours.value, _read, hours_together)
        moving = _moving(actor.business_id, hours.pk, value)
        due_times_moved.tell(replace(moving, apply=True))
        hours.document = value.model_dump(mode="json", by_alias=True)
        hours.save(update_fields=["document"])
        touch(actor.business_id)
        look_at_hours(actor)
        actor.noted("hours changed", hours=hours.pk, name=hours.name)


def would_move(actor: Actor, *, hours_id: int, edit: Edit) -> list[Moved]:
    """Which due times changing a set of hours would move; nothing is changed."""
    hours = own(actor, HoursSet.objects.filter(deleted_at=None), hours_id)
    value = replace(edit, all_the_same=True).over(hours.value, _read, hours_together)
    moving = _moving(actor.business_id, hours.pk, value)
    due_times_moved.tell(moving)
    return moving.found


def _moving(business_id: int, hours_id: int, value: OpeningHours) -> Moving:
    """A change of one set, with every set as it is and as it will be."""

    def before(site_id: int | None) -> dict[int | None, OpeningHours]:
        return all_sets(business_id, site_id)

    def after(site_id: int | None) -> dict[int | None, OpeningHours]:
        main = main_hours(business_id, site_id).pk == hours_id
        sets = before(site_id)
        # What names a set that was deleted has the very value of its heir.
        mine = sets.get(hours_id)
        changed = {key: value if key is not None and known is mine else known for key, known in sets.items()}
        return {**changed, None: value if main else sets[None]}

    return Moving(business_id, clock.now(), before, after)


def _own(actor: Actor, hours_id: int) -> HoursSet:
    return own(actor, HoursSet.objects.filter(deleted_at=None), hours_id, locked=True)


def read_document(text: str) -> OpeningHours:
    """A set of hours from JSON, with times as people type them;
    Refused that names every field that is wrong.
    """
    try:
        found = read_json(text.encode("utf-8", "surrogatepass"))
    except NotLetIn as error:
        raise Refused(*((f"document.{place}".rstrip("."), words) for place, words in error.errors)) from error
    if not isinstance(found, dict):
        raise Refused(("document", "This is no set of hours."))
    return _read(found)


def _read(document: dict[str, Any]) -> OpeningHours:
    try:
        return OpeningHours.model_validate(_with_clocks(document))
    except ValidationError as error:
        raise Refused(*wrongs(error.errors(), "hours")) from error


def _with_clocks(document: dict[str, Any]) -> dict[str, Any]:
    """The document with every time that can be read as HH:MM; the rest is refused at its place."""

    def clock(text: object) -> object:
        try:
            return read_clock(text) if isinstance(text, str) else text
        except ValueError:
            return text

    def stretches(rows: object) -> object:
        if not isinstance(rows, list):
            return rows
        return [
            row | {name: clock(row[name]) for name in ("from", "to") if name in row}
            if isinstance(row, dict)
            else row
            for row in rows
        ]

    def odd(rows: object) -> object:
        if not isinstance(rows, list):
            return rows
        return [
            one | {"stretches": stretches(one["stretches"])}
            if isinstance(one, dict) and "stretches" in one
            else one
            for one in rows
        ]

    found = {"week": stretches, "exceptions": odd}
    return document | {name: read(document[name]) for name, read in found.items() if name in document}


def add_hours(actor: Actor, *, name: str, document: dict[str, Any]) -> HoursSet:
    """Add a named set of hours; Refused for a name that is empty or taken,
    and for every field that is wrong.
    """
    actor.needs(Right.HOURS)
    value = _read(document)
    with transaction.atomic():
        title = _free_name(actor, name)
        row = HoursSet.objects.create(
            business_id=actor.business_id, name=title, document=value.model_dump(mode="json", by_alias=True)
        )
        touch(actor.business_id)
        actor.noted("hours added", hours=row.pk, name=title)
    return row


def _free_name(actor: Actor, name: str, but: int | None = None) -> str:
    title = " ".join(name.split())
    if not title or len(title) > 80:
        raise Refused(("name", "Please write a name of at most 80 characters."))
    if kept_sets(actor.business_id).filter(name__iexact=title).exclude(pk=but or 0).exists():
        raise Refused(("name", f"There are hours called “{title}” already."))
    return title


def bring_hours_back(actor: Actor, *, hours_id: int) -> None:
    """Undo deleting a set. What followed it goes on following what stands instead."""
    actor.needs(Right.HOURS)
    with transaction.atomic():
        row = own(actor, HoursSet, hours_id, locked=True)
        row.name = _free_name(actor, row.name, but=hours_id)
        row.deleted_at = row.instead = None
        row.save(update_fields=["deleted_at", "instead", "name"])
        touch(actor.business_id)
        actor.noted("hours brought back", hours=row.pk, name=row.name)


def give_address(actor: Actor, *, hours_id: int, wanted: bool) -> HoursSet:
    """Make a secret address that calendars can follow, or take it away; made anew,
    the old one leads nowhere.
    """
    actor.needs(Right.HOURS)
    with transaction.atomic():
        row = _own(actor, hours_id)
        row.token = secrets.token_urlsafe(24) if wanted else None
        row.save(update_fields=["token"])
        actor.noted(
            "calendar address made" if wanted else "calendar address taken away", hours=row.pk, name=row.name
        )
    return row


def go_away(actor: Actor, *, until: Until, time: datetime | None = None) -> Away:
    """The acting member is away from the counter until then; Refused for a time that does not lie ahead."""
    try:
        away = going_away(until, clock.now(), main_hours(actor.business_id).value, time)
    except ValueError as error:
        raise Refused(("time", str(error))) from error
    set_away(actor, away)
    return away


def set_usual_hours(actor: Actor, *, member_id: int, hours_id: int | None) -> None:
    """Say when a member is usually at the counter: in the hours of a set, or (None) whenever it is open."""
    actor.needs(Right.HOURS)
    with transaction.atomic():
        member = own(actor, Member.objects.select_related("user"), member_id)
        times = "whenever it is open"
        if hours_id is None:
            MemberHours.objects.filter(member=member).delete()
        else:
            row = _own(actor, hours_id)
            times = f"while “{row.name}” is open"
            MemberHours.objects.update_or_create(
                member=member, defaults={"business_id": actor.business_id, "hours": row}
            )
        touch(actor.business_id)
        who = member.called
        actor.noted("usual times set", member=member_id, who=who, hours=hours_id, times=times)


def rename_hours(actor: Actor, *, hours_id: int, name: str) -> None:
    """Give a set another name."""
    actor.needs(Right.HOURS)
    with transaction.atomic():
        row = _own(actor, hours_id)
        before, row.name = row.name, _free_name(actor, name, but=hours_id)
        row.save(update_fields=["name"])
        actor.noted("hours renamed", hours=row.pk, before=before, name=row.name)


def drop_hours(actor: Actor, *, hours_id: int, instead_id: int | None = None) -> None:
    """Delete a set; whatever follows it follows another from then on. Refused with their names where none is
    said.
    """
    actor.needs(Right.HOURS)
    with transaction.atomic():
        # All of them, so that of the last two only one can go.
        kept = kept_sets(actor.business_id).select_for_update()
        last = len(kept.values_list("pk")) == 1
        row = _own(actor, hours_id)
        if last:
            raise Refused(("hours", "These are the only hours: there have to be some."))
        instead = _own(actor, instead_id) if instead_id and instead_id != hours_id else None
        followed = Followed(row)
        hours_followed.tell(followed)
        used = followed.by + [
            f"the site {one.site.name}" for one in SiteHours.objects.select_related("site").filter(hours=row)
        ]
        used += [
            f"{one.member.called} at the counter"
            for one in MemberHours.objects.select_related("member__user").filter(hours=row)
        ]
        if used and instead is None:
            raise Refused(
                ("instead", f"They are followed by {', '.join(sorted(used))}. Say what these follow instead.")
            )
        if instead is not None:
            SiteHours.objects.filter(hours=row).update(hours=instead)
            MemberHours.objects.filter(hours=row).update(hours=instead)
        row.deleted_at, row.instead = clock.now(), instead
        row.save(update_fields=["deleted_at", "instead"])
        about = {"instead": instead.name} if instead else {}
        actor.noted("hours deleted", hours=row.pk, name=row.name, followed_by=sorted(used), **about)
        touch(actor.business_id)


def follow_hours(actor: Actor, *, site_id: int, hours_id: int) -> None:
    """Say which hours are the main ones of a site."""
    actor.needs(Right.HOURS)
    with transaction.atomic():
        row = _own(actor, hours_id)
        site = own(actor, Site, site_id)
        SiteHours.objects.update_or_create(
            site=site, defaults={"business_id": actor.business_id, "hours": row}
        )
        touch(actor.business_id)
        actor.noted("main hours chosen", site=site.name, hours=row.pk, name=row.name)


def set_replies(actor: Actor, *, situation: str, edit: Edit, column: str = "", language: str = "") -> None:
    """Set a cell, everywhere's and in the business's language where none is said; Refused with what is
    wrong, Changed where both changed the same.
    """
    now, tongue, place = _situation(situation), _tongue(actor, language), _column(actor, column)
    with transaction.atomic():
        # One after the other: a cell that inherits has no row to hold.
        business = Business.objects.select_for_update(no_key=True).get(pk=actor.business_id)
        stands = choose(replies(business.pk), now, tongue, business.language, place or None).reply
        value = edit.over(stands, _read_reply, replies_together)
        set_reply(actor, situation=now, language=tongue, reply=value, column=place)


def _read_reply(document: dict[str, Any]) -> Reply:
    try:
        return Reply.model_validate(document)
    except ValidationError as error:
        raise Refused(*wrongs(error.errors(), "reply")) from error


def _situation(text: str) -> Situation:
    try:
        return Situation(text)
    except ValueError:
        raise Refused(("situation", f"There is no situation “{text[:40]}”.")) from None


def _tongue(actor: Actor, language: str) -> str:
    """A language's code in small letters, without a region; the business's own where none is said."""
    if not language:
        return str(Business.objects.values_list("language", flat=True).get(pk=actor.business_id))
    try:
        return read_language(language)
    except ValueError as error:
        raise Refused(("language", str(error))) from error


def _column(actor: Actor, column: str) -> str:
    """A column that is there: everywhere's, or one that an app above knows."""
    asked = Column(actor.business_id, column)
    column_asked.tell(asked)
    if column and not asked.name:
        raise Refused(("column", "There is no such channel or touchpoint."))
    return column


def reset_reply(actor: Actor, *, situation: str, column: str = "", language: str = "") -> None:
    """Empty a cell: it inherits again, at last the words that ship."""
    actor.needs(Right.HOURS)
    now, tongue = _situation(situation), _tongue(actor, language)
    with transaction.atomic():
        ReplyCell.objects.filter(
            business_id=actor.business_id, situation=now.value, column=column, language=tongue
        ).delete()
        touch(actor.business_id)
        _reply_noted(actor, "reply put back", now, column, tongue)


def set_reply(actor: Actor, *, situation: Situation, language: str, reply: Reply, column: str = "") -> None:
    """Set what is told in a situation, column and language."""
    actor.needs(Right.HOURS)
    with transaction.atomic():
        ReplyCell.objects.update_or_create(
            business_id=actor.business_id,
            situation=situation.value,
            language=language,
            column=column,
            defaults={"document": reply.model_dump(mode="json")},
        )
        touch(actor.business_id)
        _reply_noted(actor, "reply changed", situation, column, language)


def _reply_noted(actor: Actor, verb: str, situation: Situation, column: str, language: str) -> None:
    """Into the log with the names that whoever reads it knows the cell by."""
    asked, own = Column(actor.business_id, column), _tongue(actor, "")
    column_asked.tell(asked)
    actor.noted(
        verb,
        situation=situation.value,
        when=SITUATIONS[situation],
        column=column,
        name=asked.name,
        language=language if language != own else "",
    )


@business_created.register
def _first_hours(business: Business) -> None:
    """A new business starts with weekday hours, so that promises are right from the first minute."""
    week = [{"day": day, "from": "09:00", "to": "17:00"} for day in _WEEKDAYS]
    HoursSet.objects.create(
        business=business,
        name="Main hours",
        document={"timezone": business.timezone, "week": week, "exceptions": []},
    )


@site_created.register
def _main_hours(site: Site) -> None:
    """A new site follows the first hours of its business."""
    first = HoursSet.objects.filter(business_id=site.business_id).order_by("pk")[0]
    SiteHours.objects.create(business_id=site.business_id, site=site, hours=first)
