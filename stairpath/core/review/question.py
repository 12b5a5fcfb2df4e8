"""A question to a designer that a topic waits for, and its answer."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from stairpath.core.dates import NotADayError, kept_day

LONGEST = 20_000
LONGEST_NAME = 200


class NotAQuestionError(ValueError):
    """A question or an answer that cannot be; the message says what to do."""


@dataclass(frozen=True)
class Question:
    """What was asked of whom by whom and when, and what came back."""

    to: str
    text: str
    asked_by: str
    asked_on: date
    answer: str = ""
    answered_by: str = ""
    answered_on: date | None = None

    def __post_init__(self) -> None:
        for day in (self.asked_on, self.answered_on):
            if day is not None:
                try:
                    kept_day(day)
                except NotADayError as error:
                    raise NotAQuestionError(str(error)) from error
        if not self.text.strip():
            raise NotAQuestionError("There is nothing in the question; type it.")
        if max(len(self.text), len(self.answer)) > LONGEST:
            raise NotAQuestionError(
                f"A question and its answer have at most {LONGEST:,} letters each; attach the rest."
            )
        if max(len(self.to), len(self.answered_by)) > LONGEST_NAME:
            raise NotAQuestionError(f"A name has at most {LONGEST_NAME} letters; make it shorter.")
