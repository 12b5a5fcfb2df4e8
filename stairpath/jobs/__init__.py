"""Work that takes long, on the queue."""
