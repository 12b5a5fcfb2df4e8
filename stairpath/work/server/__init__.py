"""Running the server: how it is, and its projects as its owners see them."""
