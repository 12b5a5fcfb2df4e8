"""``python -m stairpath.jobs.worker``: takes jobs from the queue until it is stopped."""

from __future__ import annotations

import asyncio

from stairpath.core.reading.shares import cores
from stairpath.jobs import tasks
from stairpath.jobs.queue import app


async def run() -> None:
    """Work on as many jobs at a time as there are cores."""
    async with app.open_async():
        await tasks.take_up(app.job_manager)
        await asyncio.to_thread(tasks.defer_left_behind)
        await app.run_worker_async(concurrency=cores(), fetch_job_polling_interval=2.0, shutdown_graceful_timeout=2.0)


if __name__ == "__main__":
    asyncio.run(run())
