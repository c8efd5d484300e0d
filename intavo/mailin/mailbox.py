"""A mailbox that is read by IMAP, for whom a mail host cannot post what comes in. Source: RFC 3501."""

import imaplib
import re
import socket
import ssl
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from typing import Any

from django.conf import settings
from django.db import transaction

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.secrets import sealed, unsealed
from intavo.apart import Busy
from intavo.core.mailin import TooBig
from intavo.core.mailin.model import MOST_BYTES
from intavo.core.rights import Right
from intavo.mail.actions import mail_in_of
from intavo.talks.gateways import GatewayAway, places_of

from .actions import take_in
from .models import Mailbox

AT_ONCE, WAITS = 50, 20.0
# Seconds over the whole, however the host drips: while somebody waits for it, and as a job.
TRIED_WITHIN, READ_WITHIN = 15.0, 120.0
# So many are tried at a time by a process of the application, and one for a business.
_MOST_TRIED = 2
_tried: set[int] = set()
_trying = threading.Lock()


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
        with turn(actor.business_id), _opened(row, TRIED_WITHIN):
            pass
    except Away as error:
        raise Refused(("host", str(error))) from error
    with transaction.atomic():
        Mailbox.objects.filter(business_id=actor.business_id).delete()
        row.save()
        actor.noted("mailbox set", user=user, host=host)
    return row


@contextmanager
def turn(business_id: int) -> Iterator[None]:
    """Whoever asks while too many are being tried is told so, and holds up nobody."""
    with _trying:
        if business_id in _tried or len(_tried) >= _MOST_TRIED:
            raise Away("Another mailbox is being tried just now; please try again in a moment.")
        _tried.add(business_id)
    try:
        yield
    finally:
        with _trying:
            _tried.discard(business_id)


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
        with _opened(row, READ_WITHIN) as box:
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
    except Busy:
        raise Away("Other mails are being read; it goes on in a minute.") from None


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


@contextmanager
def _within(seconds: float) -> Iterator[Callable[[socket.socket], None]]:
    """Ends the connections that are named to it once so many seconds are over, whatever still comes: the
    time-out of a connection begins anew with each byte.
    """
    ends: list[socket.socket] = []
    over = threading.Event()

    def end() -> None:
        over.set()
        for one in ends:
            with suppress(OSError):
                one.shutdown(socket.SHUT_RDWR)

    def named(connection: socket.socket) -> None:
        # Another handle of the same connection: encrypting it takes the first away.
        ends.append(connection.dup())
        if over.is_set():
            end()

    timer = threading.Timer(seconds, end)
    timer.daemon = True
    timer.start()
    try:
        yield named
    finally:
        timer.cancel()
        for one in ends:
            one.close()


class _Plain(imaplib.IMAP4):
    """A connection that somebody is told of as soon as it is there."""

    def __init__(self, host: str, port: int, named: Callable[[socket.socket], None]) -> None:
        self._named = named
        super().__init__(host, port, timeout=WAITS)

    def _create_socket(self, timeout: float | None) -> socket.socket:
        connection = socket.create_connection((self.host, self.port), timeout)
        self._named(connection)
        return connection


class _Sealed(_Plain):
    """The same, encrypted from the first byte."""

    def __init__(
        self, host: str, port: int, named: Callable[[socket.socket], None], context: ssl.SSLContext
    ) -> None:
        self._context = context
        super().__init__(host, port, named)

    def _create_socket(self, timeout: float | None) -> socket.socket:
        return self._context.wrap_socket(super()._create_socket(timeout), server_hostname=self.host)


class _OfHost(ssl.SSLContext):
    """Holds whoever is called by number to the certificate of a host."""

    host = ""

    def wrap_socket(self, sock: socket.socket, *about: Any, **more: Any) -> ssl.SSLSocket:
        """The same as ever, for the host's own name."""
        return super().wrap_socket(sock, *about, **{**more, "server_hostname": self.host})


def _called(row: Mailbox, places: list[str], named: Callable[[socket.socket], None]) -> imaplib.IMAP4:
    """The mail host, at the first of its places that answers; raises OSError where none does."""
    if row.host in settings.LOCAL_GATEWAYS:
        return _Plain(row.host, row.port, named)
    context = _OfHost(ssl.PROTOCOL_TLS_CLIENT)
    context.host = row.host
    context.load_default_certs()
    for number, place in enumerate(places, 1):
        try:
            return _Sealed(place, row.port, named, context)
        except (ConnectionError, TimeoutError):
            if number == len(places):
                raise
    raise AssertionError("unreachable")


@contextmanager
def _opened(row: Mailbox, seconds: float) -> Iterator[imaplib.IMAP4]:
    """A mailbox that is open, for so many seconds at most. Raises Away."""
    with _within(seconds) as named:
        try:
            places = places_of(row.host, row.port)
            if not places:
                raise Away("This address is inside this network, where no mailbox is read.")
            box = _called(row, places, named)
        except GatewayAway as error:
            raise Away(f"This mail host cannot be reached: {error}.") from None
        except (OSError, imaplib.IMAP4.error) as error:
            raise Away(f"This mail host does not answer: {str(error)[:200]}") from None
        try:
            _let_in(box, row)
            yield box
        finally:
            with suppress(imaplib.IMAP4.error, OSError):
                box.logout()


def _let_in(box: imaplib.IMAP4, row: Mailbox) -> None:
    try:
        box.login(row.user, unsealed(row.password))
    except imaplib.IMAP4.abort:
        raise Away("This mail host takes too long to answer.") from None
    except (imaplib.IMAP4.error, OSError):
        raise Away("The mail host does not let this name in with this password.") from None
    quoted = row.folder.replace("\\", "\\\\").replace('"', '\\"')
    try:
        answered, _ = box.select(f'"{quoted}"')
    except (imaplib.IMAP4.error, OSError):
        answered = "NO"
    if answered != "OK":
        raise Away(f"There is no folder “{row.folder}” in this mailbox.")
