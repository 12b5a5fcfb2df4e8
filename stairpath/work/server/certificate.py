"""Until when the certificate is good that browsers see: asked of the address under which people open the page."""

from __future__ import annotations

import socket
import ssl
from datetime import datetime
from urllib.parse import urlsplit

from cryptography import x509

_PATIENCE_S = 3.0


def good_until(address: str) -> datetime | None:
    """The end of the certificate that is shown at an address; None for one without TLS, or that cannot be reached from here."""
    to = urlsplit(address)
    if to.scheme != "https" or not to.hostname:
        return None
    # Its end is to be told also once it is not good any more, so nothing is checked here.
    context = ssl.SSLContext(ssl.PROTOCOL_TLS_CLIENT)
    context.check_hostname, context.verify_mode = False, ssl.CERT_NONE
    try:
        with (
            socket.create_connection((to.hostname, to.port or 443), timeout=_PATIENCE_S) as line,
            context.wrap_socket(line, server_hostname=to.hostname) as safe,
        ):
            shown = safe.getpeercert(binary_form=True)
    except OSError:
        return None
    return None if shown is None else x509.load_der_x509_certificate(shown).not_valid_after_utc
