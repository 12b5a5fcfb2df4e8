"""The building as lists: what is found by a few letters, schedules, one component beside another."""
