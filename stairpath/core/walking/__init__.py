"""Where somebody can walk: floors, what stands in the way, and routes."""
