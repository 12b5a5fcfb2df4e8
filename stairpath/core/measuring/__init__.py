"""How far apart things are, how much room there is, and what overlaps."""
