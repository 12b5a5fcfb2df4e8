"""Topics of findings when their check is run again: proposed as solved, as open again, or with another measure."""

from __future__ import annotations

from tests.api.test_tasks import ask, check, findings, house, row  # noqa: F401
from tests.api.test_topics import make


def again(client, task, work, **more):
    assert client.post(f"/api/tasks/{task}/again", json={"wish": check(**more)}).status_code == 200
    work()


def proposed(client, task):
    answer = client.get(f"/api/tasks/{task}/proposals")
    assert answer.status_code == 200, answer.text
    return answer.json()


def of_finding(client, task, kind):
    """What the page keeps with a topic of a finding."""
    found = findings(client, task)
    ids = [part["global_id"] for part in found["components"]]
    (one,) = [f for f in found["findings"] if f["worst"]["kind"] == kind]
    worst = one["worst"]
    return {
        "check": task,
        "pairs": [[ids[p["b"]], ids[p["a"]]] for p in one["pairs"]],
        "measured": {name: worst[name] for name in ("kind", "depth_m", "distance_m")},
    }


def test_what_became_of_findings_is_proposed_and_nobody_is_overruled(client, house, work):  # noqa: F811
    task = ask(client, house, check(clearance_m=0.1))
    work()
    near = make(client, house, "Too near", finding=of_finding(client, task, "clearance"))
    deep = make(client, house, "Overlap", finding=of_finding(client, task, "overlap"))
    made = of_finding(client, task, "overlap")["pairs"]
    assert sorted(map(sorted, deep["pairs"])) == sorted(map(sorted, made))
    assert make(client, house, "Of nothing")["pairs"] == []
    assert proposed(client, task) == []
    # Asked for less, the near one is found no more.
    again(client, task, work, clearance_m=0.0)
    (gone,) = proposed(client, task)
    assert (gone["topic"], gone["what"], gone["now"], gone["status"]) == (near["id"], "gone", None, "open")
    assert gone["was"]["distance_m"] > 0.04
    assert client.get(f"/api/topics/{near['id']}").json()["topic"]["said"]["status"] == "open"
    client.patch(f"/api/topics/{near['id']}", json={"status": "settled"})
    assert proposed(client, task) == []
    again(client, task, work, clearance_m=0.1)
    (back,) = proposed(client, task)
    assert (back["topic"], back["what"], back["status"]) == (near["id"], "back", "settled")
    assert back["now"]["distance_m"] == back["was"]["distance_m"]
    client.patch(f"/api/topics/{near['id']}", json={"status": "open"})
    assert proposed(client, task) == []
    client.delete(f"/api/topics/{deep['id']}")
    assert client.get("/api/tasks/none/proposals").status_code == 404
    assert row(client, house, task)["status"] == "done"
