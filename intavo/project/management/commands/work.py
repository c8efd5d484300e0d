"""`manage.py work`: the process that runs jobs, in lanes,
so that a slow host outside holds up nothing else.
"""

import asyncio
import signal
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand
from procrastinate import App, PsycopgConnector
from procrastinate.contrib.django import app
from procrastinate.contrib.django.utils import connector_params
from procrastinate.exceptions import ConnectorException

from intavo.project.set_back import put_right, set_back
from intavo.project.tasks import retry_jobs_of_the_dead

# Which queues share a lane, and how many of their jobs run at a time. A mail server, a mailbox or a messaging
# service that does not answer can take up its own lane alone.
LANES = {"mail": (("mail",), 4), "outside": (("gateway", "mailbox"), 4), "house": (("default", "builtin"), 2)}
STOPS_WITHIN_SECONDS = 25
# How often a lane looks for jobs whose time has come; of those that are due at once it is told.
LOOKS_EVERY_SECONDS = 1.0


class Command(BaseCommand):
    """Run jobs until told to stop; what is begun is ended first."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Run until SIGTERM or SIGINT; a lane that fails ends all, for whoever started this to begin anew."""
        # Each lane listens on a connection of its own; the others are for taking jobs and for saying how they
        # ended.
        with app.replace_connector(
            PsycopgConnector(kwargs=connector_params(), max_size=len(LANES) + 5)
        ) as working:
            asyncio.run(run(working))


async def run(working: App) -> None:
    """All lanes at once. They begin anew where the clock is set back, since what happens each minute is
    reckoned from the minute that was last.
    """
    stopping = asyncio.Event()
    loop = asyncio.get_running_loop()
    # Jobs run in threads. The loop's own few (four more than there are processors) would be shared by all
    # lanes: on a small machine two lanes whose hosts do not answer took them all, and the third stood still.
    loop.set_default_executor(ThreadPoolExecutor(max_workers=threads_needed(), thread_name_prefix="job"))
    for number in (signal.SIGTERM, signal.SIGINT):
        loop.add_signal_handler(number, stopping.set)
    async with working.open_async():
        while not stopping.is_set():
            back = await _until_set_back(working, stopping)
            if back:
                await put_right(working, back)


async def _begin_again(working: App) -> None:
    """What a worker died with is begun again soon after it is known to be dead, not at the next minute."""
    while True:
        await asyncio.sleep(settings.HEARTBEAT_SECONDS)
        # While the database is away there is nothing to be begun; the lanes say so.
        with suppress(ConnectorException):
            await retry_jobs_of_the_dead(working.job_manager)


def threads_needed() -> int:
    """As many as jobs run at a time in all lanes together, and a few for what the worker itself does."""
    return sum(at_once for _, at_once in LANES.values()) + 4


async def _until_set_back(working: App, stopping: asyncio.Event) -> float:
    """Run all lanes until told to stop, or until the clock is set back; says by how many seconds. A lane that
    fails ends all, and its error is raised.
    """
    lanes = [
        asyncio.ensure_future(
            working.run_worker_async(
                name=name,
                queues=list(queues),
                concurrency=at_once,
                fetch_job_polling_interval=LOOKS_EVERY_SECONDS,
                update_heartbeat_interval=settings.HEARTBEAT_SECONDS,
                stalled_worker_timeout=3 * settings.HEARTBEAT_SECONDS,
                install_signal_handlers=False,
                shutdown_graceful_timeout=STOPS_WITHIN_SECONDS,
            )
        )
        for name, (queues, at_once) in LANES.items()
    ]
    told, back = asyncio.ensure_future(stopping.wait()), asyncio.ensure_future(set_back())
    begun_again = asyncio.ensure_future(_begin_again(working))
    done, _ = await asyncio.wait([*lanes, told, back], return_when=asyncio.FIRST_COMPLETED)
    for one in (*lanes, told, back, begun_again):
        one.cancel()
    await asyncio.gather(*lanes, told, back, begun_again, return_exceptions=True)
    for lane in lanes:
        if lane in done and not lane.cancelled() and (error := lane.exception()):
            raise error
    if any(lane in done for lane in lanes):
        stopping.set()
    return back.result() if back in done else 0
