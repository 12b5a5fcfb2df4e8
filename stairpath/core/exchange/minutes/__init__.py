"""The minutes of a meeting, as a page for the browser and as a document to be printed."""

from stairpath.core.exchange.minutes.document import Item, Minutes, Paper, html, minutes_from, pdf

__all__ = ["Item", "Minutes", "Paper", "html", "minutes_from", "pdf"]
