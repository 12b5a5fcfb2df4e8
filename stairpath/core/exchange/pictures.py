"""Pictures that come from somewhere: what kind one is, how large it may be, and a small one of it for lists."""

from __future__ import annotations

import io
from typing import Literal

PNG = b"\x89PNG\r\n\x1a\n"
"""How a PNG begins (ISO/IEC 15948, 5.2)."""
_JPEG = b"\xff\xd8\xff"

Form = Literal["png", "jpg"]
MEDIA: dict[Form, str] = {"png": "image/png", "jpg": "image/jpeg"}
_NAMES: dict[Form, str] = {"png": "PNG", "jpg": "JPEG"}

MOST_PIXELS = 40_000_000
"""A picture with more takes seconds and gigabytes to unpack, wherever it is shown."""
SMALL_PX = 720
"""How wide a picture for lists is; one up to twice as wide is shown as it is."""


class NotAPictureError(ValueError):
    """Bytes that are not taken as a picture; the message says why and what to do."""


def form_of(picture: bytes) -> Form | None:
    """Whether a picture is PNG or JPEG; None for anything else."""
    if picture.startswith(PNG):
        return "png"
    return "jpg" if picture.startswith(_JPEG) else None


def media_of(picture: bytes) -> str:
    """The media type of a picture that was kept, which is PNG where it is not JPEG."""
    return MEDIA[form_of(picture) or "png"]


def size_of(picture: bytes) -> tuple[int, int] | None:
    """The width and height in pixels as the picture's head says, without unpacking it; None where it has none."""
    from PIL import Image, UnidentifiedImageError

    form = form_of(picture)
    if form is None:
        return None
    try:
        with Image.open(io.BytesIO(picture), formats=[_NAMES[form]]) as image:
            size = image.size
            image.verify()
            return size
    except Image.DecompressionBombError:
        return MOST_PIXELS, MOST_PIXELS
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError):
        return None


def checked(picture: bytes, what: str = "picture") -> Form:
    """The form of a picture that can be shown; NotAPictureError for one that is damaged, of another kind or too large."""
    form = form_of(picture)
    if form is None:
        raise NotAPictureError(f"The {what} is neither PNG nor JPEG. Send it as one of them.")
    size = size_of(picture)
    if size is None:
        raise NotAPictureError(f"The {what} is damaged. Save it again as PNG or JPEG.")
    if size[0] * size[1] > MOST_PIXELS:
        raise NotAPictureError(
            f"The {what} has more than {MOST_PIXELS // 1_000_000} million pixels, which is the limit. Make it smaller."
        )
    return form


def small(picture: bytes) -> bytes | None:
    """A picture of the same form for lists; None where it is no wider than they need, or cannot be unpacked."""
    from PIL import Image

    form = checked(picture)
    try:
        with Image.open(io.BytesIO(picture), formats=[_NAMES[form]]) as image:
            if image.width <= 2 * SMALL_PX:
                return None
            image.draft("RGB", (2 * SMALL_PX, 2 * SMALL_PX))
            image.thumbnail((SMALL_PX, image.height), Image.Resampling.LANCZOS, reducing_gap=3.0)
            out = io.BytesIO()
            image.save(out, _NAMES[form])
    except (OSError, SyntaxError, ValueError):
        return None
    return out.getvalue()
