"""What is printed: a page of HTML that carries its pictures, fonts and style with it, and the same as PDF."""

from __future__ import annotations

import base64
import io
from functools import cache
from pathlib import Path
from typing import Literal, get_args

import jinja2
from PIL import Image, UnidentifiedImageError

from stairpath.core.dates import spoken
from stairpath.core.palette import INK, PAPER

Paper = Literal["A4", "Letter"]
PAPERS: tuple[Paper, ...] = get_args(Paper)
_HERE = Path(__file__).parent
_WIDEST_PX = 1400


def printable(picture: bytes) -> bytes | None:
    """A picture as JPEG, no larger than print needs; None for one that is none."""
    try:
        with Image.open(io.BytesIO(picture)) as image:
            image.load()
            plain = image.convert("RGB")
    except (UnidentifiedImageError, OSError, Image.DecompressionBombError, ValueError):
        return None
    if plain.width > _WIDEST_PX:
        plain = plain.resize((_WIDEST_PX, round(plain.height * _WIDEST_PX / plain.width)))
    out = io.BytesIO()
    plain.save(out, "JPEG", quality=88)
    return out.getvalue()


def _address(picture: bytes) -> str | None:
    small = printable(picture)
    return None if small is None else f"data:image/jpeg;base64,{base64.b64encode(small).decode()}"


@cache
def _pages() -> jinja2.Environment:
    found = jinja2.Environment(loader=jinja2.FileSystemLoader(_HERE), autoescape=True, undefined=jinja2.StrictUndefined)
    found.filters.update(spoken=spoken, printable=_address)
    return found


def page_of(template: str, paper: Paper, **given: object) -> str:
    """A page of a template with what it is given."""
    fonts = {
        path.stem: base64.b64encode(path.read_bytes()).decode() for path in sorted((_HERE / "fonts").glob("*.woff2"))
    }
    style = f":root {{ --ink: {INK}; --paper: {PAPER}; }}\n" + (_HERE / "page.css").read_text(encoding="utf-8")
    return _pages().get_template(template).render(paper=paper, fonts=fonts, style=style, **given)


def pdf_of(page: str) -> bytes:
    """A page as PDF."""
    # It takes two seconds to load.
    import weasyprint
    from weasyprint.urls import URLFetcher

    # Pages carry all that they need with them; nothing is fetched from elsewhere, whatever somebody wrote into them.
    document = weasyprint.HTML(string=page, url_fetcher=URLFetcher(allowed_protocols=("data",)))
    return bytes(document.write_pdf())
