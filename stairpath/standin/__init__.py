"""Small stand-ins for services of others, for trying the application without them."""
