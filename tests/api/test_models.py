"""Model files through the API, the queue and the database."""

import io
import zipfile

import pytest
from sqlalchemy import text

from stairpath.api.schemas import KeyPlan
from stairpath.store.database import transaction
from stairpath.store.tables import Model
from stairpath.work.base.unit_of_work import WORKER, unit_of_work
from stairpath.work.models import reading
from stairpath.work.tasks import reconcile
from tests.samples import simple


def models(client, project):
    return {m["name"]: m for m in client.get(f"/api/projects/{project}/models").json()}


def test_a_file_is_read_aligned_and_ready_to_draw(client, project, send, work, building):
    sample = simple("IFC4", "mm")
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    sample.room(storey, "0.01", "Hall", (0, 0, 0), (6000, 6000, 3000))
    answer = send(project, "QH-ARC Grüße.ifc", sample)
    assert answer.status_code == 201
    assert answer.json()[0]["status"] == "waiting"
    work()
    (card,) = models(client, project).values()
    assert card["status"] == "read"
    assert card["name"] == "QH-ARC Grüße"
    assert card["components"] == 1
    assert card["discipline"] == "ARC"
    assert card["aligned_by"] == "placement"
    assert card["added_by"] == "Ida Fenn"

    federation = building(project)
    (model,) = federation["models"]
    assert model["labels"] == ["W-1"]
    (level,) = federation["levels"]
    assert (level["name"], level["elevation_m"]) == ("Level 00", 0.0)
    plan = client.get(f"/api/projects/{project}/keyplans/{level['plan']}").json()
    assert KeyPlan.model_validate(plan).model_dump() == plan
    assert [r["name"] for r in plan["rooms"]] == ["Hall"]
    assert len(plan["solid"]) == 1
    (chunk,) = model["chunks"]
    blob = client.get(f"/api/projects/{project}/blobs/{chunk['sha256']}")
    assert blob.headers["content-type"] == "model/gltf-binary"
    assert "immutable" in blob.headers["cache-control"]
    assert blob.content[:4] == b"glTF"

    component = client.get(f"/api/models/{card['id']}/components/{model['global_ids'][0]}").json()
    assert component["tag"] == "W-1"
    assert component["room"] == "0.01 Hall"
    assert component["bounds_m"] == pytest.approx([1, 2, 0, 5, 2.2, 3], abs=1e-6)

    (listed,) = [p for p in client.get("/api/projects").json() if p["id"] == project]
    assert (listed["models"], listed["components"], listed["reading"]) == (1, 1, 0)
    assert client.get(f"/api/projects/{project}/blobs/{listed['picture']}").headers["content-type"] == "image/png"


@pytest.mark.parametrize(
    ("name", "content", "words"),
    [
        ("a.ifc", b"", "is empty"),
        ("a.ifc", b"hello", "is not an IFC file"),
        ("a.ifc", simple().content()[:-200], "is cut short"),
        ("a.ifczip", b"hello", "is not a readable zip"),
    ],
)
def test_a_bad_file_is_refused_with_its_sentence(client, project, send, name, content, words):
    answer = send(project, name, content)
    assert answer.status_code == 422
    assert words in answer.json()["detail"]
    assert models(client, project) == {}


def test_a_file_over_the_limit_is_refused_while_it_arrives(client, project, send, monkeypatch):
    from stairpath.settings import settings

    monkeypatch.setattr(settings(), "largest_file_mb", 1)
    answer = send(project, "big.ifc", b"x" * (3 << 20))
    assert answer.status_code == 413
    assert "larger than the 1 MB" in answer.json()["detail"]


def test_a_zip_adds_every_model_in_it(client, project, send, work):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        archive.writestr("QH-STR.ifc", simple().content())
        archive.writestr("QH-FIR.ifc", simple().content())
    assert send(project, "all.ifczip", out.getvalue()).status_code == 201
    work()
    assert {m["discipline"] for m in models(client, project).values()} == {"STR", "FIR"}


def test_a_file_that_fails_leaves_the_others(client, project, send, work):
    broken = simple().content().replace(b"IFCPROJECT(", b"IFCPERSON(", 1)
    send(project, "good.ifc", simple())
    send(project, "bad.ifc", broken)
    work()
    cards = models(client, project)
    assert cards["good"]["status"] == "read"
    assert cards["bad"]["status"] == "failed"
    assert cards["bad"]["message"].startswith("bad.ifc ")


def test_cancel_before_it_is_read_then_read_again(client, project, send, work):
    model = send(project, "a.ifc", simple()).json()[0]["id"]
    assert client.post(f"/api/models/{model}/cancel").status_code == 204
    work()
    assert models(client, project)["a"]["status"] == "cancelled"
    again = client.post(f"/api/models/{model}/cancel")
    assert again.status_code == 409
    assert "nothing to cancel" in again.json()["detail"]
    assert client.post(f"/api/models/{model}/retry").status_code == 204
    work()
    assert models(client, project)["a"]["status"] == "read"


def test_a_newer_file_of_the_same_name_takes_the_place_of_the_older(client, project, send, work):
    first = send(project, "a.ifc", simple()).json()[0]["id"]
    work()
    second = simple()
    second.box(second.ifc.by_type("IfcBuildingStorey")[0], (0, 0, 0), (1, 1, 1))
    assert send(project, "a.ifc", second).json()[0]["id"] == first
    work()
    (card,) = models(client, project).values()
    assert card["components"] == 2


def test_the_earlier_issue_stands_until_the_newer_one_does(client, project, send, work):
    model = send(project, "QH-ARC.ifc", simple()).json()[0]["id"]
    work()

    def standing():
        (drawn,) = client.get(f"/api/projects/{project}/federation").json()["models"]
        return drawn["count"]

    second = simple()
    second.box(second.ifc.by_type("IfcBuildingStorey")[0], (0, 0, 0), (1, 1, 1))
    send(project, "QH-ARC.ifc", second)
    assert standing() == 1
    # Nothing else runs, as where other jobs come first: it is read and stands at once.
    reading.read(model)
    assert models(client, project)["QH-ARC"]["status"] == "read"
    assert standing() == 2
    send(project, "QH-ARC.ifc", simple().content().replace(b"IFCPROJECT(", b"IFCPERSON(", 1))
    work()
    assert models(client, project)["QH-ARC"]["status"] == "failed"
    assert standing() == 2


def test_a_model_left_behind_by_a_stopped_worker_is_taken_up(client, project, send, work):
    model = send(project, "a.ifc", simple()).json()[0]["id"]
    work()
    with transaction() as session:
        session.get_one(Model, model).status = "reading"
    assert reconcile.find_work() >= 1
    work()
    assert models(client, project)["a"]["status"] == "read"


def test_taking_out_and_bringing_back(client, project, send, work):
    model = send(project, "a.ifc", simple()).json()[0]["id"]
    work()
    assert client.delete(f"/api/models/{model}").status_code == 204
    work()
    assert models(client, project) == {}
    assert client.get(f"/api/projects/{project}/federation").json()["models"] == []
    taken_out = client.get(f"/api/projects/{project}/models", params={"bin": True}).json()
    assert [m["name"] for m in taken_out] == ["a"]
    client.post(f"/api/models/{model}/restore")
    work()
    assert list(models(client, project)) == ["a"]
    assert client.get(f"/api/projects/{project}/models", params={"bin": True}).json() == []


def test_only_one_alternative_stands(client, project, send, work):
    for option in "BA":  # B comes first and stands for as long as it is alone
        send(project, f"QH-S1-ALT-{option}.ifc", simple())
        work()

    def standing():
        return [m["name"] for m in client.get(f"/api/projects/{project}/federation").json()["models"] if m["stands"]]

    assert standing() == ["QH-S1-ALT-A"]
    other = models(client, project)["QH-S1-ALT-B"]["id"]
    assert client.post(f"/api/models/{other}/stand").status_code == 204
    assert standing() == ["QH-S1-ALT-B"]
    send(project, "QH-ARC.ifc", simple())
    work()
    assert standing() == ["QH-S1-ALT-B", "QH-ARC"]
    client.post(f"/api/models/{other}/retry")
    work()
    assert standing() == ["QH-S1-ALT-B", "QH-ARC"]
    plain = models(client, project)["QH-ARC"]["id"]
    assert client.post(f"/api/models/{plain}/stand").status_code == 409


def test_a_discipline_can_be_corrected_and_stays_so(client, project, send, work):
    model = send(project, "QH-STR.ifc", simple()).json()[0]["id"]
    work()
    assert client.put(f"/api/models/{model}/discipline", json={"code": "FIT"}).status_code == 204
    assert client.put(f"/api/models/{model}/discipline", json={"code": "XYZ"}).status_code == 422
    client.post(f"/api/models/{model}/retry")
    work()
    card = models(client, project)["QH-STR"]
    assert (card["discipline"], card["discipline_set"]) == ("FIT", True)
    client.put(f"/api/models/{model}/discipline", json={"code": None})
    work()
    assert models(client, project)["QH-STR"]["discipline"] == "STR"


def test_the_queue_holds_a_job_once(client, project, send):
    for _ in range(3):
        with unit_of_work(WORKER) as act:
            act.put_federation(project)
    with transaction() as session:
        waiting = session.scalar(
            text("SELECT count(*) FROM procrastinate_jobs WHERE status = 'todo' AND args->>'project_id' = :id"),
            {"id": project},
        )
    assert waiting == 1
