"""Speed, each figure a ratio against a named reference in the same run."""
