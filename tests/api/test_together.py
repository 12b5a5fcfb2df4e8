"""Several people at once, and things done in the wrong order: one model, distinct places, nothing lost."""

from __future__ import annotations

import threading
from concurrent.futures import ThreadPoolExecutor

import pytest
from sqlalchemy import text

from stairpath.store import queue
from stairpath.store.database import transaction
from stairpath.store.tables import Model
from stairpath.work.base.unit_of_work import READ, WORKER, unit_of_work
from stairpath.work.tasks import reconcile
from tests.samples import simple


def cards(client, project):
    return client.get(f"/api/projects/{project}/models").json()


def at_once(count, act):
    """Do something so many times, all beginning together."""
    ready = threading.Barrier(count)

    def one(k):
        ready.wait()
        return act(k)

    with ThreadPoolExecutor(count) as pool:
        return list(pool.map(one, range(count)))


def test_the_same_file_sent_twice_at_once_is_one_model(client, project, send, work):
    content = simple().content()
    for round_ in range(5):
        answers = at_once(3, lambda k, n=round_: send(project, f"same-{n}.ifc", content))
        assert {a.status_code for a in answers} == {201}
        assert len({a.json()[0]["id"] for a in answers}) == 1
    assert len(cards(client, project)) == 5
    work()
    assert {c["status"] for c in cards(client, project)} == {"read"}


def test_many_files_at_once_get_places_of_their_own(client, project, send):
    at_once(10, lambda k: send(project, f"file-{k}.ifc", simple()))
    with transaction() as session:
        places = [m.position for m in session.query(Model).filter(Model.project_id == project)]
    assert sorted(places) == list(range(10))


def test_the_same_file_once_more_changes_nothing(client, project, send, work):
    content = simple().content()
    send(project, "a.ifc", content)
    work()
    before = client.get(f"/api/projects/{project}/federation").json()["version"]
    send(project, "a.ifc", content)
    assert cards(client, project)[0]["status"] == "read"
    work()
    assert client.get(f"/api/projects/{project}/federation").json()["version"] == before


def test_a_model_taken_out_while_it_waits_and_brought_back_is_read(client, project, send, work):
    model = send(project, "a.ifc", simple()).json()[0]["id"]
    client.delete(f"/api/models/{model}")
    work()
    assert cards(client, project) == []
    client.post(f"/api/models/{model}/restore")
    work()
    assert [c["status"] for c in cards(client, project)] == ["read"]


def test_a_model_is_not_brought_back_beside_another_of_its_name(client, project, send, work):
    first = send(project, "a.ifc", simple()).json()[0]["id"]
    client.delete(f"/api/models/{first}")
    send(project, "a.ifc", simple())
    answer = client.post(f"/api/models/{first}/restore")
    assert answer.status_code == 409
    assert answer.json()["detail"] == "There is another a now. Remove that one first."


def test_what_is_deleted_is_not_renamed(client, project):
    assert client.delete(f"/api/projects/{project}").status_code == 204
    for answer in (
        client.put(f"/api/projects/{project}/name", json={"name": "Later"}),
        client.get(f"/api/projects/{project}/federation"),
        client.get(f"/api/projects/{project}/models"),
        client.delete(f"/api/projects/{project}"),
    ):
        assert answer.status_code == 410
        assert "is in the bin. Restore it from the start page" in answer.json()["detail"]
    assert project not in {p["id"] for p in client.get("/api/projects").json()}
    assert project in {p["id"] for p in client.get("/api/projects", params={"bin": True}).json()}
    assert client.post(f"/api/projects/{project}/restore").json()["name"] == "Trial house"
    assert client.post(f"/api/projects/{project}/restore").status_code == 409
    assert client.put(f"/api/projects/{project}/name", json={"name": " Pump house "}).json()["name"] == "Pump house"
    assert client.put(f"/api/projects/{project}/name", json={"name": "  "}).status_code == 422


def test_a_project_made_for_files_is_there_once_one_was_taken_in(client, send):
    wish = {"name": "Gull", "for_files": True}
    project = client.post("/api/projects", json=wish).json()["id"]
    assert send(project, "a.ifc", b"dear all").status_code == 422
    assert project not in {p["id"] for p in client.get("/api/projects").json()}
    send(project, "a.ifc", simple())
    assert project in {p["id"] for p in client.get("/api/projects").json()}


def test_a_project_made_for_files_that_never_came_is_forgotten_after_a_day(client):
    wish = {"name": "Never", "for_files": True}
    project = client.post("/api/projects", json=wish).json()["id"]
    reconcile.forget()
    assert client.get(f"/api/projects/{project}/federation").status_code == 200
    with transaction() as session:
        session.execute(
            text("UPDATE project SET created_at = now() - interval '25 hours' WHERE id = :id"), {"id": project}
        )
    reconcile.forget()
    assert client.get(f"/api/projects/{project}/federation").status_code == 404


def jobs(lock):
    with transaction() as session:
        rows = session.execute(
            text("SELECT status FROM procrastinate_jobs WHERE lock = :lock ORDER BY id"), {"lock": lock}
        )
        return [row.status for row in rows]


def test_a_job_is_on_the_queue_exactly_if_what_asks_for_it_was_kept(client):
    def half():
        with unit_of_work(WORKER) as act:
            act.put_federation("half")
            raise RuntimeError("half way")

    with pytest.raises(RuntimeError):
        half()
    assert jobs("federate-half") == []
    with unit_of_work(WORKER) as act:
        act.put_federation("half")
        act.put_federation("half")
    assert jobs("federate-half") == ["todo"]


def test_a_like_job_that_waits_is_held_until_what_asks_for_it_is_kept(client):
    """Else a worker could begin it before, and would miss what was written."""
    with unit_of_work(WORKER) as act:
        act.put_federation("held")
    taken = text(
        "SELECT id FROM procrastinate_jobs WHERE lock = 'federate-held' AND status = 'todo' FOR UPDATE SKIP LOCKED"
    )
    with unit_of_work(WORKER) as act:
        act.put_federation("held")
        with transaction() as other:
            assert other.execute(taken).all() == []
    with transaction() as other:
        assert len(other.execute(taken).all()) == 1


def dying(session, lock, task=READ, heart="2 minutes", worker=None):
    """A job that a worker had when its heart stopped so long ago; returns the worker."""
    if worker is None:
        worker = session.scalar(
            text(f"INSERT INTO procrastinate_workers (last_heartbeat) VALUES (now() - interval '{heart}') RETURNING id")
        )
    session.execute(
        text(
            "INSERT INTO procrastinate_jobs (queue_name, task_name, lock, queueing_lock, args, status, worker_id) "
            "VALUES ('stairpath', :task, :lock, :lock, '{}', 'doing', :worker)"
        ),
        {"task": task, "lock": lock, "worker": worker},
    )
    return worker


@pytest.fixture
def quiet(client, work):
    """Nothing else waits."""
    work()
    with transaction() as session:
        session.execute(text("DELETE FROM procrastinate_jobs"))


def test_jobs_of_a_dead_worker_are_taken_up_by_any_other(quiet):
    with transaction() as session:
        dying(session, "read-x", heart="16 seconds")
        dying(session, "read-y", heart="2 seconds")
    assert reconcile.take_up(15.0, None, []) == 1
    assert (jobs("read-x"), jobs("read-y")) == (["todo"], ["doing"])


def test_a_job_whose_like_waits_already_is_ended_and_nothing_raises(quiet):
    """Before, the second was refused by the queueing lock for ever, and a start that met it ended."""
    with transaction() as session:
        dying(session, "read-z")
        queue.put(session, READ, "read-z", model_id="z")
    assert reconcile.take_up(15.0, None, []) == 1
    assert jobs("read-z") == ["failed", "todo"]


def test_what_this_worker_has_by_the_queue_but_not_in_hand_is_put_back(quiet):
    with transaction() as session:
        worker = dying(session, "read-v", heart="1 second")
        dying(session, "read-w", worker=worker)
        in_hand = session.scalar(text("SELECT id FROM procrastinate_jobs WHERE lock = 'read-v'"))
    assert reconcile.is_known_alive(worker, 12.0)
    assert reconcile.take_up(15.0, worker, [in_hand]) == 1
    assert (jobs("read-v"), jobs("read-w")) == (["doing"], ["todo"])


def test_a_worker_whose_heart_stopped_knows_it(quiet):
    with transaction() as session:
        dead = dying(session, "read-u", heart="13 seconds")
    assert not reconcile.is_known_alive(dead, 12.0)
    assert not reconcile.is_known_alive(dead + 1000, 12.0)


def test_whatever_lost_its_job_is_found_by_what_the_rows_say(client, project, send, work):
    send(project, "a.ifc", simple())
    with transaction() as session:
        session.execute(text("DELETE FROM procrastinate_jobs"))
    reconcile.find_work()
    work()
    assert cards(client, project)[0]["status"] == "read"
    with transaction() as session:
        session.execute(text("UPDATE project SET wanted = wanted + 1 WHERE id = :id"), {"id": project})
        session.execute(text("UPDATE project SET walking = NULL WHERE id = :id"), {"id": project})
    for _ in range(2):
        reconcile.find_work()
        work()
    assert client.get(f"/api/projects/{project}/walking").json()["current"] is True
    assert reconcile.find_work() == 0
