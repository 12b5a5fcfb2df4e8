"""Large files and archives go through in pieces: the server never holds one whole."""

from __future__ import annotations

import io
import threading
import time
import urllib.error
import urllib.request
import zipfile

import pytest

from tests.samples import simple
from tests.soak.length import length
from tests.soak.running import resident_mb

UNPACKED_MB = length(200, 1500)
PLAIN_MB = length(60, 400)
PIECE = b" " * (1 << 20)


def packed(megabytes: int) -> bytes:
    """An archive of a few megabytes at most that unpacks to so many."""
    out = io.BytesIO()
    with (
        zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive,
        archive.open("big.ifc", "w", force_zip64=True) as member,
    ):
        member.write(simple().content())
        for _ in range(megabytes):
            member.write(PIECE)
        member.write(b"\nEND-ISO-10303-21;\n")
    return out.getvalue()


class Watched:
    """The most that the server held while something was sent."""

    def __init__(self, pid: int) -> None:
        self.pid, self.before, self.most = pid, resident_mb(pid), 0.0
        self._over = threading.Event()
        self._thread = threading.Thread(target=self._watch)

    def _watch(self) -> None:
        while not self._over.wait(0.05):
            self.most = max(self.most, resident_mb(self.pid))

    def __enter__(self) -> Watched:
        self._thread.start()
        return self

    def __exit__(self, *_: object) -> None:
        self._over.set()
        self._thread.join()


@pytest.fixture
def send(running):
    project = running.ask("/api/projects", {"name": "Large"})["id"]

    def post(name: str, content) -> tuple[int, str]:
        request = urllib.request.Request(
            f"{running.address}/api/projects/{project}/models",
            content,
            {"X-File-Name": name, "Content-Type": "application/octet-stream"},
        )
        try:
            with urllib.request.urlopen(request, timeout=300) as answer:
                return answer.status, answer.read().decode()
        except urllib.error.HTTPError as error:
            return error.code, error.read().decode()

    return post


def test_an_archive_that_unpacks_to_much_takes_little_memory(running, send):
    archive = packed(UNPACKED_MB)
    began = time.monotonic()
    with Watched(running.pids()["server"][0]) as watched:
        status, said = send("big.ifczip", archive)
    print(
        f"{len(archive) / (1 << 20):.1f} MB that unpack to {UNPACKED_MB} MB: {status} after {time.monotonic() - began:.1f} s, "
        f"server {watched.before:.0f} MB before, {watched.most:.0f} MB at most"
    )
    assert status == 201, said
    assert watched.most - watched.before < 200


def test_a_bomb_is_refused_as_soon_as_that_is_known(running, send):
    """Its table of contents says what it unpacks to."""
    bomb = packed(2200)
    began = time.monotonic()
    with Watched(running.pids()["server"][0]) as watched:
        status, said = send("bomb.ifczip", bomb)
    took = time.monotonic() - began
    print(
        f"{len(bomb) / (1 << 20):.1f} MB that unpack to 2200 MB: {status} after {took:.1f} s, {watched.most:.0f} MB at most"
    )
    assert status == 422
    assert "unpacks to more than 2048 MB" in said
    assert watched.most - watched.before < 100


def test_a_large_plain_file_takes_little_memory(running, send):
    content = simple().content() + PIECE * PLAIN_MB + b"\nEND-ISO-10303-21;\n"
    with Watched(running.pids()["server"][0]) as watched:
        status, said = send("plain.ifc", content)
    print(f"{PLAIN_MB} MB: {status}, server {watched.before:.0f} MB before, {watched.most:.0f} MB at most")
    assert status == 201, said
    assert watched.most - watched.before < 150
