"""The open exchange format for topics and viewpoints (BCF), versions 2.1 and 3.0."""

from stairpath.core.exchange.bcf.reading import Opened, opened
from stairpath.core.exchange.bcf.versions import VERSIONS, Version
from stairpath.core.exchange.bcf.writing import Writing, writing

__all__ = ["VERSIONS", "Opened", "Version", "Writing", "opened", "writing"]
