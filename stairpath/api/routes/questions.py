"""Questions to designers."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter, Request
from fastapi.responses import Response

from stairpath.api import schemas
from stairpath.api.http.caller import Editor
from stairpath.api.http.door import asks
from stairpath.api.http.downloads import How, named
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.api.routes.topics import topic_shape
from stairpath.core.exchange.printed import question_mail, question_pdf
from stairpath.core.people.roles import Action
from stairpath.work.topics import questions

router = APIRouter(prefix="/api", tags=["topics"], responses=ERROR_RESPONSES)

_KINDS = {"pdf": "application/pdf", "eml": "message/rfc822"}


@router.put("/topics/{topic_id}/question")
@asks(Action.CHANGE_TOPIC)
def ask_question(who: Editor, topic_id: str, wish: schemas.NewQuestion) -> schemas.Topic:
    """Ask a designer something about a topic."""
    return topic_shape(questions.ask(who, topic_id, wish.to, wish.text))


@router.put("/topics/{topic_id}/answer")
@asks(Action.CHANGE_TOPIC)
def note_answer(who: Editor, topic_id: str, wish: schemas.NewAnswer) -> schemas.Topic:
    """Note the answer to what was asked of a topic."""
    return topic_shape(questions.answer(who, topic_id, wish.text, wish.by, wish.on))


@router.get(
    "/topics/{topic_id}/question",
    response_class=Response,
    responses={200: {"content": {kind: {} for kind in _KINDS.values()}, "description": "The question."}},
)
@asks(Action.LOOK)
def get_question(
    request: Request, topic_id: str, form: Literal["pdf", "eml"] = "pdf", paper: Literal["A4", "Letter"] = "A4"
) -> Response:
    """The question of a topic, as a page to be answered on or as a mail that is still to be sent."""
    page = questions.page(topic_id, str(request.base_url).rstrip("/"))
    data = question_pdf(page, paper) if form == "pdf" else question_mail(page)
    how: How = "inline" if form == "pdf" else "attachment"
    return Response(data, media_type=_KINDS[form], headers=named(f"{page.reference} {page.title[:60]}.{form}", how))
