"""Tables of values."""
