"""Letting programs of others act for people: the code flow of OAuth 2.0 with proof of possession, by Authlib.

RFC 6749 (4.1, 6), RFC 7636 (S256 alone), RFC 8252 (7.3: the port of a loopback address is the program's own).
"""

from __future__ import annotations

import ipaddress
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any
from urllib.parse import urlsplit

from authlib.oauth2.rfc6749 import AuthorizationServer, OAuth2Request, grants
from authlib.oauth2.rfc6749.errors import InvalidRequestError
from authlib.oauth2.rfc6749.requests import BasicOAuth2Payload
from authlib.oauth2.rfc6750 import BearerTokenGenerator
from authlib.oauth2.rfc7636 import CodeChallenge

from stairpath.store import people, programs, record
from stairpath.store.person_tables import Person, SignIn
from stairpath.store.programs import Program, ProgramGrant
from stairpath.work.base.unit_of_work import WORKER, UnitOfWork, Who, unit_of_work
from stairpath.work.people.secrets import fingerprint, new_secret

SCOPES = ("look", "comment", "coordinate")
CODE_LASTS = timedelta(minutes=2)
TOKEN_LASTS = timedelta(hours=1)
LASTS = timedelta(days=90)
# Whether a connection is safe is the proxy's business and the server's; Authlib would ask the address for https.
_HERE = "https://here"


@dataclass(frozen=True)
class _Client:
    """A program as Authlib asks for it: without a secret, by the code flow alone."""

    row: Program

    def check_redirect_uri(self, redirect_uri: str) -> bool:
        return same_address(redirect_uri, self.row.address)

    def get_default_redirect_uri(self) -> str:
        return self.row.address

    def check_response_type(self, response_type: str) -> bool:
        return response_type == "code"

    def check_grant_type(self, grant_type: str) -> bool:
        return grant_type in ("authorization_code", "refresh_token")

    def check_endpoint_auth_method(self, method: str, endpoint: str) -> bool:
        return method == "none"

    def check_client_secret(self, client_secret: str) -> bool:
        return False

    def get_allowed_scope(self, scope: str | None) -> str:
        return next((each for each in reversed(SCOPES) if each in (scope or "").split()), SCOPES[0])


@dataclass(frozen=True)
class _Held:
    """A code or a refresh token as Authlib asks for it."""

    row: ProgramGrant

    def get_redirect_uri(self) -> str:
        return self.row.redirect_uri

    def get_scope(self) -> str:
        return self.row.scope

    def check_client(self, client: _Client) -> bool:
        return self.row.program_id == client.row.id


def same_address(asked: str, kept: str) -> bool:
    """Whether an address to answer to is the kept one; on loopback at any port.

    >>> same_address("http://127.0.0.1:51234/back", "http://127.0.0.1/back"), same_address("https://a.example", "https://b.example")
    (True, False)
    """
    if asked == kept:
        return True
    a, b = urlsplit(asked), urlsplit(kept)
    try:
        loopback = ipaddress.ip_address(b.hostname or "").is_loopback
        a_port = a.port
    except ValueError:
        return False
    plain = a.scheme == b.scheme == "http" and a_port != 0 and not (a.username or a.password or a.fragment)
    return loopback and plain and (a.hostname, a.path, a.query) == (b.hostname, b.path, b.query)


class _CodeGrant(grants.AuthorizationCodeGrant):  # type: ignore[misc]
    TOKEN_ENDPOINT_AUTH_METHODS = ("none",)

    def save_authorization_code(self, code: str, request: OAuth2Request) -> None:
        at, payload = datetime.now(UTC), request.payload
        self.server.act.session.add(
            ProgramGrant(
                program_id=request.client.row.id, person_id=request.user.id, scope=request.scope, ends_at=at + LASTS,
                code_hash=fingerprint(code), code_ends_at=at + CODE_LASTS, challenge=payload.data["code_challenge"],
                redirect_uri=payload.redirect_uri or "",
            )
        )  # fmt: skip

    def query_authorization_code(self, code: str, client: _Client) -> _Held | None:
        session = self.server.act.session
        row = programs.by_code(session, fingerprint(code))
        if row is None or row.program_id != client.row.id:
            return None
        if row.code_used:
            # Somebody has it who should not: nothing that came of it is good any more (RFC 6749, 4.1.2).
            programs.end_grant(session, row.id)
            return None
        return _Held(row) if row.code_ends_at > datetime.now(UTC) else None

    def delete_authorization_code(self, authorization_code: _Held) -> None:
        authorization_code.row.code_used = True

    def authenticate_user(self, authorization_code: _Held) -> Person:
        self.server.grant = authorization_code.row
        return authorization_code.row.person


class _Challenge(CodeChallenge):  # type: ignore[misc]
    DEFAULT_CODE_CHALLENGE_METHOD = "S256"
    SUPPORTED_CODE_CHALLENGE_METHOD = ("S256",)

    def get_authorization_code_challenge(self, authorization_code: _Held) -> str:
        return authorization_code.row.challenge

    def get_authorization_code_challenge_method(self, authorization_code: _Held) -> str:
        return "S256"


class _RefreshGrant(grants.RefreshTokenGrant):  # type: ignore[misc]
    TOKEN_ENDPOINT_AUTH_METHODS = ("none",)
    INCLUDE_NEW_REFRESH_TOKEN = True

    def authenticate_refresh_token(self, refresh_token: str) -> _Held | None:
        session, hashed = self.server.act.session, fingerprint(refresh_token)
        row = programs.by_refresh(session, hashed)
        if row is None or row.ends_at <= datetime.now(UTC):
            return None
        if row.refresh_hash != hashed:
            programs.end_grant(session, row.id)  # as with a code that is brought twice
            return None
        return _Held(row)

    def authenticate_user(self, refresh_token: _Held) -> Person:
        self.server.grant = refresh_token.row
        return refresh_token.row.person

    def revoke_old_credential(self, refresh_token: _Held) -> None:
        """The new one has taken its place already."""


Answer = tuple[int, Any, Mapping[str, str]]


class _Server(AuthorizationServer):  # type: ignore[misc]
    """Authlib's server over one unit of work."""

    def __init__(self, act: UnitOfWork) -> None:
        super().__init__(scopes_supported=SCOPES)
        self.act = act
        self.grant: ProgramGrant | None = None
        self.register_grant(_CodeGrant, [_Challenge(required=True)])
        self.register_grant(_RefreshGrant)
        self.register_token_generator(
            "default",
            BearerTokenGenerator(
                lambda **_: new_secret(), lambda **_: new_secret(), lambda *_: int(TOKEN_LASTS.total_seconds())
            ),
        )

    def query_client(self, client_id: str) -> _Client | None:
        row = programs.program(self.act.session, client_id)
        return None if row is None else _Client(row)

    def save_token(self, token: Mapping[str, Any], request: OAuth2Request) -> None:
        grant = self.grant
        assert grant is not None
        at = datetime.now(UTC)
        grant.refresh_before, grant.refresh_hash = grant.refresh_hash, fingerprint(token["refresh_token"])
        people.add(
            self.act.session,
            SignIn(
                person_id=grant.person_id, grant_id=grant.id, secret_hash=fingerprint(token["access_token"]), made_at=at,
                used_at=at, ends_at=min(at + TOKEN_LASTS, grant.ends_at), token=grant.program.name, scope=token["scope"],
            ),
        )  # fmt: skip

    def send_signal(self, name: str, *args: Any, **kwargs: Any) -> None:
        """Nobody listens."""

    def create_oauth2_request(self, request: Mapping[str, str]) -> OAuth2Request:
        if not all(each.isascii() and each.isprintable() for each in request.values()):
            raise InvalidRequestError("a value has a letter that it cannot have")  # RFC 6749, appendix A
        made = OAuth2Request("POST", _HERE, headers={})
        made.payload = BasicOAuth2Payload(dict(request))
        # Authlib looks for the program's name here.
        made._body = dict(request)
        return made

    def handle_response(self, status: int, body: Any, headers: Any) -> Answer:
        return status, body, dict(headers)


def asked(who: Who, wish: Mapping[str, str]) -> tuple[Program, str]:
    """What a program asks somebody for: the program, and how far it wants to go. Raises Authlib's OAuth2Error."""
    with unit_of_work(who) as act:
        server = _Server(act)
        person = people.person_by_id(act.session, who.person_id or "")
        grant = server.get_consent_grant(dict(wish), person)
        return grant.client.row, grant.request.scope


def answered(who: Who, wish: Mapping[str, str], allowed: bool) -> str:
    """Answer a program; the address, with the code or the refusal, where the browser goes now. Raises OAuth2Error."""
    with unit_of_work(who) as act:
        server = _Server(act)
        person = people.person_by_id(act.session, who.person_id or "")
        # What asks as it may not is sent nowhere.
        grant = server.get_consent_grant(dict(wish), person)
        request = grant.request
        _, _, headers = server.create_authorization_response(request, person if allowed else None, grant)
        if allowed:
            called = request.client.row.name if request.client else ""
            record.note(
                act.session, record.SERVER, "let a program act for them", "sign_in", who.person_id or "", called
            )
        return str(headers["Location"])


def token(form: Mapping[str, str]) -> Answer:
    """A token for a code or a refresh token: status, body and heads of the answer."""
    with unit_of_work(WORKER) as act:
        programs.drop_ended(act.session, datetime.now(UTC))
        try:
            answer: Answer = _Server(act).create_token_response(dict(form))
        except InvalidRequestError as error:
            return 400, dict(error.get_body()), {}
        return answer
