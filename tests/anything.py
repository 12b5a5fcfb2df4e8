"""Requests made up from the API's own document, with every check that schemathesis has."""

from __future__ import annotations

import schemathesis
from hypothesis import HealthCheck, given
from hypothesis import settings as hypothesis_settings
from schemathesis.core.failures import Failure, FailureGroup
from schemathesis.core.result import Ok

HOST = "127.0.0.1"
# A schema cannot say that two points must be apart or that a storey is there: such wishes are valid and refused.
_CONFIG = schemathesis.Config.from_dict(
    {
        "checks": {
            "positive_data_acceptance": {"expected-statuses": ["2xx", "3xx", 401, 403, 404, 409, 410, 413, 422, 429]}
        }
    }
)


def operations_of(app):
    """Every operation but the event stream, which has no end."""
    described = schemathesis.openapi.from_asgi("/api/openapi.json", app, headers={"Host": HOST}, config=_CONFIG)
    found = []
    for result in described.exclude(path_regex="events$").get_all_operations():
        assert isinstance(result, Ok)
        found.append(result.ok())
    return found


def try_operation(operation, often: hypothesis_settings, cookie: str = "") -> list[str]:
    """What is not as the document says, one line each; asked by who is signed in with a cookie, or by nobody."""
    headers = {"Host": HOST, **({"Cookie": cookie} if cookie else {})}
    seen: dict[str, str] = {}

    @given(case=operation.as_strategy())
    @hypothesis_settings(parent=often, suppress_health_check=list(HealthCheck))
    def one(case):
        try:
            case.call_and_validate(headers=headers)
        except FailureGroup as group:
            for failure in group.exceptions:
                _note(failure)
        except Failure as failure:
            _note(failure)

    def _note(failure):
        first = str(failure).strip().splitlines()
        seen.setdefault(type(failure).__name__, f"{operation.label}: {type(failure).__name__}: {' '.join(first)[:400]}")

    one()
    return list(seen.values())
