"""The standard's web interface for topics (BCF API 3.0), for other programs."""

from stairpath.api.openly.app import openly_app

__all__ = ["openly_app"]
