"""A PostgreSQL of the project's own, on loopback, from Debian's package."""

from __future__ import annotations

import hashlib
import os
import pwd
import shutil
import socket
import subprocess
from dataclasses import dataclass
from pathlib import Path

FIRST_PORT = 54329
ROLE = "stairpath"


class CannotStartError(Exception):
    """Something needed is missing; the message says what to do."""


def free_port(first: int, tries: int = 200) -> int:
    """The first port from ``first`` up that nobody listens on."""
    for port in range(first, first + tries):
        with socket.socket() as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind(("127.0.0.1", port))
            except OSError:
                continue
            return port
    raise CannotStartError(f"No port from {first} to {first + tries - 1} is free; stop something that listens there.")


def programs() -> Path:
    """Folder of initdb and pg_ctl."""
    found = sorted(Path("/usr/lib/postgresql").glob("*/bin/initdb"), key=lambda p: float(p.parts[4]))
    if not found:
        raise CannotStartError("PostgreSQL is not installed; run: apt-get install postgresql")
    return found[-1].parent


@dataclass
class Cluster:
    """A database cluster in a folder; ``fast`` gives up safety for speed, for tests."""

    folder: Path
    fast: bool = False
    port: int = 0
    first_port: int = FIRST_PORT
    """The first port that is tried."""

    @property
    def url(self) -> str:
        """Where to connect."""
        return f"postgresql://{ROLE}@127.0.0.1:{self.port}/{ROLE}"

    def _as_user(self, command: list[str]) -> list[str]:
        # PostgreSQL refuses to run as root; Debian's package brings the user postgres.
        return ["runuser", "-u", "postgres", "--", *command] if os.geteuid() == 0 else command

    def _run(self, command: list[str]) -> subprocess.CompletedProcess[str]:
        return subprocess.run(self._as_user(command), capture_output=True, text=True, check=False, cwd="/")

    def _reachable(self) -> Path:
        """The data folder, moved where the user postgres can reach it if it cannot reach ours."""
        folder = self.folder.resolve()
        folder.parent.mkdir(parents=True, exist_ok=True)
        if os.geteuid() != 0:
            return folder
        if self._run(["test", "-x", str(folder.parent)]).returncode != 0:
            mark = hashlib.sha256(str(folder).encode()).hexdigest()[:12]
            folder = Path("/var/tmp") / f"stairpath-{mark}"
        folder.mkdir(mode=0o700, exist_ok=True)
        user = pwd.getpwnam("postgres")
        os.chown(folder, user.pw_uid, user.pw_gid)
        return folder

    def start(self) -> None:
        """Create the cluster if it is not there, and start it on a free port."""
        bin_dir = programs()
        self.folder = self._reachable()
        if not (self.folder / "PG_VERSION").exists():
            made = self._run(
                [
                    str(bin_dir / "initdb"),
                    "-D",
                    str(self.folder),
                    "-A",
                    "trust",
                    "-U",
                    ROLE,
                    "-E",
                    "UTF8",
                    "--no-locale",
                ]
            )
            if made.returncode:
                raise CannotStartError(f"The database could not be made in {self.folder}: {made.stderr.strip()}")
        running = self._running_port(bin_dir)
        if running:
            self.port = running
            return
        self.port = free_port(self.first_port)
        options = f"-p {self.port} -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c max_connections=120"
        options += " -c shared_buffers=256MB -c max_wal_size=2GB"
        if self.fast:
            options += " -c fsync=off -c synchronous_commit=off -c full_page_writes=off"
        started = self._run(
            [
                str(bin_dir / "pg_ctl"),
                "-D",
                str(self.folder),
                "-w",
                "-t",
                "60",
                "-l",
                str(self.folder / "log"),
                "-o",
                options,
                "start",
            ]
        )
        if started.returncode:
            log = self.folder / "log"
            last = log.read_text(errors="replace").strip().splitlines()[-1:] if log.exists() else []
            raise CannotStartError(f"PostgreSQL did not start: {' '.join(last) or started.stderr.strip()} (log: {log})")
        self._run([str(bin_dir / "createdb"), "-h", "127.0.0.1", "-p", str(self.port), "-U", ROLE, ROLE])

    def _running_port(self, bin_dir: Path) -> int:
        """The port of this cluster if it runs; a stale pid file counts as not running."""
        if self._run([str(bin_dir / "pg_ctl"), "-D", str(self.folder), "status"]).returncode:
            return 0
        lines = (self.folder / "postmaster.pid").read_text().splitlines()
        return int(lines[3])

    def stop(self) -> None:
        """Stop the cluster."""
        self._run([str(programs() / "pg_ctl"), "-D", str(self.folder), "-m", "fast", "-w", "stop"])

    def remove(self) -> None:
        """Stop the cluster and delete its folder."""
        self.stop()
        shutil.rmtree(self.folder, ignore_errors=True)
