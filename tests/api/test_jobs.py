"""The jobs: what happens in the middle of a reading, and after a worker died."""

import pytest
from sqlalchemy import text

from stairpath.core.problems import CannotReadError
from stairpath.core.sandbox import CancelledError, run_sandboxed
from stairpath.jobs import tasks
from stairpath.store.database import transaction
from stairpath.store.tables import Model, Project
from stairpath.work.models import reading
from stairpath.work.tasks import reconcile
from tests.samples import simple


@pytest.fixture
def card(client, project):
    def of(name: str):
        cards = client.get(f"/api/projects/{project}/models").json()
        return next(c for c in cards if c["name"] == name)

    return of


@pytest.fixture
def while_reading(monkeypatch):
    """Do something in the middle of the next reading, before it goes on as it would have."""

    def arrange(act):
        def reads(work, *args, limits, on_progress, cancelled):
            monkeypatch.setattr(reading, "run_sandboxed", run_sandboxed)
            on_progress(0.5, "somewhere")
            act()
            monkeypatch.setattr(reading, "_TELL_EVERY_S", 0.0)
            if cancelled():
                raise CancelledError("cancelled")
            return run_sandboxed(work, *args, limits=limits, on_progress=on_progress, cancelled=cancelled)

        monkeypatch.setattr(reading, "run_sandboxed", reads)

    return arrange


def test_cancelling_in_the_middle_of_a_reading(client, project, send, work, card, while_reading):
    model = send(project, "a.ifc", simple()).json()[0]["id"]
    seen = []

    def cancel():
        seen.append(card("a"))
        assert client.post(f"/api/models/{model}/cancel").status_code == 204

    while_reading(cancel)
    work()
    assert (seen[0]["status"], seen[0]["share"]) == ("reading", 0.5)
    assert card("a")["status"] == "cancelled"
    assert card("a")["message"] == "a.ifc was cancelled; read it again when you want it."
    assert client.post(f"/api/models/{model}/retry").status_code == 204
    work()
    assert card("a")["status"] == "read"


def test_a_model_taken_out_while_it_is_read_stays_out(client, project, send, work, while_reading):
    model = send(project, "a.ifc", simple()).json()[0]["id"]
    while_reading(lambda: client.delete(f"/api/models/{model}"))
    work()
    assert client.get(f"/api/projects/{project}/models").json() == []
    assert client.get(f"/api/projects/{project}/federation").json()["models"] == []


def test_a_newer_file_that_comes_during_a_reading_is_the_one_that_counts(project, send, work, card, while_reading):
    newer = simple()
    newer.box(newer.ifc.by_type("IfcBuildingStorey")[0], (0, 0, 0), (1, 1, 1))
    send(project, "a.ifc", simple())
    while_reading(lambda: send(project, "a.ifc", newer))
    work()
    assert (card("a")["status"], card("a")["components"]) == ("read", 2)


def test_what_was_read_stays_when_a_newer_file_fails(project, send, work, card, building):
    send(project, "a.ifc", simple())
    work()
    send(project, "a.ifc", simple().content().replace(b"IFCPROJECT(", b"IFCPERSON(", 1))
    work()
    assert card("a")["status"] == "failed"
    assert card("a")["message"].startswith("a.ifc ")
    (model,) = building(project)["models"]
    assert model["labels"] == ["W-1"]


def test_running_a_job_twice_changes_nothing(client, project, send, work):
    model = send(project, "a.ifc", simple()).json()[0]["id"]
    work()
    before = client.get(f"/api/projects/{project}/federation").json()
    tasks.read_model(model)
    assert client.get(f"/api/projects/{project}/federation").json() == before


def test_a_reading_that_fails_says_what_the_reader_said(project, send, work, card, monkeypatch):
    def fails(*args, **more):
        raise CannotReadError("a.ifc crashed the geometry kernel; export it again.")

    send(project, "a.ifc", simple())
    monkeypatch.setattr(reading, "run_sandboxed", fails)
    work()
    assert (card("a")["status"], card("a")["message"]) == (
        "failed",
        "a.ifc crashed the geometry kernel; export it again.",
    )


def test_a_file_that_is_no_longer_kept_says_so(project, send, work, card, monkeypatch):
    send(project, "a.ifc", simple())
    monkeypatch.setattr("stairpath.store.blobs.is_kept", lambda session, sha: False)
    work()
    assert card("a")["status"] == "failed"
    assert "no longer kept" in card("a")["message"]


def test_jobs_for_what_is_gone_do_nothing(client, project, send, work, card):
    """Neither for a model and a project that never were, nor for ones that were taken away."""
    send(project, "a.ifc", simple())
    work()
    before = client.get(f"/api/projects/{project}/models").json()
    head = client.get(f"/api/projects/{project}/federation").json()
    gone = client.post("/api/projects", json={"name": "Gone"}).json()["id"]
    lost = send(gone, "b.ifc", simple()).json()[0]["id"]
    work()
    with transaction() as session:
        session.query(Model).filter(Model.id == lost).delete()
        session.query(Project).filter(Project.id == gone).delete()
        queued = session.execute(text("SELECT count(*) FROM procrastinate_jobs")).scalar_one()
    for model_id, project_id in (("0" * 32, "0" * 32), (lost, gone)):
        tasks.read_model(model_id)
        tasks.federate_project(project_id)
    with transaction() as session:
        assert session.execute(text("SELECT count(*) FROM procrastinate_jobs")).scalar_one() == queued
        assert session.get(Model, lost) is None
    assert client.get(f"/api/projects/{project}/models").json() == before
    assert client.get(f"/api/projects/{project}/federation").json() == head


def test_a_job_whose_worker_died_is_run_again(project, send, work, card):
    """Its heart is set back by a minute, as if the worker had been killed while it had the job."""
    send(project, "a.ifc", simple())
    with transaction() as session:
        worker = session.scalar(
            text("INSERT INTO procrastinate_workers (last_heartbeat) VALUES (now() - interval '1 minute') RETURNING id")
        )
        session.execute(
            text(
                "UPDATE procrastinate_jobs SET status = 'doing', worker_id = :worker "
                "WHERE status = 'todo' AND task_name = 'read_model'"
            ),
            {"worker": worker},
        )
        session.query(Model).filter(Model.name == "a", Model.project_id == project).update({"status": "reading"})
    work()
    assert card("a")["status"] == "reading"  # nobody has taken it up yet

    assert reconcile.take_up(30.0, None, []) == 1
    work()
    assert card("a")["status"] == "read"


def test_a_project_that_an_older_version_federated_is_federated_again(client, project, send, work):
    send(project, "a.ifc", simple())
    work()
    with transaction() as session:
        session.execute(
            text(
                "UPDATE project SET federation = federation - 'summary' || "
                """'{"levels": [{"name": "Level 00", "elevation_m": 0.0}]}' WHERE id = :id"""
            ),
            {"id": project},
        )
    assert client.get(f"/api/projects/{project}/federation").json()["levels"][0]["plan"] is None
    reconcile.find_work()
    work()
    assert client.get(f"/api/projects/{project}/federation").json()["levels"][0]["plan"]
    with transaction() as session:
        kept = session.get_one(Project, project)
        assert kept.federation is not None
        assert kept.federation.summary > 0
