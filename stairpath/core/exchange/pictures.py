"""What kind a picture is, by how it begins."""

from __future__ import annotations

from typing import Literal

PNG = b"\x89PNG\r\n\x1a\n"
"""How a PNG begins (ISO/IEC 15948, 5.2)."""
_JPEG = b"\xff\xd8\xff"

Form = Literal["png", "jpg"]
MEDIA: dict[Form, str] = {"png": "image/png", "jpg": "image/jpeg"}


def form_of(picture: bytes) -> Form | None:
    """Whether a picture is PNG or JPEG; None for anything else."""
    if picture.startswith(PNG):
        return "png"
    return "jpg" if picture.startswith(_JPEG) else None


def media_of(picture: bytes) -> str:
    """The media type of a picture that was kept, which is PNG where it is not JPEG."""
    return MEDIA[form_of(picture) or "png"]
