"""Functions of x and y, as maps of levels."""
