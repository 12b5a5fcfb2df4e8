"""People: what they are called, and what a password may be."""
