"""Meetings: the agenda, notes against topics, who was there, and the minutes of it."""

from __future__ import annotations

from tests.api.test_exchange import kept_view
from tests.api.test_topics import make, told
from tests.asking import by


def begin(client, project, **more):
    answer = client.post(f"/api/projects/{project}/meetings", json=more, headers=by("Mara Oake"))
    assert answer.status_code == 201, answer.text
    return answer.json()


def note(client, meeting, topic, text, status=201, **more):
    body = {"topic": topic["id"], "text": text, **more}
    answer = client.post(f"/api/meetings/{meeting['id']}/points", json=body, headers=by("Mara Oake"))
    assert answer.status_code == status, answer.text
    return answer.json()


def test_a_meeting_has_its_agenda_its_folder_and_who_began_it(client, project):
    late = make(client, project, "Late", due="2026-01-01")
    make(client, project, "Quiet")
    meeting = begin(client, project, held_on="2026-11-27")
    assert (meeting["title"], meeting["present"]) == ("Meeting of 27 November 2026", ["Mara Oake"])
    assert (meeting["topics"][0], meeting["whys"]) == (late["id"], ["overdue", "new"])
    (folder,) = client.get(f"/api/projects/{project}/folders").json()
    assert (folder["id"], folder["name"]) == (meeting["folder"], meeting["title"])
    # Begun twice on a day, it has the same folder.
    assert begin(client, project, held_on="2026-11-27")["folder"] == folder["id"]


def test_what_is_decided_counts_for_the_topic_and_comes_first_next_time(client, project):
    topic, other = make(client, project, "Duct in the beam"), make(client, project, "Pipe")
    first = begin(client, project, title="First")
    point = note(client, first, topic, " Lower it by 40 mm. ", decision=True, who="Tam Kerr", until="2026-12-04")
    assert (point["text"], point["decision"], point["until"]) == ("Lower it by 40 mm.", True, "2026-12-04")
    note(client, first, other, "Looked at.")
    after = told(client, topic)
    assert (after["topic"]["said"]["assigned_to"], after["topic"]["said"]["due"]) == ("Tam Kerr", "2026-12-04")
    assert after["notes"][0]["text"] == "First, decided: Lower it by 40 mm. (Tam Kerr until 4 December 2026)"
    second = begin(client, project, title="Second", chosen=[other["id"]])
    assert list(zip(second["topics"], second["whys"], strict=True)) == [
        (topic["id"], "left open"),
        (other["id"], "chosen"),
    ]
    client.patch(f"/api/topics/{topic['id']}", json={"status": "settled"})
    assert begin(client, project, title="Third")["topics"] == []


def test_order_people_and_end_are_changed_and_notes_taken_away_with_undo(client, project):
    one, two = make(client, project, "One"), make(client, project, "Two")
    meeting = begin(client, project)
    at = f"/api/meetings/{meeting['id']}"
    present = {"add": [" Tam Kerr ", "Tam Kerr", "", "Ida Fenn"], "drop": ["Mara Oake"]}
    after = client.patch(at, json={"place": {"topic": two["id"], "before": one["id"]}, "present": present}).json()
    assert (after["topics"], after["present"]) == ([two["id"], one["id"]], ["Tam Kerr", "Ida Fenn"])
    # Whoever adds knows nothing of what another added, and takes nothing of it away.
    assert client.patch(at, json={"present": {"add": ["Mara Oake"]}}).json()["present"][-1] == "Mara Oake"
    assert client.patch(at, json={"topics": {"drop": [two["id"]]}}).json()["topics"] == [one["id"]]
    assert client.patch(at, json={"topics": {"add": [two["id"]]}}).json()["whys"] == ["new", "chosen"]
    assert client.patch(at, json={"ended": True}).json()["ended_at"]
    assert "Reopen it" in note(client, meeting, one, "Too late.", status=409)["detail"]
    assert client.patch(at, json={"ended": False}).json()["ended_at"] is None
    assert client.patch(at, json={"title": " "}).status_code == 422
    point = note(client, meeting, one, "Ask the designer.")
    assert note(client, meeting, one, " ", status=422)["detail"].startswith("There is nothing in the note")
    noted = f"/api/meeting-points/{point['id']}"
    corrected = client.patch(noted, json={"text": "Ask Tam.", "who": "Tam Kerr", "until": "2026-12-04"}).json()
    assert (corrected["text"], corrected["decision"], corrected["until"]) == ("Ask Tam.", False, "2026-12-04")
    assert client.patch(noted, json={"until": None}).json()["until"] is None
    assert "nothing in the note" in client.patch(noted, json={"text": " "}).json()["detail"]
    said = client.get(f"/api/topics/{one['id']}").json()["notes"]
    assert any(each["text"].endswith("corrected: Ask Tam. (Tam Kerr until 4 December 2026)") for each in said)
    assert client.delete(f"/api/meeting-points/{point['id']}").status_code == 204
    assert client.get(f"/api/meetings/{meeting['id']}").json()["points"] == []
    assert client.post(f"/api/meeting-points/{point['id']}/restore").status_code == 204
    assert len(client.get(f"/api/meetings/{meeting['id']}").json()["points"]) == 1
    assert client.delete(f"/api/meetings/{meeting['id']}").status_code == 204
    assert client.get(f"/api/meetings/{meeting['id']}").status_code == 410
    assert client.post(f"/api/meetings/{meeting['id']}/restore").status_code == 204


def test_the_minutes_are_of_what_was_dealt_with_with_the_view_of_the_meeting(client, house, building):
    (model,) = building(house)["models"]
    view = kept_view(client, house, {model["id"]: [model["global_ids"][3]]})
    topic = make(client, house, "Gap <b>too narrow</b>", views=[view["id"]])
    make(client, house, "Dealt with another time")
    meeting = begin(client, house, title="Meeting 14")
    note(client, meeting, topic, "Widen it to 900 mm.", decision=True, who="Tam Kerr", until="2026-12-04")
    page = client.get(f"/api/meetings/{meeting['id']}/minutes", params={"form": "html", "paper": "Letter"})
    assert page.status_code == 200
    assert "default-src 'none'" in page.headers["content-security-policy"]
    for text in (
        "Meeting 14",
        "Gap &lt;b&gt;too narrow",
        "Widen it to 900 mm.",
        "Tam Kerr",
        "4 December 2026",
        "data:image/jpeg",
    ):
        assert text in page.text
    assert f"/p/{house}/t/{topic['id']}" in page.text
    assert "Dealt with another time" in page.text.partition("<h2>Not dealt with</h2>")[2]
    assert "Dealt with another time" not in page.text.partition("<h2>Not dealt with</h2>")[0]
    document = client.get(f"/api/meetings/{meeting['id']}/minutes")
    assert document.content.startswith(b"%PDF")
    assert "Meeting%2014.pdf" in document.headers["content-disposition"]


def test_who_is_absent_the_hours_and_the_next_meeting_are_kept_and_taken_away(client, project):
    meeting = begin(client, project)

    def put(status=200, **body):
        answer = client.patch(f"/api/meetings/{meeting['id']}", json=body)
        assert answer.status_code == status, answer.text
        return answer.json()

    assert put(absent={"add": ["Tam Kerr", " Ida Fenn "]})["absent"] == ["Tam Kerr", "Ida Fenn"]
    # Nobody is both: who comes late is present, who was noted by mistake is absent.
    late = put(present={"add": ["Tam Kerr"]})
    assert (late["present"], late["absent"]) == (["Mara Oake", "Tam Kerr"], ["Ida Fenn"])
    wrong = put(absent={"add": ["Mara Oake"]})
    assert (wrong["present"], wrong["absent"]) == (["Tam Kerr"], ["Ida Fenn", "Mara Oake"])
    held = put(hours={"from_time": "09:30", "to_time": "11:00"}, next={"on": "2026-12-04", "at": "10:00"})
    assert [held[key] for key in ("from_time", "to_time", "next_on", "next_time")] == [
        "09:30:00", "11:00:00", "2026-12-04", "10:00:00",
    ]  # fmt: skip
    page = client.get(f"/api/meetings/{meeting['id']}/minutes", params={"form": "html"}).text
    assert "from 09:30 to 11:00" in page
    assert put(next={})["next_on"] is None
    assert "Next meeting" not in client.get(f"/api/meetings/{meeting['id']}/minutes", params={"form": "html"}).text
    put(422, hours={"from_time": "half past"})
    put(422, next={"on": "1066-10-14"})


def test_a_topic_of_another_project_is_not_dealt_with(client, project):
    other = client.post("/api/projects", json={"name": "Other"}).json()["id"]
    strange = make(client, other, "Elsewhere")
    meeting = begin(client, project)
    assert "no such topic" in note(client, meeting, strange, "x", status=404)["detail"]
    assert client.patch(f"/api/meetings/{meeting['id']}", json={"topics": {"add": [strange["id"]]}}).status_code == 422
    assert client.get("/api/meetings/gone").status_code == 404


def test_whom_one_may_mean_are_those_who_were_here_or_were_named(client, project):
    make(client, project, "Pipe", assigned_to="Tam Kerr")
    topic = make(client, project, "Duct")
    client.post(f"/api/projects/{project}/visits", headers=by("Ned Pell"))
    meeting = begin(client, project)
    client.patch(f"/api/meetings/{meeting['id']}", json={"absent": {"add": ["Ada Quill"]}})
    note(client, meeting, topic, "Lower it.", who="Bo Hale")
    client.put(f"/api/topics/{topic['id']}/question", json={"to": "Uma Rye", "text": "How?"}, headers=by("Ida Fenn"))
    found = client.get(f"/api/projects/{project}/people").json()
    assert {"Tam Kerr", "Ned Pell", "Ada Quill", "Bo Hale", "Uma Rye", "Ida Fenn", "Mara Oake"} <= set(found)
    assert found == sorted(found)
    assert "" not in found
