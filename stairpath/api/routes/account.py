"""What somebody sets of themselves: initials, colour and unit, password and second factor."""

from __future__ import annotations

import json

from fastapi import APIRouter, Request, Response

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks, keep_secret
from stairpath.api.http.downloads import named
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.people.roles import Action
from stairpath.work.people import account, leaving, second_factor

router = APIRouter(prefix="/api/account", tags=["people"], responses=ERROR_RESPONSES)


@router.get("")
@asks(Action.OWN_SIGN_IN)
def get_account(who: Asker) -> schemas.Account:
    """Who asks, as they see themselves."""
    return schemas.Account.model_validate(account.look(who))


@router.put("")
@asks(Action.OWN_SIGN_IN)
def change_account(who: Asker, wish: schemas.AccountWish) -> schemas.Account:
    """Set one's own initials, colour and unit."""
    return schemas.Account.model_validate(account.change(who, account.AccountWish(**wish.model_dump())))


@router.put("/password")
@asks(Action.OWN_SIGN_IN)
def change_password(
    who: Asker, request: Request, response: Response, wish: schemas.PasswordWish
) -> schemas.SignedPerson:
    """Set another password; everywhere else one is signed out, and one's tokens end."""
    secret, person = account.change_password(who, wish.old, wish.new)
    keep_secret(request, response, secret)
    return schemas.SignedPerson.model_validate(person)


@router.post("/second-factor")
@asks(Action.OWN_SIGN_IN)
def begin_second_factor(who: Asker, wish: schemas.PasswordGiven) -> schemas.SecondFactorBegun:
    """A secret for an authenticator; it counts once a code of it was typed."""
    return schemas.SecondFactorBegun.model_validate(second_factor.begin(who, wish.password))


@router.post("/second-factor/confirm")
@asks(Action.OWN_SIGN_IN)
def confirm_second_factor(who: Asker, wish: schemas.CodeGiven) -> schemas.RecoveryCodes:
    """Have codes asked for from now on; the recovery codes, told this once."""
    return schemas.RecoveryCodes(codes=second_factor.confirm(who, wish.code))


@router.post("/second-factor/codes")
@asks(Action.OWN_SIGN_IN)
def make_recovery_codes(who: Asker, wish: schemas.PasswordGiven) -> schemas.RecoveryCodes:
    """New recovery codes, told this once; those before are good no more."""
    return schemas.RecoveryCodes(codes=second_factor.new_codes(who, wish.password))


@router.post("/second-factor/remove", status_code=204)
@asks(Action.OWN_SIGN_IN)
def remove_second_factor(who: Asker, wish: schemas.PasswordGiven) -> None:
    """Be asked for no codes any more."""
    second_factor.remove(who, wish.password)


@router.get("/kept", response_class=Response, responses={200: {"content": {"application/json": {}}}})
@asks(Action.OWN_SIGN_IN)
def get_what_is_kept(who: Asker) -> Response:
    """All that is kept of who asks, as a file: themselves, sign-ins, projects, what names them, and the record of it."""
    text = json.dumps(leaving.kept(who), ensure_ascii=False, indent=1, default=str)
    return Response(text, media_type="application/json", headers=named("what-is-kept-of-me.json"))


@router.post("/remove", status_code=204)
@asks(Action.OWN_SIGN_IN)
def remove_oneself(who: Asker, request: Request, response: Response, wish: schemas.PasswordGiven) -> None:
    """Be removed: one signs in no more, and whatever names one names a former member."""
    leaving.remove_oneself(who, wish.password)
    keep_secret(request, response, "")
