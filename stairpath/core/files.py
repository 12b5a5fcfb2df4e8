"""Files on the way: written whole or not at all, and folders for a while of which nothing stays behind."""

from __future__ import annotations

import os
import re
import shutil
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from stairpath.core.processes import begun_at

_NAME = re.compile(r"stairpath-(\d+)-(\d+)-.*")


def write_whole(path: Path, text: str, mode: int = 0o600) -> None:
    """Write a text beside a file and put it in its place at once, so that no full disk leaves half of one.

    An existing file keeps its owner. Raises OSError.
    """
    descriptor, name = tempfile.mkstemp(prefix=f".{path.name}.", dir=path.parent)
    beside = Path(name)
    try:
        with os.fdopen(descriptor, "w") as out:
            out.write(text)
            out.flush()
            os.fsync(out.fileno())
        if path.exists():
            owner = path.stat()
            os.chown(beside, owner.st_uid, owner.st_gid)
        beside.chmod(mode)
        beside.replace(path)
    finally:
        beside.unlink(missing_ok=True)


def _prefix() -> str:
    return f"stairpath-{os.getpid()}-{begun_at(os.getpid())}-"


@contextmanager
def scratch_folder() -> Iterator[Path]:
    """A folder for a while, named after this process so that ``sweep`` knows whose it is."""
    with tempfile.TemporaryDirectory(prefix=_prefix()) as folder:
        yield Path(folder)


def scratch_file(suffix: str) -> Path:
    """An empty file for a while; the caller deletes it, and ``sweep`` where that process was killed."""
    descriptor, name = tempfile.mkstemp(prefix=_prefix(), suffix=suffix)
    os.close(descriptor)
    return Path(name)


def sweep() -> int:
    """Delete scratch folders and files of processes that are gone; how many there were."""
    gone = 0
    for each in Path(tempfile.gettempdir()).glob("stairpath-*"):
        named = _NAME.fullmatch(each.name)
        if named is None or begun_at(int(named[1])) == named[2]:
            continue
        if each.is_dir() and not each.is_symlink():
            shutil.rmtree(each, ignore_errors=True)
        else:
            each.unlink(missing_ok=True)
        gone += 1
    return gone
