"""Programs of others: which may ask people, what one asks for, and what people let them do."""

from __future__ import annotations

from fastapi import APIRouter

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.people.roles import Action
from stairpath.work.people import programs

router = APIRouter(prefix="/api", tags=["programs"], responses=ERROR_RESPONSES)


@router.get("/server/programs")
@asks(Action.RUN_SERVER)
def list_programs() -> list[schemas.Program]:
    """The programs that may ask people to let them act for them."""
    return [schemas.Program.model_validate(each) for each in programs.listed()]


@router.post("/server/programs", status_code=201)
@asks(Action.RUN_SERVER)
def add_program(who: Asker, wish: schemas.NewProgram) -> schemas.Program:
    """Let a program ask people."""
    return schemas.Program.model_validate(programs.add(who, wish.name, wish.address))


@router.delete("/server/programs/{program_id}", status_code=204)
@asks(Action.RUN_SERVER)
def remove_program(who: Asker, program_id: str) -> None:
    """Let a program ask nobody any more; what it was let do ends."""
    programs.remove(who, program_id)


@router.post("/programs/ask")
@asks(Action.OWN_TOKENS)
def see_what_is_asked(who: Asker, wish: schemas.ProgramAsks) -> schemas.ProgramAsked:
    """What a program asks who is signed in for."""
    return schemas.ProgramAsked.model_validate(programs.asked(who, _given(wish)))


@router.post("/programs/answer")
@asks(Action.OWN_TOKENS)
def answer_program(who: Asker, wish: schemas.ProgramAnswer) -> schemas.ProgramAnswered:
    """Let a program act for who is signed in, or not."""
    return schemas.ProgramAnswered(address=programs.answer(who, _given(wish), wish.allowed))


def _given(wish: schemas.ProgramAsks) -> dict[str, str]:
    return {name: value for name, value in wish.model_dump(exclude={"allowed"}).items() if value}


@router.get("/programs")
@asks(Action.OWN_TOKENS)
def list_granted(who: Asker) -> list[schemas.Granted]:
    """What one lets programs do, the newest first."""
    return [schemas.Granted.model_validate(each) for each in programs.granted(who)]


@router.delete("/programs/{grant_id}", status_code=204)
@asks(Action.OWN_TOKENS)
def end_granted(who: Asker, grant_id: str) -> None:
    """Let a program do nothing any more."""
    programs.end(who, grant_id)
