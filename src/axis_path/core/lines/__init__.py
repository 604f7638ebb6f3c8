"""A line as it is kept, and what its text means by itself."""
