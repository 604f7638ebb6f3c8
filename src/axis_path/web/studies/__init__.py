"""The list of studies."""
