"""The plain insert, the jobs, and the table of beats."""

import smtplib
from datetime import UTC, datetime, timedelta
from types import SimpleNamespace
from typing import Any, cast

import pytest
from asgiref.sync import async_to_sync
from django.core import mail as outbox
from django.core.cache import cache
from django.db import IntegrityError, OperationalError, connection, transaction
from procrastinate import JobContext
from procrastinate.contrib.django import app
from procrastinate.contrib.django.models import ProcrastinateJob
from procrastinate.jobs import Status

from intavo import clock
from intavo.accounts.mails import queue_mail
from intavo.accounts.models import AccountMail
from intavo.accounts.rows import insert
from intavo.core.effects import Effect
from intavo.core.people import email_address
from intavo.mail import actions as mail
from intavo.mail.models import OutgoingMail
from intavo.mail.tasks import account_mail
from intavo.people.models import Address, Person, TimelineEvent
from intavo.project.management.commands.work import LANES
from intavo.project.tasks import clear_cache, clear_jobs, retry_stalled
from intavo.results.actions import make_months
from intavo.results.models import Beat

from .conftest import Visitor, World


def somebody(world: World) -> int:
    """A person."""
    person = insert(Person, business_id=world.business.pk, name="Ife", created_at=clock.now())
    assert person is not None
    return person


def test_a_plain_insert_is_what_the_model_reads_back(otterwick: World) -> None:
    person = somebody(otterwick)
    data = {"typed": [["Name", "Ifé “x” %s"]], "due": None}
    event = insert(
        TimelineEvent,
        business_id=otterwick.business.pk,
        person_id=person,
        at=clock.now(),
        kind="asked",
        member_id=None,
        data=data,
    )
    assert TimelineEvent.objects.get(pk=event).data == data


def test_a_double_gives_none_where_it_is_to_be_skipped_and_raises_elsewhere(otterwick: World) -> None:
    given: dict[str, Any] = {
        "business_id": otterwick.business.pk, "person_id": somebody(otterwick), "kind": "email", "key": "a@x.example",
        "shown": "a@x.example", "domain": "x.example",
    }  # fmt: skip
    assert insert(Address, **given) is not None
    assert insert(Address, skip_doubles=True, **given) is None
    with pytest.raises(IntegrityError), transaction.atomic():
        insert(Address, **given)


def test_every_job_has_a_lane() -> None:
    app.perform_import_paths()  # type: ignore[no-untyped-call]
    queues = [queue for queues, _ in LANES.values() for queue in queues]
    assert len(queues) == len(set(queues))
    assert {task.queue for task in app.tasks.values()} == set(queues)


def test_the_same_mail_is_queued_once_with_one_job_and_one_message_id(otterwick: World) -> None:
    to = email_address("b@x.example")
    first, again = (mail.queue(otterwick.business, to=to, subject="S", text="T", key="k") for _ in range(2))
    assert first == again
    assert ProcrastinateJob.objects.filter(task_name="send_mail", args={"mail_id": first.id}).count() == 1


def test_a_subject_cannot_bring_headers_of_its_own(otterwick: World) -> None:
    queued = mail.queue(
        otterwick.business,
        to=email_address("b@x.example"),
        subject="Hi\r\nBcc: c@x.example",
        text="T",
        key="k",
    )
    mail.send(mail_id=queued.id)
    assert outbox.outbox[0].subject == "Hi Bcc: c@x.example"
    assert outbox.outbox[0].recipients() == ["b@x.example"]


def test_a_mail_that_was_taken_back_does_not_go_out(otterwick: World) -> None:
    queued = mail.queue(
        otterwick.business, to=email_address("b@x.example"), subject="S", text="T", key="k", delay=60
    )
    assert mail.withdraw(business_id=otterwick.business.pk, key="k")
    assert not mail.withdraw(business_id=otterwick.business.pk, key="k")
    mail.send(mail_id=queued.id)
    assert outbox.outbox == []
    assert OutgoingMail.objects.get(pk=queued.id).state == OutgoingMail.SUPPRESSED


def test_an_account_mail_comes_from_intavo_itself_once(db: None) -> None:
    queue_mail(to="new@x.example", subject="Confirm\nthis", text="Link")
    [job] = ProcrastinateJob.objects.filter(task_name="account_mail")
    for _ in range(2):
        account_mail(**job.args)
    [sent] = outbox.outbox
    assert (sent.from_email, sent.subject) == ("Intavo <no-reply@intavo.example>", "Confirm this")


def test_an_account_mail_that_can_never_go_out_is_forgotten_and_any_other_kept(
    db: None, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fails(code: int) -> None:
        def refuse(*_: object) -> None:
            raise smtplib.SMTPRecipientsRefused({"new@x.example": (code, b"no")})

        monkeypatch.setattr(outbox.EmailMessage, "send", refuse)

    queue_mail(to="new@x.example", subject="Confirm", text="Link")
    row = AccountMail.objects.get()
    fails(451)
    with pytest.raises(smtplib.SMTPRecipientsRefused):
        account_mail(row.pk)
    fails(550)
    account_mail(row.pk)
    assert not AccountMail.objects.exists()


def test_jobs_that_a_worker_died_with_are_looked_for_every_minute() -> None:
    assert retry_stalled.name == "retry_stalled"
    assert retry_stalled.queueing_lock == "retry_stalled"


def test_jobs_are_forgotten_a_day_after_they_ended(otterwick: World) -> None:
    def job(status: str, hours: int) -> None:
        pk = app.configure_task("account_mail").defer(mail_id=1)
        with connection.cursor() as cursor:
            cursor.execute("UPDATE procrastinate_jobs SET status = %s WHERE id = %s", [status, pk])
            ago: list[Any] = [timedelta(hours=hours), pk]
            cursor.execute("UPDATE procrastinate_events SET at = now() - %s WHERE job_id = %s", ago)

    for status in (Status.SUCCEEDED, Status.FAILED, Status.TODO, Status.DOING):
        job(status.value, 25)
        job(status.value, 23)
    async_to_sync(clear_jobs.func)(cast("JobContext", SimpleNamespace(app=app)), timestamp=0)
    left = (
        ProcrastinateJob.objects.filter(task_name="account_mail")
        .order_by("pk")
        .values_list("status", flat=True)
    )
    waiting, running = [Status.TODO.value] * 2, [Status.DOING.value] * 2
    assert list(left) == [Status.SUCCEEDED.value, Status.FAILED.value, *waiting, *running]


def test_the_cache_is_cleared_of_what_is_over_and_of_nothing_else(db: None) -> None:
    cache.set("over", 1, 60)
    cache.set("holds", 2, 60)
    with connection.cursor() as cursor:
        cursor.execute("UPDATE cache SET expires = now() - interval '1 minute' WHERE cache_key LIKE '%over'")
        clear_cache(0)
        cursor.execute("SELECT count(*) FROM cache WHERE cache_key LIKE '%over' OR cache_key LIKE '%holds'")
        assert cursor.fetchone() == (1,)
    assert cache.get("holds") == 2


def test_months_of_beats_have_their_partitions_long_before_and_making_them_twice_is_fine(
    otterwick: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    at = datetime(2034, 11, 24, tzinfo=UTC)
    assert make_months(at) == ["results_beat_2034_12", "results_beat_2035_01"]
    assert make_months(at) == []
    monkeypatch.setenv("INTAVO_NOW", "2034-12-03T10:00:00+00:00")
    beat = {"id": "abcdefgh", "touchpoint": otterwick.touchpoint.public_id, "revision": 2, "what": "seen",
            "page": {"url": "https://otterwick.example/Trips/"}, "device": "phone", "at": "2034-12-03T10:00:00Z"}  # fmt: skip
    assert visitor.post("beats", [beat]).status_code == 202
    with connection.cursor() as cursor:
        cursor.execute("SELECT count(*) FROM results_beat_2034_12")
        assert cursor.fetchone() == (1,)
    assert Beat.objects.get(business_id=otterwick.business.pk).page == "/trips"


def test_a_month_whose_beats_have_come_without_a_partition_stays_where_it_is(
    otterwick: World, visitor: Visitor, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("INTAVO_NOW", "2044-12-03T10:00:00+00:00")
    beat = {"id": "abcdefgh", "touchpoint": otterwick.touchpoint.public_id, "revision": 2, "what": "seen",
            "page": {"url": "https://otterwick.example/"}, "device": "phone", "at": "2044-12-03T10:00:00Z"}  # fmt: skip
    assert visitor.post("beats", [beat]).status_code == 202
    assert make_months(datetime(2044, 11, 24, tzinfo=UTC)) == ["results_beat_2045_01"]
    assert Beat.objects.filter(business_id=otterwick.business.pk).count() == 1


def test_making_a_month_waits_for_nobody_for_long(otterwick: World, db: None) -> None:
    at = datetime(2054, 11, 24, tzinfo=UTC)
    elsewhere = connection.copy()
    elsewhere.set_autocommit(False)
    try:
        with elsewhere.cursor() as cursor:
            cursor.execute("LOCK TABLE results_beat_rest IN ROW EXCLUSIVE MODE")
        with pytest.raises(OperationalError), transaction.atomic():
            make_months(at, 1)
    finally:
        elsewhere.close()


def test_an_effect_tells_each_handler_once_and_in_order() -> None:
    told: list[str] = []
    effect: Effect[str] = Effect("something happened")

    def first(what: str) -> None:
        told.append(f"first {what}")

    effect.register(first)
    effect.register(first)
    effect.register(lambda what: told.append(f"second {what}"))
    effect.tell("x")
    assert told == ["first x", "second x"]


def test_the_clock_needs_an_offset(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("INTAVO_NOW", "2026-11-24T14:05:00")
    with pytest.raises(ValueError, match="offset"):
        clock.now()
    monkeypatch.setenv("INTAVO_NOW", "")
    assert clock.fixed() is None
    assert clock.now().tzinfo is UTC
