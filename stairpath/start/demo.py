"""``python -m stairpath.start.demo``: one command from nothing to the demo in the browser."""

from __future__ import annotations

import argparse
import os
import signal
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from stairpath.start.postgres import CannotStartError, Cluster, free_port, is_free
from stairpath.start.processes import Left, OneOnly, Watched, watching

FIRST_WEB_PORT = 8400
_ROOT = Path(__file__).resolve().parents[2]
_STOPPING_S = 60.0
_FIRST_ANSWER_S = 120.0


def say(text: str) -> None:
    sys.stdout.write(text + "\n")
    sys.stdout.flush()


def _answers(address: str) -> bool:
    try:
        with urllib.request.urlopen(f"{address}/api/health", timeout=2) as answer:
            return bool(answer.status == 200)
    except (urllib.error.URLError, OSError):
        return False


def alone(var: Path) -> OneOnly | str:
    """The lock of this folder, or the address of the Stair Path that runs from it already.

    Waits while an earlier one is still starting or stopping; raises CannotStartError where that takes too long.
    """
    lock, mark = OneOnly(var / "lock"), var / "running"
    said = False
    deadline = time.monotonic() + _STOPPING_S
    while not lock.take():
        address = mark.read_text().strip() if mark.exists() else ""
        if address and _answers(address):
            return address
        if not said:
            say("An earlier Stair Path of this folder is still starting or stopping; waiting for it ...")
            said = True
        if time.monotonic() > deadline:
            raise CannotStartError(
                f"An earlier Stair Path of {var.parent} neither answers nor ends; stop it and start again."
            )
        time.sleep(0.3)
    mark.unlink(missing_ok=True)  # of one that was killed
    return lock


def load_demo(folder: Path) -> None:
    """Write the demo's models and put them on the queue, once."""
    from stairpath.demo import PROJECT_NAME, write_models
    from stairpath.work.base import projects
    from stairpath.work.base.unit_of_work import Who
    from stairpath.work.models import models
    from stairpath.work.people import demo

    used = [*projects.listed(), *projects.listed(binned=True)]
    if any(found.project.name == PROJECT_NAME for found in used):
        return
    say("Writing the demo building ...")
    paths = write_models(folder)
    who = Who("Demo")
    project = projects.make(who, PROJECT_NAME, for_files=True).project
    for path in paths:
        with path.open("rb") as content:
            models.take_in_file(who, project.id, path.name, content)
    demo.load(project.id)


def progress_of_demo() -> tuple[str, bool]:
    """How far the reading of the demo is, and whether nothing of it waits any more."""
    from stairpath.demo import PROJECT_NAME
    from stairpath.work.base import projects
    from stairpath.work.models import models

    found = next((f for f in projects.listed() if f.project.name == PROJECT_NAME), None)
    if found is None:
        return "", True
    there = models.listed(found.project.id)
    done = [m for m in there if m.status in ("read", "failed", "cancelled")]
    finished = len(done) == len(there) and (
        found.project.picture is not None or bool(found.project.trouble) or all(m.status != "read" for m in done)
    )
    return f"Reading the demo: {len(done)} of {len(there)} models", finished


class Keeper:
    """Watches over database, server and worker until it is asked to stop."""

    def __init__(self, cluster: Cluster, watched: list[Watched], left: Left) -> None:
        self.cluster, self.watched, self.left = cluster, watched, left

    def look(self) -> None:
        """Start again whatever died."""
        if not self.cluster.is_running():
            say("The database ended; it is started again.")
            try:
                self.cluster.start_again()
            except CannotStartError as error:
                say(f"{error} The rest stays up; it is tried again.")
                time.sleep(5)
        for each in self.watched:
            each.look(say)
        self.left.note(self.watched)

    def until(self, done: Callable[[], bool], patience_s: float) -> bool:
        """Watch until something is so; False if that took too long."""
        deadline = time.monotonic() + patience_s
        while not done():
            if time.monotonic() > deadline:
                return False
            self.look()
            time.sleep(0.2)
        return True


def _commands(reload: bool) -> dict[str, list[str]]:
    server = [sys.executable, "-m", "stairpath.api.server"]
    worker = [sys.executable, "-m", "stairpath.jobs.worker"]
    if not reload:
        return {"server": server, "worker": worker}
    watch = [sys.executable, "-m", "watchfiles", "--filter", "python"]
    return {
        "server": [*watch, " ".join(server), "stairpath"],
        "worker": [*watch, " ".join(worker), "stairpath"],
        "web": ["npm", "--prefix", "web", "run", "dev"],
    }


def _watch_reading(keeper: Keeper) -> None:
    """Say how the reading of the demo goes until nothing of it waits; while the database is away nothing is said."""
    from stairpath.store.database import UNREACHABLE

    before = ""
    while True:
        try:
            line, done = progress_of_demo()
        except UNREACHABLE:
            line, done = before, False
        if line != before:
            say(line)
            before = line
        if done:
            return
        keeper.look()
        time.sleep(0.5)


def _keep_review() -> None:
    """Keep the demo's topics and meetings once its building is there."""
    from stairpath.demo import PROJECT_NAME
    from stairpath.start.reviewing import load_review
    from stairpath.store.database import UNREACHABLE
    from stairpath.work.base import projects
    from stairpath.work.base.errors import UnfitError

    not_now: tuple[type[Exception], ...] = (UnfitError, *UNREACHABLE)
    try:
        found = next((f for f in projects.listed() if f.project.name == PROJECT_NAME), None)
        count = load_review(found.project.id) if found and found.project.federation else 0
    except not_now:
        say("The demo's topics could not be kept just now; they are when it is started again.")
        return
    if count:
        say(f"The demo's {count} topics and its meetings are there.")


def _invite_first_owner(address: str) -> None:
    """Say the link for the first owner, while there is nobody; until then names are believed."""
    from stairpath.start.people import welcome
    from stairpath.work.people import links

    secret = links.for_first_owner()
    if secret is not None:
        say(f"The first owner begins here: {welcome(address, secret)}")


@dataclass(frozen=True)
class StartOptions:
    """How it is started: where its data lies, on which port, reloading or not, with the demo or empty."""

    var: Path
    port: int = FIRST_WEB_PORT
    reload: bool = False
    empty: bool = False


def _serve(cluster: Cluster, wish: StartOptions) -> None:
    var, port = wish.var, wish.port
    chosen = port if is_free(port) else free_port(port)
    if chosen != port:
        say(f"Port {port} is taken; using {chosen}.")
    address = f"http://127.0.0.1:{chosen}"
    os.environ["STAIRPATH_DATABASE_URL"] = cluster.url
    os.environ["STAIRPATH_PORT"] = str(chosen)
    os.environ["STAIRPATH_DEMO"] = "0" if wish.empty else "1"
    os.environ.setdefault("STAIRPATH_WEB_DIR", str(_ROOT / "web" / "dist"))

    from stairpath.store.migrate import migrate

    migrate()
    left = Left(var / "processes.json")
    watched = [Watched(name, command, var, _ROOT) for name, command in _commands(wish.reload).items()]
    with watching(watched):
        keeper = Keeper(cluster, watched, left)
        if not keeper.until(lambda: _answers(address), _FIRST_ANSWER_S):
            raise CannotStartError(f"The server does not answer; its log is {watched[0].log}")
        keeper.look()  # who runs is noted before anybody is told that it does
        (var / "database").write_text(str(cluster.folder))
        (var / "running").write_text(address)
        if not wish.empty:
            load_demo(var / "demo")
        say(f"Stair Path: {address}")
        if wish.empty:
            _invite_first_owner(address)
        if wish.reload:
            say("Page with reload: http://127.0.0.1:5173")
        if not wish.empty:
            _watch_reading(keeper)
            _keep_review()
            say("The demo is ready. Ctrl+C stops everything.")
        while True:
            keeper.look()
            time.sleep(0.5)


def run(wish: StartOptions) -> int:
    """Start everything, load the demo, and watch over it until stopped."""
    var = wish.var
    var.mkdir(parents=True, exist_ok=True)
    lock = alone(var)
    if isinstance(lock, str):
        say(f"Stair Path already runs: {lock}")
        return 0
    cluster = Cluster(var / "postgres")
    try:
        if Left(var / "processes.json").end_all():
            say("Processes that an earlier Stair Path left were ended.")
        cluster.start_again()
        _serve(cluster, wish)
    finally:
        signal.signal(signal.SIGTERM, signal.SIG_IGN)  # stopping is stopped by nothing but a kill
        (var / "running").unlink(missing_ok=True)
        cluster.stop()
        (var / "processes.json").unlink(missing_ok=True)
        lock.release()
    return 0


def _stop(*_: object) -> None:
    raise KeyboardInterrupt


def main() -> int:
    """Parse the port and run."""
    parser = argparse.ArgumentParser(description="Start Stair Path with its demo.")
    parser.add_argument("--port", type=int, default=FIRST_WEB_PORT)
    parser.add_argument("--reload", action="store_true", help="reload server, worker and page on change")
    parser.add_argument("--folder", type=Path, default=_ROOT / "var", help="where database, logs and demo lie")
    parser.add_argument("--empty", action="store_true", help="without the demo building")
    chosen = parser.parse_args()
    signal.signal(signal.SIGTERM, _stop)
    try:
        return run(StartOptions(chosen.folder.resolve(), chosen.port, chosen.reload, chosen.empty))
    except KeyboardInterrupt:
        say("Stopped.")
        return 0
    except CannotStartError as error:
        sys.stderr.write(f"{error}\n")
        return 1


if __name__ == "__main__":
    sys.exit(main())
