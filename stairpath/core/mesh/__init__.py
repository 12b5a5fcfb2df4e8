"""Triangles -> chunks -> GLB."""
