"""Planes through the building, and the drawings they make."""
