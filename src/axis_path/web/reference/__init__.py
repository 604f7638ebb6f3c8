"""The Reference: every function and constant with its meaning, for searching and for completion."""
