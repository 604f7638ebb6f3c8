"""A line as it is stored, and what its text means by itself."""
