"""Sets of equations: read in any order, checked for units, and solved together."""
