"""``python -m stairpath.start.demo``: one command from nothing to the demo in the browser."""

from __future__ import annotations

import argparse
import contextlib
import os
import signal
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from pathlib import Path

from stairpath.start.postgres import CannotStartError, Cluster, free_port

FIRST_WEB_PORT = 8400
_ROOT = Path(__file__).resolve().parents[2]


def say(text: str) -> None:
    sys.stdout.write(text + "\n")
    sys.stdout.flush()


def _answers(address: str) -> bool:
    try:
        with urllib.request.urlopen(f"{address}/api/health", timeout=2) as answer:
            return bool(answer.status == 200)
    except (urllib.error.URLError, OSError):
        return False


def _already_running(mark: Path) -> str | None:
    """The address of a running Stair Path of this folder; a stale mark is cleared."""
    if not mark.exists():
        return None
    pid, _, address = mark.read_text().partition(" ")
    alive = pid.isdigit() and Path(f"/proc/{pid}").exists()
    if alive and _answers(address.strip()):
        return address.strip()
    mark.unlink()
    return None


@contextlib.contextmanager
def children(commands: dict[str, list[str]], folder: Path) -> Iterator[dict[str, subprocess.Popen[bytes]]]:
    """Processes that end when this one does."""
    started: dict[str, subprocess.Popen[bytes]] = {}
    try:
        for name, command in commands.items():
            with (folder / f"{name}.log").open("ab") as log:
                started[name] = subprocess.Popen(command, stdout=log, stderr=log, start_new_session=True, cwd=_ROOT)
        yield started
    finally:
        for child in started.values():
            with contextlib.suppress(ProcessLookupError):
                os.killpg(child.pid, signal.SIGTERM)
        for child in started.values():
            try:
                child.wait(10)
            except subprocess.TimeoutExpired:
                os.killpg(child.pid, signal.SIGKILL)


def load_demo(folder: Path) -> None:
    """Write the demo's models and put them on the queue, once."""
    from sqlalchemy import select

    from stairpath.demo import PROJECT_NAME, write_models
    from stairpath.jobs.tasks import defer_reading
    from stairpath.store.database import transaction
    from stairpath.store.files import add_file
    from stairpath.store.tables import Project

    with transaction() as session:
        if session.scalar(select(Project.id).where(Project.name == PROJECT_NAME)):
            return
    say("Writing the demo building ...")
    paths = write_models(folder)
    with transaction() as session:
        project = Project(name=PROJECT_NAME, created_by="Demo")
        session.add(project)
        session.flush()
        ids = [add_file(session, project, path.name, path.read_bytes(), "Demo").id for path in paths]
    for model_id in ids:
        defer_reading(model_id)


def wait_for_demo() -> None:
    """Say how the reading goes until nothing of the demo waits."""
    from sqlalchemy import select

    from stairpath.demo import PROJECT_NAME
    from stairpath.store.database import transaction
    from stairpath.store.tables import Model, Project

    before = ""
    while True:
        with transaction() as session:
            rows = session.execute(
                select(Model.status, Project.picture)
                .join(Project, Model.project_id == Project.id)
                .where(Project.name == PROJECT_NAME)
            ).all()
        done = sum(status in ("read", "failed", "cancelled") for status, _ in rows)
        line = f"Reading the demo: {done} of {len(rows)} models"
        if line != before:
            say(line)
            before = line
        if done == len(rows) and (not rows or rows[0][1] is not None or all(status != "read" for status, _ in rows)):
            return
        time.sleep(0.5)


def run(port: int, reload: bool) -> int:
    """Start everything, load the demo, and stay until stopped."""
    var = _ROOT / "var"
    var.mkdir(exist_ok=True)
    mark = var / "running"
    running = _already_running(mark)
    if running:
        say(f"Stair Path already runs: {running}")
        return 0
    cluster = Cluster(var / "postgres")
    cluster.start()
    try:
        chosen = free_port(port)
        if chosen != port:
            say(f"Port {port} is taken; using {chosen}.")
        address = f"http://127.0.0.1:{chosen}"
        os.environ["STAIRPATH_DATABASE_URL"] = cluster.url
        os.environ["STAIRPATH_PORT"] = str(chosen)
        os.environ["STAIRPATH_WEB_DIR"] = str(_ROOT / "web" / "dist")

        from stairpath.store.migrate import migrate

        migrate()
        python = sys.executable
        server = [python, "-m", "stairpath.api.server"]
        worker = [python, "-m", "stairpath.jobs.worker"]
        commands = {"server": server, "worker": worker}
        if reload:
            watch = [python, "-m", "watchfiles", "--filter", "python"]
            commands = {
                "server": [*watch, " ".join(server), "stairpath"],
                "worker": [*watch, " ".join(worker), "stairpath"],
                "web": ["npm", "--prefix", "web", "run", "dev"],
            }
        with children(commands, var) as started:
            while not _answers(address):
                dead = [name for name, child in started.items() if child.poll() is not None]
                if dead:
                    raise CannotStartError(f"The {dead[0]} stopped at once; its log is {var / (dead[0] + '.log')}")
                time.sleep(0.1)
            mark.write_text(f"{os.getpid()} {address}")
            load_demo(var / "demo")
            say(f"Stair Path: {address}")
            if reload:
                say("Page with reload: http://127.0.0.1:5173")
            wait_for_demo()
            say("The demo is ready. Ctrl+C stops everything.")
            while True:
                for name, child in started.items():
                    if child.poll() is not None:
                        raise CannotStartError(f"The {name} stopped; its log is {var / (name + '.log')}")
                time.sleep(0.5)
    finally:
        mark.unlink(missing_ok=True)
        cluster.stop()


def main() -> int:
    """Parse the port and run."""
    parser = argparse.ArgumentParser(description="Start Stair Path with its demo.")
    parser.add_argument("--port", type=int, default=FIRST_WEB_PORT)
    parser.add_argument("--reload", action="store_true", help="reload server, worker and page on change")
    chosen = parser.parse_args()
    signal.signal(signal.SIGTERM, lambda *_: (_ for _ in ()).throw(KeyboardInterrupt()))
    try:
        return run(chosen.port, chosen.reload)
    except KeyboardInterrupt:
        say("Stopped.")
        return 0
    except CannotStartError as error:
        sys.stderr.write(f"{error}\n")
        return 1


if __name__ == "__main__":
    sys.exit(main())
