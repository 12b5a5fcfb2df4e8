"""``stairpath backup``, ``restore`` and ``verify``: everything that is kept, out and in again, and whether it is whole."""

from __future__ import annotations

import gzip
import hashlib
import json
import os
import shutil
import subprocess
import tempfile
import zipfile
from abc import ABC, abstractmethod
from collections.abc import Iterable, Iterator
from contextlib import AbstractContextManager, contextmanager
from datetime import UTC, datetime
from pathlib import Path
from typing import IO, Any, cast

from psycopg.conninfo import conninfo_to_dict

from stairpath.settings import settings
from stairpath.start.postgres import programs
from stairpath.store import backups

ROWS, PEOPLE, MANIFEST = "rows.dump", "people.jsonl", "manifest.json"
_FORM = 1
_PIECE = 1 << 20


class CannotBackUpError(Exception):
    """It was not done; the message says why and what to do."""


def _pieces(stream: IO[bytes]) -> Iterator[bytes]:
    while piece := stream.read(_PIECE):
        yield piece


def _hash_of(stream: IO[bytes]) -> str:
    digest = hashlib.sha256()
    for piece in _pieces(stream):
        digest.update(piece)
    return digest.hexdigest()


class _Target(ABC):
    """Where a backup is written."""

    def __init__(self) -> None:
        self.hashes: dict[str, str] = {}

    @abstractmethod
    def has(self, name: str) -> bool:
        """Whether a part is there from an earlier backup."""

    @abstractmethod
    def opened(self, name: str) -> AbstractContextManager[IO[bytes]]:
        """A part, to be written whole or not at all."""

    @abstractmethod
    def read(self, name: str) -> IO[bytes]:
        """A part, to be read."""

    def put(self, name: str, pieces: Iterable[bytes]) -> None:
        """Write a part, and note its hash."""
        digest = hashlib.sha256()
        with self.opened(name) as into:
            for piece in pieces:
                digest.update(piece)
                into.write(piece)
        self.hashes[name] = digest.hexdigest()

    def wrong(self, hashes: dict[str, str]) -> list[str]:
        """The parts that are not there as they were written."""
        found = []
        for name, kept in hashes.items():
            try:
                with self.read(name) as part:
                    good = _hash_of(part) == kept
            except (OSError, KeyError, EOFError, zipfile.BadZipFile, gzip.BadGzipFile):
                good = False
            if not good:
                found.append(name)
        return found


class _File(_Target):
    """One file: a ZIP archive, written as it grows."""

    def __init__(self, path: Path, mode: str) -> None:
        super().__init__()
        self.zip = zipfile.ZipFile(
            path, "w" if mode == "w" else "r", zipfile.ZIP_DEFLATED, allowZip64=True, compresslevel=4
        )

    def has(self, name: str) -> bool:
        """Never: a file begins empty."""
        return False

    def opened(self, name: str) -> IO[bytes]:
        """A part of the archive."""
        return self.zip.open(name, "w", force_zip64=True)

    def read(self, name: str) -> IO[bytes]:
        """A part of the archive."""
        return self.zip.open(name)


class _Folder(_Target):
    """A folder that backups are added to: what is kept by hash is written once, the rest once for each."""

    def __init__(self, path: Path, stamp: str) -> None:
        super().__init__()
        self.path, self.stamp = path, stamp

    def _at(self, name: str) -> Path:
        if name.startswith("blobs/"):
            sha256 = name.removeprefix("blobs/")
            return self.path / "blobs" / sha256[:2] / f"{sha256}.gz"
        return self.path / self.stamp / name

    def has(self, name: str) -> bool:
        """Whether bytes of a hash were written before."""
        return name.startswith("blobs/") and self._at(name).exists()

    @contextmanager
    def opened(self, name: str) -> Iterator[IO[bytes]]:
        """A part of this backup, or of all; its name is there once it is whole."""
        at = self._at(name)
        at.parent.mkdir(parents=True, exist_ok=True)
        beside = at.with_name(f"{at.name}.part")
        if at.suffix == ".gz":
            with gzip.open(beside, "wb", compresslevel=4) as packed:
                yield cast("IO[bytes]", packed)
        else:
            with beside.open("wb") as plain:
                yield plain
        beside.replace(at)

    def read(self, name: str) -> IO[bytes]:
        """A part of this backup, or of all."""
        at = self._at(name)
        return cast("IO[bytes]", gzip.open(at) if at.suffix == ".gz" else at.open("rb"))


def _environment() -> dict[str, str]:
    """Where the database is, for its own programs; nothing of it stands where other people of the machine can read it."""
    known = {"host": "PGHOST", "port": "PGPORT", "user": "PGUSER", "password": "PGPASSWORD", "dbname": "PGDATABASE"}
    found = conninfo_to_dict(settings().database_url)
    return {**os.environ, **{to: str(found[name]) for name, to in known.items() if found.get(name) is not None}}


def _dumped(snapshot: str) -> Iterator[bytes]:
    """The rows as PostgreSQL's own program writes them, compressed, without bytes by hash and without what is kept apart."""
    command = [
        str(programs() / "pg_dump"), "--format=custom", "--no-owner", "--no-privileges", f"--snapshot={snapshot}",
        *(f"--exclude-table-data={name}" for name in (backups.PIECES, *backups.APART)),
    ]  # fmt: skip
    with tempfile.TemporaryFile() as said:
        with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=said, env=_environment()) as process:
            assert process.stdout is not None
            while piece := process.stdout.read(_PIECE):
                yield piece
        if process.returncode:
            said.seek(0)
            raise CannotBackUpError(
                f"PostgreSQL could not dump its rows: {said.read().decode(errors='replace').strip()}"
            )


def _lines(rows: Iterable[dict[str, Any]]) -> Iterator[bytes]:
    for row in rows:
        yield json.dumps(row, ensure_ascii=False).encode() + b"\n"


def _write(target: _Target, secrets: Path) -> dict[str, Any]:
    with backups.snapshot() as seen:
        target.put(ROWS, _dumped(seen.name))
        target.put(PEOPLE, _lines(seen.people()))
        blobs = seen.blobs()
        for sha256 in blobs:
            if not target.has(f"blobs/{sha256}"):
                target.put(f"blobs/{sha256}", seen.pieces(sha256))
        # Only its owner reads it, from the first byte on.
        with os.fdopen(os.open(secrets, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as into:
            into.writelines(_lines(seen.secrets()))
        return {
            "form": _FORM, "made_at": datetime.now(UTC).isoformat(), "revision": seen.revision(), "rows": seen.counts(),
            "parts": {name: target.hashes[name] for name in (ROWS, PEOPLE)}, "blobs": blobs,
        }  # fmt: skip


def _parts(manifest: dict[str, Any]) -> dict[str, str]:
    return {**manifest["parts"], **{f"blobs/{sha256}": sha256 for sha256 in manifest["blobs"]}}


def back_up(target: Path) -> str:
    """Write everything to a file, or add it to a folder; what was written is read again. Returns what was done, in a sentence."""
    if target.is_dir():
        stamp = datetime.now(UTC).strftime("%Y-%m-%dT%H%M%S")
        folder = _Folder(target, stamp)
        manifest = _write(folder, target / f"{stamp}.secrets")
        folder.put(MANIFEST, [json.dumps(manifest).encode()])
        _check(folder, manifest)
        return _done(manifest, target / stamp, target / f"{stamp}.secrets")
    beside = target.with_name(f"{target.name}.part")
    try:
        into = _File(beside, "w")
        with into.zip:
            manifest = _write(into, target.with_name(f"{target.name}.secrets"))
            into.put(MANIFEST, [json.dumps(manifest).encode()])
        written = _File(beside, "r")
        with written.zip:
            _check(written, manifest)
        beside.replace(target)
    except OSError as error:
        raise CannotBackUpError(
            f"The backup could not be written: {error.strerror}. Make room and try again."
        ) from error
    finally:
        beside.unlink(missing_ok=True)
    return _done(manifest, target, target.with_name(f"{target.name}.secrets"))


def _check(target: _Target, manifest: dict[str, Any]) -> None:
    wrong = target.wrong(_parts(manifest))
    if wrong:
        raise CannotBackUpError(f"{wrong[0]} is not as it was written. Write the backup to another disk.")


def _done(manifest: dict[str, Any], at: Path, secrets: Path) -> str:
    rows = sum(manifest["rows"].values())
    return (
        f"{rows:,} rows and {len(manifest['blobs']):,} files were written to {at} and read again. "
        f"Passwords and tokens are in {secrets}: keep it apart."
    )


def _source(path: Path) -> _Target:
    if not path.exists():
        raise CannotBackUpError(f"There is no backup at {path}.")
    if path.is_dir():
        return _Folder(path.parent, path.name)
    try:
        return _File(path, "r")
    except zipfile.BadZipFile as error:
        raise CannotBackUpError(f"{path} is no backup, or not a whole one.") from error


def restore(path: Path, secrets: Path | None) -> str:
    """Bring back a backup into an empty database, and bring it to this version; returns what was done, in a sentence."""
    from stairpath.store.migrate import migrate

    source = _source(path)
    try:
        with source.read(MANIFEST) as part:
            manifest = json.load(part)
    except (OSError, KeyError, ValueError) as error:
        raise CannotBackUpError(f"{path} is no backup, or not a whole one.") from error
    if manifest.get("form") != _FORM:
        raise CannotBackUpError("This backup was made by a newer version. Install that version, and restore it there.")
    wrong = source.wrong(_parts(manifest))
    if wrong:
        raise CannotBackUpError(f"{wrong[0]} of the backup is damaged. Nothing was restored; take another backup.")
    if not backups.is_empty():
        raise CannotBackUpError("There are projects or people in this database. Restore into an empty one.")
    backups.clear()
    _restore_rows(source)
    for sha256 in manifest["blobs"]:
        with source.read(f"blobs/{sha256}") as part:
            if not backups.keep_pieces(sha256, _pieces(part)):
                raise CannotBackUpError(
                    f"{sha256} of the backup changed while it was restored. Clear the database and begin again."
                )
    with source.read(PEOPLE) as part:
        people = [json.loads(line) for line in part]
    kept = [] if secrets is None else [json.loads(line) for line in secrets.read_text().splitlines()]
    backups.keep_people(people, kept)
    migrate()
    rows = sum(manifest["rows"].values())
    passwords = "" if secrets is not None else " Nobody has a password: give them links with `stairpath people reset`."
    return f"{rows:,} rows and {len(manifest['blobs']):,} files are back as of {manifest['made_at']}.{passwords}"


def _restore_rows(source: _Target) -> None:
    with tempfile.NamedTemporaryFile() as held:
        with source.read(ROWS) as part:
            shutil.copyfileobj(part, held, _PIECE)
        held.flush()
        command = [
            str(programs() / "pg_restore"), "--no-owner", "--no-privileges", "--exit-on-error", "--single-transaction",
            f"--dbname={conninfo_to_dict(settings().database_url).get('dbname')}", held.name,
        ]  # fmt: skip
        said = subprocess.run(command, check=False, env=_environment(), capture_output=True, text=True)
    if said.returncode:
        raise CannotBackUpError(f"PostgreSQL could not take the rows back: {said.stderr.strip()}")


def verify() -> list[str]:
    """What is wrong with what is kept, in a sentence each: bytes, what rows name, and the record's chains."""
    from stairpath.work.people import record

    found = list(backups.wrong_blobs())
    for chain, number in record.broken().items():
        what = "of the server" if chain == record.SERVER else f"of the project {chain}"
        found.append(f"The record {what} is not whole: entry {number} is missing or was changed.")
    return found
