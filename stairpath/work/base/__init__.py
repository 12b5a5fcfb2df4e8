"""What every use case stands on: its unit of work, its errors, and a thing with its project."""
