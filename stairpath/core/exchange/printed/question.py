"""A question to a designer: as a page to be answered on, and as a mail that is still to be sent."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from email.message import EmailMessage
from email.policy import SMTP

from stairpath.core.dates import spoken
from stairpath.core.exchange.printed.page import Paper, page_of, pdf_of, printable


@dataclass(frozen=True)
class QuestionPage:
    """A question with its topic; ``picture`` is PNG or JPEG."""

    project: str
    reference: str
    title: str
    text: str
    asked_by: str
    asked_on: date
    to: str = ""
    description: str = ""
    where: str = ""
    link: str = ""
    picture: bytes | None = None
    answer: str = ""
    answered_by: str = ""
    answered_on: date | None = None


def question_html(question: QuestionPage, paper: Paper = "A4") -> str:
    """A question as a page with space for its answer."""
    return page_of("question.html", paper, question=question)


def question_pdf(question: QuestionPage, paper: Paper = "A4") -> bytes:
    """A question as PDF, with space for its answer."""
    return pdf_of(question_html(question, paper))


def _line(text: str) -> str:
    """A text as a header can hold it."""
    return " ".join("".join(c if c.isprintable() else " " for c in text).split())


def question_mail(question: QuestionPage) -> bytes:
    """A question as a mail (RFC 5322) with its picture, which programs for mail open as one to be sent."""
    mail = EmailMessage(policy=SMTP)
    mail["Subject"] = _line(f"{question.reference} {question.title}")
    if "@" in question.to:
        mail["To"] = _line(question.to)
    mail["X-Unsent"] = "1"
    about = [f"{question.project}, {question.reference}", question.title]
    if question.where:
        about.append(question.where)
    parts = ["\n".join(about), question.text]
    if question.description:
        parts.append(question.description)
    if question.link:
        parts.append(f"The place in the model: {question.link}")
    parts.append(f"{question.asked_by}, {spoken(question.asked_on)}")
    mail.set_content("\n\n".join(parts))
    picture = printable(question.picture) if question.picture else None
    if picture is not None:
        name = _line(question.reference).replace("/", "-") or "view"
        mail.add_attachment(picture, maintype="image", subtype="jpeg", filename=f"{name}.jpg")
    return bytes(mail)
