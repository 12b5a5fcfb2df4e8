"""A provider of accounts to try signing in with: OpenID Connect's code flow, for made-up people who need no password.

``python -m stairpath.standin.provider --port 8500`` serves it on loopback. It is for trying alone: anybody is anybody there.
"""

from __future__ import annotations

import base64
import hashlib
import html
import secrets
import time
from dataclasses import dataclass, field
from typing import Annotated, Any
from urllib.parse import parse_qsl, urlencode

import typer
import uvicorn
from fastapi import FastAPI, Request
from fastapi.responses import HTMLResponse, JSONResponse, RedirectResponse, Response
from joserfc import jwt
from joserfc.jwk import RSAKey

CLIENT_ID = "stair-path"
_LASTS_S = 300
_BITS = 2048


@dataclass(frozen=True)
class Account:
    """Somebody with an account; the mail address may not be theirs for sure."""

    sub: str
    name: str
    email: str
    verified: bool = True


PEOPLE = (
    Account("1001", "Mara Oake", "mara@quillhaven.example"),
    Account("1002", "Ida Fenn", "ida@quillhaven.example"),
    Account("1003", "Nobody Known", "nobody@quillhaven.example"),
    Account("1004", "Ida Fenn, not looked at", "ida@quillhaven.example", verified=False),
)


@dataclass
class Provider:
    """What it holds: its key, and codes that it gave out."""

    issuer: str
    key: RSAKey = field(
        default_factory=lambda: RSAKey.generate_key(_BITS, {"kid": "one", "use": "sig", "alg": "RS256"})
    )
    codes: dict[str, tuple[Account, dict[str, str]]] = field(default_factory=dict)
    extra: dict[str, Any] = field(default_factory=dict)
    """Claims that a test has it say otherwise."""

    def token(self, account: Account, nonce: str) -> str:
        """An ID token."""
        now = int(time.time())
        claims = {
            "iss": self.issuer, "sub": account.sub, "aud": CLIENT_ID, "iat": now, "exp": now + _LASTS_S, "nonce": nonce,
            "name": account.name, "email": account.email, "email_verified": account.verified, **self.extra,
        }  # fmt: skip
        return jwt.encode({"alg": "RS256", "kid": "one"}, claims, self.key)


def provider_app(issuer: str) -> FastAPI:
    """The provider as an application; ``issuer`` is its own address."""
    app, held = FastAPI(docs_url=None, redoc_url=None, openapi_url=None), Provider(issuer)
    app.state.provider = held

    @app.get("/.well-known/openid-configuration")
    def configuration() -> dict[str, Any]:
        return {
            "issuer": issuer,
            "authorization_endpoint": f"{issuer}/authorize",
            "token_endpoint": f"{issuer}/token",
            "jwks_uri": f"{issuer}/keys",
            "response_types_supported": ["code"],
            "subject_types_supported": ["public"],
            "id_token_signing_alg_values_supported": ["RS256"],
            "code_challenge_methods_supported": ["S256"],
        }

    @app.get("/keys")
    def keys() -> dict[str, Any]:
        return {"keys": [held.key.as_dict(private=False)]}

    @app.get("/authorize")
    def authorize(request: Request) -> Response:
        asked = dict(request.query_params)
        chosen = next((each for each in PEOPLE if each.sub == asked.get("as")), None)
        if chosen is None:
            rows = "".join(
                f'<p><a href="?{html.escape(urlencode({**asked, "as": each.sub}))}">{html.escape(each.name)}</a></p>'
                for each in PEOPLE
            )
            return HTMLResponse(f"<title>Accounts to try with</title><h1>Who are you?</h1>{rows}")
        code = secrets.token_urlsafe()
        held.codes[code] = chosen, asked
        back = urlencode({"code": code, "state": asked.get("state", "")})
        return RedirectResponse(f"{asked['redirect_uri']}?{back}", 302)

    @app.post("/token")
    async def token(request: Request) -> Response:
        form = dict(parse_qsl((await request.body()).decode()))
        account, asked = held.codes.pop(form.get("code", ""), (None, {}))
        digest = hashlib.sha256(form.get("code_verifier", "").encode()).digest()
        proof = base64.urlsafe_b64encode(digest).decode().rstrip("=")
        if account is None or proof != asked.get("code_challenge") or form.get("redirect_uri") != asked["redirect_uri"]:
            return JSONResponse({"error": "invalid_grant"}, 400)
        return JSONResponse(
            {
                "access_token": secrets.token_urlsafe(), "token_type": "Bearer", "expires_in": _LASTS_S,
                "id_token": held.token(account, asked.get("nonce", "")),
            }
        )  # fmt: skip

    return app


def main(port: Annotated[int, typer.Option(help="the port on loopback")] = 8500) -> None:
    """Serve the provider until stopped."""
    uvicorn.run(provider_app(f"http://127.0.0.1:{port}"), host="127.0.0.1", port=port, log_level="warning")


if __name__ == "__main__":
    typer.run(main)
