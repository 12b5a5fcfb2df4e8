"""What is kept in PostgreSQL comes back as it was."""

import hashlib
import io

import numpy as np
import pytest
from sqlalchemy import func, select, text

from stairpath.core.federation.outline import outline
from stairpath.core.reading.read import read_model
from stairpath.store import blobs, readings
from stairpath.store.database import transaction
from stairpath.store.tables import BlobPiece, Component, Model, Project
from stairpath.work.base.unit_of_work import Who, read_only
from stairpath.work.building import components
from stairpath.work.models import federating
from stairpath.work.models.models import keep_files
from tests.samples import simple


@pytest.mark.parametrize("size", [0, 1, blobs.PIECE_BYTES, blobs.PIECE_BYTES * 2 + 17])
def test_bytes_of_any_size_come_back(database_url, size):
    data = np.random.default_rng(size).bytes(size)
    with transaction() as session:
        sha = blobs.keep(session, "a project", data, "application/octet-stream")
    assert sha == hashlib.sha256(data).hexdigest()
    with transaction() as session:
        assert blobs.load(session, sha) == (data, "application/octet-stream")
        pieces = session.scalar(select(func.count()).where(BlobPiece.sha256 == sha))
    assert pieces == -(-size // blobs.PIECE_BYTES)


def test_the_same_bytes_are_kept_once(database_url):
    with transaction() as session:
        first = blobs.keep(session, "a project", b"the same tide", "text/plain")
        again = blobs.keep(session, "a project", b"the same tide", "text/plain")
        assert first == again
        assert session.scalar(select(func.count()).where(BlobPiece.sha256 == first)) == 1


def test_bytes_that_are_not_there(database_url):
    with transaction() as session:
        assert blobs.load(session, "0" * 64) is None


def test_what_fails_in_the_middle_leaves_nothing(database_url):
    def half() -> None:
        with transaction() as session:
            blobs.keep(session, "a project", b"half a tide", "text/plain")
            raise RuntimeError("half way")

    with pytest.raises(RuntimeError, match="half way"):
        half()
    with transaction() as session:
        assert blobs.load(session, hashlib.sha256(b"half a tide").hexdigest()) is None


@pytest.fixture
def read_sample(project, send, work):
    sample = simple("IFC4", "ft")
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    sample.grid({"1": 0.0, "2": 20.0}, {"A": 0.0, "B": 10.0})
    sample.room(storey, "0.01", "Hall", (0, 0, 0), (20, 20, 10))
    sample.map_conversion(412_300.0, 88_650.0, 3.0, 17.0)
    model = send(project, "T-ARC.ifc", sample).json()[0]["id"]
    work()
    return model, sample


def test_a_model_comes_back_as_it_was_read(read_sample):
    model_id, sample = read_sample
    wanted = outline(read_model("T-ARC.ifc", sample.content()))
    with transaction() as session:
        found = readings.load_outline(session, session.get_one(Model, model_id))
    for part in ("name", "schema", "length_unit", "storeys", "grid_axes", "map_conversion", "global_ids", "classes",
                 "type_classes", "systems", "component_storeys", "problems"):  # fmt: skip
        assert getattr(found, part) == getattr(wanted, part), part
    assert found.bounds_own == pytest.approx(wanted.bounds_own)
    assert np.array_equal(found.geometry.matrix, wanted.geometry.matrix)
    (room,), (as_read,) = found.rooms, wanted.rooms
    assert (room.number, room.name, room.low_m, room.high_m) == (
        as_read.number, as_read.name, as_read.low_m, as_read.high_m,
    )  # fmt: skip
    assert room.floor == pytest.approx(as_read.floor)


def test_a_model_that_was_not_read_has_no_outline(project, database_url):
    (model,) = keep_files(Who("Ida Fenn"), project, [("x.ifc", io.BytesIO(b"anything"))])
    with read_only() as look, pytest.raises(LookupError, match="x has not been read"):
        readings.load_outline(look.session, model)


def test_components_know_their_place_once_federated(read_sample):
    model_id, _ = read_sample
    with transaction() as session:
        (row,) = session.scalars(select(Component).where(Component.model_id == model_id))
        project = session.get_one(Project, session.get_one(Model, model_id).project_id)
        assert project.federation is not None
        assert project.federation.rooms[0].name == "Hall"
    known = components.known(model_id, row.global_id)
    assert (known.level, known.discipline, known.room) == ("Level 00", "ARC", "0.01 Hall")
    assert known.bounds_m is not None
    assert known.bounds_m[0] > 412_290


def test_federating_again_changes_nothing_but_the_version(read_sample):
    model_id, _ = read_sample
    with transaction() as session:
        project = session.get_one(Project, session.get_one(Model, model_id).project_id)
        before, version = project.federation, project.version
    federating.bring_together(project.id)
    with transaction() as session:
        project = session.get_one(Project, project.id)
        assert project.federation == before
        assert project.version == version + 1


def test_deleting_a_project_leaves_no_rows_of_it(read_sample):
    model_id, _ = read_sample
    with transaction() as session:
        project = session.get_one(Model, model_id).project_id
        session.execute(text("DELETE FROM project WHERE id = :id"), {"id": project})
    with transaction() as session:
        assert session.scalar(select(func.count()).where(Component.model_id == model_id)) == 0


def test_the_tables_are_those_of_the_migrations(database_url):
    from alembic.autogenerate import compare_metadata
    from alembic.migration import MigrationContext

    from stairpath.store import person_tables  # noqa: F401 - so that its tables are known
    from stairpath.store.database import engine
    from stairpath.store.tables import Base

    def ours(name, kind, parent):
        return kind != "table" or not name.startswith("procrastinate")

    with engine().connect() as connection:
        context = MigrationContext.configure(connection, opts={"include_name": ours, "compare_type": True})
        assert compare_metadata(context, Base.metadata) == []
