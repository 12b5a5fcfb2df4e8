"""The standard's web interface for topics (BCF API 3.0), for other programs."""

from stairpath.api.bcf.app import bcf_app

__all__ = ["bcf_app"]
