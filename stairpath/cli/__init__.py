"""Every core capability without a server; JSON on stdout, progress on stderr.

What is heavy is imported by the command that needs it, so that a command starts quickly.
"""

from stairpath.cli import cutting, looking, measuring, minutes, models, register, topics, walking
from stairpath.cli.common import app

__all__ = ["app", "cutting", "looking", "measuring", "minutes", "models", "register", "topics", "walking"]
