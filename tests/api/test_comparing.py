"""A newer issue of a model beside the one before, and two alternatives."""

import base64

import numpy as np
import pytest

from tests.samples import Sample


def house(*, moved_m=0.0, name="Wall", left_out=(), new_ids=False):
    """Four walls of fixed GlobalIds, of which one can be moved, one called otherwise, and some left out."""
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    ids = [None] * 4 if new_ids else [f"0000000000000000000{k:03d}" for k in range(4)]
    for k in range(4):
        if k in left_out:
            continue
        at = (10.0 * k + (moved_m if k == 1 else 0.0), 0, 0)
        sample.box(storey, at, (4, 0.2, 3), global_id=ids[k], Name=name if k == 2 else "Wall", Tag=f"W-{k}")
    return sample


@pytest.fixture
def model(client, project, send, work):
    send(project, "QH-ARC.ifc", house(left_out=(3,)))
    work()
    return client.get(f"/api/projects/{project}/models").json()[0]["id"]


def changes(client, model, **query):
    answer = client.get(f"/api/models/{model}/changes", params=query)
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_without_an_earlier_issue_there_is_nothing_to_compare_with(client, model):
    answer = client.get(f"/api/models/{model}/changes")
    assert answer.status_code == 404
    assert "add a newer file first" in answer.json()["detail"]
    assert client.get(f"/api/models/{model}/issues").json() == []


def test_a_newer_issue_keeps_the_one_before_and_says_what_changed(client, project, model, send, work):
    send(project, "QH-ARC.ifc", house(moved_m=0.035, name="Partition", left_out=(0,)))
    work()
    (issue,) = client.get(f"/api/models/{model}/issues").json()
    assert (issue["file_name"], issue["components"]) == ("QH-ARC.ifc", 3)
    found = changes(client, model)
    assert found["matched_by"] == "global_id"
    assert [each["label"] for each in found["added"]] == ["W-3"]
    assert [each["label"] for each in found["removed"]] == ["W-0"]
    (moved,) = found["moved"]
    assert (moved["label"], moved["by_m"]) == ("W-1", pytest.approx([0.035, 0, 0], abs=1e-4))
    (changed,) = found["changed"]
    assert changed["fields"] == [{"name": "name", "old": "Wall", "new": "Partition"}]
    assert (found["same"], found["reshaped"]) == (0, [])
    assert changes(client, model, issue=issue["id"]) == found


def test_what_is_not_read_yet_is_not_compared(client, project, model, send, work):
    send(project, "QH-ARC.ifc", house(name="Partition", left_out=(3,)))
    answer = client.get(f"/api/models/{model}/changes")
    assert (answer.status_code, "Compare when it is ready" in answer.json()["detail"]) == (409, True)
    work()
    assert [each["label"] for each in changes(client, model)["changed"]] == ["W-2"]


def test_the_same_file_again_and_reading_it_again_make_no_issue(client, project, model, send, work):
    send(project, "QH-ARC.ifc", house(left_out=(3,)))
    work()
    client.post(f"/api/models/{model}/retry")
    work()
    assert len(client.get(f"/api/models/{model}/issues").json()) <= 1


def test_new_global_ids_throughout_are_said_and_matched_by_place(client, project, model, send, work):
    send(project, "QH-ARC.ifc", house(left_out=(3,), new_ids=True))
    work()
    found = changes(client, model)
    assert (found["matched_by"], found["same"], found["added"], found["removed"]) == ("place", 3, [], [])


def test_alternatives_are_compared_with_each_other(client, project, send, work):
    send(project, "QH-ARC-S1-ALT-A.ifc", house())
    send(project, "QH-ARC-S1-ALT-B.ifc", house(left_out=(0,)))
    work()
    ids = {each["name"]: each["id"] for each in client.get(f"/api/projects/{project}/models").json()}
    found = changes(client, ids["QH-ARC-S1-ALT-B"], other=ids["QH-ARC-S1-ALT-A"])
    assert [each["label"] for each in found["removed"]] == ["W-0"]
    assert found["removed"][0]["ref"]["model"] == ids["QH-ARC-S1-ALT-A"]
    assert found["same"] == 3


def test_what_is_gone_is_told_as_it_stood(client, project, model, send, work):
    send(project, "QH-ARC.ifc", house(moved_m=0.035, left_out=(0,)))
    work()
    answer = client.get(f"/api/models/{model}/gone").json()
    (removed,) = answer["removed"]["components"]
    (moved,) = answer["moved"]["components"]
    assert (removed["label"], moved["label"]) == ("W-0", "W-1")
    assert np.subtract(removed["high_m"], removed["low_m"]) == pytest.approx([4, 0.2, 3], abs=1e-4)
    assert np.subtract(moved["low_m"], removed["low_m"]) == pytest.approx([10, 0, 0], abs=1e-4)
    corners = np.frombuffer(base64.b64decode(answer["removed"]["triangles"]), "<f4").reshape(-1, 3)
    assert corners.min(axis=0) == pytest.approx(removed["low_m"], abs=1e-4)
    assert client.get(f"/api/models/{model}/gone", params={"issue": "nowhere"}).status_code == 404
