"""The sampling check: points of a function that are shown over its curve."""
