"""Model files: taking them in, reading them, putting them together."""
