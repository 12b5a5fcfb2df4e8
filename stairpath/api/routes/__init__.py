"""The addresses, each of which asks the work for one thing."""
