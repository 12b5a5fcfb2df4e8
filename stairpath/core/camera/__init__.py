"""Poses, lenses, bearings, framing."""
