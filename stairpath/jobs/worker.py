"""``python -m stairpath.jobs.worker``: takes jobs from the queue until it is stopped."""

from __future__ import annotations

import asyncio
import os
import signal
import sys
from collections.abc import Awaitable, Callable
from contextlib import suppress
from dataclasses import asdict
from typing import Any

import structlog
from procrastinate import JobContext
from procrastinate.exceptions import ConnectorException
from procrastinate.worker import Worker

from stairpath.core.reading.shares import cores
from stairpath.jobs import tasks
from stairpath.jobs.queue import app
from stairpath.logs import as_json_lines
from stairpath.settings import settings
from stairpath.store.database import UNREACHABLE
from stairpath.work.base import emptying
from stairpath.work.people import post
from stairpath.work.tasks import reconcile

log = structlog.get_logger()

_BEAT_S = 4.0
_LOOK_ROUND_S = 5.0
_FORGET_ROUNDS = 720
_LOST_S = 3 * _BEAT_S

_NO_DATABASE: tuple[type[Exception], ...] = (*UNREACHABLE, ConnectorException)

assert tasks  # registers the jobs


class Watch:
    """Which jobs this worker has in hand, and a round every few seconds for what nobody has in hand."""

    def __init__(self) -> None:
        self.running: set[int] = set()
        self.unsure: set[int] = set()
        """In hand at the last round: a job that has just ended may still be written down as running."""
        self.worker: int | None = None

    async def note(self, go_on: Callable[[], Awaitable[Any]], context: JobContext, worker: Worker) -> Any:
        """Note a job while it runs."""
        self.worker = worker.worker_id
        job = context.job.id or 0
        self.running.add(job)
        try:
            return await go_on()
        finally:
            self.running.discard(job)
            self.unsure.add(job)

    def _round(self) -> bool:
        """One round; False once the queue counts this worker as dead, so that others take its jobs."""
        in_hand = [*self.running, *self.unsure]
        self.unsure.clear()
        if self.worker is not None and not reconcile.is_known_alive(self.worker, _LOST_S):
            return False
        reconcile.take_up(settings().worker_silence_s, self.worker, in_hand)
        reconcile.find_work()
        return True

    async def look_round(self) -> None:
        """Rounds until the queue counts this worker as dead; while the database is away they are left out."""
        rounds = 0
        while True:
            try:
                if not await asyncio.to_thread(self._round):
                    log.warning("this worker's heart has stopped; it ends")
                    return
                if rounds % _FORGET_ROUNDS == 0:
                    await asyncio.to_thread(reconcile.forget)
                    await asyncio.to_thread(post.forget)
                    log.info("removed for good", **asdict(await asyncio.to_thread(emptying.empty)))
            except UNREACHABLE as error:
                log.warning("the database is away", reason=repr(error))
            except Exception:  # a round that goes wrong is no reason to take no more jobs
                log.exception("a round for work went wrong")
            rounds += 1
            await asyncio.sleep(_LOOK_ROUND_S)

    async def send_mail(self) -> None:
        """Send the mails whose time has come, for good; apart from the rounds, as a server for mail may be slow."""
        while True:
            try:
                await asyncio.to_thread(post.send_waiting)
            except UNREACHABLE as error:
                log.warning("the database is away", reason=repr(error))
            except Exception:  # as with the rounds
                log.exception("mails could not be sent")
            await asyncio.sleep(_LOOK_ROUND_S)

    def hand_back(self) -> None:
        """Put the jobs in hand back on the queue at once, as nobody will end them here."""
        if self.worker is not None:
            reconcile.take_up(settings().worker_silence_s, self.worker, [])


async def run() -> int:
    """Work on as many jobs at a time as there are cores; 0 when asked to stop, 1 where it could not go on."""
    stop = asyncio.Event()
    for wish in (signal.SIGTERM, signal.SIGINT):
        asyncio.get_running_loop().add_signal_handler(wish, stop.set)
    watch = Watch()
    async with app.open_async():
        working = asyncio.create_task(
            app.run_worker_async(
                concurrency=cores(),
                fetch_job_polling_interval=2.0,
                update_heartbeat_interval=_BEAT_S,
                stalled_worker_timeout=settings().worker_silence_s,
                worker_middleware=[watch.note],
                install_signal_handlers=False,
            )
        )
        rounds = asyncio.create_task(watch.look_round())
        mails = asyncio.create_task(watch.send_mail())
        asked = asyncio.create_task(stop.wait())
        await asyncio.wait({working, rounds, mails, asked}, return_when=asyncio.FIRST_COMPLETED)
        if working.done() and (error := working.exception()) is not None:
            log.warning("the worker cannot go on", reason=repr(error))
        with suppress(*UNREACHABLE):
            await asyncio.to_thread(watch.hand_back)
        # Jobs run in threads that wait for their children; ended outright, they are taken up again.
        sys.stdout.flush()
        os._exit(0 if stop.is_set() else 1)


def main() -> int:
    """Run until stopped; 1 where the database is away, so that the process that watches it starts it again."""
    as_json_lines()
    try:
        return asyncio.run(run())
    except _NO_DATABASE as error:
        log.warning("the worker ends, the database is away", reason=repr(error))
        return 1


if __name__ == "__main__":
    sys.exit(main())
