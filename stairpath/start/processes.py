"""The processes that the start command starts and watches over."""

from __future__ import annotations

import contextlib
import fcntl
import json
import os
import signal
import subprocess
import time
from collections import deque
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from pathlib import Path

from stairpath.core.processes import begun_at
from stairpath.core.sandbox import die_with_parent

PAUSES_S = (0.2, 0.5, 1.0, 2.0, 4.0)
MOST_DEATHS = 5
WITHIN_S = 60.0
_END_S = 10.0
_LAST_WORDS = 3


def _tied() -> None:
    """End with the process that started this, however that one ends."""
    die_with_parent(signal.SIGTERM)


def end_group(pid: int, patience_s: float = _END_S) -> None:
    """End a process and those it leads, gently first."""
    with contextlib.suppress(ProcessLookupError):
        os.killpg(pid, signal.SIGTERM)
    deadline = time.monotonic() + patience_s
    while begun_at(pid) and time.monotonic() < deadline:
        time.sleep(0.05)
    with contextlib.suppress(ProcessLookupError):
        os.killpg(pid, signal.SIGKILL)


@dataclass
class Watched:
    """A process that is started again when it dies, after pauses that grow."""

    name: str
    command: list[str]
    folder: Path
    root: Path
    child: subprocess.Popen[bytes] | None = None
    deaths: deque[float] = field(default_factory=deque)
    back_at: float = 0.0
    given_up: bool = False

    @property
    def log(self) -> Path:
        """Where what it says is kept."""
        return self.folder / f"{self.name}.log"

    def start(self) -> None:
        """Start it."""
        with self.log.open("ab") as log:
            self.child = subprocess.Popen(
                self.command,
                stdout=log,
                stderr=log,
                start_new_session=True,
                cwd=self.root,
                preexec_fn=_tied,  # noqa: PLW1509  nothing here has threads when it starts processes
            )

    def _last_words(self) -> str:
        try:
            with self.log.open("rb") as log:
                log.seek(max(0, self.log.stat().st_size - 4096))
                lines = [line.strip() for line in log.read().decode(errors="replace").splitlines() if line.strip()]
        except OSError:
            return ""
        return " / ".join(lines[-_LAST_WORDS:])

    def look(self, say: Callable[[str], None]) -> None:
        """Start it again if it died; after five deaths in a minute say why, and try once a minute."""
        now = time.monotonic()
        if self.child is None:
            if now >= self.back_at:
                self.start()
            return
        code = self.child.poll()
        if code is None:
            return
        self.child = None
        self.deaths.append(now)
        while self.deaths and now - self.deaths[0] > WITHIN_S:
            self.deaths.popleft()
        if len(self.deaths) >= MOST_DEATHS:
            if not self.given_up:
                words = self._last_words()
                say(
                    f"The {self.name} ended {len(self.deaths)} times in a minute and is tried once a minute from now on"
                    f"{f': {words}' if words else ''} (log: {self.log}). The rest stays up."
                )
            self.given_up = True
            self.back_at = now + WITHIN_S
            return
        self.given_up = False
        self.back_at = now + PAUSES_S[min(len(self.deaths), len(PAUSES_S)) - 1]
        how = f"was ended by {signal.Signals(-code).name}" if code < 0 else f"ended with {code}"
        say(f"The {self.name} {how}; it is started again.")

    def end(self) -> None:
        """End it for good."""
        if self.child is not None and self.child.poll() is None:
            with contextlib.suppress(ProcessLookupError):
                os.killpg(self.child.pid, signal.SIGTERM)

    def wait(self) -> None:
        """Wait until it has ended."""
        if self.child is None:
            return
        try:
            self.child.wait(_END_S)
        except subprocess.TimeoutExpired:
            os.killpg(self.child.pid, signal.SIGKILL)
            self.child.wait()


class Left:
    """The note of which processes were started, by which a start finds what an earlier one left."""

    def __init__(self, path: Path) -> None:
        self.path = path
        self._written = ""

    def note(self, watched: list[Watched]) -> None:
        """Write down who runs."""
        pids = {str(w.child.pid): begun_at(w.child.pid) for w in watched if w.child is not None}
        text = json.dumps(pids)
        if text != self._written:
            # In one step, so that who reads it, or a start that is killed, leaves no half of it.
            beside = self.path.with_suffix(".new")
            beside.write_text(text)
            beside.replace(self.path)
            self._written = text

    def end_all(self) -> int:
        """End what an earlier start left; returns how many there were."""
        try:
            pids: dict[str, str] = json.loads(self.path.read_text())
        except (OSError, ValueError):
            return 0
        alive = [int(pid) for pid, begun in pids.items() if begun and begun_at(int(pid)) == begun]
        for pid in alive:
            end_group(pid)
        self.path.unlink(missing_ok=True)
        return len(alive)


@contextlib.contextmanager
def watching(watched: list[Watched]) -> Iterator[list[Watched]]:
    """Start processes; they end when the block does."""
    try:
        for each in watched:
            each.start()
        yield watched
    finally:
        for each in watched:
            each.end()
        for each in watched:
            each.wait()


class OneOnly:
    """A lock on a folder that is gone with the process that holds it, however that one ends."""

    def __init__(self, path: Path) -> None:
        self.path = path
        self._held: int | None = None

    def take(self) -> bool:
        """Take the lock; False while somebody else holds it."""
        descriptor = os.open(self.path, os.O_RDWR | os.O_CREAT, 0o600)
        try:
            fcntl.flock(descriptor, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            os.close(descriptor)
            return False
        self._held = descriptor
        return True

    def release(self) -> None:
        """Let somebody else have it."""
        if self._held is not None:
            os.close(self._held)
            self._held = None
