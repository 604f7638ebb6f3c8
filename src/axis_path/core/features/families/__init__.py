"""Families: a line for several values of a slider at once."""
