"""Questions to designers: asking, noting the answer, and what is sent or printed."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, date, datetime

from stairpath.core.dates import spoken
from stairpath.core.exchange.printed import QuestionPage
from stairpath.core.review.question import NotAQuestionError, Question
from stairpath.core.texts import trimmed
from stairpath.store import blobs, kept, topics
from stairpath.store.tables import Topic, TopicNote
from stairpath.work.base.errors import UnfitError, WrongError
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.topics.topics import Listed, listed_as, there, touch


def _written(act: UnitOfWork, topic: Topic, question: Question, said: str) -> Listed:
    topic.question = question
    topics.add(act.session, TopicNote(topic_id=topic.id, author=act.who.said, text=said, changed=[]))
    touch(act, topic)
    return listed_as(act, topic)


def ask(who: Who, topic_id: str, to: str, text: str) -> Listed:
    """Ask a designer something about a topic; what was asked before stays in its history."""
    with unit_of_work(who) as act:
        topic = there(act, topic_id, hold=True)
        try:
            question = Question(trimmed(to), trimmed(text), act.who.said, datetime.now(UTC).date())
        except NotAQuestionError as error:
            raise WrongError(str(error)) from error
        return _written(act, topic, question, f"Asked {question.to or 'the designer'}: {question.text}")


def answer(who: Who, topic_id: str, text: str, by: str, on: date | None) -> Listed:
    """Note the answer to what was asked of a topic."""
    with unit_of_work(who) as act:
        topic = there(act, topic_id, hold=True)
        if topic.question is None:
            raise UnfitError(f"Nothing was asked about {topic.said.title}; ask first.")
        if not trimmed(text):
            raise WrongError("There is nothing in the answer; type it.")
        day = on or datetime.now(UTC).date()
        try:
            question = replace(
                topic.question, answer=trimmed(text), answered_by=trimmed(by) or topic.question.to, answered_on=day
            )
        except NotAQuestionError as error:
            raise WrongError(str(error)) from error
        by_whom = question.answered_by or "The designer"
        return _written(act, topic, question, f"{by_whom} answered on {spoken(day)}: {question.answer}")


def page(topic_id: str, address: str) -> QuestionPage:
    """The question of a topic as it is sent or printed; ``address`` is where the project is read."""
    with read_only() as look:
        topic = there(look, topic_id)
        if topic.question is None:
            raise UnfitError(f"Nothing was asked about {topic.said.title}; ask first.")
        asked, project = topic.question, look.project(topic.project_id)
        view = kept.viewpoint_by_id(look.session, topic.views[0]) if topic.views else None
        picture = blobs.data_of(look.session, view.large or view.picture) if view and not view.undrawn else None
        where = ", ".join(part for part in (topic.level, topic.room) if part)
        return QuestionPage(
            project.name, listed_as(look, topic).reference, topic.said.title, asked.text, asked.asked_by, asked.asked_on,
            asked.to, topic.said.description, where, f"{address}/p/{project.id}/t/{topic.id}", picture,
            asked.answer, asked.answered_by, asked.answered_on,
        )  # fmt: skip
