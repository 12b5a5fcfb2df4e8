"""What is printed and sent: the minutes of a meeting, and a question to a designer."""

from stairpath.core.exchange.printed.minutes import Item, Minutes, html, minutes_from, pdf
from stairpath.core.exchange.printed.page import PAPERS, Paper
from stairpath.core.exchange.printed.question import QuestionPage, question_html, question_mail, question_pdf

__all__ = [
    "PAPERS",
    "Item",
    "Minutes",
    "Paper",
    "QuestionPage",
    "html",
    "minutes_from",
    "pdf",
    "question_html",
    "question_mail",
    "question_pdf",
]
