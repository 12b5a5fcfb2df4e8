"""Running the server: how it is, and its projects as whoever runs it sees them."""
