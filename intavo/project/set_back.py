"""The machine's clock is set back: what was to happen by a clock that went ahead happens all the same."""

import asyncio
import logging
import time

from procrastinate import App
from procrastinate.jobs import Status

_log = logging.getLogger(__name__)
LOOKS_EVERY_SECONDS = 10.0
# Less than this is the usual work of keeping a clock right, and delays nothing that anybody waits for.
BACK_BY_SECONDS = 60.0


def _ahead() -> float:
    return time.time() - time.monotonic()


async def set_back() -> float:
    """Wait until the clock is set back; says by how many seconds. Set forward, it is followed."""
    before = _ahead()
    while True:
        await asyncio.sleep(LOOKS_EVERY_SECONDS)
        now = _ahead()
        if now < before - BACK_BY_SECONDS:
            return before - now
        before = max(before, now)


async def put_right(working: App, seconds: float) -> None:
    """Jobs wait no longer than they would have, and those of each minute are made again for the minutes that
    come once more.
    """
    _log.warning("the clock was set back by %.0f s; jobs are put right", seconds)
    await working.connector.execute_query_async(
        "UPDATE procrastinate_jobs SET scheduled_at = scheduled_at - make_interval(secs => %(seconds)s)"
        " WHERE status = %(waiting)s AND scheduled_at > now()",
        seconds=seconds,
        waiting=Status.TODO.value,
    )
    await working.connector.execute_query_async(
        "DELETE FROM procrastinate_periodic_defers WHERE defer_timestamp > extract(epoch FROM now())"
    )
