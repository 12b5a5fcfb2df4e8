"""What long work needs of the building, and keeping its results."""
