"""A mailbox that is read by IMAP, for whom a mail host cannot post what comes in. Source: RFC 3501."""

import imaplib
import re
import socket
import ssl
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from typing import Any

from django.conf import settings
from django.db import transaction

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.secrets import sealed, unsealed
from intavo.core.mailin import TooBig
from intavo.core.mailin.model import MOST_BYTES
from intavo.core.rights import Right
from intavo.talks.gateways import GatewayAway, places_of

from .actions import mail_in_of, take_in
from .models import Mailbox

AT_ONCE, WAITS = 50, 20.0


class Away(Exception):
    """The mailbox cannot be read now; the words say why."""


def set_mailbox(actor: Actor, *, host: str, port: int, user: str, password: str, folder: str) -> Mailbox:
    """Have a mailbox read from now on. Refused where it cannot be opened; "" as password keeps the one
    before.
    """
    actor.needs(Right.BUSINESS)
    host, user, folder = host.strip().lower(), user.strip(), folder.strip() or "INBOX"
    if not re.fullmatch(r"[a-z0-9.-]{1,253}", host):
        raise Refused(("host", "Write the name of the mail host, like imap.example.org."))
    if not 1 <= port <= 65535:
        raise Refused(("port", "A port is from 1 to 65535."))
    known = Mailbox.objects.filter(business_id=actor.business_id).first()
    kept = sealed(password) if password else (known.password if known else "")
    if not user or not kept:
        raise Refused(("user" if not user else "password", "Please write something here."))
    row = Mailbox(
        business_id=actor.business_id, host=host, port=port, user=user, password=kept, folder=folder
    )
    try:
        with _opened(row):
            pass
    except Away as error:
        raise Refused(("host", str(error))) from error
    with transaction.atomic():
        Mailbox.objects.filter(business_id=actor.business_id).delete()
        row.save()
        actor.noted("mailbox set", user=user, host=host)
    return row


def drop_mailbox(actor: Actor) -> None:
    """Read the mailbox no more."""
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        if Mailbox.objects.filter(business_id=actor.business_id).delete()[0]:
            actor.noted("mailbox left")


def read_mailbox(mailbox_id: int) -> int:
    """Take in what is new in a mailbox, and mark it as seen once it is in; says how many mails that were.

    What goes wrong is kept with the mailbox, for its owner to read.
    """
    row = Mailbox.objects.filter(pk=mailbox_id).first()
    if row is None:
        return 0
    secret, taken, wrong = mail_in_of(row.business_id).secret, 0, ""
    try:
        with _opened(row) as box:
            for number in _new(box):
                raw = _mail(box, number)
                if raw and _taken_in(raw, secret):
                    taken += 1
                box.uid("STORE", number, "+FLAGS", "(\\Seen)")
    except Away as error:
        wrong = str(error)
    except (imaplib.IMAP4.error, OSError) as error:
        wrong = f"It stopped in the middle: {str(error)[:200]}"
    Mailbox.objects.filter(pk=row.pk).update(wrong=wrong[:300], read_at=clock.now())
    return taken


def _taken_in(raw: bytes, secret: str) -> bool:
    try:
        return take_in(raw, clock.now(), secret=secret) is not None
    except TooBig:
        return False


def _new(box: imaplib.IMAP4) -> list[str]:
    _, found = box.uid("SEARCH", "UNSEEN")
    return [one.decode() for one in (found[0] or b"").split()][:AT_ONCE]


def _mail(box: imaplib.IMAP4, number: str) -> bytes:
    """A mail as it came; nothing for one that is too large or is gone."""
    _, size = box.uid("FETCH", number, "(RFC822.SIZE)")
    said = re.search(rb"RFC822\.SIZE (\d+)", size[0] if size and isinstance(size[0], bytes) else b"")
    if said is None or int(said[1]) > MOST_BYTES:
        return b""
    _, found = box.uid("FETCH", number, "(BODY.PEEK[])")
    raw = next((one[1] for one in found if isinstance(one, tuple)), b"")
    return raw if len(raw) <= MOST_BYTES else b""


class _OfHost(ssl.SSLContext):
    """Holds whoever is called by number to the certificate of a host."""

    host = ""

    def wrap_socket(self, sock: socket.socket, *about: Any, **more: Any) -> ssl.SSLSocket:
        """The same as ever, for the host's own name."""
        return super().wrap_socket(sock, *about, **{**more, "server_hostname": self.host})


def _called(row: Mailbox, places: list[str]) -> imaplib.IMAP4:
    """The mail host, at the first of its places that answers; raises OSError where none does."""
    if row.host in settings.LOCAL_GATEWAYS:
        return imaplib.IMAP4(row.host, row.port, timeout=WAITS)
    context = _OfHost(ssl.PROTOCOL_TLS_CLIENT)
    context.host = row.host
    context.load_default_certs()
    for number, place in enumerate(places, 1):
        try:
            return imaplib.IMAP4_SSL(place, row.port, timeout=WAITS, ssl_context=context)
        except (ConnectionError, TimeoutError):
            if number == len(places):
                raise
    raise AssertionError("unreachable")


@contextmanager
def _opened(row: Mailbox) -> Iterator[imaplib.IMAP4]:
    try:
        places = places_of(row.host, row.port)
        if not places:
            raise Away("This address is inside this network, where no mailbox is read.")
        box = _called(row, places)
    except GatewayAway as error:
        raise Away(f"This mail host cannot be reached: {error}.") from None
    except (OSError, imaplib.IMAP4.error) as error:
        raise Away(f"This mail host does not answer: {str(error)[:200]}") from None
    try:
        try:
            box.login(row.user, unsealed(row.password))
        except (imaplib.IMAP4.error, OSError):
            raise Away("The mail host does not let this name in with this password.") from None
        quoted = row.folder.replace("\\", "\\\\").replace('"', '\\"')
        try:
            answered, _ = box.select(f'"{quoted}"')
        except (imaplib.IMAP4.error, OSError):
            answered = "NO"
        if answered != "OK":
            raise Away(f"There is no folder “{row.folder}” in this mailbox.")
        yield box
    finally:
        with suppress(imaplib.IMAP4.error, OSError):
            box.logout()
