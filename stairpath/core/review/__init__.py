"""Viewpoints, topics, references, markups."""
