"""Jobs about jobs: those that a worker died with are tried again."""

from typing import Any

from procrastinate import JobContext
from procrastinate.contrib.django import app


@app.periodic(cron="* * * * *")
@app.task(name="retry_stalled", queueing_lock="retry_stalled", pass_context=True)
async def retry_stalled(context: JobContext, /, timestamp: int, **_: Any) -> None:
    """Try jobs again whose worker has not been heard of for half a minute."""
    manager = context.app.job_manager
    for job in await manager.get_stalled_jobs(seconds_since_heartbeat=30):
        await manager.retry_job(job)
