"""The whole application as the start command keeps it, in a folder of its own, to be killed in parts."""

from __future__ import annotations

import contextlib
import json
import os
import signal
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from pathlib import Path
from typing import Any

from stairpath.core.processes import begun_at

ROOT = Path(__file__).resolve().parents[2]


def descendants(pid: int) -> list[int]:
    """All processes below one, whichever of its threads began them."""
    own: list[int] = []
    with contextlib.suppress(OSError):
        for task in Path(f"/proc/{pid}/task").iterdir():
            own += [int(word) for word in (task / "children").read_text().split()]
    return own + [below for child in own for below in descendants(child)]


def until(done: Callable[[], bool], patience_s: float, what: str) -> float:
    """Wait until something is so; returns how long it took."""
    began = time.monotonic()
    while not done():
        assert time.monotonic() - began < patience_s, f"not so after {patience_s:.0f} s: {what}"
        time.sleep(0.1)
    return time.monotonic() - began


class Running:
    """The start command and what it started; requests are repeated while something of it is uploading back."""

    def __init__(self, folder: Path, port: int) -> None:
        self.folder, self.port = folder, port
        self.said = folder / "said.txt"
        self.start_pid = 0

    @property
    def address(self) -> str:
        """Where it answers."""
        return (self.folder / "running").read_text().strip()

    def start(self) -> None:
        """Run the start command, and wait until it answers."""
        self.folder.mkdir(exist_ok=True)
        command = [sys.executable, "-m", "stairpath.start.demo", "--empty", "--folder", str(self.folder)]
        with self.said.open("ab") as out:
            process = subprocess.Popen([*command, "--port", str(self.port)], stdout=out, stderr=out, cwd=ROOT)
        self.start_pid = process.pid
        self.process = process
        until(lambda: (self.folder / "running").exists() and self.healthy(), 90, "the start command answers")

    def healthy(self) -> bool:
        """Whether the server and its database answer."""
        try:
            return bool(self.ask("/api/health", tries=1)["status"] == "ok")
        except (OSError, ValueError):
            return False

    def ask(self, path: str, body: Any = None, method: str | None = None, tries: int = 120) -> Any:
        """The JSON of an answer; asked again while the application is away."""
        data = None if body is None else json.dumps(body).encode()
        return json.loads(self._sent(path, data, {"Content-Type": "application/json"}, method, tries) or b"null")

    def send(self, project: str, name: str, content: bytes) -> None:
        """Send a file into a project, again and again until it is taken."""
        self._sent(f"/api/projects/{project}/models", content, {"X-File-Name": name}, None, 120)

    def _sent(self, path: str, data: bytes | None, headers: dict[str, str], method: str | None, tries: int) -> bytes:
        for left in range(tries, 0, -1):
            try:
                request = urllib.request.Request(self.address + path, data, headers, method=method)
                with urllib.request.urlopen(request, timeout=20) as answer:
                    got: bytes = answer.read()
                    return got
            except urllib.error.HTTPError as error:
                if error.code == 503 and left == 1:
                    raise OSError(f"{path}: away") from error
                if error.code != 503:
                    raise AssertionError(f"{path}: {error.code} {error.read()[:300]!r}") from error
                assert json.loads(error.read())["detail"]
                assert error.headers["Retry-After"]
            except (OSError, ValueError) as error:
                if left == 1:
                    raise OSError(f"{path}: {error}") from error
            time.sleep(0.5)
        raise AssertionError(path)

    def pids(self) -> dict[str, list[int]]:
        """Whom one can kill, by what they are."""
        noted = [int(pid) for pid in json.loads((self.folder / "processes.json").read_text())]
        named = {pid: Path(f"/proc/{pid}/cmdline").read_bytes() for pid in noted if begun_at(pid)}
        server = [pid for pid, command in named.items() if b"api.server" in command]
        worker = [pid for pid, command in named.items() if b"jobs.worker" in command]
        postmaster = int((self._data() / "postmaster.pid").read_text().split("\n", 1)[0])
        return {
            "worker": worker,
            "child": [below for pid in worker for below in descendants(pid)],
            "server": server,
            "backend": [pid for pid in descendants(postmaster) if b": stairpath" in _title(pid)],
            "postmaster": [postmaster],
            "start command": [self.start_pid],
        }

    def _data(self) -> Path:
        return Path((self.folder / "database").read_text().strip())

    def stop(self) -> None:
        """Stop it as a person does."""
        self.process.send_signal(signal.SIGTERM)
        self.process.wait(60)

    def log(self) -> str:
        """What the start command and its processes said last."""
        return "\n".join(
            f"{path.name}: {path.read_text(errors='replace')[-1500:]}"
            for path in (self.said, *self.folder.glob("*.log"))
        )


def _title(pid: int) -> bytes:
    try:
        return Path(f"/proc/{pid}/cmdline").read_bytes()
    except OSError:
        return b""


def kill(pid: int) -> None:
    """End a process outright."""
    with contextlib.suppress(ProcessLookupError):
        os.kill(pid, signal.SIGKILL)


def resident_mb(pid: int) -> float:
    """What a process holds in memory."""
    for line in Path(f"/proc/{pid}/status").read_text().splitlines():
        if line.startswith("VmRSS"):
            return int(line.split()[1]) / 1024
    return 0.0
