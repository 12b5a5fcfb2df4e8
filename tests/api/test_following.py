"""Following: who is there, who presents, what the others see, handing over, and coming late."""

from __future__ import annotations

import json
from contextlib import contextmanager

import pytest
from starlette.websockets import WebSocketDisconnect

from tests.api.test_exchange import EYE

VIEW = {"version": 2, "eye": EYE, "rules": [], "picked": {"kind": "these", "of": {}}}


@contextmanager
def seat(client, project, name):
    with client.websocket_connect(f"ws://127.0.0.1/api/projects/{project}/together?name={name}") as socket:
        yield socket


def heard(socket, kind):
    """The next that is told of a kind; what comes before it is passed over."""
    while True:
        said = json.loads(socket.receive_text())
        if said["kind"] == kind:
            return said


def here(socket, people):
    """Who is there, once so many are."""
    while True:
        said = heard(socket, "here")
        if len(said["people"]) == people:
            return said


def tell(socket, **said):
    socket.send_text(json.dumps(said))


def test_everybody_sees_who_is_there_and_who_follows(client, project):
    with seat(client, project, "Mara%20Oake") as mara:
        assert [p["name"] for p in here(mara, 1)["people"]] == ["Mara Oake"]
        with seat(client, project, "Tam%20Kerr") as tam:
            both = here(mara, 2)
            assert {p["name"] for p in both["people"]} == {"Mara Oake", "Tam Kerr"}
            assert here(tam, 2)["you"] != both["you"]
            tell(tam, kind="follows", on=True)
            assert [p["name"] for p in heard(mara, "here")["people"] if p["follows"]] == ["Tam Kerr"]
        assert len(here(mara, 1)["people"]) == 1


def test_who_follows_sees_the_presenters_eye_view_and_pointer_also_when_coming_late(client, project):
    with seat(client, project, "Mara") as mara, seat(client, project, "Tam") as tam:
        here(tam, 2)
        # Nobody presents yet: what is told is not passed on.
        tell(mara, kind="looks", eye=EYE)
        tell(mara, kind="present", on=True)
        assert heard(tam, "here")["presenter"]
        tell(mara, kind="sees", view=VIEW, did="hid 14 ceilings")
        said = heard(tam, "sees")
        assert (said["name"], said["did"], said["view"]["eye"]["eye_m"]) == ("Mara", "hid 14 ceilings", EYE["eye_m"])
        tell(mara, kind="points", at_m=[1, 2, 3])
        assert heard(tam, "points")["at_m"] == [1, 2, 3]
        tell(mara, kind="looks", eye={**EYE, "eye_m": [9, 9, 9]})
        assert heard(tam, "looks")["eye"]["eye_m"] == [9, 9, 9]
        with seat(client, project, "Wen") as wen:
            assert heard(wen, "sees")["did"] == "hid 14 ceilings"
            assert heard(wen, "looks")["eye"]["eye_m"] == [9, 9, 9]


def test_presenting_is_handed_over_and_ends_when_who_presents_goes(client, project):
    with seat(client, project, "Tam") as tam:
        mine = here(tam, 1)["you"]
        with seat(client, project, "Mara") as mara:
            here(mara, 2)
            tell(mara, kind="present", on=True)
            tell(mara, kind="hand", to=mine)
            while heard(tam, "here")["presenter"] != mine:
                pass
            # Who presents no more is not passed on.
            tell(mara, kind="looks", eye=EYE)
            tell(tam, kind="looks", eye={**EYE, "angle_deg": 33})
            assert heard(mara, "looks")["eye"]["angle_deg"] == 33
            tell(tam, kind="hand", to="nobody")
            tell(tam, kind="did", text="looked around")
            assert heard(mara, "did") == {"kind": "did", "text": "looked around", "by": mine, "name": "Tam"}
        tell(tam, kind="present", on=True)
    with seat(client, project, "Wen") as wen:
        assert here(wen, 1)["presenter"] is None


def test_what_is_not_understood_does_no_harm(client, project):
    with seat(client, project, "Mara") as mara, seat(client, project, "Tam") as tam:
        here(tam, 2)
        for odd in ("", "{", '{"kind":"dance"}', '{"kind":"looks","eye":{"eye_m":["x"]}}', "[]"):
            mara.send_text(odd)
        tell(mara, kind="did", text="is still there")
        assert heard(tam, "did")["text"] == "is still there"


def test_strangers_and_projects_that_are_not_there_are_refused(client, project):
    with (
        pytest.raises(WebSocketDisconnect) as gone,
        client.websocket_connect("ws://127.0.0.1/api/projects/none/together?name=x"),
    ):
        pass
    assert gone.value.code == 4404
    path = f"ws://127.0.0.1/api/projects/{project}/together?name=x"
    elsewhere = {"origin": "http://evil.example"}
    with pytest.raises(WebSocketDisconnect) as stranger, client.websocket_connect(path, headers=elsewhere):
        pass
    assert stranger.value.code == 1008
