"""What every request and answer goes through."""
