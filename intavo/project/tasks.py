"""Jobs about jobs: those that a worker died with are tried again, those that are over are forgotten."""

from contextlib import suppress
from typing import Any

from django.conf import settings
from django.db import connection
from procrastinate import JobContext
from procrastinate.contrib.django import app
from procrastinate.exceptions import ConnectorException
from procrastinate.manager import JobManager


@app.periodic(cron="* * * * *")
@app.task(name="retry_stalled", queueing_lock="retry_stalled", pass_context=True)
async def retry_stalled(context: JobContext, /, timestamp: int, **_: Any) -> None:
    """Try jobs again whose worker has not been heard of for a while. A worker does so by itself as well, more
    often.
    """
    await retry_jobs_of_the_dead(context.app.job_manager)


async def retry_jobs_of_the_dead(manager: JobManager) -> None:
    """Try jobs again whose worker has not been heard of for three of its heartbeats."""
    for job in await manager.get_stalled_jobs(seconds_since_heartbeat=3 * settings.HEARTBEAT_SECONDS):
        # Another worker may have been quicker.
        with suppress(ConnectorException):
            await manager.retry_job(job)


KEPT_HOURS = 24


@app.periodic(cron="41 * * * *")
@app.task(name="clear_jobs", queueing_lock="clear_jobs", pass_context=True)
async def clear_jobs(context: JobContext, /, timestamp: int, **_: Any) -> None:
    """Forget jobs a day after they ended, however they did, with what they were given: addresses and links
    among it.
    """
    await context.app.job_manager.delete_old_jobs(
        nb_hours=KEPT_HOURS, include_failed=True, include_cancelled=True, include_aborted=True
    )


@app.periodic(cron="29 * * * *")
@app.task(name="clear_cache", queueing_lock="clear_cache")
def clear_cache(timestamp: int) -> None:
    """Forget what the cache holds no longer; it does so by itself only when it is full."""
    with connection.cursor() as cursor:
        cursor.execute("DELETE FROM cache WHERE expires < now()")
