"""`manage.py work`: the process that runs jobs, in lanes,
so that a slow host outside holds up nothing else.
"""

import asyncio
import signal
from typing import Any

from django.core.management.base import BaseCommand
from procrastinate import App, PsycopgConnector
from procrastinate.contrib.django import app
from procrastinate.contrib.django.utils import connector_params

from intavo.project.set_back import put_right, set_back

# Which queues share a lane, and how many of their jobs run at a time. A mail server, a mailbox or a messaging
# service that does not answer can take up its own lane alone.
LANES = {"mail": (("mail",), 4), "outside": (("gateway", "mailbox"), 4), "house": (("default", "builtin"), 2)}
STOPS_WITHIN_SECONDS = 25


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
    for number in (signal.SIGTERM, signal.SIGINT):
        loop.add_signal_handler(number, stopping.set)
    async with working.open_async():
        while not stopping.is_set():
            back = await _until_set_back(working, stopping)
            if back:
                await put_right(working, back)


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
                install_signal_handlers=False,
                shutdown_graceful_timeout=STOPS_WITHIN_SECONDS,
            )
        )
        for name, (queues, at_once) in LANES.items()
    ]
    told, back = asyncio.ensure_future(stopping.wait()), asyncio.ensure_future(set_back())
    done, _ = await asyncio.wait([*lanes, told, back], return_when=asyncio.FIRST_COMPLETED)
    for one in (*lanes, told, back):
        one.cancel()
    await asyncio.gather(*lanes, told, back, return_exceptions=True)
    for lane in lanes:
        if lane in done and not lane.cancelled() and (error := lane.exception()):
            raise error
    if any(lane in done for lane in lanes):
        stopping.set()
    return back.result() if back in done else 0
