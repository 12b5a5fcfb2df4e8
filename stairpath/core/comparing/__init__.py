"""Two issues of a model: what was added, removed, moved, reshaped and changed."""
