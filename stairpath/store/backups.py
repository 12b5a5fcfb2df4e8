"""What a backup reads and a restore writes, all of it of one moment: blobs in pieces, and people without and with secrets."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

import psycopg
from psycopg import sql
from psycopg.rows import dict_row
from psycopg.types.json import Jsonb

from stairpath.settings import settings

APART = ("person", "guest_link", "sign_in", "one_time_link", "mail", "program_grant", "elsewhere_try")
"""Tables with secrets in them. The dump of the rows has none of their rows."""
PIECES = "blob_piece"
_PEOPLE = {"person": ("password", "code_secret", "recovery"), "guest_link": ("secret_hash",)}
"""Tables whose rows are kept beside the dump, without the columns that are secrets."""
_ROWS_AT_ONCE = 200


@dataclass(frozen=True)
class Snapshot:
    """The database as it was at one moment, whatever people do meanwhile; ``name`` lets another connection see the same."""

    connection: psycopg.Connection[dict[str, Any]]
    name: str

    def revision(self) -> str:
        """The last migration that was made."""
        found = self.connection.execute("SELECT version_num FROM alembic_version").fetchone()
        return "" if found is None else str(found["version_num"])

    def counts(self) -> dict[str, int]:
        """How many rows each table has."""
        tables = self.connection.execute(
            "SELECT tablename FROM pg_tables WHERE schemaname = current_schema() ORDER BY tablename"
        ).fetchall()
        found = {}
        for each in tables:
            asked = sql.SQL("SELECT count(*) AS n FROM {}").format(sql.Identifier(each["tablename"]))
            row = self.connection.execute(asked).fetchone()
            found[str(each["tablename"])] = 0 if row is None else int(row["n"])
        return found

    def blobs(self) -> list[str]:
        """The hashes of all that is kept, in order."""
        return [str(row["sha256"]) for row in self.connection.execute("SELECT sha256 FROM blob ORDER BY sha256")]

    def pieces(self, sha256: str) -> Iterator[bytes]:
        """The bytes of a hash, piece by piece."""
        asked = "SELECT data FROM blob_piece WHERE sha256 = %s AND number = %s"
        number = 0
        while (row := self.connection.execute(asked, (sha256, number)).fetchone()) is not None:
            yield row["data"]
            number += 1

    def people(self) -> Iterator[dict[str, Any]]:
        """People and guest links, each with its table and without its secret."""
        for table, secrets in _PEOPLE.items():
            for row in self._rows(table):
                yield {"table": table, "row": {name: value for name, value in row.items() if name not in secrets}}

    def secrets(self) -> Iterator[dict[str, Any]]:
        """Hashes of passwords and of guest links by the ids of their rows, and the tokens of other programs as they are."""
        for table, secrets in _PEOPLE.items():
            for row in self._rows(table):
                yield {"table": table, "id": row["id"], "secrets": {name: row[name] for name in secrets}}
        for row in self._rows("sign_in"):
            if row["scope"] is not None and row["grant_id"] is None:
                yield {"table": "sign_in", "row": row}

    def _rows(self, table: str) -> Iterator[dict[str, Any]]:
        asked = sql.SQL("SELECT to_jsonb(t) AS row FROM {} t ORDER BY id").format(sql.Identifier(table))
        for found in self.connection.execute(asked):
            yield found["row"]


@contextmanager
def snapshot() -> Iterator[Snapshot]:
    """See the database as it is now until the block ends."""
    with psycopg.connect(settings().database_url, row_factory=dict_row) as connection:
        connection.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY")
        found = connection.execute("SELECT pg_export_snapshot() AS name").fetchone()
        yield Snapshot(connection, "" if found is None else str(found["name"]))


def is_empty() -> bool:
    """Whether nobody made anything in the database yet."""
    with psycopg.connect(settings().database_url) as connection:
        for table in ("project", "person"):
            there = connection.execute("SELECT to_regclass(%s) IS NOT NULL", (table,)).fetchone()
            if there and there[0]:
                asked = sql.SQL("SELECT EXISTS (SELECT 1 FROM {})").format(sql.Identifier(table))
                some = connection.execute(asked).fetchone()
                if some and some[0]:
                    return False
    return True


def clear() -> None:
    """Delete all tables, for a dump to bring its own; the schema stays, as it is nobody's own."""
    with psycopg.connect(settings().database_url) as connection:
        connection.execute("DROP OWNED BY CURRENT_USER CASCADE")


def keep_pieces(sha256: str, pieces: Iterable[bytes]) -> bool:
    """Keep the bytes of a hash; False where they are not those of the hash, and nothing is kept then."""
    with psycopg.connect(settings().database_url) as connection:
        digest = hashlib.sha256()
        for number, data in enumerate(pieces):
            digest.update(data)
            connection.execute(
                "INSERT INTO blob_piece (sha256, number, data) VALUES (%s, %s, %s)", (sha256, number, data)
            )
        if digest.hexdigest() != sha256:
            connection.rollback()
            return False
    return True


def keep_people(rows: Iterable[Mapping[str, Any]], secrets: Iterable[Mapping[str, Any]]) -> None:
    """Keep people and guest links with their secrets, as far as there are any; a guest link without its secret opens nothing."""
    known: dict[tuple[str, str], Mapping[str, Any]] = {}
    tokens = []
    for each in secrets:
        if "row" in each:
            tokens.append(each["row"])
        else:
            table = each["table"]
            # Earlier backups have one secret of each row: the first of today's.
            known[table, each["id"]] = each["secrets"] if "secrets" in each else {_PEOPLE[table][0]: each["secret"]}
    with psycopg.connect(settings().database_url) as connection:
        for each in rows:
            table, row = each["table"], dict(each["row"])
            secret = known.get((table, row["id"]))
            if table == "guest_link" and secret is None:
                continue
            if secret is None and "code_on" in row:
                row["code_on"] = False  # they set a password by a new link, and a second factor anew
            row |= secret or {}
            _insert(connection, table, row)
        for row in tokens:
            _insert(connection, "sign_in", row)


def _insert(connection: psycopg.Connection[Any], table: str, row: Mapping[str, Any]) -> None:
    # The server reads each value as its column's own type; columns that the row has not get what they begin with.
    names = sql.SQL(", ").join(sql.Identifier(name) for name in row)
    connection.execute(
        sql.SQL("INSERT INTO {table} ({names}) SELECT {names} FROM jsonb_populate_record(NULL::{table}, %s)").format(
            table=sql.Identifier(table), names=names
        ),
        (Jsonb(row),),
    )


def wrong_blobs() -> Iterator[str]:
    """What is wrong with bytes that are kept, in a sentence each: not those of their hash, or not there though rows name them."""
    with snapshot() as seen:
        sizes = {row["sha256"]: row["size"] for row in seen.connection.execute("SELECT sha256, size FROM blob")}
        for sha256, size in sizes.items():
            digest, length = hashlib.sha256(), 0
            for piece in seen.pieces(sha256):
                digest.update(piece)
                length += len(piece)
            if digest.hexdigest() != sha256 or length != size:
                yield f"The bytes of {sha256} are damaged: {length:,} of {size:,} bytes, with another hash."
        for table, sha256 in _named(seen):
            if sha256 not in sizes:
                yield f"A row of {table} names {sha256}, which is not kept."


_IN_DOCUMENTS = (
    ("model", "frame->>'columns'"), ("model", "frame->>'sorts'"), ("model", "frame->>'traits'"),
    ("model", "placed->>'columns'"), ("model", "placed->>'boxes'"),
    ("project", "jsonb_path_query(federation, '$.levels[*].plan') #>> '{}'"),
    ("viewpoint", "jsonb_path_query(view, '$.pictures[*].sha256') #>> '{}'"),
    ("task", "jsonb_path_query(results, '$.*') #>> '{}'"),
)  # fmt: skip
"""Where documents name bytes, which no key of the database holds to be there."""


def _named(seen: Snapshot) -> Iterator[tuple[str, str]]:
    for table, where in _IN_DOCUMENTS:
        for row in seen.connection.execute(f"SELECT DISTINCT {where} AS sha256 FROM {table}"):
            if row["sha256"] is not None:
                yield table, str(row["sha256"])
