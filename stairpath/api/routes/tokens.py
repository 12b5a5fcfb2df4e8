"""Tokens of other programs."""

from __future__ import annotations

from fastapi import APIRouter

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.people.roles import Action
from stairpath.work.people import tokens

router = APIRouter(prefix="/api/tokens", tags=["tokens"], responses=ERROR_RESPONSES)


@router.get("")
@asks(Action.OWN_TOKENS)
def list_tokens(who: Asker) -> list[schemas.Token]:
    """The tokens with which other programs ask as oneself, the newest first."""
    return [schemas.Token.model_validate(each) for each in tokens.listed(who)]


@router.post("", status_code=201)
@asks(Action.OWN_TOKENS)
def make_token(who: Asker, wish: schemas.NewToken) -> schemas.MadeToken:
    """Make a token for another program, for some days."""
    made, secret = tokens.make(who, wish.name, wish.scope, wish.days)
    return schemas.MadeToken(token=schemas.Token.model_validate(made), secret=secret)


@router.delete("/{token_id}", status_code=204)
@asks(Action.OWN_TOKENS)
def end_token(who: Asker, token_id: str) -> None:
    """End a token."""
    tokens.end(who, token_id)
