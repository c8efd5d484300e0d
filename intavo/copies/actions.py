"""Writes on copies: made by a job, taken away, thrown away, and a business made anew from one."""

import secrets
from datetime import timedelta
from typing import Any

from django.core.files.uploadedfile import UploadedFile
from django.db import transaction
from procrastinate.contrib.django import app

from intavo import clock, keeping
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.models import Business
from intavo.accounts.quotas import counts, needs_room
from intavo.accounts.scope import own
from intavo.core.quotas import QuotaKind
from intavo.core.rights import Right

from .files import path_of
from .models import Copy
from .reading import Unreadable, is_empty, manifest_of, read_copy
from .writing import write_copy

LASTS = timedelta(days=7)


def make_copy(actor: Actor) -> Copy:
    """Have a copy of the whole business made by a job. Refused while one is being made."""
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        _alone(actor)
        needs_room(actor, QuotaKind.COPIES, "copy")
        needs_room(actor, QuotaKind.FILES, "copy")
        row = _row(actor, out=True)
        app.configure_task("write_copy").defer(copy_id=row.pk)
        actor.noted("copy made")
    return row


def bring_copy(actor: Actor, *, file: "UploadedFile[Any]") -> Copy:
    """Have an empty business made anew from a copy by a job. Refused for a business that is not, or what is
    no copy.
    """
    actor.needs(Right.BUSINESS)
    if not is_empty(actor.business_id):
        raise Refused(
            ("file", "There are people or touchpoints here already; a copy goes into an empty business.")
        )
    needs_room(actor, QuotaKind.COPIES, "file")
    needs_room(actor, QuotaKind.FILES, "file", file.size or 0)
    key = secrets.token_hex(16)
    path = path_of(actor.business_id, key)
    keeping.keep(path, file.chunks())
    try:
        manifest = manifest_of(path)
        with transaction.atomic():
            _alone(actor)
            row = _row(actor, out=False, key=key)
            app.configure_task("read_copy").defer(copy_id=row.pk)
            actor.noted("copy brought in", name=manifest.business)
    except Unreadable as error:
        keeping.throw_away(path)
        raise Refused(("file", str(error))) from None
    except Refused:
        keeping.throw_away(path)
        raise
    return row


@counts(QuotaKind.COPIES)
def copies_of(business_id: int) -> int:
    """How many copies there are."""
    return Copy.objects.filter(business_id=business_id).count()


def _row(actor: Actor, *, out: bool, key: str = "") -> Copy:
    return Copy.objects.create(
        business_id=actor.business_id,
        member_id=actor.member_id,
        out=out,
        key=key or secrets.token_hex(16),
        at=clock.now(),
    )


def _alone(actor: Actor) -> None:
    Business.objects.select_for_update().get(pk=actor.business_id)
    if Copy.objects.filter(business_id=actor.business_id, state=Copy.WORKING).exists():
        raise Refused(("copy", "A copy is being worked on; wait until that is done."))


def drop_copy(actor: Actor, *, copy_id: int) -> None:
    """Throw a copy away."""
    actor.needs(Right.BUSINESS)
    row = own(actor, Copy, copy_id)
    if row.state == Copy.WORKING:
        raise Refused(("copy", "It is being worked on; wait until that is done."))
    keeping.throw_away(path_of(row.business_id, row.key))
    row.delete()


def write_now(copy_id: int) -> None:
    """Make a copy; begun again it is made from the beginning."""
    row = Copy.objects.filter(pk=copy_id, state=Copy.WORKING).first()
    if row is None:
        return
    path = path_of(row.business_id, row.key)
    write_copy(row.business_id, path)
    row.state, row.size = Copy.READY, path.stat().st_size
    row.save(update_fields=["state", "size"])


def read_now(copy_id: int) -> None:
    """Make a business anew; begun again it is made from the beginning, since all is written at once."""
    row = Copy.objects.filter(pk=copy_id, state=Copy.WORKING).first()
    if row is None:
        return
    path = path_of(row.business_id, row.key)
    try:
        with transaction.atomic():
            Business.objects.select_for_update().get(pk=row.business_id)
            if not is_empty(row.business_id):
                raise Unreadable("Something was done here meanwhile; a copy goes into an empty business.")
            row.told, row.state = read_copy(row.business_id, path), Copy.READY
            row.save(update_fields=["told", "state"])
    except Unreadable as error:
        row.told, row.state = [str(error)], Copy.FAILED
        row.save(update_fields=["told", "state"])
    keeping.throw_away(path)


def give_up(copy_id: int) -> None:
    """Say of a copy that it could not be worked on to the end; another can be made."""
    row = Copy.objects.filter(pk=copy_id, state=Copy.WORKING).first()
    if row is None:
        return
    what = "made" if row.out else "read"
    row.told = [f"It could not be {what} for hours; whoever runs Intavo finds the reason in its log."]
    row.state = Copy.FAILED
    row.save(update_fields=["told", "state"])
    keeping.throw_away(path_of(row.business_id, row.key))


def clear_away() -> None:
    """Throw away copies that are older than a week."""
    for row in Copy.objects.filter(at__lt=clock.now() - LASTS).exclude(state=Copy.WORKING):
        keeping.throw_away(path_of(row.business_id, row.key))
        row.delete()
