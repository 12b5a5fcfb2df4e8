"""Loops that cannot be arrays, compiled: arrays and numbers in, arrays and numbers out, nothing of the job's classes."""
