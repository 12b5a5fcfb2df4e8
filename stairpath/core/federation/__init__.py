"""Several models -> one building: alignment, levels, disciplines, alternatives."""
