"""Signing in by a provider of accounts: OpenID Connect's code flow with proof of possession, by Authlib and joserfc.

OpenID Connect Core 1.0 (3.1), Discovery 1.0 (4), RFC 7636. A person is who was invited: an account alone opens nothing.
"""

from __future__ import annotations

import time
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any

import httpx
import structlog
from authlib.common.errors import AuthlibBaseError
from authlib.integrations.httpx_client import OAuth2Client
from joserfc import jwt
from joserfc.errors import JoseError
from joserfc.jwk import KeySet

from stairpath.core.people.naming import NotANameError, sign_in_name
from stairpath.settings import settings
from stairpath.store import elsewhere, people, record
from stairpath.store.elsewhere import ElsewhereTry
from stairpath.store.person_tables import Person
from stairpath.work.base.errors import MissingError, NotSignedInError, UnfitError
from stairpath.work.base.unit_of_work import WORKER, UnitOfWork, Where, Who, unit_of_work
from stairpath.work.people import post
from stairpath.work.people.secrets import fingerprint, new_secret
from stairpath.work.people.sign_ins import Signed, begin, signed

log = structlog.get_logger()

TRY_LASTS = timedelta(minutes=10)
_PATIENCE_S = 10.0
_KNOWN_S = 600.0
_ALGORITHMS = ["RS256", "ES256"]
_LEEWAY_S = 60
_AGAIN = "Signing in by {name} was not finished, or took too long. Begin anew."


@dataclass(frozen=True)
class Begun:
    """Where the browser goes now, and what it keeps until it is back."""

    address: str
    browser: str


class _Provider:
    """What the provider says of itself, asked again after a while."""

    def __init__(self) -> None:
        self._held: dict[str, Any] = {}
        self._at = -_KNOWN_S

    def look(self) -> dict[str, Any]:
        """Its addresses and its keys; UnfitError where it does not answer, or as another one."""
        issuer = settings().oidc_issuer
        if self._held.get("issuer") == issuer and time.monotonic() - self._at < _KNOWN_S:
            return self._held
        try:
            found = httpx.get(f"{issuer.rstrip('/')}/.well-known/openid-configuration", timeout=_PATIENCE_S)
            found.raise_for_status()
            held: dict[str, Any] = found.json()
            if held.get("issuer") != issuer:
                raise ValueError(f"it calls itself {held.get('issuer')}")
            keys = httpx.get(held["jwks_uri"], timeout=_PATIENCE_S)
            keys.raise_for_status()
            held["keys"] = keys.json()
        except (httpx.HTTPError, ValueError, KeyError) as error:
            log.warning("the provider of accounts does not answer as it should", reason=repr(error))
            raise UnfitError(f"{settings().oidc_name} does not answer just now. Try again, or sign in with a password.") from error  # fmt: skip
        self._held, self._at = held, time.monotonic()
        return held

    def forget(self) -> None:
        """Ask again the next time, as where its keys are others now."""
        self._at = -_KNOWN_S


PROVIDER = _Provider()


def offered() -> str:
    """What the provider of accounts is called; empty where none is set."""
    return settings().oidc_name if settings().oidc_issuer else ""


def _client() -> OAuth2Client:
    chosen = settings()
    return OAuth2Client(
        chosen.oidc_client_id, chosen.oidc_client_secret or None, scope="openid email profile",
        redirect_uri=post.address("/elsewhere"), code_challenge_method="S256", timeout=_PATIENCE_S,
        token_endpoint_auth_method="client_secret_basic" if chosen.oidc_client_secret else "none",
    )  # fmt: skip


def start(back_to: str) -> Begun:
    """Begin to sign in by the provider; ``back_to`` is the page that one came for."""
    if not offered():
        raise MissingError("There is no such address.")
    told, browser, nonce, verifier = PROVIDER.look(), new_secret(), new_secret(), new_secret()
    address, state = _client().create_authorization_url(
        told["authorization_endpoint"], nonce=nonce, code_verifier=verifier
    )
    at = datetime.now(UTC)
    with unit_of_work(WORKER) as act:
        # Only a page of this server is gone back to.
        page = back_to if back_to.startswith("/") and not back_to.startswith(("//", "/\\")) else "/"
        row = ElsewhereTry(
            state_hash=fingerprint(state), browser_hash=fingerprint(browser), nonce=nonce, verifier=verifier,
            back_to=page, ends_at=at + TRY_LASTS,
        )  # fmt: skip
        elsewhere.begin(act.session, row, at)
    return Begun(address, browser)


def finish(code: str, state: str, browser: str, where: Where) -> tuple[str, Signed, str]:
    """Sign in who comes back from the provider: the browser's secret, who it is, and the page that they came for.

    NotSignedInError where the way there was not begun in this browser, or what the provider says does not hold;
    MissingError for an account of nobody who was invited.
    """
    again = _AGAIN.format(name=offered())
    with unit_of_work(WORKER) as act:
        begun = elsewhere.take(act.session, fingerprint(state), fingerprint(browser), datetime.now(UTC))
        if begun is None:
            raise NotSignedInError(again)
        nonce, verifier, back_to = begun.nonce, begun.verifier, begun.back_to
    told = PROVIDER.look()
    try:
        answer = _client().fetch_token(
            told["token_endpoint"], code=code, code_verifier=verifier, grant_type="authorization_code"
        )
        claims = _claims(str(answer.get("id_token", "")), told, nonce)
    except (AuthlibBaseError, JoseError, httpx.HTTPError, ValueError) as error:
        PROVIDER.forget()
        log.warning("what the provider of accounts said does not hold", reason=repr(error))
        raise NotSignedInError(again) from error
    with unit_of_work(WORKER) as act:
        person = _person(act, claims)
        record.begin(act.session, Who(person.name, person_id=person.id, where=where).doer)
        record.note(act.session, record.SERVER, f"signed in by {offered()}", "sign_in", person.id, person.key)
        return begin(act, person, where), signed(person), back_to


def _claims(id_token: str, told: dict[str, Any], nonce: str) -> dict[str, Any]:
    """What an ID token says, where it is the provider's, for this application, of now and of this try (Core 1.0, 3.1.3.7)."""
    found = jwt.decode(id_token, KeySet.import_key_set(told["keys"]), algorithms=_ALGORITHMS)
    registry = jwt.JWTClaimsRegistry(
        leeway=_LEEWAY_S,
        iss={"essential": True, "value": settings().oidc_issuer},
        aud={"essential": True, "value": settings().oidc_client_id},
        exp={"essential": True},
        sub={"essential": True},
        nonce={"essential": True, "value": nonce},
    )
    registry.validate(found.claims)
    return dict(found.claims)


def _person(act: UnitOfWork, claims: dict[str, Any]) -> Person:
    """Who it is: the one who came by this account before, or else who was invited by its mail address."""
    here = f"{settings().oidc_issuer} {claims['sub']}"
    person = elsewhere.person_of(act.session, here)
    if person is not None:
        return person
    mail = str(claims.get("email", ""))
    try:
        found = people.person_by_key(act.session, sign_in_name(mail), hold=True)
    except NotANameError:
        found = None
    # An address that the provider has not looked at may be anybody's; and who has come by one account comes by no other.
    if found is None or claims.get("email_verified") is not True or found.elsewhere:
        raise MissingError(
            f"Nobody signs in here with this account of {offered()}. Ask who runs this server to invite its mail address."
        )
    found.elsewhere = here
    return found
