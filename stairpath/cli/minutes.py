"""Minutes of a meeting as a document."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Annotated

import typer

from stairpath.cli.common import AsJson, app, print_document, stop


@app.command()
def minutes(
    file: Annotated[Path, typer.Argument(help="a JSON file that says who was there and what was noted")],
    pdf: Annotated[Path | None, typer.Option(help="the PDF to write")] = None,
    html: Annotated[Path | None, typer.Option(help="the HTML page to write")] = None,
    paper: Annotated[str, typer.Option(help="A4 or Letter")] = "A4",
    as_json: AsJson = False,
) -> None:
    """Write the minutes of a meeting."""
    from stairpath.core.exchange.printed import PAPERS, minutes_from
    from stairpath.core.exchange.printed import html as page_of
    from stairpath.core.exchange.printed import pdf as pdf_of
    from stairpath.core.review.meeting import NotAMeetingError

    sheet = next((each for each in PAPERS if each.casefold() == paper.casefold()), None)
    if sheet is None:
        stop(f"There is no paper {paper}; choose {' or '.join(PAPERS)}.")
    if pdf is None and html is None:
        stop("Nothing says where the minutes are to be written; give --pdf or --html.")
    try:
        said = json.loads(file.read_text(encoding="utf-8"))
    except (OSError, ValueError):
        stop(f"{file} is no JSON file; give one that says who was there and what was noted.")
    try:
        held = minutes_from(said, file.parent)
    except NotAMeetingError as error:
        stop(str(error))
    try:
        if html is not None:
            html.write_text(page_of(held, sheet), encoding="utf-8")
        if pdf is not None:
            pdf.write_bytes(pdf_of(held, sheet))
    except OSError as error:
        stop(f"The minutes cannot be written ({error.strerror}); choose another place.")
    if as_json:
        points = sum(len(item.points) for item in held.items)
        print_document({"title": held.title, "topics": len(held.items), "notes": points, "paper": sheet})
