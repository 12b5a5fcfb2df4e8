"""The database's own door: a password that is its owner's alone, and nobody let in without it."""

from __future__ import annotations

import os
import stat
import subprocess
import tempfile
from pathlib import Path

import psycopg
import pytest

from stairpath.start.postgres import ROLE, CannotStartError, Cluster, programs
from tests.database import run_beside

FIRST_PORT = 55_800 + 100 * run_beside()


@pytest.fixture
def folder():
    made = Path(tempfile.mkdtemp(prefix="stairpath-test-", dir="/var/tmp"))
    made.chmod(0o755)
    yield made
    subprocess.run(["rm", "-rf", str(made)], check=True)


@pytest.fixture
def cluster(folder):
    made = Cluster(folder / "postgres", fast=True, first_port=FIRST_PORT)
    made.start()
    yield made
    made.remove()


def attempt(cluster, user, password="", database="postgres"):
    return psycopg.connect(
        host="127.0.0.1", port=cluster.port, user=user, password=password, dbname=database, connect_timeout=5
    )


def test_nobody_comes_in_without_the_password(cluster, folder):
    secret = folder / "postgres.password"
    assert stat.S_IMODE(secret.stat().st_mode) == 0o600
    assert len(secret.read_text()) >= 32
    assert "trust" not in [
        line.split()[-1]
        for line in (cluster.folder / "pg_hba.conf").read_text().splitlines()
        if line and not line.startswith("#")
    ]
    for user in (ROLE, "keeper", "postgres"):
        for password in ("", "guess"):
            with pytest.raises(psycopg.OperationalError):
                attempt(cluster, user, password)


def test_the_application_may_do_no_more_than_it_must(cluster):
    with psycopg.connect(cluster.url, autocommit=True) as connection:
        rights = connection.execute(
            "SELECT rolsuper, rolcreaterole, rolcreatedb FROM pg_roles WHERE rolname = current_user"
        ).fetchone()
        assert rights == (False, False, False)
        with pytest.raises(psycopg.errors.InsufficientPrivilege):
            connection.execute("COPY (SELECT 1) TO PROGRAM 'true'")


def test_it_starts_again_with_the_same_password_and_is_found_running(cluster):
    again = Cluster(cluster.home, fast=True)
    again.start()
    assert again.url == cluster.url
    cluster.stop()
    assert not cluster.is_running()
    cluster.start_again()
    assert cluster.is_running()
    psycopg.connect(cluster.url).close()


def test_another_password_is_told_with_what_to_do(cluster, folder):
    (folder / "postgres.password").write_text("another")
    with pytest.raises(CannotStartError, match="does not take the password in"):
        Cluster(cluster.home).start()


def test_a_database_of_an_earlier_version_gets_a_password(folder):
    """It let everybody in, and its application was its superuser."""
    cluster = Cluster(folder / "postgres", fast=True, first_port=FIRST_PORT)
    cluster.folder = cluster._reachable()
    made = cluster._run(
        [str(programs() / "initdb"), "-D", str(cluster.folder), "-A", "trust", "-U", ROLE, "-E", "UTF8", "--no-locale"]
    )
    assert made.returncode == 0
    try:
        cluster.start()
        with pytest.raises(psycopg.OperationalError):
            attempt(cluster, ROLE)
        with attempt(cluster, ROLE, (folder / "postgres.password").read_text(), "postgres") as connection:
            assert connection.execute("SELECT 1").fetchone() == (1,)
    finally:
        cluster.remove()
    assert not os.path.exists(folder / "postgres.password")
