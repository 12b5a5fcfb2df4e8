"""Files are written whole or not at all, and nothing is left by a process that was killed."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import tempfile
from pathlib import Path

import pytest

from stairpath.core.files import scratch_file, scratch_folder, sweep, write_whole
from stairpath.start.postgres import CannotStartError, Cluster


def test_a_file_is_replaced_at_once_and_a_full_disk_leaves_the_old_one(tmp_path, monkeypatch):
    path = tmp_path / "secret"
    write_whole(path, "first")
    assert (path.read_text(), path.stat().st_mode & 0o777) == ("first", 0o600)

    def full(descriptor: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(OSError, match="No space left"):
        write_whole(path, "second")
    assert path.read_text() == "first"
    assert list(tmp_path.iterdir()) == [path]


def test_what_a_killed_process_left_is_swept_and_nothing_else(tmp_path, monkeypatch):
    monkeypatch.setattr(tempfile, "tempdir", str(tmp_path))
    lines = (
        "import time, sys\nfrom stairpath.core.files import scratch_file, scratch_folder\n"
        "with scratch_folder() as folder:\n    (folder / 'a').write_text('x')\n    scratch_file('.bcf')\n"
        "    print('there', flush=True)\n    time.sleep(60)\n"
    )
    with subprocess.Popen(
        [sys.executable, "-c", lines], stdout=subprocess.PIPE, env={**os.environ, "TMPDIR": str(tmp_path)}
    ) as child:
        assert child.stdout is not None
        assert child.stdout.readline() == b"there\n"
        assert sweep() == 0
        child.send_signal(signal.SIGKILL)
        child.wait()
    (tmp_path / "stairpath-somebody-else").mkdir()
    with scratch_folder() as own:
        beside = scratch_file(".x")
        assert sweep() == 2
        assert sorted(p.name for p in tmp_path.iterdir()) == sorted([own.name, beside.name, "stairpath-somebody-else"])


def test_an_empty_password_file_of_no_database_is_written_again(tmp_path):
    cluster = Cluster(tmp_path / "postgres")
    (tmp_path / "postgres.password").touch()
    assert len((tmp_path / "postgres.password").read_text()) == 0
    assert len(cluster.url) > 60
    first = (tmp_path / "postgres.password").read_text()
    assert (Cluster(tmp_path / "postgres").url, len(first) > 30) == (cluster.url, True)


def test_an_empty_password_of_a_database_that_asks_for_one_is_refused_in_a_sentence(tmp_path):
    folder = tmp_path / "postgres"
    folder.mkdir()
    (folder / "PG_VERSION").write_text("15")
    (folder / "pg_hba.conf").write_text("host all all 127.0.0.1/32 scram-sha-256\n")
    (tmp_path / "postgres.password").touch()
    with pytest.raises(CannotStartError, match="Put it back from a backup"):
        _ = Cluster(folder).url
    # One that lets in without a password gets a new one.
    (folder / "pg_hba.conf").write_text("host all all 127.0.0.1/32 trust\n")
    assert "@127.0.0.1" in Cluster(folder).url


def test_a_full_disk_at_the_first_start_leaves_no_empty_password(tmp_path, monkeypatch):
    def full(descriptor: int) -> None:
        raise OSError(28, "No space left on device")

    with monkeypatch.context() as patched:
        patched.setattr(os, "fsync", full)
        with pytest.raises(CannotStartError, match="Make room on the disk"):
            _ = Cluster(tmp_path / "postgres").url
    assert list(Path(tmp_path).iterdir()) == []
    assert "@127.0.0.1" in Cluster(tmp_path / "postgres").url
