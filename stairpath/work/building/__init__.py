"""The building as it is drawn, asked and listed."""
