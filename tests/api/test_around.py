"""What is told of where a component is, what is around it, what hangs together with it, and what several share."""

import pytest

from tests.samples import Sample


def plant():
    """A wall with a door in it, three pipes of which the file connects two, and a room around it all."""
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    wall = sample.box(storey, (0, 0, 0), (6, 0.2, 3), "IfcWall", Tag="W-1")
    door = sample.box(storey, (2, 0, 0), (1, 0.2, 2), "IfcDoor", Tag="D-1")
    hole = sample.root("IfcOpeningElement", ObjectPlacement=door.ObjectPlacement)
    sample.relate("IfcRelVoidsElement", RelatingBuildingElement=wall, RelatedOpeningElement=hole)
    sample.relate("IfcRelFillsElement", RelatingOpeningElement=hole, RelatedBuildingElement=door)
    pipes = [
        sample.box(storey, (x, 0.5, 2.4), (2, 0.1, 0.1), "IfcPipeSegment", Tag=f"P-{k}")
        for k, x in enumerate((0.0, 2.0, 4.3))
    ]
    far = sample.box(storey, (0, 4, 2.4), (2, 0.1, 0.1), "IfcPipeSegment", Tag="P-9")
    sample.relate("IfcRelConnectsElements", RelatingElement=pipes[2], RelatedElement=far)
    system = sample.root("IfcDistributionSystem", Name="Supply")
    sample.relate("IfcRelAssignsToGroup", RelatedObjects=[*pipes, far], RelatingGroup=system)
    sample.room(storey, "0.01", "Hall", (0, 0.2, 0), (6, 5, 3))
    return sample


@pytest.fixture
def house(client, project, send, work):
    send(project, "QH-WTR.ifc", plant())
    work()
    return project


@pytest.fixture
def ids(client, house):
    """GlobalIds by tag, with the model's own id."""
    found = {}
    for tag in ("W-1", "D-1", "P-0", "P-1", "P-2", "P-9"):
        (hit,) = [
            each
            for each in client.get(f"/api/projects/{house}/find", params={"typed": tag}).json()["found"]
            if each["label"] == tag
        ]
        found[tag] = hit["global_id"]
        found["model"] = hit["model"]
    return found


def told(client, ids, tag, more=""):
    answer = client.get(f"/api/models/{ids['model']}/components/{ids[tag]}{more}")
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_component_says_where_it_is_and_what_it_holds(client, ids):
    pipe = told(client, ids, "P-0")
    assert pipe["place"] == "Level 00, room 0.01 Hall, 2.40 m above its floor"
    assert [ref["global_id"] for ref in told(client, ids, "W-1")["hosts"]] == [ids["D-1"]]
    assert told(client, ids, "D-1")["hosted_in"]["global_id"] == ids["W-1"]
    assert [ref["global_id"] for ref in told(client, ids, "P-2")["connected"]] == [ids["P-9"]]


def test_what_is_around_comes_with_its_distance(client, ids):
    near = told(client, ids, "P-0", "/around?within_m=0.35")
    assert [(each["label"], round(each["distance_m"], 6)) for each in near["found"]] == [("P-1", 0.0), ("W-1", 0.3)]
    assert near["count"] == 2
    answer = client.get(f"/api/models/{ids['model']}/components/{ids['P-0']}/around?within_m=-1")
    assert answer.status_code == 422


def test_a_run_follows_the_file_and_else_what_touches(client, ids):
    touching = told(client, ids, "P-0", "/run")
    assert {ref["global_id"] for ref in touching["components"]} == {ids["P-0"], ids["P-1"]}
    assert touching["by_touch"] is True
    joined = told(client, ids, "P-9", "/run")
    assert {ref["global_id"] for ref in joined["components"]} == {ids["P-2"], ids["P-9"]}
    assert joined["by_touch"] is False


def test_several_components_say_what_they_have_in_common(client, house, ids):
    def common(*tags):
        these = {"kind": "these", "of": {ids["model"]: [ids[tag] for tag in tags]}}
        answer = client.post(f"/api/projects/{house}/common", json=these)
        assert answer.status_code == 200, answer.text
        return {each["what"]: (each["value"], each["values"]) for each in answer.json()}

    assert common("P-0", "P-1")["system"] == ("Supply", 1)
    assert common("P-0", "P-1")["class"] == ("Pipe", 1)
    assert common("P-0", "W-1")["class"] == (None, 2)
    assert common("P-0", "W-1")["level"] == ("Level 00", 1)
    gone = {"kind": "these", "of": {ids["model"]: ["nobody"]}}
    assert client.post(f"/api/projects/{house}/common", json=gone).status_code == 422
