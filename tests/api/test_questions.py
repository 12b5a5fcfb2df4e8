"""Questions to designers: asked, sent, printed, and answered."""

from __future__ import annotations

from email import policy
from email.parser import BytesParser

import pytest

from stairpath.core.exchange.printed import question_html
from stairpath.work.topics import questions
from tests.api.test_topics import make, told
from tests.api.test_views import keep
from tests.asking import by


@pytest.fixture
def topic(client, project):
    view = keep(client, project, name="At the beam").json()["id"]
    return make(client, project, "Duct in the beam", views=[view], disciplines=["AIR", "STR"])


def test_a_question_is_asked_sent_and_answered(client, project, topic):
    url = f"/api/topics/{topic['id']}"
    wish = {"to": "Tam Kerr <tam@example.org>", "text": "May the duct pass 40 mm lower?\nGrid D."}
    asked = client.put(f"{url}/question", json=wish, headers=by("Ida Fenn")).json()
    assert (asked["question"]["asked_by"], asked["question"]["answer"]) == ("Ida Fenn", "")
    mail = client.get(f"{url}/question", params={"form": "eml"})
    assert mail.headers["content-type"].startswith("message/rfc822")
    read = BytesParser(policy=policy.default).parsebytes(mail.content)
    assert (read["Subject"], read["To"], read["X-Unsent"]) == (
        f"{topic['reference']} Duct in the beam", "Tam Kerr <tam@example.org>", "1",
    )  # fmt: skip
    body = read.get_body(("plain",)).get_content()
    assert "40 mm lower?" in body
    assert f"/p/{project}/t/{topic['id']}" in body
    assert [part.get_content_type() for part in read.iter_attachments()] == ["image/jpeg"]
    assert client.get(f"{url}/question").content.startswith(b"%PDF")
    text = question_html(questions.page(topic["id"], "http://127.0.0.1"))
    assert "May the duct pass 40 mm lower?" in text
    assert "Name, date" in text

    wish = {"text": "Yes, by 40 mm.", "by": "Tam Kerr", "on": "2026-11-20"}
    answered = client.put(f"{url}/answer", json=wish, headers=by("Ida Fenn")).json()
    assert answered["question"]["answered_on"] == "2026-11-20"
    text = question_html(questions.page(topic["id"], "http://127.0.0.1"))
    assert "Yes, by 40 mm." in text
    assert "Name, date" not in text
    assert [note["text"] for note in told(client, topic)["notes"]] == [
        "Asked Tam Kerr <tam@example.org>: May the duct pass 40 mm lower?\nGrid D.",
        "Tam Kerr answered on 20 November 2026: Yes, by 40 mm.",
    ]


def test_what_cannot_be_asked_or_answered_says_why(client, topic):
    url = f"/api/topics/{topic['id']}"
    for what, wish, status, why in (
        ("answer", {"text": "Yes"}, 409, "Nothing was asked"),
        ("question", {"text": " "}, 422, "nothing in the question"),
        ("question", {"text": "x" * 20_001}, 422, "at most 20,000 letters"),
    ):
        answer = client.put(f"{url}/{what}", json=wish)
        assert (answer.status_code, why in answer.json()["detail"]) == (status, True)
    assert client.get(f"{url}/question").status_code == 409
    client.put(f"{url}/question", json={"text": "Why?"})
    answer = client.put(f"{url}/answer", json={"text": " "})
    assert (answer.status_code, "nothing in the answer" in answer.json()["detail"]) == (422, True)


def test_a_subject_stays_one_line_whatever_the_title_says(client, project):
    topic = make(client, project, "Duct\u2028Bcc: all@example.org")
    client.put(f"/api/topics/{topic['id']}/question", json={"to": "a@b.c\r\nBcc: x@y.z", "text": "Why?"})
    mail = client.get(f"/api/topics/{topic['id']}/question", params={"form": "eml"}).content
    read = BytesParser(policy=policy.default).parsebytes(mail)
    assert read["Bcc"] is None
