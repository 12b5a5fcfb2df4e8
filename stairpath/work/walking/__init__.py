"""Walking through the building: the walk map, stops, landings and routes."""
