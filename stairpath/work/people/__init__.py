"""People: signing in and out, and links that are good once."""
