"""What earlier versions kept is read as today's, at one place."""

from __future__ import annotations

import json
from typing import Any

from sqlalchemy import text

from stairpath.store.database import transaction
from stairpath.store.tables import Model, Project, SavedRoute
from stairpath.work.models import federating
from tests.samples import simple

FEDERATION = {
    "summary": 3, "origin_m": [5, 6, 0], "bounds_m": None, "building_north_deg": 0.0, "true_north_deg": None,
    "levels": [{"name": "Level 00", "elevation_m": 0.0}],
    "rooms": [{"model": 0, "global_id": "r", "number": "0.01", "name": "Hall", "level": 0, "stand": {"at_m": [1, 2, 3]}}],
}  # fmt: skip
PLACED = {
    "by": "placement", "reason": "first model of the federation", "rotation_deg": 0.0, "shift_m": [0, 0, 0],
    "matrix": [[1, 0, 0, 0], [0, 1, 0, 0], [0, 0, 1, 0], [0, 0, 0, 1]], "discipline": "ARC", "alternative": None,
}  # fmt: skip
WALKING = {"passable": ["IfcVirtualElement"], "doors_locked": True, "revision": 3, "map": {}}
WISH = {"start": {"room": 0}, "end": {"point_m": [1, 2, 3], "label": "there"}, "body": "trolley"}
ANSWER: dict[str, Any] = {
    "found": False, "version": 2, "length_m": None, "rise_m": None, "descent_m": None, "risers": None, "time_s": None,
    "points_m": [], "narrowest": None, "lowest": None, "pinches": [],
    "blocked": {"kind": "step", "nearest_m": [1, 2, 3], "components": [], "needs": "more", "found_m": 0.3, "needed_m": 0.02},
}  # fmt: skip


def test_rows_of_earlier_versions_are_read(client, project, send, work):
    model = send(project, "a.ifc", simple()).json()[0]["id"]
    work()
    with transaction() as session:
        set_project = "UPDATE project SET federation = CAST(:f AS jsonb), walking = CAST(:w AS jsonb) WHERE id = :id"
        session.execute(text(set_project), {"f": json.dumps(FEDERATION), "w": json.dumps(WALKING), "id": project})
        # A model as it was kept before what is per component had columns of its own.
        session.execute(
            text(
                "UPDATE model SET placed = CAST(:p AS jsonb), frame = frame - 'columns' - 'sorts' - 'components' WHERE id = :id"
            ),
            {"p": json.dumps(PLACED), "id": model},
        )
        keep = (
            "INSERT INTO saved_route (id, project_id, name, author, created_at, wish, answer) "
            "VALUES ('old', :id, 'Old', 'Ida Fenn', now(), CAST(:wish AS jsonb), CAST(:answer AS jsonb))"
        )
        session.execute(text(keep), {"id": project, "wish": json.dumps(WISH), "answer": json.dumps(ANSWER)})
    with transaction() as session:
        kept = session.get_one(Project, project)
        assert kept.federation is not None
        assert kept.federation.rooms == ()  # nothing told of which model they are
        assert kept.walking is not None
        assert (kept.walking.map, kept.walking.cell_m, kept.walking.doors_locked) == (None, 0.1, True)
        row = session.get_one(Model, model)
        assert row.placed is not None
        assert (row.placed.problems, row.placed.columns) == ((), None)
        route = session.get_one(SavedRoute, "old")
        assert (route.wish.body, route.answer.blocked.kind) == ("trolley", "step")
    # The page is answered before the building was put together again.
    assert client.get(f"/api/projects/{project}/federation").json()["models"] == []
    federating.bring_together(project)  # of what was read so that it can be federated, which is nothing
    head = client.get(f"/api/projects/{project}/federation").json()
    assert head["models"] == []
    assert client.get(f"/api/projects/{project}/models").json()[0]["discipline"] == "ARC"
    assert client.get(f"/api/projects/{project}/routes").json()[0]["wish"]["end"]["label"] == "there"
    client.post(f"/api/models/{model}/retry")
    work()
    assert [m["count"] for m in client.get(f"/api/projects/{project}/federation").json()["models"]] == [1]
