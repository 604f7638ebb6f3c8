"""Lines: written, renamed, moved, marked, removed."""
