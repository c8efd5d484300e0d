"""The machine's clock went ahead and is set back: nothing waits for the time that was too early."""

import asyncio
import os
import signal
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from asgiref.sync import sync_to_async
from django.conf import settings
from django.db import connection
from procrastinate import PsycopgConnector
from procrastinate.contrib.django import app
from procrastinate.contrib.django.models import ProcrastinateJob
from procrastinate.contrib.django.utils import connector_params
from procrastinate.jobs import Status

from intavo.intake.models import Submission
from intavo.project import set_back
from intavo.project.management.commands.work import run
from intavo.talks.models import Talk
from intavo.talks.queries import is_there, poll

from .conftest import Visitor, World, sending
from .test_talks import begin, say

AHEAD = timedelta(hours=6)


async def _is_done(pk: int) -> None:
    for _ in range(400):
        row = await ProcrastinateJob.objects.aget(pk=pk)
        if row.status == Status.SUCCEEDED.value:
            return
        await asyncio.sleep(0.05)
    raise AssertionError(f"the job is still {row.status}, for {row.scheduled_at}")


@pytest.mark.django_db(transaction=True, available_apps=settings.INSTALLED_APPS)
def test_jobs_and_what_happens_each_minute_wait_for_no_clock_that_was_ahead(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    seconds = [AHEAD.total_seconds()]
    monkeypatch.setattr(set_back, "LOOKS_EVERY_SECONDS", 0.2)
    monkeypatch.setattr(set_back, "_ahead", lambda: seconds[0])
    too_early = datetime.now(UTC) + AHEAD - timedelta(minutes=1)
    waiting = app.configure_task("account_mail", schedule_at=too_early).defer(mail_id=1)

    def minutes(ahead: bool) -> int:
        with connection.cursor() as cursor:
            cursor.execute(
                "SELECT count(*) FROM procrastinate_periodic_defers WHERE task_name = 'retry_stalled'"
                " AND (defer_timestamp > extract(epoch FROM now())) = %s",
                [ahead],
            )
            return int(cursor.fetchone()[0])

    with connection.cursor() as cursor:
        cursor.execute("DELETE FROM procrastinate_periodic_defers")
        cursor.execute(
            "INSERT INTO procrastinate_periodic_defers (task_name, defer_timestamp) VALUES (%s, %s)",
            ["retry_stalled", int(too_early.timestamp())],
        )

    async def works(working: Any) -> None:
        running = asyncio.ensure_future(run(working))
        await asyncio.sleep(0.6)
        assert (await ProcrastinateJob.objects.aget(pk=waiting)).status == Status.TODO.value
        seconds[0] = 0.0
        await _is_done(waiting)
        assert await sync_to_async(minutes)(ahead=True) == 0
        assert await sync_to_async(minutes)(ahead=False) > 0
        os.kill(os.getpid(), signal.SIGTERM)
        await asyncio.wait_for(running, 20)

    with app.replace_connector(PsycopgConnector(kwargs=connector_params(), max_size=8)) as working:
        asyncio.run(works(working))


def test_a_clock_that_is_kept_right_little_by_little_is_followed(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(set_back, "LOOKS_EVERY_SECONDS", 0.0)
    # Forward by hours, a second back, and then back by more than a minute.
    readings = iter([0.0, 7200.0, 7199.0, 7198.0, 3600.0])
    monkeypatch.setattr(set_back, "_ahead", lambda: next(readings))
    assert asyncio.run(set_back.set_back()) == 3600.0


def test_what_was_kept_while_the_clock_was_ahead_holds_up_nobody(talking: World, visitor: Visitor) -> None:
    talk = begin(talking, visitor)["talk"]
    for number in range(10):
        say(visitor, talk, number, text="again")
    assert say(visitor, talk, 99, text="again").status_code == 429
    for number in range(20):
        visitor.post("intake", sending(talking.touchpoint, number, answers={"email": f"p{number}@x.example"}))
    with connection.cursor() as cursor:
        for what in (
            "talks_message SET stored_at",
            "intake_submission SET stored_at",
            "talks_talk SET seen_at",
        ):
            cursor.execute(f"UPDATE {what} = now() + interval '6 hours'")
    row = Talk.objects.get()
    assert not is_there(row)
    assert say(visitor, talk, 99, text="again").status_code == 201
    kept = Submission.objects.count()
    again = visitor.post("intake", sending(talking.touchpoint, 99, answers={"email": "p99@x.example"}))
    assert (again.status_code, Submission.objects.count()) == (201, kept + 1)


def test_nobody_types_for_hours(talking: World, visitor: Visitor) -> None:
    begin(talking, visitor)
    row, at = Talk.objects.get(), datetime.now(UTC)

    def types(until: datetime) -> bool:
        Talk.objects.update(typing_until=until, last_word_at=at)
        polled = poll(row.site_id or 0, row.token, 0, at)
        assert polled is not None
        return polled.typing

    assert types(at + timedelta(seconds=7))
    assert not types(at)
    assert not types(at + AHEAD)
