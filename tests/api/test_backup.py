"""Backups: everything out and in again, row by row and hash by hash; what is damaged is said and nothing is lost for it."""

from __future__ import annotations

import hashlib
import json
import os
import zipfile

import psycopg
import pytest
from psycopg import sql
from sqlalchemy import text
from typer.testing import CliRunner

from stairpath.command import app
from stairpath.core.people.passwords import LEAST
from stairpath.start.backing_up import CannotBackUpError, back_up, restore, verify
from stairpath.store import backups, blobs
from stairpath.store.database import transaction
from stairpath.store.person_tables import GuestLink, Person
from stairpath.work.base.unit_of_work import WORKER, read_only, unit_of_work
from stairpath.work.people import guests, links, sign_ins
from tests.api.test_kept_before import KEPT
from tests.api.test_topics import make
from tests.api.test_views import keep

GOOD = "harbour wall at low tide"
assert len(GOOD) > LEAST
LEFT_BEHIND = ("sign_in", "one_time_link", "mail", "program_grant", "elsewhere_try")
"""Nobody is signed in after a restore; tokens are brought back from the secrets."""


def use(address: str) -> None:
    """Have this process work on another database."""
    from stairpath.settings import settings
    from stairpath.store import database, queue

    database.engine().dispose()
    os.environ["STAIRPATH_DATABASE_URL"] = address
    for each in (settings, database.engine, queue._app):
        each.cache_clear()


@pytest.fixture
def elsewhere(client, database_url):
    """A database on a new machine: within the block this process works there."""
    name = "elsewhere"
    keeper = database_url.replace("://stairpath:", "://keeper:").rpartition("/")[0] + "/postgres"
    with psycopg.connect(keeper, autocommit=True) as connection:
        connection.execute(sql.SQL("CREATE DATABASE {} OWNER stairpath").format(sql.Identifier(name)))
    url = database_url.rpartition("/")[0] + f"/{name}"
    yield url
    client.cookies.clear()
    use(database_url)
    sign_ins.ANYBODY.some = False
    with psycopg.connect(keeper, autocommit=True) as connection:
        connection.execute(sql.SQL("DROP DATABASE {} WITH (FORCE)").format(sql.Identifier(name)))


def rows_of(address: str) -> dict[str, str]:
    """A hash over all rows of each table, those of the queue left out."""
    found = {}
    with psycopg.connect(address) as connection:
        tables = connection.execute("SELECT tablename FROM pg_tables WHERE schemaname = 'public'").fetchall()
        for (table,) in tables:
            if table.startswith("procrastinate") or table in LEFT_BEHIND:
                continue
            asked = sql.SQL("SELECT t::text FROM {} t ORDER BY t::text").format(sql.Identifier(table))
            digest = hashlib.sha256()
            for (row,) in connection.execute(asked):
                digest.update(row.encode())
            found[table] = digest.hexdigest()
    return found


@pytest.fixture
def kept(client, project, opened):
    """A project with a topic, a view, somebody who signs in, a guest link and a token."""
    return filled(client, project, opened)


@pytest.fixture
def whole(client, house, opened):
    """The same with a model that was read."""
    return filled(client, house, opened)


def filled(client, house, opened):
    """Something of each kind that a backup keeps."""
    make(client, house, "Gap")
    keep(client, house)
    secret = links.add_person("ida", "Ida Fenn", owner=True)
    ida = opened()
    assert ida.post("/api/links/use", json={"secret": secret, "password": GOOD}).status_code == 200
    token = ida.post("/api/tokens", json={"name": "Tablet", "scope": "look", "days": 30}).json()["secret"]
    guest = ida.post(f"/api/projects/{house}/guest-links", json={"name": "Client", "days": 7}).json()["secret"]
    return house, token, guest


@pytest.mark.parametrize("into", ["file", "folder"])
def test_a_restore_on_a_new_machine_has_the_same_rows_and_bytes(client, whole, database_url, elsewhere, tmp_path, into):
    house, token, guest = whole
    before = rows_of(database_url)
    target = tmp_path / "kept.backup"
    if into == "folder":
        target.mkdir()
    said = back_up(target)
    assert said.endswith("keep it apart.")
    source = target if into == "file" else next(p for p in target.iterdir() if p.is_dir() and p.name != "blobs")
    secrets = next(tmp_path.rglob("*.secrets"))
    assert secrets.stat().st_mode & 0o777 == 0o600
    assert not any(b"argon2" in path.read_bytes() for path in tmp_path.rglob("*") if path.is_file() and path != secrets)
    use(elsewhere)
    restore(source, secrets)
    after = rows_of(elsewhere)
    assert {name for name in before if before[name] != after.get(name)} == set()
    assert verify() == []
    sign_ins.ANYBODY.some = True
    there = {"Authorization": f"Bearer {token}"}
    assert house in [p["id"] for p in client.get("/api/projects", headers=there).json()]
    assert client.post("/api/sign-in", json={"name": "ida", "password": GOOD}).status_code == 200
    shown = guests.look_at(guest)
    assert shown is not None
    assert shown.project_id == house


def test_without_its_secrets_a_backup_opens_for_nobody_until_they_set_passwords(kept, elsewhere, tmp_path):
    back_up(tmp_path / "kept.backup")
    use(elsewhere)
    assert "Nobody has a password" in restore(tmp_path / "kept.backup", None)
    with transaction() as session:
        assert session.query(Person).one().password is None
        assert session.query(GuestLink).count() == 0


def test_a_folder_gets_only_what_is_new(client, kept, tmp_path):
    house, *_ = kept
    back_up(tmp_path)
    first = {path: path.stat().st_mtime_ns for path in (tmp_path / "blobs").rglob("*.gz")}
    with unit_of_work(WORKER) as act:
        blobs.keep(act.session, house, b"something new", "text/plain")
    for path in list(tmp_path.iterdir()):
        if path.is_dir() and path.name != "blobs":
            path.rename(tmp_path / "earlier")
    back_up(tmp_path)
    second = {path: path.stat().st_mtime_ns for path in (tmp_path / "blobs").rglob("*.gz")}
    assert len(second) == len(first) + 1
    assert all(second[path] == at for path, at in first.items())


def test_a_damaged_backup_restores_nothing(kept, database_url, elsewhere, tmp_path):
    path = tmp_path / "kept.backup"
    back_up(path)
    other = tmp_path / "damaged.backup"
    with zipfile.ZipFile(path) as good, zipfile.ZipFile(other, "w") as bad:
        for name in good.namelist():
            data = good.read(name)
            bad.writestr(name, data[:-1] + b"?" if name.startswith("blobs/") else data)
    use(elsewhere)
    with pytest.raises(CannotBackUpError, match=r"damaged\. Nothing was restored"):
        restore(other, None)
    with psycopg.connect(elsewhere) as connection:
        assert connection.execute("SELECT count(*) FROM pg_tables WHERE schemaname = 'public'").fetchone() == (0,)
    for wrong in (tmp_path / "none", tmp_path / "kept.backup.secrets"):
        with pytest.raises(CannotBackUpError):
            restore(wrong, None)


def test_what_is_there_is_never_written_over(kept, tmp_path):
    back_up(tmp_path / "kept.backup")
    with pytest.raises(CannotBackUpError, match="Restore into an empty one"):
        restore(tmp_path / "kept.backup", None)


def test_a_backup_of_a_newer_form_is_not_guessed_at(kept, elsewhere, tmp_path):
    path, newer = tmp_path / "kept.backup", tmp_path / "newer.backup"
    back_up(path)
    with zipfile.ZipFile(path) as good, zipfile.ZipFile(newer, "w") as other:
        manifest = json.loads(good.read("manifest.json"))
        other.writestr("manifest.json", json.dumps({**manifest, "form": 2}))
    use(elsewhere)
    with pytest.raises(CannotBackUpError, match="newer version"):
        restore(newer, None)


def test_verify_says_which_bytes_are_damaged_and_which_are_missing(client, house):
    assert verify() == []
    with transaction() as session:
        sha = session.scalar(text("SELECT frame->>'columns' FROM model WHERE project_id = :id"), {"id": house})
        other = session.scalar(text("SELECT geometry FROM model WHERE project_id = :id"), {"id": house})
        held = session.execute(
            text("SELECT data FROM blob_piece WHERE sha256 = :s AND number = 0"), {"s": other}
        ).scalar()
        session.execute(text("UPDATE blob_piece SET data = '\\x00' WHERE sha256 = :s AND number = 0"), {"s": other})
        blob = session.execute(text("SELECT size, media_type FROM blob WHERE sha256 = :s"), {"s": sha}).one()
        pieces = session.execute(text("SELECT number, data FROM blob_piece WHERE sha256 = :s"), {"s": sha}).all()
        session.execute(text("DELETE FROM blob WHERE sha256 = :s"), {"s": sha})
    said = CliRunner().invoke(app, ["verify"])
    assert said.exit_code == 1
    assert sorted(line.split()[0] for line in said.stdout.splitlines()) == ["A", "The"]
    assert other in said.stdout
    assert f"names {sha}, which is not kept" in said.stdout
    with transaction() as session:
        session.execute(
            text("UPDATE blob_piece SET data = :d WHERE sha256 = :s AND number = 0"), {"d": held, "s": other}
        )
        session.execute(
            text("INSERT INTO blob (sha256, size, media_type) VALUES (:s, :n, :t)"),
            {"s": sha, "n": blob.size, "t": blob.media_type},
        )
        for number, data in pieces:
            session.execute(
                text("INSERT INTO blob_piece (sha256, number, data) VALUES (:s, :n, :d)"),
                {"s": sha, "n": number, "d": data},
            )
        session.execute(text("INSERT INTO project_blob (project_id, sha256) VALUES (:p, :s)"), {"p": house, "s": sha})
    assert verify() == []


def test_people_work_while_it_is_backed_up(kept, elsewhere, tmp_path, monkeypatch):
    """A backup is of one moment: what is made while it is written is not in it, and nothing waits for it."""
    house, *_ = kept
    of_then = backups.Snapshot.blobs

    def and_meanwhile(self):
        with unit_of_work(WORKER) as act:
            act.project(house, hold=True).name = "Renamed since"
        return of_then(self)

    monkeypatch.setattr(backups.Snapshot, "blobs", and_meanwhile)
    back_up(tmp_path / "kept.backup")
    with read_only() as look:
        assert look.project(house).name == "Renamed since"
    use(elsewhere)
    restore(tmp_path / "kept.backup", None)
    with read_only() as look:
        assert look.project(house).name == "Trial house"


def test_a_backup_of_an_earlier_version_comes_back_and_is_brought_to_this_one(client, elsewhere, tmp_path):
    """``kept/first.backup`` was made by the first version that made backups."""
    use(elsewhere)
    assert "files are back as of 2026-12-01" in restore(KEPT / "first.backup", KEPT / "first.backup.secrets")
    assert verify() == []
    sign_ins.ANYBODY.some = True
    signed = client.post("/api/sign-in", json={"name": "ida", "password": GOOD})
    there = {"Cookie": f"stairpath={signed.cookies['stairpath']}"}
    (project,) = client.get("/api/projects", headers=there).json()
    assert (project["name"], project["models"], project["role"]) == ("Trial house", 1, "own")
    head = client.get(f"/api/projects/{project['id']}/federation", headers=there).json()
    chunk = head["models"][0]["chunks"][0]["sha256"]
    assert client.get(f"/api/projects/{project['id']}/blobs/{chunk}", headers=there).content[:4] == b"glTF"
