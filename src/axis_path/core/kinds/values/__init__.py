"""Numbers, points and lists."""
