"""Writes on codes and on the secret address of a touchpoint's answers."""

import csv
import io
import secrets

from django.db import connection, transaction

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.core.rights import Right

from ..models import CodeToGive
from .editing import locked

MOST_CODES = 100_000


def add_codes(actor: Actor, *, touchpoint_id: int, text: str) -> tuple[int, int]:
    """Add codes from pasted lines or CSV (its first column); says how many are new, and how many were there.

    Raises Refused that names the line of a code that is too long.
    """
    found: dict[str, int] = {}
    for number, row in enumerate(csv.reader(io.StringIO(text)), 1):
        code = row[0].strip() if row else ""
        if len(code) > 80:
            raise Refused(("codes", f"Line {number}: a code has at most 80 characters."))
        if code and not (number == 1 and code.casefold() in {"code", "codes"}):
            found.setdefault(code, number)
    if not found:
        raise Refused(("codes", "There is no code in this."))
    if len(found) > MOST_CODES:
        raise Refused(("codes", f"At most {MOST_CODES:,} codes at once, please."))
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        before = touchpoint.codes.count()
        CodeToGive.objects.bulk_create(
            [CodeToGive(business_id=actor.business_id, touchpoint=touchpoint, code=code) for code in found],
            ignore_conflicts=True,
            batch_size=5000,
        )
        added = touchpoint.codes.count() - before
        actor.noted("codes added", touchpoint=touchpoint.public_id, name=touchpoint.name, codes=added)
    return added, len(found) - added


def drop_codes(actor: Actor, *, touchpoint_id: int) -> int:
    """Throw away the codes that nobody has been given; says how many."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        gone, _ = touchpoint.codes.filter(given_at=None).delete()
        actor.noted("codes thrown away", touchpoint=touchpoint.public_id, name=touchpoint.name, codes=gone)
    return gone


# SKIP LOCKED: of many at once each takes a row of its own, and nobody waits.
_TAKE = """
UPDATE touchpoints_codetogive SET given_at = %s, given_to = %s
WHERE id = (SELECT id FROM touchpoints_codetogive WHERE touchpoint_id = %s AND given_at IS NULL
            ORDER BY id LIMIT 1 FOR UPDATE SKIP LOCKED)
RETURNING code
"""


def give_code(actor: Actor, *, touchpoint_id: int, to: str) -> str | None:
    """The next code of the list, never the same twice; whoever has one already gets that again. None: none is
    left.

    `to` says who: "person:7", or "visitor:…" where nobody has said who they are.
    """
    actor.needs(Right.VISIT)
    with transaction.atomic(), connection.cursor() as cursor:
        # Two requests of one, at once: the second finds what the first was given.
        cursor.execute(
            "SELECT pg_advisory_xact_lock(hashtextextended(%s, %s))", [f"code {to}"[:80], touchpoint_id]
        )
        rows = CodeToGive.objects.filter(touchpoint_id=touchpoint_id, given_to=to[:80])
        known = rows.values_list("code", flat=True).first()
        if known is not None:
            return known
        cursor.execute(_TAKE, [clock.now(), to[:80], touchpoint_id])
        row = cursor.fetchone()
    return str(row[0]) if row else None


def csv_address(actor: Actor, *, touchpoint_id: int) -> str:
    """A new secret for the address of the answers; the one before works no longer."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        touchpoint.csv_token = secrets.token_urlsafe(24)
        touchpoint.save(update_fields=["csv_token"])
        actor.noted("CSV address made", touchpoint=touchpoint.public_id, name=touchpoint.name)
    return touchpoint.csv_token


def revoke_csv(actor: Actor, *, touchpoint_id: int) -> None:
    """The answers have no address any more."""
    with transaction.atomic():
        touchpoint = locked(actor, touchpoint_id)
        touchpoint.csv_token = None
        touchpoint.save(update_fields=["csv_token"])
        actor.noted("CSV address revoked", touchpoint=touchpoint.public_id, name=touchpoint.name)
