"""IFC file -> storeys, spaces, grids, components, properties, triangles."""
