"""Viewpoints in folders, standing views and their pictures."""
