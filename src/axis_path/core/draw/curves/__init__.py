"""Functions and paths as lines that are never joined across a break."""
