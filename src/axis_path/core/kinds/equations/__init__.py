"""Sets of equations."""
