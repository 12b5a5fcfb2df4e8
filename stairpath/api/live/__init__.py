"""What open pages hear: events, and those who follow."""
